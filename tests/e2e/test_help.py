"""Help and the course: keys and words from everywhere, and a first card led by hand to its files."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect


def test_help_opens_everywhere_but_not_while_typing(page: Page) -> None:
    for path in ("/", "/new", "/jobs", "/shelf"):
        page.goto(path)
        expect(page.locator("main, .page").first).to_be_visible()
        page.wait_for_timeout(300)
        page.keyboard.press("?")
        dialog = page.get_by_role("dialog", name="Keys and words")
        expect(dialog.get_by_text("Score line")).to_be_visible()
        page.keyboard.press("Escape")
        expect(dialog).to_be_hidden()
    page.goto("/")
    page.get_by_label("Search designs").press("?")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.get_by_role("button", name="Help").click()
    dialog = page.get_by_role("dialog", name="Keys and words")
    dialog.get_by_label("Find in the help").fill("hinge")
    expect(dialog.locator(".words dt")).to_have_text(["Lap", "Hinge"])
    dialog.get_by_text("Keys", exact=True).click()
    dialog.get_by_label("Find in the help").fill("turn it over")
    expect(dialog.locator("kbd")).to_have_text(["O"])


def test_a_first_card_led_by_hand(page: Page) -> None:
    """Each thing that is done goes on; left in the middle and taken up after reloading; to the files."""
    page.goto("/")
    page.get_by_role("button", name="Help").click()
    page.get_by_role("button", name="A first card, step by step").click()
    card = page.get_by_role("region", name="A first card, step by step")
    title = card.get_by_role("heading")
    expect(title).to_have_text("Begin a card")
    page.get_by_role("link", name="New card").click()
    expect(title).to_have_text("Choose its size")
    page.get_by_role("radio", name=re.compile("^5 in square")).click()
    expect(title).to_have_text("Begin with a figure")
    page.reload()
    expect(title).to_have_text("Begin with a figure")
    page.get_by_role("radio", name=re.compile("^5 in square")).click()
    page.get_by_role("radio", name=re.compile("^Shaped$")).click()
    expect(title).to_have_text("Build it")
    page.get_by_role("button", name="Build it").click()
    expect(title).to_have_text("Make the hinge longer", timeout=20_000)
    lap = page.get_by_label("Lap", exact=True)
    lap.fill("8")
    lap.press("Enter")
    expect(title).to_have_text("Look for a step")
    page.get_by_role("button", name=re.compile("Add a step")).click()
    expect(title).to_have_text("Add it")
    page.keyboard.type("round window 30")
    expect(
        page.get_by_role("dialog").locator("[aria-selected=true], .chosen").first
    ).to_be_visible()
    page.wait_for_timeout(600)
    page.keyboard.press("Enter")
    expect(title).to_have_text("Look at the checks")
    page.get_by_role("tab", name=re.compile("Checks")).click()
    expect(title).to_have_text("Take the files")
    page.get_by_role("button", name="Cut files").click()
    with page.expect_download():
        page.get_by_role("dialog").get_by_role(
            "button", name=re.compile("^Save( all the same)?$")
        ).click()
    expect(title).to_have_text("That is a card.")
    card.get_by_role("button", name="Done").click()
    expect(card).to_have_count(0)
