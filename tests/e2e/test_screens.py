"""Designs, sign-in, the strip, the size; nothing cut off at 1280 x 800; how quick it is."""

from __future__ import annotations

import re
import subprocess
from pathlib import Path

import pytest
from playwright.sync_api import Page, Route, expect

from demo.running import Running
from tests.e2e.bench import Bench, select


def tile(page: Page, name: str) -> object:
    return page.locator("article", has=page.get_by_text(name, exact=True))


def act(page: Page, name: str, action: str) -> None:
    page.get_by_role("button", name=f"Actions for {name}", exact=True).first.click()
    page.get_by_role("menuitem", name=action).click()


def test_the_demo_designs_are_shown_folded_with_their_size(page: Page) -> None:
    page.goto("/")
    expect(page.locator("article").filter(has_text="Tide tables").first).to_contain_text(
        "105 × 148 mm"
    )
    expect(page.locator("article").filter(has_text="Harbour wall")).to_contain_text(
        "all checks passed"
    )
    expect(page.locator("article").filter(has_text="Sailing boat")).to_contain_text("error")
    expect(page.get_by_text("Signed in as the demo designer")).to_be_visible()
    assert page.locator("article svg path").count() > 12
    page.get_by_label("Search designs").fill("light dl")
    expect(page.locator("article")).to_have_count(1)
    page.get_by_label("Search designs").fill("submarine")
    expect(page.get_by_text("No design is called “submarine”.")).to_be_visible()


def test_a_finding_is_accepted_with_a_reason_and_counted_again(page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="Open: Whale, hardly joined").click()
    checks = page.get_by_role("tab", name="Checks")
    checks.click()
    expect(checks).to_contain_text("4")
    hinge = page.locator(".checks li").filter(has_text="The hinge is")
    hinge.get_by_role("button", name="leave it so").click()
    page.keyboard.type("it is never opened")
    page.keyboard.press("Enter")
    expect(checks).to_contain_text("3")
    page.get_by_text("1 accepted").click()
    expect(hinge).to_contain_text("Accepted: it is never opened")
    hinge.get_by_role("button", name="count it again").click()
    expect(checks).to_contain_text("4")


def test_duplicate_rename_template_bin_and_restore(page: Page) -> None:
    page.goto("/")
    act(page, "Shell", "Duplicate")
    expect(page.get_by_text("Shell copy", exact=True)).to_be_visible()
    act(page, "Shell copy", "Rename")
    page.get_by_role("textbox", name="New name").or_(page.locator(".el-message-box input")).fill(
        "A very long name for a shell that somebody found at the far end of the harbour wall"
    )
    page.get_by_role("button", name="Save").click()
    long = "A very long name for a shell that somebody found at the far end of the harbour wall"
    expect(page.get_by_text(long, exact=True)).to_be_visible()
    act(page, long, "Make a template of it")
    expect(page.get_by_role("heading", name="Templates")).to_be_visible()
    # it is beside the design, which stays where it was, and a card can be started from it
    expect(page.get_by_text(long, exact=True)).to_have_count(2)
    page.goto("/new")
    template = page.get_by_role("region", name="From a template").get_by_role("button")
    expect(template).to_have_count(1)
    template.click()
    asked = page.get_by_role("dialog")
    expect(asked).to_contain_text("It was made for 150 mm square")
    asked.get_by_role("radio", name=re.compile("^135 mm square")).click()
    asked.get_by_role("button", name="Build it").click()
    Bench(page).opened()
    expect(page.get_by_role("banner")).to_contain_text("135 mm square")
    page.goto("/")
    for left in (2, 1, 0):
        act(page, long, "To the bin")
        # the next is not looked for on a tile that is about to go
        expect(page.get_by_text(long, exact=True)).to_have_count(left)
    page.get_by_role("button", name="Open the bin").click()
    # a press on the picture asks first; the menu says what it does
    page.get_by_role("button", name=f"Restore: {long}", exact=True).first.click()
    page.get_by_role("dialog").get_by_role("button", name="Cancel").click()
    expect(page.get_by_text(long, exact=True)).to_have_count(3)
    page.get_by_role("button", name=f"Restore: {long}", exact=True).first.click()
    page.get_by_role("dialog").get_by_role("button", name="Restore").click()
    expect(page.get_by_text(long, exact=True)).to_have_count(2)
    for left in (1, 0):
        act(page, long, "Restore")
        expect(page.get_by_text(long, exact=True)).to_have_count(left)
    expect(page.get_by_text("The bin is empty.")).to_be_visible()
    page.get_by_role("button", name="Back to the designs").click()
    expect(page.get_by_text(long, exact=True)).to_have_count(3)
    for left in (2, 1, 0):
        act(page, long, "To the bin")
        expect(page.get_by_text(long, exact=True)).to_have_count(left)


