"""Signing in and out."""

from __future__ import annotations

import base64
import hmac
from typing import Annotated, Any

from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel, Field

from server.accounts import lane
from server.accounts.lane import LaneFullError
from server.accounts.middleware import SIGNED_OUT
from server.accounts.people import (
    address_of,
    demo_user,
    is_demo,
    locked_out,
    signed_in,
    too_many_signing_in,
)
from server.accounts.quotas import NEARLY, Use, use_of
from stileblade.errors import StilebladeError
from stileblade.fields import PlainText

router = Router(tags=["session"])


class Session(BaseModel):
    """name is empty where nobody is signed in; sign_up: whether visitors may make an account.
    place: tells the server's data from that of others at the same address."""

    name: str
    place: str
    demo: bool
    sign_up: bool


class Account(BaseModel):
    """A person's name, and how much they use of what they may. ``nearly``: the names of quotas that are nearly full."""

    name: str
    use: list[Use]
    nearly: list[str]


class DraftKey(BaseModel):
    """A key of 256 bits, in Base64."""

    key: str


class Credentials(BaseModel):
    name: Annotated[PlainText, Field(max_length=150)]
    password: Annotated[str, Field(max_length=200)]


def _session(request: HttpRequest) -> Session:
    name = request.user.username if isinstance(request.user, User) else ""
    return Session(name=name, place=settings.PLACE, demo=is_demo(), sign_up=settings.SIGN_UP)


@router.get("/session", response=Session)
def get_session(request: HttpRequest) -> Session:
    return _session(request)


@router.get("/account", response=Account)
def get_account(request: HttpRequest) -> Account:
    user = signed_in(request)
    use = use_of(user)
    return Account(
        name=user.username, use=use, nearly=[u.name for u in use if u.used >= NEARLY * u.most]
    )


@router.get("/account/draft-key", response=DraftKey)
def get_draft_key(request: HttpRequest) -> DraftKey:
    """The person's own key, with which a browser seals unsaved work when they sign out."""
    person = f"drafts of person {signed_in(request).pk}"
    key = hmac.digest(settings.SECRET_KEY.encode(), person.encode(), "sha256")
    return DraftKey(key=base64.b64encode(key).decode())


@router.post("/session", response=Session)
def sign_in(request: HttpRequest, credentials: Credentials) -> Any:
    try:
        with lane.LANE.comparing(address_of(request)):
            user = authenticate(request, username=credentials.name, password=credentials.password)
    except LaneFullError:
        return too_many_signing_in()
    if user is None and getattr(request, "axes_locked_out", False):
        return locked_out(request)
    if user is None:
        raise StilebladeError(
            "Name and password do not go together.", hint="Check both.", code="sign-in"
        )
    login(request, user)
    return _session(request)


@router.post("/accounts", response=Session)
def sign_up(request: HttpRequest, wish: Credentials) -> Any:
    """An account of one's own, where the server was started with that allowed."""
    if not settings.SIGN_UP:
        raise StilebladeError(
            "Accounts are made by whoever looks after this server.",
            hint="Ask there for one.",
            code="sign-up",
        )
    people = get_user_model()
    user = people(username=wish.name.strip())
    try:
        with lane.LANE.comparing(address_of(request)):
            user.set_password(wish.password)
    except LaneFullError:
        return too_many_signing_in()
    try:
        user.full_clean(exclude=["password"])
        validate_password(wish.password, user)
        with transaction.atomic():
            user.save()
    except ValidationError as error:
        said = " ".join(error.messages)
        raise StilebladeError(said, hint="Choose another.", code="sign-up") from error
    login(request, user, "django.contrib.auth.backends.ModelBackend")
    return _session(request)


@router.post("/session/demo", response=Session)
def sign_in_demo(request: HttpRequest) -> Session:
    """In the demo alone: sign in as the demo designer."""
    if not is_demo():
        raise StilebladeError("This is not the demo.", code="sign-in")
    logout(request)
    request.user = demo_user()
    return _session(request)


@router.delete("/session", response=Session)
def sign_out(request: HttpRequest) -> Session:
    logout(request)
    request.session[SIGNED_OUT] = True
    return _session(request)
