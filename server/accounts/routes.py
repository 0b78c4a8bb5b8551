"""Signing in and out."""

from __future__ import annotations

from typing import Annotated

from django.contrib.auth import authenticate, login, logout
from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel, Field

from server.accounts.middleware import SIGNED_OUT
from server.accounts.people import demo_user, is_demo
from stileblade.errors import StilebladeError

router = Router(tags=["session"])


class Session(BaseModel):
    """name is empty where nobody is signed in."""

    name: str
    demo: bool


class Credentials(BaseModel):
    name: Annotated[str, Field(max_length=150)]
    password: Annotated[str, Field(max_length=200)]


def _session(request: HttpRequest) -> Session:
    name = request.user.username if isinstance(request.user, User) else ""
    return Session(name=name, demo=is_demo())


@router.get("/session", response=Session)
def get_session(request: HttpRequest) -> Session:
    return _session(request)


@router.post("/session", response=Session)
def sign_in(request: HttpRequest, credentials: Credentials) -> Session:
    user = authenticate(request, username=credentials.name, password=credentials.password)
    if user is None:
        raise StilebladeError(
            "Name and password do not go together.", hint="Check both.", code="sign-in"
        )
    login(request, user)
    return _session(request)


@router.post("/session/demo", response=Session)
def sign_in_demo(request: HttpRequest) -> Session:
    """In the demo alone: sign in as the demo designer."""
    if not is_demo():
        raise StilebladeError("This is not the demo.", code="sign-in")
    login(request, demo_user(), "django.contrib.auth.backends.ModelBackend")
    return _session(request)


@router.delete("/session", response=Session)
def sign_out(request: HttpRequest) -> Session:
    logout(request)
    request.session[SIGNED_OUT] = True
    return _session(request)
