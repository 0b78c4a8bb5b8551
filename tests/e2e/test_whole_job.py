"""From an envelope and a file of one's own to files that can be cut."""

from __future__ import annotations

import io
import re
from pathlib import Path

import ezdxf
import pytest
from ezdxf import path as dxf_path
from lxml import etree
from playwright.sync_api import Page, expect

from stileblade.geometry.paths.pathdata import region_from_path
from tests.e2e.bench import Bench

SVG = "{http://www.w3.org/2000/svg}"
# a buoy: a disc of 50 with a mast to one side, and a tiny hole that nobody wants
BUOY = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="80mm" viewBox="0 0 80 80">'
    '<rect id="plate" x="70" y="70" width="5" height="5"/>'
    '<path id="buoy" fill-rule="evenodd" d="M15 45A25 25 0 0 0 65 45A25 25 0 0 0 46 20.8V2H40V20'
    'A25 25 0 0 0 15 45ZM30 40A1 1 0 0 0 32 40A1 1 0 0 0 30 40Z"/></svg>'
)


def svg_size(path: Path) -> tuple[float, float]:
    root = etree.parse(path).getroot()
    return tuple(float(str(root.get(k)).removesuffix("mm")) for k in ("width", "height"))  # type: ignore[return-value]


def test_from_a_file_of_ones_own_to_cut_files(page: Page, tmp_path: Path) -> None:
    bench = Bench(page)
    page.goto("/new")
    page.get_by_role("radio", name=re.compile(r"^ISO A6\s")).click()
    page.get_by_label("Name of the card").fill("Harbour buoy")
    bench.choose_figure()
    page.get_by_label("Drawing or font file").set_input_files(
        {"name": "buoy.svg", "mimeType": "image/svg+xml", "buffer": BUOY.encode()}
    )
    reading = page.get_by_role("dialog", name="Read: buoy.svg")
    # two shapes of one colour are one layer; taken apart, the plate stays behind
    reading.get_by_role("button", name="Choose Plate").click()
    reading.get_by_role("button", name="Take apart").click()
    reading.get_by_role("checkbox", name="Bring Plate along").locator("..").click()
    expect(reading.locator(".sums")).to_contain_text("50 × 68 mm")
    reading.get_by_role("button", name="Keep and choose it").click()
    bench.begin("One half")
    page.get_by_role("button", name="Build it").click()
    bench.opened()
    bench.field("Openings filled").locator("..").click()

    # fitted to a height typed in inches while mm are shown: 4 in = 101.6
    bench.choose("Fit to", "a height")
    bench.type("Height", "4in")
    expect(bench.field("Height")).to_have_value("101.6")

    # trimmed at the foot by the pointer, then exactly by keyboard and typing: all agree
    bench.add("trim foot")
    before = float(bench.value("Distance"))
    bench.drag("distance", 0, -30)
    dragged = float(bench.value("Distance"))
    assert dragged > before
    page.locator("[data-handle=distance]").press("ArrowUp")
    expect(bench.field("Distance")).to_have_value(f"{dragged + 0.1:.2f}".rstrip("0").rstrip("."))
    bench.type("Distance", "7 1/2")
    expect(page.locator(".bubble text")).to_have_text("slice 7.5 mm")

    # mirrored to the left, as a side fold is; the lap by the keys of its handle
    bench.add("mirror")
    bench.settled()
    handle = page.locator("[data-handle=lap]")
    handle.press("Shift+ArrowRight")
    handle.press("Shift+ArrowRight")
    handle.press("ArrowRight")
    expect(bench.field("Lap")).to_have_value("5.1")
    bench.type("Lap", "8")

    # the tiny hole is told, shown, and filled by one press; undo brings it back
    tiny = bench.checks().filter(has_text="left in")
    expect(tiny).to_have_count(1)
    tiny.get_by_title("Show the place").click()
    expect(page.locator(".marked path")).to_have_count(2)
    tiny.get_by_role("button", name="fill them").click()
    expect(tiny).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(tiny).to_have_count(1)
    page.get_by_role("button", name="Redo").click()
    expect(tiny).to_have_count(0)

    # a window, dragged until it snaps to the panel's centre line
    bench.pick("Mirror")
    bench.add("window porthole")
    bench.type("Diameter", "16")
    bench.type("To the right", "6")
    bench.drag("dx", -15, 40)
    bench.settled()
    moved = bench.value("To the right"), bench.value("Down")
    assert float(moved[1]) > 0
    bench.type("To the right", "0")
    bench.type("Down", "12")
    bench.settled()

    closed = page.get_by_title("Closed size").inner_text()
    width, height = (float(v) for v in re.findall(r"[\d.]+", closed))
    # 78 mm of drawing were scaled to 101.6, of which 7.5 were cut off
    drawn = 101.6 / (70 - 2)
    assert height == pytest.approx(101.6 - 7.5, abs=0.01)
    assert width == pytest.approx(50 * drawn - 4, abs=0.01)

    svg = bench.export("SVG", tmp_path)
    assert svg.name == "Harbour-buoy-Base.svg"
    assert svg_size(svg) == pytest.approx((2 * width, height), abs=0.01)
    root = etree.parse(svg).getroot()
    outer = root.find(f".//{SVG}g[@id='cut-outer']/{SVG}path")
    inner = root.findall(f".//{SVG}g[@id='cut-inner']/{SVG}path")
    region = region_from_path(outer.get("d"))
    assert (region.bounds.width, region.bounds.height) == pytest.approx(
        (2 * width, height), abs=0.01
    )
    (hole,) = (region_from_path(p.get("d")) for p in inner)
    assert hole.bounds.width == pytest.approx(16, abs=0.01)
    # centred on the front, which is the right half
    assert hole.bounds.centre[0] == pytest.approx(1.5 * width, abs=0.01)

    dxf = ezdxf.read(io.StringIO(bench.export("DXF", tmp_path).read_text()))
    points = [p for e in dxf.modelspace() for p in dxf_path.make_path(e).flattening(0.002)]
    spread = [max(p[i] for p in points) - min(p[i] for p in points) for i in (0, 1)]
    assert spread == pytest.approx([2 * width, height], abs=0.01)
    assert bench.export("PDF", tmp_path).read_bytes().startswith(b"%PDF")
    assert bench.export("PNG", tmp_path).read_bytes().startswith(b"\x89PNG")


