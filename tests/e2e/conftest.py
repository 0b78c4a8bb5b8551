"""The application as ``make demo`` starts it, and headless Chromium in front of it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from playwright.sync_api import (
    APIRequestContext,
    Browser,
    BrowserContext,
    Page,
    Playwright,
    expect,
)

from demo.chromium import ARGUMENTS, EXECUTABLE
from demo.running import Running

# other programs may be at work on this machine: what takes that long does not come
PATIENCE_MS = 20_000
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Running]:
    running = Running(tmp_path_factory.mktemp("data"))
    yield running
    running.end()


@pytest.fixture(scope="session")
def base_url(server: Running) -> str:
    return server.address


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    return {"executable_path": EXECUTABLE, "args": ARGUMENTS}


@pytest.fixture(scope="session")
def browser_context_args(base_url: str) -> dict[str, Any]:
    return {
        "viewport": {"width": 1280, "height": 800},
        "accept_downloads": True,
        "base_url": base_url,
    }


def _designs(request: APIRequestContext) -> set[int]:
    request.get("/")  # signs in, as the demo does
    return {design["id"] for design in request.get("/api/designs").json()}


@pytest.fixture(scope="session")
def there_before(playwright: Playwright, base_url: str) -> set[int]:
    request = playwright.request.new_context(base_url=base_url)
    found = _designs(request)
    request.dispose()
    assert len(found) > 10
    return found


def remove_new_designs(context: BrowserContext, there_before: set[int]) -> None:
    """The list is the same for every test, and does not grow through the run."""
    request = context.request
    added = _designs(request) - there_before
    cookies = {c.get("name"): c.get("value") for c in context.cookies()}
    headers = {"x-csrftoken": cookies.get("csrftoken") or ""}
    for number in added:
        request.patch(f"/api/designs/{number}", data={"binned": True}, headers=headers)
        request.delete(f"/api/designs/{number}", headers=headers)


@pytest.fixture
def page(context: BrowserContext, there_before: set[int]) -> Iterator[Page]:
    """A page on which no script may fail and no policy be broken."""
    troubles: list[str] = []
    opened = context.new_page()
    opened.set_default_timeout(PATIENCE_MS)
    opened.on("pageerror", lambda error: troubles.append(str(error)))
    opened.on(
        "console",
        lambda message: (
            troubles.append(message.text)
            if message.type == "error" and "Failed to load resource" not in message.text
            else None
        ),
    )
    yield opened
    opened.close()
    remove_new_designs(context, there_before)
    assert troubles == []


@pytest.fixture
def fresh(browser: Browser, base_url: str) -> Iterator[Page]:
    """A second visitor's page, with nothing in its storage."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=base_url)
    yield context.new_page()
    context.close()
