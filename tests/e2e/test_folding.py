"""Ways of folding, fold lines, the hinge curve, feet and other sizes, as a person works with them."""

from __future__ import annotations

import itertools
import re
from pathlib import Path

import ezdxf
import pytest
from playwright.sync_api import Page, expect

from stileblade.folding.hinge import cut_count
from stileblade.geometry.curves.line import Line
from stileblade.piece.folds import Fold, Made
from tests.e2e.bench import Bench, select


def pane(page: Page, label: str):  # type: ignore[no-untyped-def]
    return page.get_by_label("Size of the card").get_by_label(label, exact=True).first


def test_an_accordion_of_four_in_a_fresh_design(page: Page) -> None:
    """A2: open 431.8 x 139.7, folds at 107.95, 215.9 and 323.85, closed as one panel."""
    bench = Bench(page)
    bench.new(size="A2", way="Accordion")
    expect(page.get_by_role("banner")).to_contain_text("A2 accordion")
    expect(bench.reading("Open")).to_have_text("431.8 × 139.7 mm")
    expect(bench.reading("Closed")).to_have_text("107.95 × 139.7 mm")
    for name, at in (("fold 1", "107.95"), ("fold 2", "215.9"), ("fold 3", "323.85")):
        expect(page.locator(".folds .text", has_text=name)).to_have_text(f"{name}  {at}")
    # four layers are tight in the A2 envelope: 1.975 of room
    tight = bench.checks().filter(has_text="Only 1.98 mm of room in the A2 envelope")
    expect(tight).to_have_count(1)
    # and it is longer than a sheet of A4: a larger one is a press away
    sheet = bench.checks().filter(has_text="does not go on a sheet of 210 mm x 297 mm")
    sheet.get_by_role("button", name="sheet 12 x 18 in").click()
    expect(sheet).to_have_count(0)
    page.get_by_role("tab", name="Folds").click()
    expect(page.get_by_label("Layers").locator("li")).to_have_count(4)
    expect(page.get_by_label("Layers").locator("li").first).to_contain_text("front")
    rows = page.get_by_label("Scoring by hand").locator("tbody tr")
    expect(rows).to_have_count(3)
    expect(rows.nth(0)).to_contain_text("4 1/4")
    expect(rows.nth(2)).to_contain_text("inside")
    # five of them, and level: the form of the way goes with it
    page.locator(".tile .pick").first.click()
    pane(page, "Panels").fill("5")
    pane(page, "Panels").press("Enter")
    expect(bench.reading("Open")).to_have_text("539.75 × 139.7 mm")
    expect(page.get_by_role("status")).to_contain_text("1 step kept")


def test_a_perforated_fold_at_half_of_seven_and_a_quarter_inches(
    page: Page, tmp_path: Path
) -> None:
    """7 1/4 in / 2 = 92.075 mm, typed while mm are shown; cuts as many as fit on 139.7."""
    bench = Bench(page)
    bench.new(size="A2", way="Side fold")
    bench.add("fold line")
    bench.type("Distance", "7 1/4 in / 2")
    expect(bench.field("Distance")).to_have_value("92.08")
    bench.choose("Made by", "perforating")
    expect(page.locator(".told")).to_contain_text("92.08 mm")
    bench.settled()
    path = bench.export("DXF", tmp_path)
    entities = ezdxf.readfile(path).modelspace().query("LWPOLYLINE")
    lines = [list(e.get_points("xy")) for e in entities if "perf" in e.dxf.layer.lower()]
    fold = Fold("", Line.on("x", 0), made=Made.PERFORATE)
    assert len(lines) == cut_count(139.7, fold) == 46
    assert {round(x, 3) for line in lines for x, _ in line} == {92.075}
    # the card folds on it as well: three layers at the thickest
    expect(bench.reading("Bulk")).to_have_text("0.9 mm")


def test_the_lap_along_the_hinge_curve(page: Page) -> None:
    """Dragged, the curve's hinge, the reading and the flat view agree; the keys nudge it."""
    bench = Bench(page)
    bench.new(size="150 mm square", figure="Circle")
    bench.add("mirror")
    bench.choose("Towards", "to the left")
    bench.settled()
    curve = page.get_by_label("Lap along the hinge curve")
    box = curve.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] * 0.1, box["y"] + 40)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] * 0.5, box["y"] + 40, steps=10)
    page.mouse.up()
    bench.settled()
    lap = float(bench.value("Lap"))
    assert 11 < lap < 13
    hinge = page.locator(".lap-curve figcaption strong").first.inner_text()
    expect(bench.reading("Hinge")).to_have_text(hinge)
    # r = 30 of the circle of 60
    radius = 30.0
    exact = 2 * (radius**2 - (radius - lap / 2) ** 2) ** 0.5
    assert float(hinge.removesuffix(" mm")) == pytest.approx(exact, abs=0.006)
    length = page.locator("line.span").evaluate(
        "e => Math.hypot(e.x2.baseVal.value - e.x1.baseVal.value, e.y2.baseVal.value - e.y1.baseVal.value)"
    )
    high = page.get_by_test_id("flat-path").evaluate("e => e.getBoundingClientRect().height")
    assert length / high == pytest.approx(exact / 60, abs=0.02)
    curve.press("ArrowRight")
    expect(bench.field("Lap")).to_have_value(f"{lap + 0.1:.1f}")