def test_a_blank_in_inches_with_the_keyboard(page: Page, tmp_path: Path) -> None:
    """A5 1/8 in typed, a fold read from all three sides, a perforated crease, exact sizes."""
    bench = Bench(page)
    bench.new(size="A2")
    page.get_by_text("in", exact=True).first.click()
    expect(page.locator(".folds .text")).to_have_text("fold  4.25 left · 4.25 right · 0 centre")
    bench.add("window")
    bench.type("Diameter", "2 1/8")
    bench.type("Down", "-1 1/4in / 2")
    expect(bench.field("Down")).to_have_value("-0.625")
    bench.add("perforate")
    bench.choose("Made by", "perforating")
    expect(bench.reading("Hinge")).to_contain_text("1.878 in")  # 47.7 mm
    # the step goes before the window by its keys
    page.locator("[data-step]", has_text="Crease").press("Alt+ArrowLeft")
    expect(page.locator("[data-step]").nth(1)).to_contain_text("Crease")
    bench.settled()
    root = etree.parse(bench.export("SVG", tmp_path)).getroot()
    cuts = root.findall(f".//{SVG}g[@id='perforate']/{SVG}path")
    assert len(cuts) == 46
    hole = region_from_path(root.find(f".//{SVG}g[@id='cut-inner']/{SVG}path").get("d"))
    assert hole.bounds.width == pytest.approx(2.125 * 25.4, abs=0.01)
    assert hole.bounds.centre == pytest.approx((1.5 * 107.95, 69.85 - 0.625 * 25.4), abs=0.01)


def test_a_window_snaps_to_the_exact_centre(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="ISO A6")
    bench.add("window")
    bench.type("To the right", "9")
    bench.type("Down", "-14")
    bench.settled()
    frame = page.locator("[data-handle=dx] .frame").bounding_box()
    assert frame is not None
    scale = frame["width"] / 20  # the circle is 20 wide
    # to within half a mm of the centre: the guide takes it the rest of the way
    bench.drag("dx", -8.6 * scale, 13.6 * scale)
    expect(bench.field("To the right")).to_have_value("0")
    expect(bench.field("Down")).to_have_value("0")
