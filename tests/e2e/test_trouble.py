"""Bad input with clear words, lost connections, two versions: nothing is lost."""

from __future__ import annotations

import re
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Page, expect

from tests.e2e.bench import Bench


def test_a_length_that_is_none_is_said_at_its_field(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Circle")
    bench.add("mirror")
    bench.type("Lap", "5 1/8 inn")
    alert = page.get_by_label("Step in hand").get_by_role("alert")
    expect(alert).to_contain_text("'inn' is no unit; use mm, cm or in (at character 7)")
    expect(bench.field("Lap")).to_have_value("5 1/8 inn")
    bench.field("Lap").press("Escape")
    expect(bench.field("Lap")).to_have_value("3")
    bench.type("Lap", "-2")
    expect(alert).to_contain_text("at least 0 mm")


def test_steps_that_cannot_be_applied_say_why_and_what_would_do(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Circle")
    bench.add("slice")
    bench.type("Distance", "90")
    pane = page.get_by_label("Step in hand")
    expect(pane).to_contain_text("The slice leaves nothing")
    bench.type("Distance", "5")
    bench.add("mirror")
    bench.type("Lap", "300")
    expect(pane).to_contain_text("A lap of 300 mm is deeper than the figure")
    expect(page.locator("[data-step] .badge.error")).to_have_count(1)
    # the mend takes the value that would do
    bench.checks().first.locator(".el-button").last.click()
    expect(page.locator("[data-step] .badge.error")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(bench.field("Lap")).to_have_value("300")
    bench.type("Lap", "20")
    bench.add("window")
    bench.type("Diameter", "150")
    expect(pane).to_contain_text("is larger than the panel of")
    # nothing was lost: with the window made small again all is well
    bench.type("Diameter", "12")
    expect(page.locator("[data-step] .badge.error")).to_have_count(0)


@pytest.mark.parametrize(
    ("name", "content", "message"),
    [
        ("empty.svg", b"", "The file is empty."),
        ("broken.svg", b"<svg xmlns='http://www.w3.org/2000/svg'><rect", "The file is broken"),
        ("page.svg", b"<html/>", "This is XML, but not SVG"),
        ("notes.svg", b"just text", "This is not an SVG file"),
        ("large.svg", b" " * 50_000_000, "at most 12 MB are read"),
        (
            "entities.svg",
            b'<!DOCTYPE s [<!ENTITY a "aaaaaaaaaa">'
            + b"".join(b'<!ENTITY %c "%s">' % (98 + i, b"&%c;" % (97 + i) * 10) for i in range(9))
            + b"]><svg xmlns='http://www.w3.org/2000/svg'><text>&j;</text></svg>",
            "The file uses entities that are not read",
        ),
    ],
)
def test_files_that_cannot_be_read(page: Page, name: str, content: bytes, message: str) -> None:
    page.goto("/new")
    Bench(page).choose_figure()
    if len(content) > 40_000_000:
        # through the page's own file input, as a person's file comes
        page.wait_for_selector("input[type=file]", state="attached")
        page.evaluate(
            """([name, size]) => {
                const list = new DataTransfer()
                list.items.add(new File([new Uint8Array(size).fill(32)], name))
                const input = document.querySelector('input[type=file]')
                input.files = list.files
                input.dispatchEvent(new Event('change'))
            }""",
            [name, len(content)],
        )
    else:
        page.get_by_label("Drawing or font file").set_input_files(
            {"name": name, "mimeType": "image/svg+xml", "buffer": content}
        )
    reading = page.get_by_role("dialog", name=re.compile("^Read:"))
    expect(reading.get_by_role("alert")).to_contain_text(message)
    reading.get_by_role("button", name="Cancel").click()
    # the picker is still there to choose something else
    picker = page.get_by_role("dialog", name="Choose a figure")
    expect(picker.get_by_role("button", name=re.compile("^Heart"))).to_be_visible()


def test_work_that_was_never_saved_is_offered_when_the_browser_is_opened_again(
    page: Page, context: BrowserContext
) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Heart")
    bench.add("mirror")
    bench.settled()
    page.route(re.compile(r"/api/designs/\d+$"), lambda route: route.abort())
    bench.type("Lap", "11")
    expect(page.get_by_test_id("save-state")).to_contain_text("not reached")
    page.close()
    again = Bench(context.new_page())
    again.open(bench.number)
    # it is offered, not taken: the server may have something else by now
    again.page.get_by_role("button", name="Go on with it").click()
    expect(again.field("Lap")).to_have_value("11")
    again.settled()
    expect(again.page.get_by_role("button", name="Go on with it")).to_have_count(0)


def test_what_two_tabs_left_is_offered_from_both(page: Page, context: BrowserContext) -> None:
    """Off line, and both closed: neither tab's work is lost, and what a third still has in hand is not offered."""
    bench = Bench(page)
    bench.new(size="A2", figure="Heart")
    bench.add("mirror")
    bench.settled()
    tabs = [page, context.new_page(), context.new_page()]
    for tab in tabs[1:]:
        Bench(tab).open(bench.number)
    for tab, lap in zip(tabs, ("7", "9", "11"), strict=True):
        tab.route(re.compile(r"/api/designs/\d+$"), lambda route: route.abort())
        Bench(tab).type("Lap", lap)
        expect(tab.get_by_test_id("save-state")).to_contain_text("not reached")
    for tab in tabs[:2]:
        tab.close()
    again = Bench(context.new_page())
    again.open(bench.number)
    offers = again.page.get_by_role("region", name="Work that was not saved")
    expect(offers).to_have_count(2)
    offers.last.get_by_role("button", name="Go on with it").click()
    expect(again.field("Lap")).to_have_value("7")
    expect(offers).to_have_count(1)
    again.settled()
    again.page.reload()
    again.opened()
    expect(offers).to_have_count(1)
    offers.get_by_role("button", name="Throw it away").click()
    expect(offers).to_have_count(0)


def test_who_signs_out_leaves_no_draft_that_can_be_read(
    fresh: Page, context: BrowserContext
) -> None:
    bench = Bench(fresh)
    bench.new(size="A2", figure="Heart")
    bench.add("mirror")
    bench.settled()
    number = bench.number
    fresh.route(re.compile(r"/api/designs/\d+$"), lambda route: route.abort())
    bench.type("Lap", "12")
    expect(fresh.get_by_test_id("save-state")).to_contain_text("not reached")
    fresh.goto("/")
    fresh.unroute_all()
    fresh.get_by_role("button", name="Signed in as the demo designer").click()
    fresh.get_by_role("button", name="Sign out").click()
    asked = fresh.get_by_role("dialog", name="Unsaved work in this browser")
    expect(asked).to_contain_text("One draft here was never saved.")
    asked.get_by_role("button", name="Lock until I am back, and sign out").click()
    expect(fresh.get_by_label("Password")).to_be_visible()
    left = fresh.evaluate("Object.entries(localStorage).filter(([name]) => name.includes('draft'))")
    assert len(left) == 1
    assert "sealed" in left[0][1]
    assert "Heart" not in left[0][1]
    fresh.get_by_role("button", name="Go on as the demo designer").click()
    expect(fresh.locator("article").first).to_be_visible()
    again = Bench(fresh)
    again.open(number)
    fresh.get_by_role("button", name="Go on with it").click()
    expect(again.field("Lap")).to_have_value("12")
    again.settled()


def test_a_lost_connection_is_bridged(page: Page, context: BrowserContext) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Heart")
    bench.add("mirror")
    bench.settled()
    context.set_offline(True)
    bench.type("Lap", "13")
    expect(page.get_by_test_id("save-state")).to_contain_text("not reached")
    context.set_offline(False)
    bench.settled()
    page.reload()
    bench.opened()
    expect(bench.field("Lap")).to_have_value("13")


def test_two_versions_are_both_kept(page: Page, fresh: Page) -> None:
    mine, other = Bench(page), Bench(fresh)
    mine.new(size="A2", figure="Heart")
    mine.add("mirror")
    mine.settled()
    number = mine.number
    other.open(number)
    other.type("Lap", "5")
    other.settled()
    mine.type("Lap", "9")
    dialog = page.get_by_role("dialog", name="Two versions of this card")
    expect(dialog).to_be_visible()
    dialog.get_by_role("button", name=re.compile("Keep both")).click()
    page.wait_for_url(lambda url: not url.endswith(f"/{number}"))
    mine.opened()
    expect(page.get_by_label("Name of the design")).to_have_value("Heart (mine)")
    expect(mine.field("Lap")).to_have_value("9")
    mine.open(number)
    expect(mine.field("Lap")).to_have_value("5")


def test_a_heavy_step_is_said_to_be_computing_can_be_stopped_and_undone(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Heart")
    bench.add("Weld on")
    bench.settled()
    held: list[Any] = []
    page.route("**/api/evaluate", lambda route: held.append(route))  # as if it took for ever
    bench.type("Turn", "3")
    status = page.get_by_role("status").filter(has_text="computing")
    expect(status).to_be_visible()
    status.get_by_role("button", name="Stop").click()
    expect(page.get_by_text("stopped: the picture is of before")).to_be_visible()
    page.unroute("**/api/evaluate")
    page.get_by_role("button", name="Compute").click()
    expect(page.get_by_text("stopped: the picture is of before")).to_have_count(0)


def test_an_earlier_version_is_brought_back(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Heart")
    bench.add("mirror")
    bench.settled()
    for lap in ("5", "9"):
        bench.type("Lap", lap)
        bench.settled()
    page.get_by_role("button", name="History").click()
    dialog = page.get_by_role("dialog", name="History")
    expect(dialog.locator(".moment .folded").first).to_be_visible()
    dialog.get_by_role("button", name="Name it").click()
    page.locator(".el-message-box input").fill("for the shop")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(dialog.get_by_role("button", name=re.compile("for the shop"))).to_be_visible()
    dialog.get_by_role("button", name="Go back to it").click()
    expect(dialog).to_have_count(0)
    expect(bench.field("Lap")).to_have_value("5")
    bench.settled()
    page.get_by_role("button", name="Undo").click()
    expect(bench.field("Lap")).to_have_value("9")
    bench.settled()


def test_undo_reaches_back_beyond_leaving_and_reloading(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Heart")
    bench.add("mirror")
    bench.settled()
    for lap in ("5", "9", "12"):
        bench.type("Lap", lap)
        bench.settled()
    page.get_by_role("link", name="Stileblade").click()
    expect(page.get_by_role("heading", name="Designs")).to_be_visible()
    page.go_back()
    bench.opened()
    undo = page.get_by_role("button", name="Undo")
    for lap in ("9", "5"):
        expect(undo).to_be_enabled()
        undo.click()
        expect(bench.field("Lap")).to_have_value(lap)
    page.get_by_role("button", name="Redo").click()
    expect(bench.field("Lap")).to_have_value("9")
    bench.settled()
    page.reload()
    bench.opened()
    expect(bench.field("Lap")).to_have_value("9")
    # what was undone is history as well
    page.get_by_role("button", name="History").click()
    moments = page.get_by_role("dialog", name="History").locator(".grid .moment")
    expect(moments.nth(4)).to_be_visible()
    page.get_by_role("button", name="Make a design of it").click()
    bench.opened()
    expect(page.get_by_label("Name of the design")).to_have_value(re.compile(r"\(version \d+\)"))


def test_a_full_disk_is_said_and_what_was_done_is_saved_when_there_is_room(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Heart")
    bench.add("mirror")
    bench.settled()
    full = {
        "type": "stileblade:not-kept",
        "title": "Nothing can be kept on the server now: its disk is full.",
        "hint": "What you do stays in this browser.",
    }
    page.route(
        re.compile(r"/api/designs/\d+$"),
        lambda route: route.fulfill(status=503, json=full),
    )
    bench.type("Lap", "7")
    state = page.get_by_test_id("save-state")
    expect(state).to_contain_text("not kept on the server")
    expect(state).to_have_attribute("title", re.compile("disk is full"))
    page.unroute(re.compile(r"/api/designs/\d+$"))
    bench.settled()
