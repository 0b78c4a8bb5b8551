"""Groups by their arrows, the keyboard where it was, panes at the right by hand and by keys."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

FOCUSED = "document.activeElement.getAttribute('aria-label') || document.activeElement.innerText"


def focused(page: Page) -> str:
    return str(page.evaluate(FOCUSED))


def opened(page: Page, name: str) -> None:
    page.goto("/")
    page.get_by_role("button", name=f"Open: {name}", exact=True).click()
    expect(page.get_by_test_id("flat-path")).to_be_visible()


def heights(page: Page) -> list[int]:
    return [
        round(page.locator(f".right > .{name}").evaluate("e => e.getBoundingClientRect().height"))
        for name in ("folded", "in-hand", "figures")
    ]


def test_choices_are_gone_through_by_arrows(page: Page) -> None:
    """Sizes right and down as they lie; the ways of folding; one stop of Tab for each group."""
    page.goto("/new")
    sizes = page.get_by_role("radiogroup", name="Size, in its envelope")
    chosen = sizes.locator("[aria-checked=true]")
    expect(chosen).to_have_count(1)
    assert sizes.locator("[role=radio][tabindex='0']").count() == 1
    chosen.focus()
    first = chosen.bounding_box()
    page.keyboard.press("ArrowRight")
    second = chosen.bounding_box()
    page.keyboard.press("ArrowDown")
    third = chosen.bounding_box()
    assert first
    assert second
    assert third
    assert (second["x"] > first["x"], second["y"]) == (True, first["y"])
    assert (third["x"], third["y"] > second["y"]) == (second["x"], True)
    assert page.evaluate("document.activeElement.getAttribute('aria-checked')") == "true"
    page.keyboard.press("Tab")
    assert not page.evaluate(
        "document.activeElement.closest('[role=radiogroup].grid [role=radio]')"
    )


def test_the_keyboard_stays_where_it_was(page: Page) -> None:
    """After another page it is in that page; after an added step on the step; after a dialog at its button."""
    page.goto("/")
    page.get_by_role("link", name="New card").focus()
    page.keyboard.press("Enter")
    expect(page.locator("main:focus")).to_have_count(1)
    opened(page, "Life ring")
    page.keyboard.press("/")
    expect(page.get_by_role("dialog")).to_be_visible()
    page.keyboard.type("round window 20")
    page.wait_for_timeout(900)
    page.keyboard.press("Enter")
    expect(page.locator("[data-step]:focus")).to_have_count(1)
    expect(page.locator("[data-step]:focus")).to_contain_text("Window")
    # nor is it left at the step before, where it was when another was added
    tiles = page.locator("[data-step]")
    tiles.first.click()
    for _ in range(tiles.count() - 1):
        page.keyboard.press("ArrowRight")
    page.wait_for_timeout(400)
    expect(tiles.last).to_be_focused()
    tiles.first.focus()
    page.keyboard.press("Enter")
    page.keyboard.press("/")
    page.keyboard.type("soften corners")
    page.wait_for_timeout(900)
    page.keyboard.press("Enter")
    expect(page.locator("[data-step]:focus[aria-current=step]")).to_contain_text("Soften corners")
    add = page.get_by_role("button", name=re.compile("Add a step"))
    add.click()
    page.keyboard.type("border line")
    page.wait_for_timeout(900)
    page.keyboard.press("Enter")
    expect(page.locator("[data-step]:focus[aria-current=step]")).to_contain_text("Border line")
    add.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_be_visible()
    page.keyboard.press("Escape")
    expect(add).to_be_focused()


def test_panes_are_sized_folded_away_and_remembered(page: Page) -> None:
    opened(page, "Whale with porthole")
    page.wait_for_timeout(500)
    before = heights(page)
    bar = page.get_by_role("separator", name="Height of the folded view")
    box = bar.bounding_box()
    assert box
    page.mouse.move(box["x"] + 100, box["y"] + 4)
    page.mouse.down()
    page.mouse.move(box["x"] + 100, box["y"] + 84, steps=4)
    page.mouse.up()
    larger = heights(page)
    assert abs(larger[0] - before[0] - 80) <= 2
    page.get_by_role("separator", name="Height of the readings").focus()
    page.keyboard.press("ArrowDown")
    assert abs(heights(page)[2] - larger[2] + 16) <= 2
    page.locator(".right > .figures").get_by_role("button", name="fold away").click()
    assert heights(page)[2] < 40
    page.reload()
    expect(page.get_by_test_id("flat-path")).to_be_visible()
    assert heights(page)[2] < 40
    assert abs(heights(page)[0] - larger[0]) <= 2
    page.get_by_role("tab", name="Folds").click()
    assert heights(page)[2] > 90
    bar.dblclick()
    assert abs(heights(page)[0] - before[0]) <= 2
