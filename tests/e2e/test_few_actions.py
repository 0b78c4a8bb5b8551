"""How many actions a person needs for five jobs: a press of a button or key that does something, a text typed,
a thing dragged, each counts one."""

from __future__ import annotations

import json
import re
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.e2e.bench import Bench, select

BUOY = (
    "<svg xmlns='http://www.w3.org/2000/svg' width='60mm' height='80mm' viewBox='0 0 60 80'>"
    "<path d='M10 70L20 20C24 4 36 4 40 20L50 70Z'/></svg>"
)


class Counted:
    """The page, by the hand of somebody who counts."""

    def __init__(self, page: Page) -> None:
        self.page, self.actions = page, 0
        page.goto("/")

    def press(self, what: Locator) -> None:
        what.click()
        self.actions += 1

    def button(self, name: str) -> None:
        self.press(self.page.get_by_role("button", name=re.compile(f"^{name}")).first)

    def radio(self, name: str) -> None:
        self.press(self.page.get_by_role("radio", name=re.compile(rf"^{name}(\s|$)")).first)

    def say(self, step: str) -> None:
        """The search opened, what is wished for typed, taken."""
        steps = self.page.locator("[data-step]")
        count = steps.count()
        self.page.keyboard.press("/")
        self.page.keyboard.type(step)
        self.page.keyboard.press("Enter")
        self.actions += 3
        expect(steps).to_have_count(count + 1)

    def built(self) -> Bench:
        expect(self.page.get_by_role("button", name="Build it")).to_be_enabled()
        self.button("Build it")
        bench = Bench(self.page)
        bench.opened()
        return bench

    def exported(self, folder: Path) -> Path:
        self.button("Cut files")
        save = self.page.get_by_role("dialog").get_by_role(
            "button", name=re.compile("^Save( all the same)?$")
        )
        expect(save).to_be_enabled()
        with self.page.expect_download() as download:
            self.press(save)
        path = folder / download.value.suggested_filename
        download.value.save_as(path)
        assert path.stat().st_size > 200
        return path


@pytest.fixture
def hand(page: Page) -> Counted:
    return Counted(page)


def last_step(page: Page) -> dict[str, Any]:
    bench = Bench(page)
    bench.settled()
    made = page.request.get(f"/api/designs/{bench.number}").json()["document"]
    steps: list[dict[str, Any]] = made["pieces"][0]["steps"]
    return steps[-1]


def test_a_right_heart_card(hand: Counted, tmp_path: Path) -> None:
    """As large as the size, mirrored, its foot trimmed so that it stands: no error, no warning."""
    hand.press(hand.page.get_by_role("link", name="New card"))
    hand.radio("5 in square")
    hand.radio("Shaped")
    bench = hand.built()
    bench.settled()
    hand.press(hand.page.get_by_role("tab", name=re.compile("Checks")))
    mend = hand.page.locator(".checks li", has_text="It rocks").locator(".el-button").last
    hand.press(mend)
    bench.settled()
    expect(hand.page.locator(".checks li", has_text="It rocks")).to_have_count(0)
    expect(hand.page.locator(".checks li", has_text="hinge")).to_have_count(0)
    hand.exported(tmp_path)
    assert hand.actions <= 12, hand.actions


def test_a_card_of_a_drawing_of_ones_own_with_a_perforated_fold(
    hand: Counted, tmp_path: Path
) -> None:
    hand.press(hand.page.get_by_role("link", name="New card"))
    hand.radio("ISO A6")
    hand.button(".*choose another")
    dialog = hand.page.get_by_role("dialog", name="Choose a figure")
    dialog.get_by_label("Drawing or font file").set_input_files(
        {"name": "buoy.svg", "mimeType": "image/svg+xml", "buffer": BUOY.encode()}
    )
    hand.actions += 2  # read a file, and which
    hand.press(hand.page.get_by_role("button", name="Keep and choose it"))
    expect(hand.page.get_by_role("radio", name="Shaped", exact=True)).to_be_checked()
    hand.built()
    hand.say("perforate the fold")
    assert last_step(hand.page)["made"] == "perforate"
    hand.exported(tmp_path)
    assert hand.actions <= 14, hand.actions


def test_a_centred_window_with_a_stitched_line(hand: Counted, tmp_path: Path) -> None:
    hand.press(hand.page.get_by_role("link", name="New card"))
    hand.radio("A2")
    bench = hand.built()
    hand.say("round window 60 mm")
    expect(bench.field("Diameter")).to_have_value("60")
    hand.say("stitched line round the window")
    bench.settled()
    line = last_step(hand.page)
    assert (line["kind"], line["how"], line["along"]) == ("border-line", "stitch", "windows")
    hand.exported(tmp_path)
    assert hand.actions <= 12, hand.actions


def test_an_accordion_with_waves(hand: Counted, tmp_path: Path) -> None:
    hand.press(hand.page.get_by_role("link", name="New card"))
    hand.radio("A2")
    hand.radio("Accordion")
    bench = hand.built()
    hand.say("waves along the head 6 mm")
    bench.settled()
    edge = last_step(hand.page)
    assert (edge["kind"], edge["motif"], edge["side"], edge["depth"]) == (
        "shaped-edge", "wave", "head", 6,
    )  # fmt: skip
    hand.exported(tmp_path)
    assert hand.actions <= 12, hand.actions


def test_the_same_card_in_another_size(hand: Counted) -> None:
    bench = Bench(hand.page)
    bench.new(size="A2")
    hand.actions = 0
    hand.press(hand.page.locator(".tile .pick").first)
    select(hand.page.get_by_label("Card size"))
    hand.actions += 1
    hand.press(hand.page.get_by_role("option", name=re.compile("^A7")))
    expect(hand.page.get_by_role("banner")).to_contain_text("A7 side fold")
    bench.settled()
    kept = json.dumps(hand.page.request.get(f"/api/designs/{bench.number}").json())
    assert '"A7"' in kept
    assert hand.actions <= 4, hand.actions
