"""Who is asking."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from ninja.errors import AuthenticationError

from server.config.problems import problem
from stileblade.words import say

DEMO_NAME = "demo"


def demo_user() -> User:
    """The demo designer, made when first needed, without a password."""
    user, made = get_user_model().objects.get_or_create(username=DEMO_NAME)
    if made:
        user.set_unusable_password()
        user.save()
    return user


def signed_in(request: HttpRequest) -> User:
    """The signed-in user; AuthenticationError where there is none."""
    user = request.user
    if not isinstance(user, User):
        raise AuthenticationError
    return user


def locked_out(request: HttpRequest, *args: Any, **more: Any) -> HttpResponse:
    """The answer after too many wrong passwords."""
    minutes = int(settings.AXES_COOLOFF_TIME.total_seconds() // 60)
    return problem(
        429,
        "sign-in",
        "There were too many wrong passwords for this name.",
        say(
            "Try again in {minutes} minutes, or ask whoever looks after this server.",
            minutes=minutes,
        ),
    )


def address_of(request: HttpRequest) -> str:
    """Where the request comes from; the proxy's word for it where one is trusted."""
    return str(request.META.get("REMOTE_ADDR", ""))


def too_many_signing_in() -> HttpResponse:
    """The answer where no more passwords are compared for now."""
    return problem(
        429,
        "busy",
        "Too many people are signing in at the moment.",
        "Try again in a minute. People who are signed in are not affected.",
    )


def is_demo() -> bool:
    return bool(settings.DEMO)
