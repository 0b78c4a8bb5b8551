"""Windows, overhangs, edges and splits shaped with the pointer, and read back from their files."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.bench import Bench
from tests.e2e.test_windows_and_edges import exported


def test_a_porthole_snaps_to_the_middle(page: Page, tmp_path: Path) -> None:
    """Dragged away and back to within some pixels, it lies in the middle of the back exactly: a
    circle of 20 about 105, 74 of a gatefold of 209 x 148, whose back runs from 52 to 157."""
    bench = Bench(page)
    bench.new(size="ISO A6", way="Gatefold")
    bench.add("window")
    bench.choose("On", "back")
    bench.settled()
    bench.drag("dx", 61, 47)
    bench.settled()
    assert float(bench.value("To the right")) != 0
    assert float(bench.value("Down")) != 0
    bench.drag("dx", -58, -50)
    bench.settled()
    assert (bench.value("To the right"), bench.value("Down")) == ("0", "0")
    region = exported(bench, tmp_path)
    (opening,) = region.openings
    assert opening.bounds.centre == pytest.approx((104.5, 74), abs=0.01)
    assert opening.bounds.width == pytest.approx(20, abs=0.01)


def test_gaps_are_typed_and_grips_size_and_turn(page: Page, tmp_path: Path) -> None:
    """A rectangle put 12 from the fold by typing over its gap; made larger by a corner; turned by
    the knob; nudged by the keys."""
    bench = Bench(page)
    bench.new(size="ISO A6", way="Side fold")
    bench.add("window")
    page.get_by_label("Step in hand").get_by_role(
        "button", name=re.compile("Choose another")
    ).click()
    page.get_by_role("dialog").get_by_role("button", name=re.compile("^Rectangle")).click()
    bench.type("Width", "40")
    bench.type("Height", "30")
    bench.settled()
    page.locator("[data-gap=left]").click()
    typed = page.get_by_label("From the left", exact=True)
    expect(typed).to_be_focused()
    typed.fill("1/2 in - 0.7mm")
    typed.press("Enter")
    expect(bench.field("To the right")).to_have_value("-20.5")
    handle = page.locator("[data-handle=dx]")
    handle.focus()
    handle.press("Shift+ArrowRight")
    bench.settled()
    assert float(bench.value("To the right")) == pytest.approx(-19.5)

    def pull(grip: str, dx: float, dy: float) -> None:
        box = page.locator(f"[data-grip={grip}]").bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x + dx, y + dy, steps=8)
        page.mouse.up()
        bench.settled()

    pull("right", 30, 25)
    assert float(bench.value("Width")) > 45
    assert bench.value("Height") == "30"
    bench.type("Width", "40")
    bench.settled()
    # by a right angle about the middle: from above it to the right of it
    knob = page.locator("[data-grip=turn]").bounding_box()
    cross = page.locator("[data-handle=dx] .cross").bounding_box()
    assert knob is not None
    assert cross is not None
    x, y = cross["x"] + cross["width"] / 2, cross["y"] + cross["height"] / 2
    page.mouse.move(knob["x"] + 6, knob["y"] + 6)
    page.mouse.down()
    page.mouse.move(x + 90, y - 60, steps=6)
    page.mouse.move(x + 100, y + 1, steps=6)
    page.mouse.up()
    bench.settled()
    assert bench.value("Turn") == "90"
    (opening,) = exported(bench, tmp_path).openings
    assert (opening.bounds.width, opening.bounds.height) == pytest.approx((30, 40), abs=0.01)


def test_an_overhang_is_dragged_until_the_envelope_speaks(page: Page, tmp_path: Path) -> None:
    """C6 leaves 114 - 105 - 0.6 = 8.4 mm: the check is shown while the figure is dragged, and its
    mend lets it stand out by 6.4, which keeps the 2 mm of slack."""
    bench = Bench(page)
    bench.new(size="ISO A6", way="Side fold")
    bench.add("overhang")
    bench.type("Stands out", "4")
    bench.settled()
    grip = page.locator("[data-handle=out] .cross").bounding_box()
    assert grip is not None
    x, y = grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 40, y + 10, steps=10)
    said = page.locator(".bubble .outcome")
    expect(said).to_contain_text("room -")
    expect(said).to_have_class(re.compile("over"))
    page.mouse.up()
    bench.settled()
    assert float(bench.value("Stands out")) > 9
    checks = bench.checks()
    expect(checks.first).to_contain_text("too large for the C6 envelope")
    page.get_by_role("button", name=re.compile("let it stand out by 6.4 mm")).click()
    expect(bench.field("Stands out")).to_have_value("6.4")
    expect(bench.reading("Closed")).to_have_text("111.4 × 148 mm")
    bench.settled()
    region = exported(bench, tmp_path)
    assert region.pieces == 1
    assert region.bounds.width == pytest.approx(216.4, abs=0.005)


def test_a_wave_edge_and_a_flap_of_the_same_motif(page: Page, tmp_path: Path) -> None:
    """The edge of the back shortened by a wave, the flap's edge by the same one: 148 / 20 are 7
    waves of 21.143; the closed card stays 105 wide, and the two edges are the same curve."""
    bench = Bench(page)
    bench.new(size="ISO A6", way="Side fold with flap")
    bench.add("shaped edge")
    bench.choose("On", "back")
    bench.choose("Edge", "left")
    bench.type("Depth", "6")
    expect(page.locator(".told")).to_contain_text("21.14 mm")
    page.get_by_label("Step in hand").locator("xpath=ancestor::aside").get_by_role(
        "button", name="duplicate"
    ).click()
    bench.choose("On", "flap")
    bench.choose("Edge", "right")
    expect(bench.reading("Closed")).to_have_text("105 × 148 mm")
    bench.settled()
    region = exported(bench, tmp_path)
    box = region.bounds
    # cut back by the half of what lies between troughs and tips, on either side
    assert box.height == pytest.approx(148, abs=0.005)
    full = float(bench.reading("Open").inner_text().split("×")[0]) * 148
    assert region.area == pytest.approx(full - 2 * 148 * 3, rel=1e-3)
    segments = region.segments
    assert (segments.kind == 2).sum() == 4 * 7


def test_a_blank_is_split_by_a_strip_into_two_pieces(page: Page, tmp_path: Path) -> None:
    """A card of 210 x 148 split 40 from the left by a strip of 4: 38 and 168 wide. The narrow part
    becomes a piece of its own, follows the card's new height, and is exported by itself."""
    bench = Bench(page)
    bench.new(size="ISO A6", way="Side fold")
    bench.add("split")
    bench.choose("Measured from", "left or head")
    bench.type("Distance", "40")
    bench.type("Strip", "4")
    expect(page.get_by_label("Parts").get_by_role("listitem")).to_have_count(2)
    expect(bench.reading("Open")).to_have_text("168 × 148 mm")
    page.get_by_role("button", name="Make it a piece").click()
    expect(page.get_by_role("tab", name="Base, part 1")).to_have_attribute("aria-selected", "true")
    expect(bench.reading("Open")).to_have_text("38 × 148 mm")
    bench.settled()
    narrow = exported(bench, tmp_path)
    assert (narrow.bounds.width, narrow.bounds.height) == pytest.approx((38, 148), abs=0.005)
    page.get_by_role("tab", name="Base", exact=True).click()
    expect(page.get_by_label("Parts")).to_contain_text("is “Base, part 1”")
    bench.settled()
    wide = exported(bench, tmp_path)
    assert wide.bounds.width == pytest.approx(168, abs=0.005)
    # the card's height typed on its dimension line
    page.get_by_role("button", name=re.compile("^148: type another")).first.click()
    page.get_by_label("Height of the closed card").fill("130")
    page.get_by_label("Height of the closed card").press("Enter")
    expect(bench.reading("Open")).to_have_text("168 × 130 mm")
    page.get_by_role("tab", name="Base, part 1").click()
    expect(bench.reading("Open")).to_have_text("38 × 130 mm")
    page.reload()
    expect(page.get_by_role("tab", name="Base, part 1")).to_be_visible()
    page.get_by_role("tab", name="Base, part 1").click()
    page.get_by_role("button", name=re.compile("^all 2")).click()
    page.get_by_label("Pieces of the card").get_by_role("button", name="remove").click()
    expect(page.get_by_role("tab", name="Base, part 1")).to_have_count(0)


