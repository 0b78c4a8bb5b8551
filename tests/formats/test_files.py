"""What other programs, printers and machines need of the files."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path
from typing import Any

import ezdxf
import numpy as np
import pikepdf
import pypdfium2
import pytest
import shapely
from ezdxf import path as dxf_path
from lxml import etree

from stileblade.design.document import load_design
from stileblade.design.evaluation import evaluate
from stileblade.formats.files import _by_paper, as_one, files_of, save
from stileblade.formats.format import formats
from stileblade.formats.options import FileOptions, Inside
from stileblade.formats.pages import MARGIN, OVERLAP, pages_of
from stileblade.formats.plan import Plan, plan_of, plans_of, set_ups
from stileblade.formats.turnover import Turnover
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.paths.biarcs import bulged
from stileblade.geometry.paths.pathdata import region_from_path
from stileblade.machine.operation import Operation
from stileblade.outlines.figures.round import Ellipse
from stileblade.outlines.reading.dxf import read_dxf
from tests.conftest import design_of

BLANK = {"kind": "blank"}
SVG = "{http://www.w3.org/2000/svg}"
CURVES = "M0 0C40 -30 60 50 100 0Q130 40 100 80A30 12 20 0 1 40 90A20 20 0 0 1 0 60Z"


def plan(*steps: dict[str, Any], **card: Any) -> Plan:
    evaluation = evaluate(design_of(*steps, **card))
    return plan_of(evaluation, evaluation.pieces[0])


def read(plan: Plan, **options: Any) -> Any:
    content = formats()["dxf"].write(plan, FileOptions(**options))
    return ezdxf.read(io.StringIO(content.decode()))  # type: ignore[attr-defined]


def on_arcs(points: Floats, bulges: Floats, parts: int = 24) -> Floats:
    """Places along a closed chain, each arc worked out from its chord and bulge."""
    found = []
    for a, b, bulge in zip(points, np.roll(points, -1, axis=0), bulges, strict=True):
        share = np.linspace(0, 1, parts, endpoint=False)[:, None]
        if abs(bulge) < 1e-9:
            found.append(a + (b - a) * share)
            continue
        chord = b - a
        normal = np.array([-chord[1], chord[0]])
        centre = (a + b) / 2 + normal * (1 - bulge**2) / (4 * bulge)
        angle = 4 * np.arctan(bulge) * share
        x, y = (a - centre).tolist()
        turned = [x * np.cos(angle) - y * np.sin(angle), x * np.sin(angle) + y * np.cos(angle)]
        found.append(centre + np.hstack(turned))
    return np.concatenate(found)


def test_curves_are_arcs_within_five_thousandths_with_their_tangents() -> None:
    (contour,) = region_from_path(CURVES).contours
    s = contour.segments
    chain = bulged(s, closed=True)
    assert len(chain.points) < 120
    index = np.repeat(np.arange(len(s)), 3000)
    share = np.tile(np.linspace(0, 1, 3000), len(s))
    dense = s.points_at(index, s.span[index, 0] + (s.span[index, 1] - s.span[index, 0]) * share)
    arcs = on_arcs(chain.points, chain.bulges)
    away = shapely.distance(shapely.points(arcs), shapely.LinearRing(dense))
    assert away.max() < 0.005
    # arcs run on into each other but at the curve's own corners
    chords = np.roll(chain.points, -1, axis=0) - chain.points
    half = 2 * np.arctan(chain.bulges)
    heading = np.arctan2(chords[:, 1], chords[:, 0])
    turns = (np.roll(heading - half, -1) - (heading + half) + np.pi) % (2 * np.pi) - np.pi
    sharp = int((np.abs(turns) > 1e-6).sum())
    first, last = s.end_directions()
    corners = ((last * np.roll(first, -1, axis=0)).sum(axis=1) < 1 - 1e-9).sum()
    assert sharp <= corners


def test_a_whole_ellipse_is_a_chain_of_arcs() -> None:
    """One segment that ends where it begins: 80 x 30 has pi a b of area."""
    (contour,) = Ellipse(width=80, height=30).outline({}).contours
    chain = bulged(contour.segments, closed=True)
    ring = shapely.Polygon(on_arcs(chain.points, chain.bulges, 200))
    assert ring.area == pytest.approx(np.pi * 40 * 15, abs=0.5)
    assert ring.is_valid


@pytest.mark.parametrize(
    "outline",
    [
        {"kind": "heart", "width": 90},
        {"kind": "ellipse", "width": 90, "height": 40},
        {"kind": "star"},
        {"kind": "ring"},
    ],
)
def test_dxf_has_one_closed_line_for_each_contour(outline: dict[str, Any]) -> None:
    window = {"kind": "window", "outline": {"kind": "heart", "width": 12}}
    made = plan({"kind": "figure", "outline": outline}, {"kind": "mirror", "lap": 4}, window)
    space = read(made).modelspace()
    cut = [e for e in space if e.dxf.layer.startswith("CUT")]
    contours = len(made.lines[Operation.CUT_OUTER]) + len(made.lines[Operation.CUT_INNER])
    assert len(cut) == contours
    assert all(e.dxftype() == "LWPOLYLINE" and e.closed for e in cut)
    assert len(space) == contours + len(made.lines[Operation.SCORE])


def test_pen_lines_are_one_entity_each() -> None:
    waves = {"kind": "drawn-figure", "outline": {"kind": "heart", "width": 40}, "lines": 8,
             "apart": 2}  # fmt: skip
    made = plan(BLANK, waves)
    space = read(made).modelspace()
    drawn = [e for e in space if e.dxf.layer == "DRAW_PEN_1"]
    assert len(drawn) == len(made.lines[Operation.DRAW]) == 8


def test_splines_meet_exactly() -> None:
    """An elliptical arc and its neighbours, in the file's own digits."""
    figure = {"kind": "figure", "outline": {"kind": "ellipse", "width": 80, "height": 30}}
    cut = {"kind": "slice", "keep": "above", "edge": "far", "distance": 8}
    space = read(plan(figure, cut), curves="splines").modelspace()
    ends = []
    for entity in space:
        if entity.dxftype() == "SPLINE":
            points = [tuple(p)[:2] for p in entity.control_points]
        else:
            points = [p[:2] for p in entity.get_points()]
        ends += [points[0], points[-1]]
    assert len(ends) > 4
    assert all(ends.count(end) == 2 for end in ends)


