"""Files with numbers beyond all measure, nothing where something belongs, and far too much of it:
each is read or refused in words, within the limits, and none as a mistake of the program's own."""

from __future__ import annotations

import time
from collections.abc import Callable

import pytest

from stileblade.errors import ReadingError
from stileblade.outlines.reading.child import NOT_READ, read_bounded
from stileblade.outlines.reading.limits import LIMITS

_SVG = '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">'
_LINE = '<path d="M0 0L10 10L20 0" stroke="#000" fill="none" '


def _svg(body: str) -> bytes:
    return f"{_SVG}{body}</svg>".encode()


def _page(box: str, width: str = "40") -> bytes:
    head = f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}" height="40" viewBox="{box}">'
    return f'{head}<rect width="3" height="3"/></svg>'.encode()


def _dxf(*entities: str) -> bytes:
    body = "".join(entities).replace("|", "\n")
    return f"0\nSECTION\n2\nENTITIES\n{body}0\nENDSEC\n0\nEOF\n".encode()


def _hops(count: int) -> str:
    return "".join(f"L{i * 7919 % 40} {i * 104729 % 39}" for i in range(count))


FILES: dict[str, Callable[[], bytes]] = {
    "a stroke of infinity": lambda: _svg(f'{_LINE} stroke-width="1e400"/>'),
    "a stroke next to it": lambda: _svg(f'{_LINE} stroke-width="1e308"/>'),
    "a dash of infinity": lambda: _svg(f'{_LINE} stroke-width="1" stroke-dasharray="1e400 1"/>'),
    "a dash of nearly nothing": lambda: _svg(f'{_LINE} stroke-width="1" stroke-dasharray="1e-300"/>'),
    "a mitre of infinity": lambda: _svg(f'{_LINE} stroke-miterlimit="1e400"/>'),
    "a matrix out of range": lambda: _svg(
        '<rect width="3" height="3" transform="matrix(1e300 0 0 1e300 0 0)"/>'
    ),
    "matrices that go out of range together": lambda: _svg(
        '<g transform="scale(1e6)">' * 60 + '<rect width="3" height="3"/>' + "</g>" * 60
    ),
    "a polyline without points": lambda: _svg('<polyline points="" stroke="#000"/>'),
    "a polyline of half a point": lambda: _svg('<polyline points="1" stroke="#000"/>'),
    "a polyline of one point": lambda: _svg('<polyline points="3,3" stroke="#000"/>'),
    "a corner at infinity": lambda: _svg('<polygon points="0,0 1e400,0 3,3"/>'),
    "a rectangle to infinity": lambda: _svg('<rect width="1e400" height="3"/>'),
    "a circle next to it": lambda: _svg('<circle r="1e308"/>'),
    "a page of infinity": lambda: _page("0 0 1e-308 40", "1e308mm"),
    "a page of nothing": lambda: _page("0 0 1e-300 1e-300"),
    "a page of no number": lambda: _page("0 0 inf nan"),
    "text of infinity": lambda: _svg('<text font-size="1e308" x="1e308">A</text>'),
    "a gradient of infinity": lambda: _svg(
        '<linearGradient id="g" gradientTransform="matrix(1e300 0 0 0 0 0)"><stop offset="1e400"'
        ' stop-opacity="1e400"/></linearGradient><rect width="9" height="9" fill="url(#g)"/>'
    ),
    "an opacity of no number": lambda: _svg('<rect width="9" height="9" opacity="nan"/>'),
    "a clip to infinity": lambda: _svg(
        '<clipPath id="c"><rect width="1e308" height="1e308"/></clipPath>'
        '<rect width="9" height="9" clip-path="url(#c)"/>'
    ),
    "more shapes than are read": lambda: _svg("<rect width='1' height='1'/>" * 30_000),
    "groups in groups": lambda: _svg("<g>" * 300 + "</g>" * 300),
    "a line of two hundred thousand": lambda: _svg(f'<path d="M0 0{"L1 1" * 200_000}"/>'),
    "one that crosses itself ten million times": lambda: _svg(f'<path d="M0 0{_hops(20_000)}"/>'),
    "a stroke that does": lambda: _svg(f'<path fill="none" stroke="#000" d="M0 0{_hops(3_000)}"/>'),
    "an arc of nines": lambda: _svg(f'<path d="M0 0A{"9" * 10_000}"/>'),
    "a transform of blanks": lambda: _svg(f'<rect width="3" height="3" transform="{" " * 3_999}x"/>'),
    "a style of blanks": lambda: _svg(f'<rect width="3" height="3" style="{"a " * 100_000}"/>'),
    "polylines without corners": lambda: _dxf("0|LWPOLYLINE|8|0|90|0|70|1|"),
    "old ones": lambda: _dxf("0|POLYLINE|8|0|66|1|70|1|0|SEQEND|"),
    "a DXF circle of infinity": lambda: _dxf("0|CIRCLE|8|0|10|1e400|20|0|40|1e400|"),
    "a spline without corners": lambda: _dxf("0|SPLINE|8|0|70|8|71|3|72|0|73|0|"),
    "a bulge of infinity": lambda: _dxf("0|LWPOLYLINE|8|0|90|2|70|1|10|0|20|0|42|1e400|10|1|20|1|"),
    "an ellipse without axes": lambda: _dxf(
        "0|ELLIPSE|8|0|10|0|20|0|11|0|21|0|40|0|41|0|42|6.28|"
    ),
    "a line to no number": lambda: _dxf("0|LINE|8|0|10|nan|20|0|11|1|21|1|"),
}  # fmt: skip


def _read(content: bytes) -> tuple[int, str]:
    """How many shapes are in the file, or why it is not read."""
    try:
        return len(read_bounded(content)["shapes"]), ""
    except ReadingError as error:
        return 0, error.message


@pytest.mark.parametrize("name", FILES)
def test_a_file_is_read_or_refused_in_words(name: str) -> None:
    content = FILES[name]()
    began = time.monotonic()
    shapes, refusal = _read(content)
    assert shapes or refusal
    assert refusal != NOT_READ
    assert time.monotonic() - began < 3 * LIMITS.seconds
