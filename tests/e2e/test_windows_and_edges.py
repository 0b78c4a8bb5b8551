"""Windows with grilles, stencils and shaped edges, built on the bench and read back from a file."""

from __future__ import annotations

import math
import re
from pathlib import Path

import pytest
from lxml import etree
from playwright.sync_api import Page, expect

from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.transforms import scaling
from stileblade.outlines.reading.kinds import read_file
from tests.e2e.bench import Bench

SVG = "{http://www.w3.org/2000/svg}"


def exported(bench: Bench, folder: Path):  # type: ignore[no-untyped-def]
    """The one shape of the exported SVG, in mm."""
    found = read_file(bench.export("SVG", folder).read_bytes(), lines="contours")
    scale = found.sizes[0].scale
    return max((s.region for s in found.shapes), key=lambda r: r.area).transformed(
        scaling(scale, scale)
    )


def test_a_porthole_with_a_grille(page: Page, tmp_path: Path) -> None:
    """A window of 60 x 40 centred by the keys, bars of 3 with gaps of 6: 7 bars, open 1560 mm2."""
    bench = Bench(page)
    bench.new(size="ISO A6", way="Gatefold")
    bench.add("window")
    bench.choose("On", "back")
    page.get_by_label("Step in hand").get_by_role(
        "button", name=re.compile("Choose another")
    ).click()
    page.get_by_role("dialog").get_by_role("button", name=re.compile("^Rectangle")).click()
    bench.type("Width", "60")
    bench.type("Height", "40")
    bench.settled()
    bench.add("grille")
    expect(page.locator(".told")).to_contain_text("1560 mm²")
    expect(page.locator(".told")).to_contain_text("65 %")
    bench.choose("Bars", "in two directions")
    expect(page.locator(".told")).to_contain_text("975 mm²")
    bench.settled()
    region = exported(bench, tmp_path)
    assert region.pieces == 1
    assert len(region.openings) == 8 * 6
    assert region.area == pytest.approx(209 * 148 - 975, abs=0.1)


def test_a_stencil_is_bridged_and_an_edge_shaped(page: Page, tmp_path: Path) -> None:
    """The ring's island is held by two bridges; without them it drops out. The wave is shortened, so
    that the card stays 105 x 148 when closed."""
    bench = Bench(page)
    bench.new(size="ISO A6", way="Side fold")
    bench.add("stencil")
    expect(page.locator(".told")).to_contain_text("902.4 mm²")
    bench.field("Bridges").locator("..").click()
    expect(page.locator(".told")).to_contain_text("1256.6 mm²")
    page.get_by_role("button", name="Undo").click()
    expect(page.locator(".told")).to_contain_text("902.4 mm²")
    bench.add("shaped edge")
    expect(page.locator(".told")).to_contain_text("21.14 mm")
    expect(bench.reading("Closed")).to_have_text("105 × 148 mm")
    bench.choose("Panel", "grows by the depth")
    expect(bench.reading("Closed")).to_have_text("109 × 148 mm")
    bench.settled()
    region = exported(bench, tmp_path)
    assert region.bounds.width == pytest.approx(214, abs=0.01)
    assert (region.pieces, len(region.openings)) == (1, 2)


def test_a_lantern_says_what_would_do(page: Page) -> None:
    """Slots that grow over the panel's edge: the step is passed over, says why, and is mended."""
    bench = Bench(page)
    bench.new(size="A2", way="Side fold")
    bench.add("slot ladder")
    expect(page.locator(".told")).to_contain_text("1050 mm²")
    bench.type("Slots", "16")
    expect(page.get_by_label("Step in hand").get_by_role("alert")).to_contain_text(
        "over the edge of its panel"
    )
    bench.type("Slots", "9")
    expect(page.get_by_label("Step in hand").get_by_role("alert")).to_have_count(0)
    expect(bench.reading("Openings")).to_have_text("9")


def test_stitches_and_a_word_for_the_pen(page: Page, tmp_path: Path) -> None:
    """Inside a panel of 105 x 148 by 5: 466 mm, 78 stitches of 4 with 2 between; nothing of it, nor
    of the word, is cut."""
    bench = Bench(page)
    bench.new(size="ISO A6", way="Side fold")
    bench.add("line round")
    expect(page.locator(".told")).to_contain_text("466 mm")
    bench.choose("Made by", "drawing stitches")
    expect(page.locator(".told")).to_contain_text("78")
    # 16 on each side of 95 and 23 on each of 138, with a hole in each corner
    expect(page.locator(".told")).to_contain_text("316.07 mm")
    bench.add("drawn figure")
    page.get_by_label("Step in hand").get_by_role(
        "button", name=re.compile("Choose another")
    ).click()
    page.get_by_role("dialog").get_by_role("button", name=re.compile("^Star")).first.click()
    bench.settled()
    expect(page.locator("path.line")).to_have_count(2)
    root = etree.parse(bench.export("SVG", tmp_path)).getroot()

    def paths(group: str) -> int:
        return len(root.findall(f".//{SVG}g[@id='{group}']//{SVG}path"))

    assert paths("draw") == 78 + 1
    assert (paths("cut-outer"), paths("cut-inner"), paths("score")) == (1, 0, 1)


def test_an_edge_ends_plain_and_its_corners_alone_are_rounded(page: Page, tmp_path: Path) -> None:
    """Zigzags along 148 - 2 x 10, standing full at the corners; two of six corners rounded with
    r = 6, one by the pointer, one by the key; the zigzag's own stay sharp."""
    bench = Bench(page)
    bench.new(size="ISO A6", way="Side fold")
    bench.add("shaped edge")
    bench.choose("Motif", "zigzag")
    bench.type("Depth", "5")
    bench.type("Pitch", "16")
    bench.choose("At the corners", "standing full")
    bench.type("Plain at the corners", "10")
    bench.settled()
    bench.add("soften")
    bench.type("Radius", "6")
    bench.choose("Corners", "picked ones")
    corners = page.locator(".picks").get_by_role("checkbox")
    square = corners.filter(
        has=page.locator("xpath=self::*[starts-with(@aria-label, 'Corner of 90°')]")
    )
    expect(square).to_have_count(4)
    expect(page.get_by_label("Step in hand").get_by_role("alert")).to_contain_text(
        "No corner is picked"
    )
    # those at the right are the front's; which comes first is the outline's own affair
    boxes = [(square.nth(i).bounding_box() or {"x": 0})["x"] for i in range(4)]
    right = [i for i in range(4) if boxes[i] > sum(boxes) / 4]
    square.nth(right[0]).click()
    bench.settled()
    square.nth(right[1]).focus()
    page.keyboard.press("Enter")
    bench.settled()
    expect(square.nth(right[1])).to_have_attribute("aria-checked", "true")
    region = exported(bench, tmp_path)
    # eight zigzags of 16 x 5 take half of their strip
    lost = 128 * 5 / 2 + 2 * (1 - math.pi / 4) * 36
    assert region.area == pytest.approx(210 * 148 - lost, abs=0.05)
    kinds = region.segments.kind.tolist()
    assert kinds.count(Kind.ARC) == 2
