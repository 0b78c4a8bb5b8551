"""The whole job in German: the language is chosen in the page and kept, figures have commas, what the server says
is German, and the file to be cut is the one that English gives."""

from __future__ import annotations

import re
from pathlib import Path

from playwright.sync_api import Browser, Page, expect

from tests.e2e.bench import select
from tests.e2e.test_accessibility import found


def _choose(page: Page, name: str) -> None:
    select(page.get_by_label("Language" if name == "Deutsch" else "Sprache", exact=True))
    page.get_by_role("option", name=name, exact=True).click()


def _saved(page: Page, button: str, folder: Path) -> str:
    page.get_by_role("button", name=button, exact=True).click()
    dialog = page.get_by_role("dialog")
    save = dialog.get_by_role(
        "button", name=re.compile("^(Save|Save all the same|Speichern|Trotzdem speichern)$")
    )
    with page.expect_download() as download:
        save.click()
    path = folder / download.value.suggested_filename
    download.value.save_as(path)
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)
    return path.read_text("utf-8")


def test_a_card_is_made_in_german(page: Page, tmp_path: Path) -> None:
    page.goto("/")
    _choose(page, "Deutsch")
    expect(page.get_by_role("heading", name="Entwürfe")).to_be_visible()
    assert page.evaluate("document.documentElement.lang") == "de"
    page.reload()
    expect(page.get_by_role("heading", name="Entwürfe")).to_be_visible()

    page.get_by_role("link", name="Neue Karte").click()
    page.get_by_role("radio", name=re.compile("^5 in quadratisch")).click()
    page.get_by_role("radio", name="Geformt", exact=True).click()
    expect(page.get_by_text(re.compile("Die Werkbank zeigt jedes davon"))).to_be_visible()
    page.get_by_role("button", name="Bauen").click()
    state = page.get_by_test_id("save-state")
    expect(state).to_contain_text("gespeichert")
    expect(page.get_by_role("tab", name="Grundkarte")).to_be_visible()

    page.keyboard.press("/")
    page.keyboard.type("rundes Fenster 22,5")
    expect(page.get_by_text("Kreis 22,5 mm")).to_be_visible()
    page.keyboard.press("Enter")
    wide = page.get_by_role("textbox", name="Durchmesser", exact=True)
    expect(wide).to_have_value("22,5")
    wide.fill("20,25")
    wide.press("Enter")
    expect(wide).to_have_value("20,25")
    wide.fill("acht")
    wide.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("ist keine Zahl")
    wide.fill("400")
    wide.press("Enter")
    expect(page.locator(".tile .caption.failed, .problem").first).to_be_visible()
    expect(
        page.get_by_text(re.compile("ist größer als das Feld|deckt das ganze Stück")).first
    ).to_be_visible()
    wide.fill("20,25")
    wide.press("Enter")
    page.get_by_role("tab", name=re.compile("^Messwerte")).click()
    expect(page.locator("dl dt", has_text="Scharnier").first).to_be_visible()
    expect(state).to_contain_text("gespeichert")
    page.wait_for_load_state("networkidle")
    german = _saved(page, "Dateien", tmp_path)

    page.goto("/")
    _choose(page, "English")
    expect(page.get_by_role("heading", name="Designs")).to_be_visible()
    page.locator(".grid").get_by_role("button", name=re.compile("^Open: ")).first.click()
    expect(page.get_by_role("tab", name="Grundkarte")).to_be_visible()
    expect(page.get_by_test_id("save-state")).to_contain_text("saved")
    page.wait_for_load_state("networkidle")
    english = _saved(page, "Cut files", tmp_path)
    outline = re.compile(r' d="([^"]+)"')
    assert outline.findall(german) == outline.findall(english)
    assert len(outline.findall(german)) >= 2


def test_axe_finds_nothing_in_german(browser: Browser, base_url: str) -> None:
    """At the narrowest of the sizes that are designed: the longest words have the least room."""
    context = browser.new_context(
        base_url=base_url, viewport={"width": 1024, "height": 768}, bypass_csp=True, locale="de-DE"
    )
    page = context.new_page()
    wrong: dict[str, list[str]] = {}

    def look(name: str) -> None:
        if there := found(page):
            wrong[name] = there
        wide = page.evaluate("document.documentElement.scrollWidth")
        if wide > 1024:
            wrong[f"{name} is {wide} wide"] = []

    for name in ("", "new", "shelf", "jobs", "cutter"):
        page.goto(f"/{name}")
        look(name or "designs")
    page.goto("/jobs")
    page.get_by_role("link", name="Harbour shop, autumn").click()
    page.wait_for_selector(".stage .piece", timeout=60_000)
    look("sheets")
    strip = page.locator(".strip")
    assert strip.evaluate("e => e.scrollWidth <= e.clientWidth"), "the readings are cut off"
    page.goto("/")
    page.get_by_role("button", name="Öffnen: Whale with porthole", exact=True).click()
    expect(page.get_by_test_id("flat-path")).to_be_visible()
    look("bench")
    page.get_by_role("tab", name=re.compile("Prüfungen")).click()
    look("checks")
    for button in ("Verlauf", "Dateien", "+ Stück"):
        page.get_by_role("button", name=button, exact=True).click()
        expect(page.get_by_role("dialog")).to_have_count(1)
        look(button)
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)
    context.close()
    assert not wrong
