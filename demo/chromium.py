"""Debian's Chromium, headless, for screenshots and measurements."""

from __future__ import annotations

import os

from playwright.sync_api import Browser, Playwright

EXECUTABLE = os.environ.get("CHROMIUM", "/usr/bin/chromium")
ARGUMENTS = [
    "--no-sandbox",
    "--enable-unsafe-swiftshader",
    "--no-first-run",
    "--disable-quic",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


def launch(playwright: Playwright) -> Browser:
    return playwright.chromium.launch(executable_path=EXECUTABLE, args=ARGUMENTS)
