"""Reading outlines from SVG files, friendly and hostile."""

from __future__ import annotations

import contextlib
import math
import random
import time

import pytest
from stileblade.outlines.reading.svg_geometry import PX

from stileblade.errors import ReadingError
from stileblade.outlines.reading.child import read_bounded
from stileblade.outlines.reading.limits import LIMITS
from stileblade.outlines.reading.svg import Found, read_svg

HEAD = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'
MM = f'{HEAD} width="100mm" height="50mm" viewBox="0 0 100 50"'


def read(body: str, head: str = MM) -> Found:
    return read_svg(f"<svg {head}>{body}</svg>".encode())


def boxes(found: Found) -> list[list[float]]:
    return [[round(v, 4) for v in o.region.bounds.as_list()] for o in found.outlines]


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
    ],
)  # fmt: skip
def test_shapes_transforms_and_units(body: str, box: list[float]) -> None:
    assert boxes(read(body)) == [pytest.approx(box, abs=1e-3)]


def test_arcs_stay_arcs() -> None:
    outline = read('<circle cx="20" cy="20" r="10" transform="scale(2 1)"/>').outlines[0]
    assert outline.region.nodes == 1
    assert outline.region.area == pytest.approx(200 * math.pi)


def test_fill_rules_styles_and_what_is_not_painted() -> None:
    ring = "M0 0H20V20H0ZM5 5H15V15H5Z"
    found = read(
        f'<path d="{ring}"/><path style="fill-rule: evenodd" d="{ring}"/>'
        '<rect width="9" height="9" fill="none" stroke="red"/><text>x</text>'
        '<g display="none"><rect width="9" height="9"/></g>'
        '<g style="fill:none"><rect width="9" height="9"/><rect fill="red" width="3" height="3"/></g>'
    )
    assert [round(o.region.area, 6) for o in found.outlines] == [400, 300, 9]
    assert found.remarks == ["Left out: strokes without fill (2).", "Left out: text (1)."]


@pytest.mark.parametrize(
    ("head", "width", "questionable"),
    [
        (f'{HEAD} width="4in" height="2in" viewBox="0 0 400 200"', 25.4, False),
        (f'{HEAD} viewBox="0 0 400 200"', 100 * PX, True),
        (HEAD, 100 * PX, True),
        (f'{HEAD} width="50%" viewBox="0 0 400 200"', 50 * PX, True),
        (f'{HEAD} width="400mm" height="400mm" viewBox="0 0 200 400"', 100.0, False),
    ],
)
def test_size_by_units_and_view_box(head: str, width: float, questionable: bool) -> None:
    found = read('<rect width="100" height="100"/>', head)
    assert found.outlines[0].region.bounds.width == pytest.approx(width, abs=1e-6)
    assert any("no unit" in r for r in found.remarks) == questionable


@pytest.mark.parametrize(
    ("content", "message"),
    [
        (b"", "The file is empty."),
        (b"  \n ", "The file is empty."),
        (b"hello", "This is not an SVG file: it holds no markup."),
        (b"<html><body/></html>", "This is XML, but not SVG: its root is <html>."),
        (f"<svg {MM}><rect".encode(), "The file is broken:"),
        (f"<svg {MM}><text>x</text></svg>".encode(), "There is no filled outline in the file."),
        (f'<svg {MM}><path d="M0 0L1"/></svg>'.encode(), "L takes 2 numbers at a time"),
        (f'<svg {MM}><path d="M0 0L1e308 1Z"/></svg>'.encode(), "a number is too large"),
        (f'<svg {MM}><path d="M0 0L1 NaNZ"/></svg>'.encode(), "not understood"),
        (f'<svg {MM}><rect width="4" height="4" transform="spin(3)"/></svg>'.encode(),
         "The transform spin(3.0,) is not understood."),
        (f'<svg {MM}><g id="a"><use href="#a"/></g></svg>'.encode(), "'#a' refers to itself."),
        (b"\x89PNG\r\n\x1a\n" + bytes(200), "This is not an SVG file: it holds no markup."),
    ],
)  # fmt: skip
def test_bad_files_say_what_is_wrong(content: bytes, message: str) -> None:
    with pytest.raises(ReadingError) as caught:
        read_bounded(content)
    assert message in caught.value.message


