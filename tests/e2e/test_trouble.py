"""Bad input with clear words, lost connections, two versions: nothing is lost."""

from __future__ import annotations

import re

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
    bench.checks().first.get_by_role("button").last.click()
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
    page.get_by_role("radio", name=re.compile("A figure")).click()
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
    expect(page.get_by_role("button", name=re.compile("^Heart"))).to_be_visible()


def test_work_is_found_again_after_the_browser_is_closed_at_once(
    page: Page, context: BrowserContext
) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Heart")
    bench.add("mirror")
    bench.settled()
    bench.type("Lap", "11")
    page.close()  # before the second has passed
    again = Bench(context.new_page())
    again.open(bench.number)
    expect(again.field("Lap")).to_have_value("11")
    again.settled()


def test_a_lost_connection_is_bridged(page: Page, context: BrowserContext) -> None:
    bench = Bench(page)
    bench.new(size="A2", figure="Heart")
    bench.add("mirror")
    bench.settled()
    context.set_offline(True)
    bench.type("Lap", "13")
    expect(page.get_by_test_id("save-state")).to_contain_text("no connection")
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
    expect(page.get_by_label("Name of the design")).to_have_value("New card (mine)")
    expect(mine.field("Lap")).to_have_value("9")
    mine.open(number)
    expect(mine.field("Lap")).to_have_value("5")
