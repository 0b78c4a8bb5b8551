"""Reading DXF and font files, and reading back what we write."""

from __future__ import annotations

import io
import json
import math
import random
from collections.abc import Callable
from pathlib import Path

import ezdxf
import numpy as np
import pytest
from ezdxf.document import Drawing

from stileblade.design.document import load_design
from stileblade.design.evaluation import evaluate
from stileblade.errors import ReadingError
from stileblade.formats.format import formats
from stileblade.formats.options import FileOptions
from stileblade.formats.plan import plan_of
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.transforms import scaling, translation
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, union
from stileblade.machine.operation import Operation
from stileblade.outlines.reading.found import Found
from stileblade.outlines.reading.kinds import read_file
from stileblade.outlines.text.shipped import FOLDER
from tests.geometry.zoo import away

DEMO = Path(__file__).parents[3] / "demo" / "designs"


def read(draw: Callable[[Drawing], None], units: int = 4) -> Found:
    document = ezdxf.new("R2010", units=units)
    draw(document)
    stream = io.StringIO()
    document.write(stream)
    return read_file(stream.getvalue().encode())


def area(found: Found) -> float:
    return sum(s.region.area for s in found.shapes) * found.sizes[0].scale ** 2


def kinds(found: Found) -> set[int]:
    return {int(k) for s in found.shapes for k in s.region.segments.kind}


SHAPES = {
    # half a circle of 20 on a line: the bulge of a half turn is 1
    "bulge": (lambda m: m.add_lwpolyline([(0, 0, 1), (40, 0, 0)], format="xyb", close=True),
              200 * math.pi, {Kind.ARC, Kind.LINE}),
    "bulge the other way": (
        lambda m: m.add_lwpolyline([(0, 0, -1), (40, 0, 0)], format="xyb", close=True),
        200 * math.pi, {Kind.ARC, Kind.LINE}),
    "circle": (lambda m: m.add_circle((5, 5), 20), 400 * math.pi, {Kind.ARC}),
    "ellipse": (lambda m: m.add_ellipse((0, 0), (20, 10), 0.5), 250 * math.pi, {Kind.ARC}),
    "old polyline": (lambda m: m.add_polyline2d([(0, 0), (40, 0), (40, 30)], close=True),
                     600, {Kind.LINE}),
}  # fmt: skip


@pytest.mark.parametrize("name", SHAPES)
def test_entities_keep_their_curves(name: str) -> None:
    draw, expected, curves = SHAPES[name]
    found = read(lambda d: draw(d.modelspace()))
    assert area(found) == pytest.approx(expected, rel=1e-9)
    assert kinds(found) == curves


def test_cubic_splines_come_as_their_own_beziers_and_y_is_turned() -> None:
    """A leaf of one cubic from (0, 0) by (0, 30), (40, 30) to (40, 0), and the line back: its
    area is 3/20 * (...) = 720, its highest point at y = 22.5, above the line."""

    def draw(document: Drawing) -> None:
        space = document.modelspace()
        space.add_open_spline([(0, 0), (0, 30), (40, 30), (40, 0)], degree=3)
        space.add_line((40, 0), (0, 0))

    found = read(draw)
    assert kinds(found) == {Kind.CUBIC, Kind.LINE}
    assert area(found) == pytest.approx(720)
    box = found.shapes[0].region.bounds
    k = found.sizes[0].scale
    assert (box.width * k, box.height * k) == pytest.approx((40, 22.5))
    line = found.shapes[0].region.segments.kind == Kind.LINE
    assert found.shapes[0].region.segments.start[line][0, 1] == pytest.approx(box.foot)


def test_blocks_are_inserted_turned_scaled_and_mirrored() -> None:
    def draw(document: Drawing) -> None:
        block = document.blocks.new("flag")
        block.add_lwpolyline([(0, 0), (10, 0), (0, 5)], close=True)
        block.add_circle((30, 0), 2)
        space = document.modelspace()
        space.add_blockref("flag", (0, 0), dxfattribs={"rotation": 90, "xscale": 2, "yscale": 2})
        space.add_blockref("flag", (100, 0), dxfattribs={"xscale": -1})

    found = read(draw)
    assert area(found) == pytest.approx(25 * 4 + 25 + (16 + 4) * math.pi)
    assert len(found.shapes) == 4


