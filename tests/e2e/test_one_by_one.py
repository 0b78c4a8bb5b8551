"""Doors opened one by one, by pointing at them and by their keys; named poses bring them back."""

from __future__ import annotations

from playwright.sync_api import Locator, Page, expect


def opened(page: Page) -> float:
    slider = page.get_by_role("slider", name="How far it is opened")
    return float(slider.get_attribute("aria-valuenow") or "nan")


def frames(canvas: Locator) -> str:
    canvas.page.wait_for_timeout(1600)
    return str(canvas.get_attribute("data-frames"))


def test_doors_are_opened_one_by_one(page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="Open: Tide tables, gatefold", exact=True).click()
    expect(page.get_by_test_id("flat-path")).to_be_visible()
    page.get_by_role("button", name="closed", exact=True).click()
    page.wait_for_timeout(1500)
    assert opened(page) == 0
    canvas = page.locator(".folded canvas")
    before = int(frames(canvas))
    # the table about the card is nobody's
    box = canvas.bounding_box()
    assert box
    page.mouse.click(box["x"] + 8, box["y"] + 8)
    assert int(frames(canvas)) == before
    expect(page.get_by_role("button", name="closed", exact=True)).to_have_attribute(
        "aria-pressed", "true"
    )
    page.mouse.click(box["x"] + box["width"] * 0.45, box["y"] + box["height"] * 0.3)
    after = int(frames(canvas))
    assert after > before + 3
    expect(page.get_by_role("button", name="closed", exact=True)).to_have_attribute(
        "aria-pressed", "false"
    )
    # shut again by a pose; each door alone by its key, and back; then one after the other
    page.get_by_role("button", name="closed", exact=True).click()
    page.wait_for_timeout(1500)
    assert opened(page) == 0
    canvas.focus()
    now = int(frames(canvas))
    for key in "2211":
        page.keyboard.press(key)
        later = int(frames(canvas))
        assert later > now + 3
        now = later
    assert opened(page) == 0
    for key in "12":
        page.keyboard.press(key)
        page.wait_for_timeout(1500)
    assert opened(page) == 1
    page.get_by_role("button", name="closed", exact=True).click()
    page.wait_for_timeout(1500)
    assert opened(page) == 0
