"""Writes docs/screenshots from the demo data, at 1280 x 800, one picture of each main view."""

from __future__ import annotations

import re
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from demo.chromium import launch
from demo.running import ROOT, Running

FOLDER = ROOT / "docs" / "screenshots"


def take(page: Page, name: str) -> None:
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(1200)
    page.screenshot(path=FOLDER / f"{name}.png")
    print(name)


def open_design(page: Page, name: str) -> None:
    page.goto("/")
    page.get_by_role("button", name=f"Open: {name}", exact=True).click()
    page.wait_for_selector("[data-testid=flat-path]")


def read(page: Page, name: str) -> None:
    """A demo drawing read on the shelf's page."""
    text = (ROOT / "demo" / "outlines" / name).read_text()
    page.get_by_label("Drawing or font file").set_input_files(
        {"name": name, "mimeType": "image/svg+xml", "buffer": text.encode()}
    )
    page.wait_for_selector(".reading-dialog .sums")


def views(page: Page) -> None:
    """One walk through all the views, a picture of each."""
    page.goto("/")
    take(page, "designs")
    page.goto("/new")
    page.get_by_role("radio", name="Shaped", exact=True).click()
    take(page, "new-card")
    page.get_by_role("button", name=re.compile("choose another")).click()
    page.wait_for_selector(".font")
    take(page, "figures")
    page.goto("/shelf")
    take(page, "shelf")
    read(page, "tides.svg")
    take(page, "reading")
    page.get_by_role("button", name="Cancel").click()
    open_design(page, "Whale with porthole")
    page.locator("[data-step]", has_text="Mirror").click()
    take(page, "bench")
    page.get_by_role("tab", name=re.compile("Checks")).click()
    page.locator(".accepted summary").click()
    page.locator(".checks li .text").first.click()
    page.mouse.move(640, 640)
    take(page, "checks")
    page.keyboard.press("Escape")
    page.keyboard.press("/")
    page.keyboard.type("round opening 40 mm")
    take(page, "add-step")
    open_design(page, "Row of beach huts")
    page.get_by_role("button", name="standing").click()
    take(page, "accordion")
    open_design(page, "Tide tables, gatefold")
    page.locator(".tile .pick").first.click()
    page.get_by_role("button", name="Other sizes, side by side").click()
    page.wait_for_selector("article:nth-of-type(2)")
    take(page, "other-sizes")
    open_design(page, "Tide tables")
    page.get_by_role("button", name="+ add a piece").click()
    page.get_by_role("option").first.wait_for()
    take(page, "add-piece")
    page.keyboard.press("Escape")
    page.get_by_role("button", name=re.compile("^all [0-9]+")).click()
    page.get_by_role("button", name="Word", exact=False).first.click()
    page.get_by_role("button", name="card inside").click()
    page.get_by_label("Taken apart").fill("9")
    take(page, "layers")
    open_design(page, "Lighthouse")
    page.locator("[data-step]", has_text="Mirror").click()
    page.get_by_role("tab", name="Readings").click()
    page.locator(".readings").get_by_role("button", name="27.08 mm").click()
    dialog = page.get_by_role("dialog", name="Aim at a figure")
    dialog.get_by_label("Aim", exact=True).fill("36")
    dialog.get_by_label("Aim", exact=True).press("Enter")
    dialog.get_by_role("button", name="Find the values").click()
    page.locator(".progress").wait_for(state="detached", timeout=120_000)
    take(page, "aims")
    open_design(page, "Locker, closed by a tab")
    page.get_by_role("button", name="lines alone").click()
    page.get_by_role("button", name="key", exact=True).click()
    take(page, "lines")
    open_design(page, "Sailing boat")
    page.get_by_role("button", name="front", exact=True).click()
    page.get_by_role("tab", name="Folds").click()
    take(page, "closed")
    page.get_by_role("button", name="Cut files").click()
    page.get_by_role("radio", name="PDF").click()
    take(page, "cut-files")
    sheets(page)


def sheets(page: Page) -> None:
    """A job of the demo: its sheets, passes, and the cutter."""
    page.goto("/jobs")
    page.get_by_role("link", name="Harbour shop, autumn").click()
    page.wait_for_selector(".stage .piece", timeout=60_000)
    page.get_by_role("button", name=re.compile("Ivory$")).first.click()
    name = page.locator(".stage .piece text").nth(2).bounding_box()
    assert name
    page.mouse.click(name["x"] + name["width"] / 2, name["y"] + name["height"] / 2)
    take(page, "sheets")
    page.get_by_text("Passes", exact=True).click()
    page.wait_for_selector(".passes li", timeout=30_000)
    take(page, "passes")
    page.get_by_text("Cut it", exact=True).click()
    page.wait_for_selector(".verdict", timeout=60_000)
    take(page, "cutter")


def main() -> None:
    FOLDER.mkdir(parents=True, exist_ok=True)
    for old in FOLDER.glob("*.png"):
        old.unlink()
    with (
        tempfile.TemporaryDirectory() as data,
        Running(Path(data)) as running,
        sync_playwright() as playwright,
    ):
        browser = launch(playwright)
        page = browser.new_page(viewport={"width": 1280, "height": 800}, base_url=running.address)
        views(page)
        browser.close()


if __name__ == "__main__":
    main()