def exploded(document: Drawing, gap: float) -> None:
    """29 squares with a hole each, as single lines, shuffled, turned about, ends jittered."""
    chance, lines = random.Random(3), []
    for i in range(29):
        x, y = 30 * (i % 6), 30 * (i // 6)
        for size in (20, 8):
            a, b = x - size / 2, y - size / 2
            p = [(a, b), (a + size, b), (a + size, b + size), (a, b + size)]
            lines += [(p[k], p[(k + 1) % 4]) for k in range(4)]
    chance.shuffle(lines)
    for start, end in lines:
        first, last = (start, end) if chance.random() < 0.5 else (end, start)
        moved = [tuple(v + chance.uniform(-gap, gap) / 3 for v in p) for p in (first, last)]
        document.modelspace().add_line(*moved)


def test_loose_lines_are_joined_within_a_twentieth_of_a_mm() -> None:
    found = read(lambda d: exploded(d, 0.04))
    assert len(found.shapes) == 29
    assert all(len(s.region.openings) == 1 and s.region.nodes == 8 for s in found.shapes)
    assert area(found) == pytest.approx(29 * (400 - 64), rel=1e-3)
    assert found.open == []
    assert found.notes[0].startswith("Joined: 232 gaps between ends, the widest 0.0")


def test_what_stays_open_is_told_with_its_gap() -> None:
    def draw(document: Drawing) -> None:
        space = document.modelspace()
        space.add_circle((0, 0), 10)
        space.add_lwpolyline([(20, 0), (60, 0), (60, 40), (20, 0.2)])

    (way,) = read(draw).open
    assert way.gap == pytest.approx(0.2)
    assert len(way.points) == 4
    with pytest.raises(ReadingError, match="No line closes to a contour; 1 stayed open"):
        read(lambda d: d.modelspace().add_line((0, 0), (5, 5)))


def test_lines_drawn_twice_are_read_once_and_layers_are_kept() -> None:
    def draw(document: Drawing) -> None:
        document.layers.add("INNER", color=1)
        space = document.modelspace()
        for _ in range(2):
            space.add_lwpolyline([(0, 0), (50, 0), (50, 50), (0, 50)], close=True)
        space.add_circle((25, 25), 5, dxfattribs={"layer": "INNER"})
        space.add_text("hello")
        space.add_hatch()

    found = read(draw)
    assert [(la.name, la.colour) for la in found.layers()] == [
        ("0", "#262626"),
        ("INNER", "#ff0000"),
    ]
    assert "Drawn twice, read once: 1 contours." in found.remarks
    assert "Left out: texts (1)." in found.remarks
    assert "Left out: hatches (1)." in found.remarks


@pytest.mark.parametrize(
    ("units", "size", "first", "scale", "readings"),
    [
        (4, 100, "as the file says, mm", 1.0, 1),
        (1, 4, "as the file says, inches", 25.4, 1),
        (0, 100, "a unit is 1 mm", 1.0, 3),
        (0, 4, "a unit is 1 inch", 25.4, 3),
        (6, 100, "a unit is 1 mm", 1.0, 4),  # metres are what some programs always write
    ],
)
def test_units_are_believed_where_they_make_a_card(
    units: int, size: float, first: str, scale: float, readings: int
) -> None:
    found = read(lambda d: d.modelspace().add_circle((0, 0), size / 2), units)
    assert found.sizes[0].title == first
    assert found.width * found.sizes[0].scale == pytest.approx(size * scale)
    assert len(found.sizes) == readings


@pytest.mark.parametrize("name", sorted(p.stem for p in DEMO.glob("*.json")))
@pytest.mark.parametrize(("kind", "curves"), [("svg", "arcs"), ("dxf", "arcs"), ("dxf", "splines")])
def test_what_we_write_reads_back_as_the_same_region(name: str, kind: str, curves: str) -> None:
    """Nowhere further apart than 0.005 mm, and as many contours."""
    evaluation = evaluate(load_design(json.loads((DEMO / f"{name}.json").read_text())))
    work = evaluation.pieces[0].work
    assert work is not None
    plan = plan_of(evaluation, evaluation.pieces[0])
    # lines for the pen, and pricked holes, come back as shapes of their own: the paper is compared
    plan.lines[Operation.DRAW].clear()
    plan.lines[Operation.PRICK].clear()
    found = read_file(formats()[kind].write(plan, FileOptions(curves=curves)))
    k = found.sizes[0].scale
    regions = [s.region.transformed(scaling(k, k)) for s in found.shapes]
    back = put_together(regions)
    box, own = work.paper.bounds, back.bounds
    paper = work.paper.transformed(translation(-box.left, -box.head))
    back = back.transformed(translation(-own.left, -own.head))
    assert len(back.shell) == len(paper.shell)
    assert away(back, paper) < 0.005
    assert away(paper, back) < 0.005
    if kind == "dxf":
        return  # curves are arcs there or, as splines, all of the third degree
    # lines stay lines, arcs arcs, and Beziers Beziers
    kinds = [set(np.where(r.segments.kind == Kind.QUAD, Kind.CUBIC, r.segments.kind).tolist())
              for r in (back, paper)]  # fmt: skip
    assert kinds[0] == kinds[1]


def put_together(regions: list[Region]) -> Region:
    """Figures with, from another layer, the openings in them."""
    whole = Region.empty()
    for region in sorted(regions, key=lambda r: -r.area):
        inside = whole and union(whole, region).area < whole.area + 1e-6
        whole = difference(whole, region) if inside else union(whole, region)
    return whole


def test_a_word_is_set_in_a_font_file_with_its_kerning() -> None:
    content = (FOLDER / "alfa-slab-one.woff2").read_bytes()
    pair, first, second = (read_file(content, t) for t in ("AV", "A", "V"))
    assert pair.width < first.width + second.width
    assert pair.remarks == ["Set in Alfa Slab One."]
    assert read_file(content, "H").height == pytest.approx(20, abs=0.2)
    assert pair.shapes[0].region.pieces == 2
    assert len(read_file(content, "O").shapes[0].region.openings) == 1


def test_letters_that_a_font_has_not_are_said() -> None:
    content = (FOLDER / "alfa-slab-one.woff2").read_bytes()
    assert "Left out: letters that the font has not: 海 (1)." in read_file(content, "A海").remarks
    with pytest.raises(ReadingError, match="no outline for “海”"):
        read_file(content, "海")


def test_script_letters_that_overlap_are_one_piece() -> None:
    found = read_file((FOLDER / "pacifico.woff2").read_bytes(), "shell")
    assert found.shapes[0].region.pieces == 1
    box = found.shapes[0].region.bounds
    assert np.allclose(box.as_list()[:2], 0, atol=1e-9)