def test_the_best_join_is_compared_and_taken(page: Page) -> None:
    bench = Bench(page)
    page.goto("/")
    page.get_by_role("button", name="Open: Whale, hardly joined").click()
    bench.opened()
    bench.pick("Mirror")
    before = float(bench.reading("Hinge").inner_text().removesuffix(" mm"))
    page.get_by_role("button", name="Find the best join").click()
    joins = page.get_by_role("dialog", name="Find the best join").locator(".join")
    expect(joins.first).to_be_visible()
    promised = float(joins.first.locator("strong").inner_text().split(" ")[1])
    assert promised > 2 * before
    lengths = [float(t.split(" ")[1]) for t in joins.locator("strong").all_inner_texts()]
    assert all(a >= b - 0.5 for a, b in itertools.pairwise(lengths))
    joins.first.click()
    bench.settled()
    now = float(bench.reading("Hinge").inner_text().removesuffix(" mm"))
    assert now == pytest.approx(promised, abs=0.3)
    page.get_by_role("button", name="Undo").click()
    expect(bench.reading("Hinge")).to_have_text(f"{before} mm")


def test_a_trim_of_the_foot_is_suggested_and_taken(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="150 mm square", figure="Circle")
    bench.type("Diameter", "100")
    bench.add("mirror")
    bench.type("Lap", "30")
    bench.settled()
    rocks = bench.checks().filter(has_text="It rocks")
    expect(rocks).to_contain_text("touch the table along 2.83 mm")
    rocks.get_by_role("button", name="foot flat for 25 mm, 1.59 mm lost").click()
    bench.settled()
    expect(bench.checks().filter(has_text="It rocks")).to_have_count(0)
    expect(page.locator("[data-step]", has_text="Slice")).to_have_count(1)
    page.get_by_role("button", name="standing").click()
    expect(page.get_by_role("button", name="standing")).to_have_attribute("aria-pressed", "true")


def test_another_size_keeps_what_it_can_and_says_so(page: Page) -> None:
    """A window of 106 fits on A2 (107.95) and not on ISO A6 (105): switched off, not deleted."""
    bench = Bench(page)
    bench.new(size="A2", way="Side fold")
    bench.add("window")
    bench.settled()
    bench.add("window")
    page.get_by_label("Step in hand").get_by_role(
        "button", name=re.compile("Choose another")
    ).click()
    page.get_by_role("dialog").get_by_role("button", name=re.compile("^Rectangle")).click()
    bench.type("Width", "106")
    bench.settled()
    page.locator(".tile .pick").first.click()
    page.get_by_role("button", name="Other sizes, side by side").click()
    dialog = page.get_by_role("dialog", name="The same design on other card sizes")
    select(dialog.get_by_label("Other sizes"))
    page.get_by_role("option", name="A7", exact=True).click()
    dialog.get_by_text("Show it on").click()
    expect(dialog.get_by_label("A7", exact=True)).to_contain_text("3 steps kept")
    # the nearest size is shown by itself
    other = dialog.get_by_label("ISO A6", exact=True)
    expect(other).to_contain_text("closed 105 × 148 mm")
    expect(other).to_contain_text("2 steps kept, 1 switched off")
    expect(other).to_contain_text("larger than the panel")
    other.get_by_role("button", name="Take this size").click()
    bench.settled()
    expect(bench.reading("Closed")).to_have_text("105 × 148 mm")
    expect(page.locator("[data-step]")).to_have_count(3)
    expect(page.locator(".pick.off")).to_have_count(1)
    # folded another way: the window on the front is on the gatefold's door now, too wide for it
    page.get_by_role("button", name="Choose another").first.click()
    page.get_by_role("radio", name="Gatefold").click()
    bench.settled()
    expect(page.get_by_role("banner")).to_contain_text("gatefold")
    expect(page.get_by_role("status")).to_contain_text("kept")


def test_own_panels_are_dragged_on_the_flat_view(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A2", way="Own panels")
    page.locator(".tile .pick").first.click()
    before = bench.reading("Open").inner_text()
    bench.drag("panels.0.width", 40, 0)
    bench.settled()
    assert bench.reading("Open").inner_text() != before
    field = page.get_by_label("Width of panel 1")
    assert float(field.input_value()) > 60
    field.fill("50")
    field.press("Enter")
    expect(bench.reading("Open")).to_have_text("170 × 139.7 mm")


def test_the_folded_view_draws_while_something_moves_and_only_then(page: Page) -> None:
    bench = Bench(page)
    page.goto("/")
    page.get_by_role("button", name=re.compile("^Open: Row of beach huts$")).click()
    bench.opened()
    canvas = page.locator("canvas")
    more = "n => Number(document.querySelector('canvas').dataset.frames) > n"

    def at_rest() -> int:
        """The number of frames, once a while goes by in which none is drawn."""
        for _ in range(20):
            frames = canvas.get_attribute("data-frames")
            page.wait_for_timeout(400)
            if frames and canvas.get_attribute("data-frames") == frames:
                expect(canvas).to_have_attribute("data-still", "true")
                return int(frames)
        raise AssertionError("it is drawn on and on")

    still = at_rest()
    canvas.focus()
    canvas.press(" ")
    page.wait_for_function(more, arg=still + 10)
    canvas.press(" ")
    paused = at_rest()
    box = canvas.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 60, y + 20, steps=20)
    page.mouse.up()
    page.wait_for_function(more, arg=paused)
