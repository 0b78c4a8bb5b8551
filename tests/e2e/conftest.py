"""The application as ``make demo`` starts it, and headless Chromium in front of it."""

from __future__ import annotations

import os
import re
import signal
import subprocess
import sys
import threading
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page

ROOT = Path(__file__).parents[2]


class Server:
    """``manage.py serve`` with a data folder of its own, ended by its process id."""

    def __init__(self, data: Path, port: int = 0) -> None:
        environment = {**os.environ, "STILEBLADE_DEMO": "1", "STILEBLADE_DATA": str(data)}
        self.process = subprocess.Popen(
            [sys.executable, "manage.py", "serve", "--port", str(port)],
            cwd=ROOT, env=environment, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True,
        )  # fmt: skip
        assert self.process.stdout is not None
        said = ""
        for line in self.process.stdout:
            said += line
            if match := re.search(r"http://127\.0\.0\.1:(\d+)/", line):
                self.port = int(match.group(1))
                break
        else:
            raise RuntimeError(f"the server did not start: {said}")
        self.address = f"http://127.0.0.1:{self.port}"
        threading.Thread(target=self.process.stdout.read, daemon=True).start()

    def end(self) -> int:
        self.process.send_signal(signal.SIGTERM)
        return self.process.wait(timeout=20)


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    running = Server(tmp_path_factory.mktemp("data"))
    yield running
    running.end()


@pytest.fixture(scope="session")
def base_url(server: Server) -> str:
    return server.address


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    return {
        "executable_path": os.environ.get("CHROMIUM", "/usr/bin/chromium"),
        "args": [
            "--no-sandbox", "--enable-unsafe-swiftshader", "--no-first-run", "--disable-quic",
            "--disable-background-networking", "--disable-component-update", "--disable-sync",
        ],
    }  # fmt: skip


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
