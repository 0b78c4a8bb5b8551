"""Lengths as typed, held to the table that the browser's twin is held to as well."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from stileblade.design.document import load_design
from stileblade.errors import DocumentError, MeasureError
from stileblade.units import Unit, format_length, parse_length, to_sixteenths

TABLE = json.loads((Path(__file__).parent / "golden" / "lengths.json").read_text())


@pytest.mark.parametrize(("text", "unit", "value"), TABLE["values"])
def test_lengths_are_read_exactly(text: str, unit: str, value: float) -> None:
    assert parse_length(text, Unit(unit)) == pytest.approx(value, abs=1e-9)


@pytest.mark.parametrize(("text", "unit", "message"), TABLE["errors"])
def test_what_is_no_length_is_answered_with_place_and_way_out(
    text: str, unit: str, message: str
) -> None:
    with pytest.raises(MeasureError) as caught:
        parse_length(text, Unit(unit))
    assert caught.value.message == message
    assert caught.value.hint == "Type a length such as 108, 4.25in, 5 1/8 in or 10 1/4in / 2."


def test_endless_and_nested_text_is_refused() -> None:
    with pytest.raises(MeasureError, match="at most 120"):
        parse_length("1+" * 100)
    with pytest.raises(MeasureError, match="too many brackets"):
        parse_length("(" * 50 + "1" + ")" * 50)


def test_lengths_are_written_without_needless_zeros() -> None:
    assert format_length(108.5) == "108.5 mm"
    assert format_length(139.7, Unit.IN) == "5.5 in"
    assert format_length(-0.001) == "0 mm"
    assert format_length(130.175) == "130.18 mm"
    assert format_length(130.175, Unit.IN, with_unit=False) == "5.125"


def test_scoring_board_fractions_carry_their_rounding_error() -> None:
    """107.95 mm is 4 1/4 in exactly; 98 mm = 3.858 in, nearest 3 14/16, 98.425: 0.425 over."""
    assert to_sixteenths(107.95) == ("4 1/4", pytest.approx(0, abs=1e-9))
    text, error = to_sixteenths(98)
    assert text == "3 7/8"
    assert error == pytest.approx(0.425, abs=1e-9)


def test_documents_may_hold_lengths_as_people_write_them() -> None:
    """``lap: "1/2 in"`` is 12.7, kept as a number; what is no length says where."""
    mirror = {"kind": "mirror", "lap": "10 1/4in / 2"}
    (piece,) = load_design({"pieces": [{"steps": [{"kind": "figure"}, mirror]}]}).pieces
    assert piece.steps[1].model_dump()["lap"] == pytest.approx(130.175)
    with pytest.raises(DocumentError, match=r"lap='3 bananas': .*no unit"):
        load_design({"pieces": [{"steps": [{**mirror, "lap": "3 bananas"}]}]})