def bomb(levels: int) -> bytes:
    entities = '<!ENTITY e0 "aaaaaaaaaa">' + "".join(
        f'<!ENTITY e{i + 1} "{f"&e{i};" * 10}">' for i in range(levels)
    )
    return (
        f"<!DOCTYPE svg [{entities}]><svg {MM}><text>&e{levels};</text>"
        '<rect width="5" height="5"/></svg>'
    ).encode()


def outside(what: str) -> bytes:
    return (
        f'<!DOCTYPE svg [<!ENTITY x SYSTEM "{what}">]><svg {MM}><text>&x;</text>'
        '<rect width="5" height="5"/></svg>'
    ).encode()


HOSTILE = {
    "entity bomb": bomb(9),
    "file entity": outside("file:///etc/passwd"),
    "network entity": outside("http://127.0.0.1:9/x"),
    "nesting": f"<svg {MM}>{'<g>' * 10_000}{'</g>' * 10_000}</svg>".encode(),
    "many elements": f"<svg {MM}>{'<g/>' * 100_000}</svg>".encode(),
    "use bomb": (
        f'<svg {MM}><defs><rect id="u0" width="5" height="5"/>'
        + "".join(f'<g id="u{i + 1}">{f"""<use href="#u{i}"/>""" * 10}</g>' for i in range(9))
        + '</defs><use href="#u9"/></svg>'
    ).encode(),
    "million segments": f'<svg {MM}><path d="M0 0{"L1 1 2 0" * 500_000}Z"/></svg>'.encode(),
    "50 MB": b" " * 50_000_000,
    "long transform": f'<svg {MM}><g transform="{"(" * 3000}"><rect width="5"/></g></svg>'.encode(),
}


@pytest.mark.parametrize("name", HOSTILE)
def test_hostile_files_are_refused_in_bounded_time(name: str) -> None:
    started = time.perf_counter()
    with pytest.raises(ReadingError) as caught:
        read_bounded(HOSTILE[name])
    assert time.perf_counter() - started < LIMITS.seconds + 4
    assert (
        caught.value.hint or "understood" in caught.value.message or "deeper" in str(caught.value)
    )
    assert "root:" not in str(caught.value)


def test_style_sheets_are_said_to_be_left_out() -> None:
    found = read('<defs><style>.a{fill:none}</style></defs><rect class="a" width="3" height="3"/>')
    assert found.remarks == ["Left out: style sheets, so fills may be others than drawn (1)."]


def test_scripts_and_handlers_never_come_out() -> None:
    answer = read_bounded(
        f'<svg {MM} onload="alert(1)"><script>alert(2)</script>'
        '<rect id="&lt;b&gt;" width="5" height="5" onclick="x()"/></svg>'.encode()
    )
    text = repr(answer)
    assert "alert" not in text
    assert "onclick" not in text
    assert answer["outlines"][0]["path"].startswith("M")


def test_harmless_internal_entities_of_old_programs_still_read() -> None:
    content = (
        f'<!DOCTYPE svg [<!ENTITY c "red">]><svg {MM}><rect fill="&c;" width="5" height="5"/></svg>'
    ).encode()
    assert len(read_bounded(content)["outlines"]) == 1


def test_mutated_files_end_in_an_outline_or_a_message() -> None:
    """Two seconds of bytes changed, dropped and doubled at random."""
    base = (
        f'<svg {MM}><g transform="translate(1,2) rotate(3)"><path d="M0 0C1 2 3 4 5 6A5 5 0 1 0 9 '
        '9Z" style="fill:#123;fill-rule:evenodd"/><use href="#a"/><rect id="a" width="5%" '
        'height="3mm" rx="1"/></g></svg>'
    ).encode()
    chance = random.Random(5)
    until = time.perf_counter() + 2
    tried = 0
    while time.perf_counter() < until:
        content = bytearray(base)
        for _ in range(chance.randint(1, 6)):
            at = chance.randrange(len(content))
            what = chance.random()
            if what < 0.5:
                content[at] = chance.randrange(32, 127)
            elif what < 0.75:
                del content[at : at + chance.randint(1, 9)]
            else:
                content[at:at] = content[at : at + chance.randint(1, 30)]
        tried += 1
        # nothing but a reading error may come out
        with contextlib.suppress(ReadingError):
            assert read_svg(bytes(content)).outlines
    assert tried > 100
