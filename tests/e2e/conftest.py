"""The application as ``make demo`` starts it, and headless Chromium in front of it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page

from demo.chromium import ARGUMENTS, EXECUTABLE
from demo.running import Running


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


@pytest.fixture
def page(context: BrowserContext, base_url: str) -> Iterator[Page]:
    """A page on which no script may fail and no policy be broken."""
    troubles: list[str] = []
    opened = context.new_page()
    opened.set_default_timeout(8000)
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
    assert troubles == []


@pytest.fixture
def fresh(browser: Browser, base_url: str) -> Iterator[Page]:
    """A second visitor's page, with nothing in its storage."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=base_url)
    yield context.new_page()
    context.close()
