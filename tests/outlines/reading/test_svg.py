"""Reading SVG: what is painted, where, in which colour and on which layer."""

from __future__ import annotations

import math

import pytest

from stileblade.outlines.reading.found import Found
from stileblade.outlines.reading.svg.measures import PX
from stileblade.outlines.reading.svg.painted import read_svg

HEAD = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'
MM = f'{HEAD} width="100mm" height="50mm" viewBox="0 0 100 50"'


def read(body: str, head: str = MM, **how: str) -> Found:
    return read_svg(f"<svg {head}>{body}</svg>".encode(), **how)  # type: ignore[arg-type]


def boxes(found: Found) -> list[list[float]]:
    """In mm at the likeliest size."""
    k = found.sizes[0].scale
    return [[round(v * k, 4) for v in s.region.bounds.as_list()] for s in found.shapes]


def areas(found: Found) -> list[float]:
    k = found.sizes[0].scale
    return [s.region.area * k * k for s in found.shapes]


@pytest.mark.parametrize(
    ("body", "box"),
    [
        ('<rect x="5" y="6" width="20" height="10"/>', [5, 6, 25, 16]),
        ('<rect x="5" y="6" width="20" height="10" rx="3"/>', [5, 6, 25, 16]),
        ('<circle cx="20" cy="20" r="10"/>', [10, 10, 30, 30]),
        ('<ellipse cx="20" cy="20" rx="10" ry="5"/>', [10, 15, 30, 25]),
        ('<polygon points="0,0 10,0 10,10"/>', [0, 0, 10, 10]),
        ('<polyline points="0,0 10,0 10,10"/>', [0, 0, 10, 10]),
        ('<path d="M1 2h3v4z"/>', [1, 2, 4, 6]),
        ('<rect x="1cm" y="0" width="20%" height="50%"/>', [37.7953, 0, 57.7953, 25]),
        ('<g transform="translate(10 5) scale(2)"><rect width="4" height="4"/></g>', [10, 5, 18, 13]),
        ('<rect width="4" height="2" transform="rotate(90)"/>', [-2, 0, 0, 4]),
        ('<rect width="4" height="2" transform="matrix(1 0 0 1 3 4)"/>', [3, 4, 7, 6]),
        ('<rect width="4" height="4" transform="skewX(45)"/>', [0, 0, 8, 4]),
        ('<defs><rect id="r" width="4" height="4"/></defs><use href="#r" x="5"/>', [5, 0, 9, 4]),
        ('<symbol id="s" viewBox="0 0 10 10"><rect width="10" height="10"/></symbol>'
         '<use xlink:href="#s" width="20" height="20"/>', [0, 0, 20, 20]),
        ('<svg x="10" width="20" height="20" viewBox="0 0 2 2"><rect width="1" height="1"/></svg>',
         [10, 0, 20, 10]),
        # a view box twice as wide as high in a square: in the middle, or at the far end
        ('<svg width="20" height="20" viewBox="0 0 20 10"><rect width="20" height="10"/></svg>',
         [0, 5, 20, 15]),
        ('<svg width="20" height="20" viewBox="0 0 20 10" preserveAspectRatio="xMinYMax">'
         '<rect width="20" height="10"/></svg>', [0, 10, 20, 20]),
        ('<svg width="20" height="20" viewBox="0 0 20 10" preserveAspectRatio="none">'
         '<rect width="20" height="10"/></svg>', [0, 0, 20, 20]),
        ('<switch><rect requiredExtensions="x" width="9" height="9"/><rect width="4" height="4"/>'
         '<rect width="7" height="7"/></switch>', [0, 0, 4, 4]),
    ],
)  # fmt: skip
def test_shapes_transforms_and_units(body: str, box: list[float]) -> None:
    assert boxes(read(body)) == [pytest.approx(box, abs=1e-3)]


def test_arcs_stay_arcs() -> None:
    found = read('<circle cx="20" cy="20" r="10" transform="scale(2 1)"/>')
    assert found.shapes[0].region.nodes == 1
    assert areas(found) == [pytest.approx(200 * math.pi)]


