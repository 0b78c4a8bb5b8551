"""No screen, in no state that is met here, has anything that axe finds."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import remove_new_designs

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]


def found(page: Page) -> list[str]:
    page.wait_for_load_state("networkidle")
    # what fades in has its contrast in the end
    page.wait_for_timeout(600)
    page.evaluate(AXE.read_text())
    result: dict[str, Any] = page.evaluate("(tags) => axe.run(document, {runOnly: tags})", RULES)
    return [f"{v['id']}: {n['target']}" for v in result["violations"] for n in v["nodes"]]


def test_axe_finds_nothing(browser: Browser, base_url: str, there_before: set[int]) -> None:
    # the page's own policy lets no foreign script in
    context = browser.new_context(
        base_url=base_url, viewport={"width": 1280, "height": 800}, bypass_csp=True
    )
    page = context.new_page()
    wrong: dict[str, list[str]] = {}

    def look(name: str) -> None:
        if there := found(page):
            wrong[name] = there

    for name in ("", "new", "shelf", "jobs", "cutter"):
        page.goto(f"/{name}")
        look(name or "designs")
    page.goto("/")
    page.get_by_label("Choose Shell", exact=True).check()
    look("chosen")
    page.get_by_role("button", name="Into a folder …").click()
    look("into a folder")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Help").click()
    look("words")
    page.get_by_role("dialog", name="Keys and words").get_by_text("Keys", exact=True).click()
    look("keys")
    page.get_by_role("button", name="A first card, step by step").click()
    look("course")
    page.get_by_role("button", name="Leave").click()
    page.goto("/new")
    page.get_by_role("button", name=re.compile("choose another")).click()
    look("figures")
    page.goto("/jobs")
    page.get_by_role("link", name="Harbour shop, autumn").click()
    page.wait_for_selector(".stage .piece", timeout=60_000)
    look("sheets")
    page.goto("/")
    page.get_by_role("button", name="Open: Whale with porthole", exact=True).click()
    expect(page.get_by_test_id("flat-path")).to_be_visible()
    look("bench")
    for tab in ("Folds", "Checks"):
        page.get_by_role("tab", name=re.compile(tab)).click()
        look(tab)
    page.keyboard.press("/")
    look("search")
    page.keyboard.press("Escape")
    for button in ("History", "Cut files", "+ add a piece"):
        page.get_by_role("button", name=button).click()
        expect(page.get_by_role("dialog")).to_have_count(1)
        look(button)
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)
    page.locator(".tile .pick").first.click()
    look("size")
    page.get_by_role("button", name="Other sizes, side by side").click()
    page.wait_for_selector("article:nth-of-type(2)")
    look("other sizes")
    page.get_by_role("button", name="Make it a design of its own").click()
    page.get_by_role("button", name="Family").click()
    page.get_by_text("Nothing was changed here").wait_for()
    look("family")
    remove_new_designs(context, there_before)
    context.close()
    assert wrong == {}


def test_axe_is_no_formality(page: Page) -> None:
    """It finds a picture that says nothing."""
    page.goto("/")
    page.set_content("<main><h1>Harbour</h1><img src='data:,'></main>")
    assert any(line.startswith("image-alt") for line in found(page))