def test_signing_out_and_in(fresh: Page) -> None:
    fresh.goto("/")
    fresh.get_by_role("button", name="Signed in as the demo designer").click()
    expect(fresh.get_by_role("dialog")).to_contain_text("Everything together")
    fresh.get_by_role("button", name="Sign out").click()
    expect(fresh.get_by_label("Password")).to_be_visible()
    fresh.get_by_label("Name").fill("nobody")
    fresh.get_by_label("Password").fill("wrong")
    fresh.get_by_role("button", name="Sign in").click()
    expect(fresh.get_by_role("alert")).to_contain_text("Name and password do not go together.")
    fresh.get_by_role("button", name="Go on as the demo designer").click()
    expect(fresh.get_by_role("heading", name="Designs")).to_be_visible()


def test_steps_are_switched_moved_duplicated_and_removed(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A7", figure="Heart")
    bench.add("mirror")
    bench.add("window")
    steps = page.locator("[data-step]")
    page.get_by_role("button", name="switch off").click()
    expect(page.locator("[data-step] .badge")).to_have_text("off")
    page.get_by_role("button", name="switch on").click()
    page.get_by_role("button", name="duplicate").click()
    expect(steps).to_have_count(4)
    page.get_by_role("button", name="remove").click()
    expect(steps).to_have_count(3)
    page.get_by_role("button", name="Move the step earlier").click()
    expect(steps.nth(1)).to_contain_text("Window")
    page.keyboard.press("Control+z")
    expect(steps.nth(2)).to_contain_text("Window")
    page.keyboard.press("Control+Shift+z")
    expect(steps.nth(1)).to_contain_text("Window")
    # picking a picture shows the piece as it was then
    bench.pick("Figure")
    expect(page.locator(".folds .text")).to_have_count(0)


def test_the_card_size_carries_through(page: Page) -> None:
    """A window at the foot right of the front follows from A2 to ISO A5."""
    bench = Bench(page)
    bench.new(size="A2")
    bench.add("window")
    page.locator(".strip .pick").first.click()
    select(page.get_by_role("combobox", name="Card size"))
    page.get_by_role("option", name="ISO A5").click()
    expect(page.get_by_title("Closed size")).to_have_text("closed 148 × 210 mm")
    expect(page.locator(".folds .text")).to_have_text("fold  148 left · 148 right · 0 centre")
    page.get_by_role("radio", name="Brick").click()
    expect(page.get_by_test_id("flat-path")).to_have_attribute("fill", "#c46f4e")
    page.get_by_label("Name of the paper").fill("Old brick")
    page.get_by_label("Name of the paper").press("Enter")
    page.get_by_label("Weight in g/m²").fill("312")
    page.get_by_label("Weight in g/m²").press("Enter")
    expect(page.locator(".paper.soft")).to_have_text("Old brick, 312 g/m²")
    page.get_by_label("Name of the design").fill("Fire station")
    page.get_by_label("Name of the design").press("Enter")
    bench.settled()
    page.reload()
    bench.opened()
    expect(page.get_by_label("Name of the design")).to_have_value("Fire station")
    expect(page.locator(".paper.soft")).to_have_text("Old brick, 312 g/m²")


def test_own_measures_and_a_typed_envelope(page: Page) -> None:
    page.goto("/new")
    page.get_by_role("button", name="Own measures").click()
    page.get_by_label("Card width").fill("5 1/8 in")
    page.get_by_label("Card height").fill("10.25in/2")
    page.get_by_label("Envelope width").fill("136")
    page.get_by_label("Envelope height").fill("136")
    page.get_by_role("button", name="Use this size").click()
    expect(page.locator(".line .figure")).to_have_text("130.18 × 130.18 mm")
    page.get_by_role("button", name="Build it").click()
    Bench(page).opened()
    expect(Bench(page).reading("Room")).to_have_text("5.23 × 5.23 mm")  # 136 - 130.175 - 0.6


@pytest.mark.parametrize("name", ["Whale with porthole", "Sailing boat"])
def test_nothing_is_cut_off_and_the_flat_view_is_large(page: Page, name: str) -> None:
    page.goto("/")
    page.get_by_role("button", name=f"Open: {name}").click()
    Bench(page).opened()
    cut = page.evaluate(
        """() => [...document.querySelectorAll('header, aside, nav, .left, .pieces')]
            .map((e) => e.getBoundingClientRect())
            .filter((r) => r.right > innerWidth + 1 || r.bottom > innerHeight + 1 || r.left < -1)
            .length"""
    )
    assert cut == 0
    frame = page.get_by_test_id("flat-view").bounding_box()
    assert frame is not None
    assert frame["width"] * frame["height"] >= 0.45 * 1280 * 800
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    # nor is the closed size in the narrowest window that is designed for
    page.set_viewport_size({"width": 1024, "height": 700})
    closed = page.locator("header .card .figure")
    expect(closed).to_contain_text("closed")
    assert closed.evaluate("e => e.scrollWidth <= e.clientWidth")


def test_the_folded_view_opens_and_turns_and_rests(page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="Open: Lighthouse", exact=True).click()
    Bench(page).opened()
    canvas = page.locator("canvas")
    expect(canvas).to_be_visible()
    page.wait_for_timeout(600)
    first = canvas.screenshot()
    assert canvas.screenshot() == first
    canvas.press("ArrowRight")
    page.wait_for_timeout(200)
    turned = canvas.screenshot()
    assert turned != first
    page.get_by_role("slider", name="How far it is opened").press("ArrowRight")
    page.wait_for_timeout(200)
    assert canvas.screenshot() != turned


def test_a_second_start_keeps_the_data_and_ends_cleanly(tmp_path: Path, fresh: Page) -> None:
    first = Running(tmp_path)
    fresh.goto(first.address)
    act(fresh, "Shell", "To the bin")
    expect(fresh.get_by_text("Shell", exact=True)).to_have_count(0)
    assert first.end() == 0
    second = Running(tmp_path)
    try:
        fresh.goto(second.address)
        expect(fresh.get_by_text("Lighthouse", exact=True)).to_be_visible()
        expect(fresh.get_by_text("Shell", exact=True)).to_have_count(0)
        taken = subprocess.run(
            ["curl", "-s", f"{second.address}/api/openapi.json"], capture_output=True, check=True
        )
        assert b'"openapi"' in taken.stdout
    finally:
        assert second.end() == 0


def test_an_unknown_address_and_a_foreign_design(page: Page) -> None:
    page.goto("/nowhere")
    expect(page.get_by_text("There is nothing at this address.")).to_be_visible()
    page.goto("/designs/999999")
    expect(page.get_by_role("alert")).to_contain_text("There is no such thing here")
    page.get_by_role("button", name=re.compile("Back to the designs")).click()
    expect(page.get_by_role("heading", name="Designs")).to_be_visible()


def test_the_fields_of_a_window_and_seven_readings_are_seen_without_scrolling(page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="Open: Whale with porthole").click()
    bench = Bench(page)
    bench.opened()
    bench.settled()

    def seen(what: str, count: int) -> int:
        """How many of the first ones are seen as a whole, by what covers their lower edge."""
        return page.evaluate(
            """([what, count]) => [...document.querySelectorAll(what)].slice(0, count).filter((e) => {
                const r = e.getBoundingClientRect()
                const top = document.elementFromPoint(r.left + r.width / 2, r.bottom - 4)
                return r.bottom <= innerHeight && top !== null && (e.contains(top) || top.contains(e))
            }).length""",
            [what, count],
        )

    assert seen(".in-hand .field", 8) == 8
    assert seen(".readings > div", 7) == 7
    # more room still, which is remembered
    page.get_by_role("button", name="hide", exact=True).click()
    assert seen(".in-hand .field", 11) == 11
    page.reload()
    bench.opened()
    page.get_by_role("button", name="show the folded card").click()
    expect(page.get_by_label("The folded card; arrow keys turn it")).to_be_visible()


def test_the_keys_are_the_benchs_again_after_a_figure_was_entered(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Heart")
    bench.add("mirror")
    bench.type("Lap", "9")
    field = bench.field("Lap")
    expect(field).to_be_focused()
    # what is typed at once goes to the search, although the field still had the focus
    page.keyboard.type("/round opening 40")
    expect(page.get_by_label("Search steps")).to_have_value("round opening 40")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(field).to_have_value("9")
    # what is being typed is not taken for a key
    field.focus()
    field.fill("1")
    page.keyboard.type("/2")
    expect(field).to_have_value("1/2")
    page.keyboard.press("Enter")
    expect(field).to_have_value("0.5")
    page.keyboard.press("Control+z")
    expect(field).to_have_value("9")
    # an open list has the keys to itself
    select(bench.field("Towards"))
    page.keyboard.press("i")
    expect(page.get_by_role("button", name="outside", exact=True)).to_have_attribute(
        "aria-pressed", "true"
    )


def test_a_late_list_of_designs_does_not_take_the_place_of_the_bin(fresh: Page) -> None:
    """An answer on a slow line comes after a newer one."""
    fresh.goto("/")
    expect(fresh.locator("article").first).to_be_visible()
    held: list[Route] = []
    fresh.route(re.compile(r"/api/designs\?binned=false"), lambda route: held.append(route))
    fresh.get_by_role("button", name="Open the bin").click()
    fresh.get_by_role("button", name="Back to the designs").click()
    fresh.get_by_role("button", name="Open the bin").click()
    empty = fresh.get_by_text("The bin is empty.")
    expect(
        empty.or_(fresh.get_by_role("button", name=re.compile("^Restore:")).first)
    ).to_be_visible()
    for route in held:
        route.continue_()
    fresh.wait_for_timeout(500)
    expect(fresh.get_by_role("heading", name="Bin")).to_be_visible()
    expect(
        empty.or_(fresh.get_by_role("button", name=re.compile("^Restore:")).first)
    ).to_be_visible()
