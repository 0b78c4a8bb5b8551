"""Drawings that are sent to the cutter: what is seen in them is cut, and nothing else."""

from __future__ import annotations

import io

import ezdxf
import pytest

from stileblade.cutter.languages.named import operation_named
from stileblade.cutter.sent import Sent, read_sent
from stileblade.machine.operation import Operation
from stileblade.machine.shipped import FLATBED

HEAD = (
    '<svg xmlns="http://www.w3.org/2000/svg" xmlns:x="urn:x" width="100mm" height="100mm"'
    ' viewBox="0 0 100 100">'
)
CUT = "1 line is cut although no name says what is done with it."


def read(inner: str) -> Sent:
    return read_sent(f"{HEAD}{inner}</svg>".encode(), FLATBED)


@pytest.mark.parametrize(
    ("inner", "ways"),
    [
        ('<svg x="10" y="10" width="50" height="50" viewBox="0 0 100 100"><path d="M0 0H100"/></svg>',
         [[(10, 90), (60, 90)]]),
        ('<style>.a{transform:translate(10px,20px)}</style><path class="a" d="M0 0H10"/>',
         [[(10, 80), (20, 80)]]),
        ('<line x1="0" y1="50%" x2="100%" y2="50%"/>', [[(0, 50), (100, 50)]]),
        ('<style>.h{display:none}</style><path class="h" d="M0 0H10"/>', []),
        ('<path style="display : none" d="M0 0H10"/>', []),
        ('<path visibility="hidden" d="M0 0H10"/>', []),
        ('<g visibility="hidden"><path visibility="visible" d="M0 0H10"/></g>', [[(0, 100), (10, 100)]]),
        ('<symbol id="s"><path d="M0 0H10"/></symbol>', []),
        ('<defs><path id="p" d="M0 0H10"/></defs><use href="#p"/><use href="#p" x="20"/>',
         [[(0, 100), (10, 100)], [(20, 100), (30, 100)]]),
        ('<switch><path d="M0 0H10"/><path d="M0 5H10"/></switch>', [[(0, 100), (10, 100)]]),
        ('<clipPath id="c"><rect width="5" height="100"/></clipPath><path clip-path="url(#c)" d="M0 9H50"/>', []),
        ('<clipPath id="c"><rect width="60" height="100"/></clipPath><path clip-path="url(#c)" d="M0 0H50"/>',
         [[(0, 100), (50, 100)]]),
    ],
)  # fmt: skip
def test_what_is_seen_is_cut(inner: str, ways: list[list[tuple[float, float]]]) -> None:
    found = [[(round(x, 6), round(y, 6)) for x, y in s.places] for s in read(inner).strokes]
    assert found == ways


@pytest.mark.parametrize(
    ("inner", "said"),
    [
        ('<path d="M0 0H9"/>', [CUT]),
        ('<g id="Layer 3"><path d="M0 0H9M0 1H9"/></g>',
         ["2 lines are cut although no name says what is done with them (Layer 3)."]),
        ('<g id="score"><path visibility="hidden" d="M0 0H9"/></g>', ["1 hidden line is not cut."]),
        ('<g id="cut"><path d="M0 0H9"/><text x="1" y="9">a</text></g>',
         ["texts are not cut: turn them into outlines."]),
        ('<clipPath id="c"><rect width="5" height="9"/></clipPath><path clip-path="url(#c)" d="M0 9H50"/>',
         ["1 line that a clip path cuts off is not cut: cut it off in the drawing."]),
        ('<g id="cut" mask="url(#m)"><path d="M0 0H9"/></g><mask id="m"/>', ["Left out: masks (1)."]),
    ],
)  # fmt: skip
def test_what_is_not_clear_is_said(inner: str, said: list[str]) -> None:
    left_out = read(inner).left_out
    assert [one.reason for one in left_out] == said
    assert all(one.line == 1 for one in left_out if "masks" not in one.reason)


@pytest.mark.parametrize(
    ("inner", "tool"),
    [
        ('<g x:label="score"><path d="M0 0H9"/></g>', 3),
        ('<g id="fold lines"><path d="M0 0H9"/></g>', 3),
        ('<g id="score"><g id="Layer 3"><path d="M0 0H9"/></g></g>', 3),
        ('<g id="score"><path id="cut" d="M0 0H9"/></g>', 1),
        ('<g id="Falzlinien"><path d="M0 0H9"/></g>', 3),
        ('<g id="engrave"><path d="M0 0H9"/></g>', 2),
    ],
)
def test_groups_are_told_by_what_people_call_them(inner: str, tool: int) -> None:
    (stroke,) = read(inner).strokes
    assert stroke.tool == tool


@pytest.mark.parametrize(
    ("name", "operation"),
    [
        ("CUT_INNER_2", (Operation.CUT_INNER, 1)),
        ("Crease", (Operation.SCORE, 0)),
        ("score lines", (Operation.SCORE, 0)),
        ("Perforation", (Operation.PERFORATE, 0)),
        ("Schnittlinien", (Operation.CUT_OUTER, 0)),
        ("pen", (Operation.DRAW, 0)),
        ("kiss cut", None),
        ("cut and fold", None),
        ("score or cut", None),
        ("Layer 1", None),
        ("score-valley", (Operation.SCORE, 0)),
        ("draw-pen-1", (Operation.DRAW, 0)),
    ],
)
def test_names_that_say_one_thing(name: str, operation: tuple[Operation, int] | None) -> None:
    assert operation_named(name) == operation


def test_layers_that_are_off_or_frozen_are_not_cut() -> None:
    document = ezdxf.new(units=4)
    document.layers.add("CUT")
    document.layers.add("OFF").off()
    document.layers.add("COLD").freeze()
    for k, layer in enumerate(("CUT", "OFF", "COLD")):
        document.modelspace().add_line((0, k), (10, k), dxfattribs={"layer": layer})
    text = io.StringIO()
    document.write(text)
    sent = read_sent(text.getvalue().encode(), FLATBED)
    assert not sent.refused
    assert [s.places.tolist() for s in sent.strokes] == [[[0, 0], [10, 0]]]
    assert [one.reason for one in sent.left_out] == [
        "Left out: lines on layers that are off or frozen (2)."
    ]


def test_a_dxf_that_was_cut_short_is_refused() -> None:
    document = ezdxf.new(units=4)
    for k in range(3):
        document.modelspace().add_line((0, k), (10, k))
    text = io.StringIO()
    document.write(text)
    content = text.getvalue().encode()
    for short in (content[: content.rindex(b"EOF")], content[: content.rindex(b"LINE") + 60]):
        said = [fault.message for fault in read_sent(short, FLATBED).refused]
        assert said == ["The file is incomplete: its end is missing."]