@pytest.mark.parametrize("curves", ["arcs", "splines"])
def test_dxf_is_read_back_with_its_openings_and_without_a_question(curves: str) -> None:
    window = {"kind": "window", "outline": {"kind": "heart", "width": 40}}
    made = plan(BLANK, window)
    found = read_dxf(formats()["dxf"].write(made, FileOptions(curves=curves)))
    (shape,) = found.shapes
    assert len(shape.region.openings) == 1
    assert len(found.sizes) == 1
    mm = found.sizes[0].scale
    assert shape.region.area * mm**2 == pytest.approx(
        evaluate(design_of(BLANK, window)).pieces[0].work.paper.area,  # type: ignore[union-attr]
        rel=1e-4,
    )


def test_scores_are_in_groups_by_how_they_bend_and_pens_by_number() -> None:
    """An accordion of four: two mountains, a valley. Two pens."""
    pens = [{"kind": "border-line", "margin": m, "pen": n} for m, n in ((4, 1), (8, 3))]
    made = plan(BLANK, *pens, way="accordion")
    svg = etree.fromstring(formats()["svg"].write(made))
    groups = [g.get("id") for g in svg.iter(f"{SVG}g")]
    for name, count in (("score-mountain", 2), ("score-valley", 1), ("draw-pen-1", 1)):
        assert len(svg.findall(f".//{SVG}g[@id='{name}']/{SVG}path")) == count
    assert "draw-pen-3" in groups
    layers = [e.dxf.layer for e in read(made).modelspace()]
    assert layers.count("SCORE_MOUNTAIN") == 2
    assert {"SCORE_VALLEY", "DRAW_PEN_1", "DRAW_PEN_3", "CUT_OUTER"} <= set(layers)


