"""Answers that come late, and pages that are left early: everything typed counts, in the order in which it was typed."""

from __future__ import annotations

import time
from typing import Any

import pytest
from playwright.sync_api import Page, Route, expect

from tests.e2e.bench import Bench


def kept(page: Page, number: str) -> Any:
    return page.request.get(f"/api/designs/{number}").json()["document"]


@pytest.fixture
def tide_tables(page: Page) -> Bench:
    """A copy of the demo's card of most pieces."""
    found = page.request.get("/api/designs").json()
    number = next(d["id"] for d in found if d["name"] == "Tide tables")
    document = kept(page, str(number))
    token = {c["name"]: c["value"] for c in page.context.cookies()}["csrftoken"]
    made = page.request.post(
        "/api/designs", data={"document": document}, headers={"X-CSRFToken": token}
    ).json()
    bench = Bench(page)
    bench.open(str(made["id"]))
    return bench


@pytest.mark.parametrize("delay", [0, 0.6])
def test_two_sizes_typed_one_after_the_other_both_count(tide_tables: Bench, delay: float) -> None:
    """Width, Tab, height, Tab at an ordinary typing pace, with a quick and a slow server."""
    page = tide_tables.page

    def slowly(route: Route) -> None:
        time.sleep(delay)
        route.continue_()

    page.route("**/api/refold", slowly)
    page.locator(".tile .pick").first.click()
    page.get_by_label("Card width").focus()
    for typed in ("160", "220"):
        page.keyboard.type(typed, delay=60)
        page.keyboard.press("Tab")
    page.get_by_label("Slack", exact=True).fill("3")
    page.keyboard.press("Tab")
    tide_tables.settled()
    expect(page.get_by_label("Card width")).to_have_value("160")
    expect(page.get_by_label("Card height")).to_have_value("220")
    page.wait_for_timeout(2500 if delay else 800)
    tide_tables.settled()
    card = kept(page, tide_tables.number)["card"]
    assert (card["size"]["width"], card["size"]["height"], card["slack"]) == (160, 220, 3)


def test_what_is_typed_and_not_confirmed_survives_reloading(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Circle")
    bench.add("mirror")
    bench.settled()
    bench.field("Lap").focus()
    page.keyboard.type("7.5")
    page.reload()
    bench.opened()
    offer = page.get_by_role("button", name="Go on with it")
    if offer.count():
        offer.click()
    bench.settled()
    assert kept(page, bench.number)["pieces"][0]["steps"][-1]["lap"] == 7.5


def test_undo_takes_back_a_size_that_is_still_asked_for(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A2")
    page.route("**/api/refold", lambda route: (time.sleep(1), route.continue_())[1])
    page.locator(".tile .pick").first.click()
    page.get_by_label("Card width").fill("120")
    page.keyboard.press("Tab")
    expect(page.get_by_label("Card width")).to_have_value("120")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Card width")).to_have_value("107.95")
    page.wait_for_timeout(1500)
    bench.settled()
    assert kept(page, bench.number)["card"]["size"]["width"] == pytest.approx(107.95)


def test_saving_waits_for_what_the_checks_say_of_the_last_change(page: Page) -> None:
    """While the card is computed, the dialog says so and nothing is saved; then it has the new finding."""
    bench = Bench(page)
    bench.new(size="A2", figure="Circle")
    bench.add("mirror")
    bench.settled()
    page.route("**/api/evaluate", lambda route: (time.sleep(1.2), route.continue_())[1])
    bench.type("Lap", "0")
    page.get_by_role("button", name="Cut files").click()
    dialog = page.get_by_role("dialog", name="Cut files")
    expect(dialog.get_by_role("status")).to_contain_text("The card is being computed.")
    expect(dialog.get_by_role("alert")).to_contain_text("there is no hinge", timeout=10_000)
    expect(dialog.get_by_role("status")).to_have_count(0)
