"""Sizes, envelopes, ways of folding and paper, against the tables of the rules."""

from __future__ import annotations

import pytest

from stileblade.card.sizes import STANDARD_SIZES, Envelope, room_in
from stileblade.card.stock import Paper, weight_of
from stileblade.card.ways import WAYS
from stileblade.errors import UnknownKind

IN = 25.4
TABLE = {
    "A1 / 4-bar": (3.5 * IN, 4.875 * IN, 3.625 * IN, 5.125 * IN),
    "A2": (4.25 * IN, 5.5 * IN, 4.375 * IN, 5.75 * IN),
    "A6 (US)": (4.5 * IN, 6.25 * IN, 4.75 * IN, 6.5 * IN),
    "A7": (5 * IN, 7 * IN, 5.25 * IN, 7.25 * IN),
    "A9": (5.5 * IN, 8.5 * IN, 5.75 * IN, 8.75 * IN),
    "No. 10 slim": (4 * IN, 9.25 * IN, 4.125 * IN, 9.5 * IN),
    "5 in square": (5 * IN, 5 * IN, 5.25 * IN, 5.25 * IN),
    "6 in square": (6 * IN, 6 * IN, 6.5 * IN, 6.5 * IN),
    "ISO A7": (74, 105, 81, 114),
    "ISO A6": (105, 148, 114, 162),
    "ISO A5": (148, 210, 162, 229),
    "DL": (99, 210, 110, 220),
    "135 mm square": (135, 135, 140, 140),
    "150 mm square": (150, 150, 155, 155),
}


def test_standard_sizes_and_envelopes() -> None:
    found = {
        s.name: (s.width, s.height, s.envelope.width, s.envelope.height)
        for s in STANDARD_SIZES
        if s.envelope
    }
    assert found.keys() == TABLE.keys()
    for name, measures in TABLE.items():
        assert found[name] == pytest.approx(measures, abs=1e-9), name


def test_room_of_an_a2_side_fold() -> None:
    """111.125 - 107.95 - 0.6 = 2.575; 146.05 - 139.7 - 0.6 = 5.75; four panels: bulk 1.2."""
    a2 = Envelope(width=111.125, height=146.05)
    room = room_in(a2, (107.95, 139.7), 0.6)
    assert (room.width, room.height) == pytest.approx((2.575, 5.75), abs=1e-9)
    assert room_in(a2, (107.95, 139.7), 1.2).least == pytest.approx(1.975, abs=1e-9)


def test_room_is_measured_in_the_better_orientation() -> None:
    room = room_in(Envelope(width=114, height=162), (148, 105), 0.6)
    assert room.turned
    assert (room.width, room.height) == pytest.approx((8.4, 13.4))


def test_weight_of_an_a2_side_fold() -> None:
    """215.9 x 139.7 mm of 300 g/m^2: 9.048 g."""
    assert weight_of(215.9 * 139.7, Paper(weight=300)) == pytest.approx(9.048, abs=1e-3)


def test_an_unknown_way_is_answered_with_the_known() -> None:
    with pytest.raises(UnknownKind, match="Known are: accordion, double-parallel"):
        WAYS["inside-out"]