def test_bare_lines_the_inside_and_things_lined_up(page: Page) -> None:
    """Each line tells its length and its step; the other side is seen mirrored; windows are lined
    up and spread out evenly."""
    bench = Bench(page)
    bench.new(size="ISO A6", way="Side fold")
    for dx, dy in ((-30, -40), (4, -13), (20, 30)):
        bench.add("window")
        bench.type("To the right", str(dx))
        bench.type("Down", str(dy))
        bench.settled()
    dialog = page.get_by_role("dialog")
    for how in ("By their centres", "Even gaps downwards"):
        page.get_by_role("button", name="Line up with others").click()
        boxes = dialog.get_by_role("checkbox")
        expect(boxes).to_have_count(3)
        for box in boxes.all()[:2]:
            box.locator("xpath=ancestor::label").click()
        dialog.get_by_role("button", name=how).click()
        expect(dialog).to_have_count(0)
    bench.settled()
    bench.pick("Window", 1)
    expect(bench.field("To the right")).to_have_value("20")
    expect(bench.field("Down")).to_have_value("-5")
    page.keyboard.press("Escape")
    page.keyboard.press("l")
    told = page.get_by_role("status").filter(has_text="cut")
    expect(told).to_contain_text("cut, inner 3 (188.5 mm) · cut, outer 1 (716 mm)")
    place = page.locator(".cut.cut-inner .seen").first.evaluate(
        "e => { const p = e.getPointAtLength(5).matrixTransform(e.getScreenCTM());"
        " return [p.x, p.y] }"
    )
    page.mouse.click(*place)
    expect(told).to_contain_text(re.compile(r"cut, inner, 62\.83 mm, by \d\. Window"))
    page.keyboard.press("l")
    left = page.locator(".panel text", has_text="front").bounding_box()
    page.keyboard.press("i")
    right = page.locator(".panel text", has_text="front").bounding_box()
    assert left is not None
    assert right is not None
    assert right["x"] < left["x"]
    side = page.get_by_role("group", name="Side that is seen")
    expect(side.get_by_role("button", name="inside")).to_have_attribute("aria-pressed", "true")