def test_fill_rules_styles_and_what_is_not_painted() -> None:
    """A ring by both rules: 400, and 400 - 100; then a square of 3 by an own fill."""
    ring = "M0 0H20V20H0ZM5 5H15V15H5Z"
    found = read(
        f'<path d="{ring}"/><path style="fill-rule: evenodd" d="{ring}"/>'
        '<g display="none"><rect width="9" height="9"/></g>'
        '<rect width="9" height="9" opacity="0"/><rect width="9" height="9" visibility="hidden"/>'
        '<g style="fill:none"><rect width="9" height="9"/><rect fill="red" width="3" height="3"/></g>'
    )
    assert areas(found) == [pytest.approx(a) for a in (400, 300, 9)]
    assert [s.colour for s in found.shapes] == ["#000000", "#000000", "#ff0000"]
    assert found.remarks == []


@pytest.mark.parametrize(
    ("sheet", "element", "colour"),
    [
        ("rect{fill:#010203}", "<rect {}/>", "#010203"),
        (".a{fill:#010203} rect{fill:#ffffff}", '<rect class="b a" {}/>', "#010203"),
        (".a{fill:#ffffff} #i{fill:#010203}", '<rect id="i" class="a" {}/>', "#010203"),
        ("g > rect{fill:#010203}", "<g><rect {}/></g>", "#010203"),
        ("g rect{fill:#010203}", '<g><a><rect fill="red" {}/></a></g>', "#010203"),
        ("rect{fill:#ffffff}", '<rect style="fill:#010203" {}/>', "#010203"),
        ("rect{fill:#010203 !important}", '<rect style="fill:red" {}/>', "#010203"),
        ("g{color:#010203} rect{fill:currentColor}", "<g><rect {}/></g>", "#010203"),
        ("@media print{rect{fill:red}} rect{fill:rgb(1,2,3)}", "<rect {}/>", "#010203"),
    ],
)
def test_style_sheets_by_element_class_id_and_place(sheet: str, element: str, colour: str) -> None:
    body = element.format('width="9" height="9"')
    # a sheet that follows its shapes counts as much
    for svg in (f"<style>{sheet}</style>{body}", f"{body}<style>{sheet}</style>"):
        assert [s.colour for s in read(svg).shapes] == [colour]


@pytest.mark.parametrize(
    ("attributes", "area"),
    [
        ('d="M10 10H30"', 20 * 2),
        ('d="M10 10H30" stroke-linecap="square"', 22 * 2),
        ('d="M10 10H30" stroke-linecap="round"', 20 * 2 + math.pi),
        ('d="M10 10H30V20"', 20 * 2 + 10 * 2),
        ('d="M10 10H30V20" stroke-linejoin="bevel"', 20 * 2 + 10 * 2 - 0.5),
        ('d="M10 10H30V20" stroke-linejoin="round"', 60 - 1 + math.pi / 4),
        # a closed square ring: outside 22, inside 18
        ('d="M10 10H30V30H10Z"', 22**2 - 18**2),
        ('d="M10 10H30" stroke-dasharray="3 2"', 4 * 3 * 2),
        ('d="M10 10H30" stroke-dasharray="3 2" stroke-dashoffset="1"', (2 + 3 * 3 + 1) * 2),
        ('d="M10 10H30" transform="scale(1 2)"', 20 * 2 * 2),
    ],
)
def test_strokes_are_outlines(attributes: str, area: float) -> None:
    found = read(f'<path fill="none" stroke="#123456" stroke-width="2" {attributes}/>')
    assert areas(found) == [pytest.approx(area, abs=1e-4)]
    assert found.shapes[0].colour == "#123456"
    assert found.lines == "painted"


def test_a_filled_shape_with_an_edge_is_two_shapes_in_the_order_of_painting() -> None:
    found = read('<rect x="5" y="5" width="10" height="10" fill="red" stroke="blue"/>')
    assert [s.colour for s in found.shapes] == ["#ff0000", "#0000ff"]
    assert areas(found) == [pytest.approx(100), pytest.approx(11**2 - 9**2)]


