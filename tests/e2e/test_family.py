"""Two sizes of a card kept linked: what is changed in one is offered to the other, scaled by choice."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect


def test_a_change_is_offered_to_the_other_size(page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="Open: Porthole with a grille", exact=True).click()
    expect(page.get_by_test_id("flat-path")).to_be_visible()
    page.locator(".tile .pick").first.click()
    page.get_by_role("button", name="Other sizes, side by side").click()
    page.wait_for_selector("article:nth-of-type(2)")
    expect(page.get_by_role("checkbox", name=re.compile("Keep them linked"))).to_be_checked()
    page.get_by_role("button", name="Make it a design of its own").click()
    family = page.get_by_role("button", name="Family")
    expect(family).to_have_text("Family")
    # a window larger by hand: it is saved by itself, and offered then
    page.locator(".tile .pick", has_text="Window").first.click()
    field = page.get_by_label("Diameter").first
    field.fill("41")
    field.press("Enter")
    expect(family).to_contain_text("1", timeout=10_000)
    family.click()
    dialog = page.get_by_role("dialog", name="Family")
    row = dialog.get_by_role("row").nth(1)
    expect(row).to_contain_text("Diameter")
    expect(row).to_contain_text("41 mm")
    row.locator(".el-select").click()
    page.get_by_role("option", name=re.compile("scaled")).click()
    expect(dialog.get_by_role("group", name=re.compile("as it becomes"))).to_contain_text("closed")
    dialog.get_by_role("button", name=re.compile("^Take over in")).click()
    expect(dialog).to_have_count(0)
    expect(family).to_have_text("Family")
    # the other one has it, and offers nothing back
    family.click()
    page.get_by_role("dialog").get_by_role("button", name=re.compile("^Open ")).click()
    expect(page).not_to_have_url(re.compile(r"/$"))
    page.locator(".tile .pick", has_text="Window").first.click()
    expect(page.get_by_label("Diameter").first).not_to_have_value("41")
    expect(page.get_by_role("button", name="Family")).to_have_text("Family")