def test_scores_from_the_inside_come_mirrored_in_a_second_file_with_register_holes() -> None:
    """A side fold of 215.9, shorter by 10, in its margin of 10: turned over head for foot, its crease stays at 117.95
    from the left."""
    crease = {"kind": "crease", "made": "score", "scored_from": "inside"}
    cut = {"kind": "slice", "keep": "left", "edge": "far", "distance": 10}
    evaluation = evaluate(design_of(BLANK, crease, cut))
    first, second = plans_of(evaluation, evaluation.pieces[0])
    assert not first.lines[Operation.SCORE]
    (score,) = second.lines[Operation.SCORE]
    assert score.segments.start[0, 0] == pytest.approx(107.95 + 10, abs=1e-6)
    holes = [line for line in first.lines[Operation.CUT_INNER] if line.group == "register"]
    marks = second.lines[Operation.DRAW]
    assert len(holes) == len(marks) == 3
    centres = [line.segments.coef[0, :2] for line in holes]
    mirrored = [line.segments.coef[0, :2] for line in marks]
    for (x, y), (u, v) in zip(centres, mirrored, strict=True):
        assert (u, v) == pytest.approx((x, first.height - y), abs=1e-9)
    assert second.inside
    assert "seen from inside" in second.about
    files = files_of(evaluation, "svg")
    assert [f.name for f in files] == ["New-card-Base.svg", "New-card-Base-inside.svg"]
    valleys = evaluate(design_of(BLANK, way="accordion"))
    assert len(plans_of(valleys, valleys.pieces[0])) == 1
    apart = plans_of(valleys, valleys.pieces[0], FileOptions(inside="all"))
    assert [len(p.lines[Operation.SCORE]) for p in apart] == [2, 1]


def test_a_sheet_is_turned_over_about_its_long_middle_and_the_files_say_so() -> None:
    """A side fold of 215.9 x 139.7 in its margin of 10 is 235.9 x 159.7: head for foot. Its holes lie at 5, 5 from
    two corners and at 5 from the foot; turned over, that at the head left lies at the foot left."""
    inside = {"kind": "crease", "made": "score", "scored_from": "inside"}
    wide = evaluate(design_of(BLANK, inside))
    first, second = plans_of(wide, wide.pieces[0])
    assert (first.turnover, first.turning) == (Turnover.HEAD_FOR_FOOT, "")
    np.testing.assert_allclose(first.holes, [(5, 5), (230.9, 5), (5, 154.7)])
    np.testing.assert_allclose(second.holes, [(5, 154.7), (230.9, 154.7), (5, 5)], atol=1e-9)
    said = (
        "Turn the sheet over head for foot. Its holes then lie at 5, 5; 230.9, 5; 5, 154.7 mm from"
        " the left and the foot."
    )
    assert second.turning == said
    assert said in second.about
    code = files_of(wide, "gcode")[1].content.decode()
    assert f"({said.replace(';', ' ')})" in code
    upright = evaluate(design_of(BLANK, inside, way="top-fold"))
    first, second = plans_of(upright, upright.pieces[0])
    assert second.turnover is Turnover.LEFT_FOR_RIGHT
    assert second.holes[0] == pytest.approx((first.width - 5, 5))


def test_pieces_beside_each_other_are_turned_over_as_one_sheet() -> None:
    """Two cards side by side: both creases are mirrored about the middle of the whole sheet."""
    crease = {"id": "i", "kind": "crease", "made": "score", "scored_from": "inside"}
    data = design_of(BLANK, crease, way="top-fold").model_dump(mode="json")
    data["pieces"].append({**data["pieces"][0], "id": "p2", "name": "Twin"})
    evaluation = evaluate(load_design(data))
    (whole,) = _by_paper([plan_of(evaluation, p) for p in evaluation.pieces])
    first, second = set_ups(whole, Inside.MEANT)
    over = first.turnover.matrix(first.width, first.height)
    scores = [line.moved(translation(10, 10)).moved(over) for line in whole.lines[Operation.SCORE]]
    starts = [line.segments.start[0] for line in second.lines[Operation.SCORE]]
    wanted = [line.segments.start[0] for line in scores if line.group == "inside"]
    assert len(starts) == len(wanted) >= 1
    np.testing.assert_allclose(starts, wanted, atol=1e-9)
    names = [f.name for f in files_of(evaluation, "svg", FileOptions(which="beside"))]
    assert names == ["New-card-Card-stock.svg", "New-card-Card-stock-inside.svg"]