def test_clip_paths_their_units_and_their_own_clips() -> None:
    square = '<rect x="5" y="5" width="20" height="20"'
    half = '<clipPath id="c"><rect x="5" y="5" width="10" height="40"/></clipPath>'
    box = ('<clipPath id="b" clipPathUnits="objectBoundingBox">'
           '<circle cx=".5" cy=".5" r=".5"/></clipPath>')  # fmt: skip
    found = read(
        f'<defs>{half}{box}</defs>{square} clip-path="url(#c)"/>{square} clip-path="url(#b)"/>'
        f'<g clip-path="url(#c)">{square} clip-path="url(#b)"/></g>'
    )
    circle = 100 * math.pi
    assert areas(found) == [pytest.approx(a) for a in (200, circle, circle / 2)]
    assert sum(k == 3 for k in found.shapes[1].region.segments.kind) >= 1


def test_text_is_set_in_a_shipped_font_and_said() -> None:
    words = '<text x="50" y="30" font-size="20" text-anchor="{}">Ahoy</text>'
    start, middle = (boxes(read(words.format(a)))[0] for a in ("start", "middle"))
    assert start[0] == pytest.approx(50, abs=2)
    assert (middle[0] + middle[2]) / 2 == pytest.approx(50, abs=1)
    assert middle[2] - middle[0] == pytest.approx(start[2] - start[0])
    found = read(words.format("start"))
    assert found.remarks == ["Text is set in a shipped font in place of its own: sans, heavy."]


@pytest.mark.parametrize(
    ("body", "name"),
    [
        ('<rect id="door" width="5" height="5"/>', "door"),
        ('<rect id="r1" width="5" height="5"><title>Front  door</title></rect>', "Front door"),
        ('<g id="g4"><title>Pier</title><rect width="5" height="5"/></g>', "Pier"),
        ('<text y="9" font-size="9">Quay <tspan>side</tspan></text>', "Quay side"),
        ('<g id="sign"><text y="9" font-size="9">Quay</text></g>', "sign"),
        ('<title>The whole drawing</title><rect width="5" height="5"/>', "rect"),
    ],
)
def test_a_shape_is_called_what_its_drawing_calls_it(body: str, name: str) -> None:
    """By its own or its group's title or id, and lettering by its words."""
    assert read(body).shapes[0].name == name


def test_gradients_count_as_their_mean_and_end_where_they_fade() -> None:
    """From full to nothing over 100: 5 % is left at 95."""
    stop = '<stop stop-color="#204060"/><stop offset="1" stop-color="#406080" stop-opacity="{}"/>'
    body = '<linearGradient id="g">{}</linearGradient><rect fill="url(#g)" width="100" height="9"/>'
    full, faded = (read(body.format(stop.format(o))) for o in ("1", "0"))
    assert (full.shapes[0].colour, boxes(full)[0]) == ("#305070", [0, 0, 100, 9])
    assert boxes(faded)[0] == [0, 0, pytest.approx(95), 9]


def test_same_colours_on_top_of_each_other_are_one_layer() -> None:
    """Red, red beside it, blue over the first, red over the blue, page below them all."""
    rect = '<rect fill="{}" x="{}" y="5" width="20" height="20"/>'
    found = read(
        '<rect fill="#fff" width="100" height="50"/>'
        + rect.format("red", 5) + rect.format("red", 40)
        + rect.format("blue", 10) + rect.format("red", 12) + rect.format("blue", 70)
    )  # fmt: skip
    layers = found.layers()
    assert [la.colour for la in layers] == ["#ffffff", "#ff0000", "#0000ff", "#ff0000"]
    assert [la.numbers for la in layers] == [[0], [1, 2], [3, 5], [4]]
    assert [la.page for la in layers] == [True, False, False, False]


