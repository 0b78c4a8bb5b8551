"""Doors opened one by one, by pointing at them and by their keys; named poses bring them back."""

from __future__ import annotations

from playwright.sync_api import Locator, Page, expect


def opened(page: Page, by: str) -> None:
    expect(page.get_by_role("slider", name="How far it is opened")).to_have_attribute(
        "aria-valuenow", by
    )


def at_rest(canvas: Locator, angles: str) -> None:
    """Drawn with its folds at these angles, in degrees, and nothing moves any more."""
    expect(canvas).to_have_attribute("data-angles", angles)
    expect(canvas).to_have_attribute("data-still", "true")


def test_doors_are_opened_one_by_one(page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="Open: Tide tables, gatefold", exact=True).click()
    expect(page.get_by_test_id("flat-path")).to_be_visible()
    canvas = page.locator(".folded canvas")
    shut = page.get_by_role("button", name="closed", exact=True)
    shut.click()
    at_rest(canvas, "180 180 0")
    opened(page, "0")
    # the table about the card is nobody's
    box = canvas.bounding_box()
    assert box
    page.mouse.click(box["x"] + 8, box["y"] + 8)
    page.wait_for_timeout(600)
    at_rest(canvas, "180 180 0")
    expect(shut).to_have_attribute("aria-pressed", "true")
    # seen from the front, the door of the fold at the right stands at the left
    page.mouse.click(box["x"] + box["width"] * 0.45, box["y"] + box["height"] * 0.3)
    at_rest(canvas, "180 0 0")
    expect(shut).to_have_attribute("aria-pressed", "false")
    # shut again by a pose; each door alone by its key, and back; then one after the other
    shut.click()
    at_rest(canvas, "180 180 0")
    opened(page, "0")
    canvas.focus()
    for key, angles in zip("2211", ("180 0 0", "180 180 0", "0 180 0", "180 180 0"), strict=True):
        page.keyboard.press(key)
        at_rest(canvas, angles)
    opened(page, "0")
    for key, angles in zip("12", ("0 180 0", "0 0 0"), strict=True):
        page.keyboard.press(key)
        at_rest(canvas, angles)
    opened(page, "1")
    shut.click()
    at_rest(canvas, "180 180 0")
    opened(page, "0")