def two_pieces(**more: Any) -> Any:
    data = design_of(BLANK, {"id": "c", "kind": "split", "strip": 3}).model_dump(mode="json")
    part = {"kind": "part", "piece": "base", "step": "c", "number": 1}
    data["pieces"].append({"id": "p2", "name": "Rest", "paper": "paper", "steps": [part]} | more)
    return data


def test_all_pieces_are_saved_at_once() -> None:
    evaluation = evaluate(load_design(two_pieces() | {"name": "Tide strips"}))
    each = files_of(evaluation, "svg", FileOptions(which="each"))
    assert [f.name for f in each] == ["Tide-strips-Base.svg", "Tide-strips-Rest.svg"]
    whole = as_one(each, "Tide strips")
    assert (whole.name, whole.media_type) == ("Tide-strips.zip", "application/zip")
    with zipfile.ZipFile(io.BytesIO(whole.content)) as archive:
        assert archive.namelist() == [f.name for f in each]
        assert archive.read(each[0].name) == each[0].content
    (beside,) = files_of(evaluation, "svg", FileOptions(which="beside"))
    assert beside.name == "Tide-strips-Card-stock.svg"
    # 106.45 twice, and 10 between
    assert etree.fromstring(beside.content).get("width") == "222.9000mm"
    one = files_of(evaluation, "svg", piece="p2")
    assert [f.name for f in one] == ["Tide-strips-Rest.svg"]


def test_pieces_of_two_papers_are_in_two_files() -> None:
    data = two_pieces(paper="other")
    data["papers"].append({**data["papers"][0], "id": "other", "name": "Kelp green"})
    files = files_of(evaluate(load_design(data)), "dxf", FileOptions(which="beside"))
    assert [f.name for f in files] == ["New-card-Card-stock.dxf", "New-card-Kelp-green.dxf"]


def test_two_designs_of_one_name_do_not_overwrite_each_other(tmp_path: Path) -> None:
    first, second = (
        files_of(evaluate(design_of(BLANK, way=way)), "svg") for way in ("side-fold", "top-fold")
    )
    paths = save(first, tmp_path) + save(second, tmp_path) + save(first, tmp_path)
    assert [p.name for p in paths] == [
        "New-card-Base.svg",
        "New-card-Base-2.svg",
        "New-card-Base.svg",
    ]
    assert paths[0].read_bytes() == first[0].content


def mm(box: Any) -> list[float]:
    return [round(float(v) / 72 * 25.4, 2) for v in box]


@pytest.mark.parametrize(
    ("paper", "size"), [("a4", (210, 297)), ("letter", (215.9, 279.4)), ("a3", (297, 420))]
)
def test_pdf_is_centred_on_a_page_that_a_printer_has(paper: str, size: tuple[float, float]) -> None:
    """The whole is 107.95 x 139.7 on a small page of ours."""
    made = plan(
        {"kind": "figure", "outline": {"kind": "rectangle", "width": 107.95, "height": 139.7}}
    )
    content = formats()["pdf"].write(made, FileOptions(page=paper))
    with pikepdf.open(io.BytesIO(content)) as document:
        assert mm(document.pages[0].MediaBox[2:]) == pytest.approx(size, abs=0.01)
        assert document.Root.ViewerPreferences.PrintScaling == "/None"
        text = pypdfium2.PdfDocument(content)[0].get_textpage().get_text_range()
    assert "New card, Base, seen from the outside" in text
    assert "108.0 x 139.7 mm" in text
    assert "50 mm: measure it after printing" in text
    assert "cut last" in text
    (sheet,) = pages_of(made, FileOptions(page=paper))
    assert sheet.left == pytest.approx((size[0] - 107.95) / 2, abs=1e-9)