@pytest.mark.parametrize(
    ("head", "width", "readings"),
    [
        (f'{HEAD} width="4in" height="2in" viewBox="0 0 400 200"', 25.4, 1),
        (f'{HEAD} viewBox="0 0 400 200"', 100 * PX, 3),
        (HEAD, 100 * PX, 3),
        (f'{HEAD} width="50%" viewBox="0 0 400 200"', 50 * PX, 3),
        (f'{HEAD} width="400mm" height="400mm" viewBox="0 0 200 400"', 100.0, 1),
    ],
)
def test_a_size_without_units_has_several_readings(head: str, width: float, readings: int) -> None:
    found = read('<rect width="100" height="50"/>', head)
    assert boxes(found)[0][2] - boxes(found)[0][0] == pytest.approx(width, abs=1e-3)
    assert len(found.sizes) == readings
    if readings > 1:
        of_96, of_72, as_mm = (s.scale for s in found.sizes)
        assert (of_72 / of_96, as_mm / of_96) == pytest.approx((96 / 72, 1 / PX))


LINES = (
    '<g fill="none" stroke="red" stroke-width="{}"><g id="cut">'
    '<path d="M10 10H30M30.02 10V30"/><path d="M10 10V30H30"/><circle cx="20" cy="20" r="5"/></g>'
    '<path stroke="blue" d="M10 40H40"/></g>'
)


def test_a_drawing_of_hairlines_is_read_as_contours() -> None:
    """Three ways close to a square of 20, a gap of 0.02 bridged; the circle in it is open."""
    found = read(LINES.format("0.2"))
    assert found.lines == "contours"
    (square,) = found.shapes
    assert square.region.area == pytest.approx(400 - 25 * math.pi, abs=0.5)
    assert len(square.region.openings) == 1
    assert [round(o.gap, 3) for o in found.open] == [30.0]


def test_lines_can_be_read_the_other_way() -> None:
    assert read(LINES.format("1")).lines == "painted"
    assert len(read(LINES.format("1"), lines="contours").shapes) == 1
    painted = read(LINES.format("0.2"), lines="painted")
    assert areas(painted)[-1] == pytest.approx(30 * 0.2)
    filled = read(LINES.format("0.2") + '<rect width="3" height="3"/>', lines="contours")
    assert filled.lines == ""


def test_strips_too_narrow_to_be_cut_are_said() -> None:
    filled = '<rect width="30" height="30" fill="blue" stroke="red" stroke-width="{}"/>'
    said = read(filled.format("0.2") + filled.format("0.3") + filled.format("5")).remarks
    assert [r for r in said if r.startswith("Hairlines")] == [
        "Hairlines, read as strips too narrow to be cut: 2. "
        "Leave their layer out, or widen them in the drawing."
    ]
    assert read(filled.format("5")).remarks == []


def test_lines_of_a_small_icon_are_strips() -> None:
    """Half a millimetre wide where the icon is 6 mm, but as wide as its corners are round."""
    icon = (
        '<svg xmlns="http://www.w3.org/2000/svg" width="24" height="24" fill="none" stroke="red" '
        'stroke-width="2"><path d="M4 4H20V20H4Z"/></svg>'
    )
    assert read_svg(icon.encode()).lines == "painted"


def test_what_is_not_understood_is_counted_and_said() -> None:
    found = read(
        '<image/><image/><foreignObject/><g filter="url(#f)" mask="url(#m)">'
        '<rect width="9" height="9"/></g><rect width="4" height="4" transform="spin(3)"/>'
        '<use href="other.svg#x"/><path d="M0 0H5V5Z L1"/>'
        '<pattern id="p"/><rect fill="url(#p)" width="5" height="5"/>'
    )
    assert found.remarks == [
        "Left out: filters (1).",
        "Left out: foreign content (1).",
        "Left out: masks (1).",
        "Left out: patterns, read as plain colour (1).",
        "Left out: pictures of dots (2).",
        "Left out: references to other places (1).",
        "Left out: rest of a path: Path data at character 11 ('L1'): L takes 2 numbers at a time. (1).",
        "Left out: transforms that are not understood (1).",
    ]
    assert len(found.shapes) == 4
