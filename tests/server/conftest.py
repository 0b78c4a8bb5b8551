"""Clients of the API: signed-in people, and the token of the page."""

from __future__ import annotations

import json
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.test import Client

from tests.conftest import design_of


class Api:
    """JSON in, JSON out, with the page's token on every change."""

    def __init__(self, user: User | None) -> None:
        self.client = Client(enforce_csrf_checks=True)
        if user:
            self.client.force_login(user)
        self.client.get("/api/session")

    @property
    def token(self) -> str:
        return self.client.cookies["csrftoken"].value

    def __call__(self, method: str, path: str, body: Any = None, **more: Any) -> tuple[int, Any]:
        response = self.client.generic(
            method,
            f"/api{path}",
            json.dumps(body) if body is not None else "",
            content_type="application/json",
            headers={"x-csrftoken": self.token},
            **more,
        )
        self.last = response
        kind = response.headers["Content-Type"]
        return response.status_code, json.loads(response.content) if "json" in kind else response


@pytest.fixture(autouse=True)
def quick_passwords(settings: Any) -> None:
    """Hashing a password well takes as long as all the rest of a test."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


@pytest.fixture
def designer(db: None) -> Api:
    return Api(User.objects.create_user("designer", password="paper-and-ink"))


@pytest.fixture
def other(db: None) -> Api:
    return Api(User.objects.create_user("other", password="paper-and-ink"))


@pytest.fixture
def stranger(db: None) -> Api:
    return Api(None)


@pytest.fixture
def blank() -> dict[str, Any]:
    return design_of({"kind": "blank", "id": "a"}).model_dump(mode="json")