def test_a_larger_piece_is_laid_over_several_pages_that_overlap() -> None:
    """230 x 176 goes on A4 lying, or it does not: 431.8 x 139.7 takes two pages lying."""
    accordion = plan(BLANK, way="accordion")
    sheets = pages_of(accordion, FileOptions())
    assert len(sheets) == 2
    assert sheets[0].size == (297, 210)
    left, _, width, _ = sheets[0].window
    # what lies at the right of the first page lies 10 mm further in than the left of the second
    x = left + width - sheets[0].left
    assert x - (left - sheets[1].left) == pytest.approx(OVERLAP, abs=1e-9)
    assert -sheets[0].left + left <= 0
    assert left + width - sheets[1].left >= accordion.width
    content = formats()["pdf"].write(accordion, FileOptions())
    text = pypdfium2.PdfDocument(content)[1].get_textpage().get_text_range()
    assert "page 2 of 2: column 2, row 1" in text
    assert len(pages_of(plan(BLANK, way="accordion"), FileOptions(page="a3"))) == 2
    assert len(pages_of(accordion, FileOptions(page="own"))) == 1


def test_the_inside_lies_back_to_back_with_the_outside() -> None:
    """At 254 dpi a pixel is 0.1 mm: the second page's ink is the first's, mirrored about the page's
    upright middle."""
    window = {"kind": "window", "at": "head-left", "by": "head-left", "dx": 12, "dy": 14,
              "outline": {"kind": "circle", "diameter": 20}}  # fmt: skip
    made = plan(
        {"kind": "figure", "outline": {"kind": "rectangle", "width": 100, "height": 60}}, window
    )
    options = FileOptions(both_sides=True, words=False, page="a4")
    content = formats()["pdf"].write(made, options)
    document = pypdfium2.PdfDocument(content)
    assert len(document) == 2
    outside, inside = (
        np.array(document[n].render(scale=254 / 72).to_pil().convert("L"))[: -int(FOOT_PIXELS)]
        < 128
        for n in (0, 1)
    )
    assert outside.sum() > 1000
    far = np.abs(np.argwhere(outside)[:, 1].mean() - (outside.shape[1] - 1) / 2)
    assert far > 1  # not the same both ways round
    differs = (outside[:, ::-1] ^ inside).sum() / outside.sum()
    assert differs < 0.05
    with pikepdf.open(io.BytesIO(content)) as parsed:
        streams = [p.Contents.read_bytes().decode() for p in parsed.pages]
    xs = [
        [float(line.split()[0]) for line in stream.splitlines() if line.endswith(" m")]
        for stream in streams
    ]
    width = 210 / 25.4 * 72
    for x, u in zip(*xs, strict=True):
        assert (x + u) * 25.4 / 72 == pytest.approx(width * 25.4 / 72, abs=0.01) or x == u


FOOT_PIXELS = 12 * 10


def test_the_file_says_which_findings_stood() -> None:
    evaluation = evaluate(design_of(BLANK))
    said = {"base": ("error: It is in two pieces.",)}
    for kind in (form.extension for form in formats() if form.speaks):
        (file,) = files_of(evaluation, kind, findings=said)
        text = file.content.decode("latin-1")
        if kind == "pdf":
            with pikepdf.open(io.BytesIO(file.content)) as document:
                text = str(document.docinfo["/Keywords"])
        assert "It is in two pieces." in text, kind


def test_ticks_are_in_the_file_by_choice() -> None:
    figure = [{"kind": "figure", "outline": {"kind": "circle", "diameter": 80}},
              {"kind": "mirror", "lap": 6}]  # fmt: skip
    evaluation = evaluate(design_of(*figure))
    (plain,) = plans_of(evaluation, evaluation.pieces[0])
    (ticked,) = plans_of(evaluation, evaluation.pieces[0], FileOptions(ticks=True))
    assert not plain.groups(Operation.DRAW)
    assert list(ticked.groups(Operation.DRAW)) == ["ticks"]
    assert len(ticked.lines[Operation.DRAW]) == 2
    entities = read(ticked).modelspace()
    ends = [
        p
        for e in entities
        if e.dxf.layer == "DRAW_TICKS"
        for p in dxf_path.make_path(e).flattening(1)
    ]
    assert len(ends) == 4
    assert MARGIN > 0
