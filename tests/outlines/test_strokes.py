"""Lettering in single strokes."""

from __future__ import annotations

import numpy as np
import pytest

from stileblade.geometry.curves.kinds import Kind
from stileblade.outlines.text.strokes import FIRST, LAST, PenFace, set_strokes


@pytest.mark.parametrize("face", PenFace)
def test_every_character_that_there_is_can_be_written(face: PenFace) -> None:
    for code in range(FIRST, LAST + 1):
        found = set_strokes(chr(code), face, 10)
        assert found.missing == ""
        assert found.advance > 0
        assert bool(found.ways) == (chr(code) != " ")


def test_capitals_stand_on_the_base_line_in_their_height() -> None:
    for letter in "AEHIT":
        points = np.concatenate(
            [np.concatenate([w.start, w.end]) for w in set_strokes(letter, PenFace.PLAIN, 12).ways]
        )
        assert points[:, 1].min() == pytest.approx(-12, abs=1e-9)
        assert points[:, 1].max() == pytest.approx(0, abs=1e-9)


def test_letters_follow_each_other_with_their_spacing() -> None:
    one = set_strokes("H", PenFace.PLAIN, 21)
    two = set_strokes("HH", PenFace.PLAIN, 21)
    wide = set_strokes("HH", PenFace.PLAIN, 21, spacing=5)
    assert two.advance == pytest.approx(2 * one.advance)
    assert wide.advance == pytest.approx(2 * one.advance + 5)
    assert len(two.ways) == 2 * len(one.ways)
    assert two.ways[3].start[0, 0] == pytest.approx(one.ways[0].start[0, 0] + one.advance)


def test_strokes_are_smooth_but_for_their_corners() -> None:
    """An O has no corner: the direction runs on from piece to piece. An N has two."""
    (way,) = set_strokes("O", PenFace.PLAIN, 21).ways
    first, last = way.end_directions()
    assert (last[:-1] * first[1:]).sum(axis=1) == pytest.approx(np.ones(len(way) - 1), abs=1e-6)
    letter = set_strokes("N", PenFace.PLAIN, 21)
    assert {int(k) for w in letter.ways for k in w.kind} == {int(Kind.LINE)}


def test_pieces_of_a_stroke_meet() -> None:
    for way in set_strokes("Ship's log 07:30 & tide", PenFace.SCRIPT, 8).ways:
        assert np.abs(way.end[:-1] - way.start[1:]).max(initial=0) < 1e-12


@pytest.mark.parametrize("face", PenFace)
@pytest.mark.parametrize(
    ("marked", "plain"), [*zip("äéñôåčçÄÉ", "aenoaccAE", strict=True), ("i\u0308", "ï")]
)
def test_marked_letters_are_their_letters_with_a_mark_that_touches_nothing(
    face: PenFace, marked: str, plain: str
) -> None:
    with_mark, without = (set_strokes(text, face, 21) for text in (marked, plain))
    assert (with_mark.missing, with_mark.advance) == ("", without.advance)
    count = len(without.ways)
    if marked == "i\u0308":  # the same letter, written in two ways
        assert len(with_mark.ways) == count
        return
    marks, letter = with_mark.ways[count:], with_mark.ways[:count]
    assert marks
    for one, other in zip(letter, without.ways, strict=True):
        assert np.array_equal(one.start, other.start)
    head = min(w.start[:, 1].min() for w in letter)
    for mark in marks:
        if marked != "ç":
            assert max(mark.start[:, 1].max(), mark.end[-1, 1]) < head - 1


@pytest.mark.parametrize("face", PenFace)
def test_a_mark_stands_for_the_dot_of_an_i(face: PenFace) -> None:
    dotted, marked = (set_strokes(text, face, 21) for text in "ií")
    assert len(marked.ways) == len(dotted.ways)
    assert set_strokes("Grüße aus Sjöbo – it’s „Šumava“ …", PenFace.SCRIPT, 8).missing == ""


def test_what_has_no_strokes_is_told() -> None:
    assert set_strokes("Küste 海, Ω", PenFace.PLAIN, 10).missing == "海Ω"
    assert set_strokes("", PenFace.PLAIN, 10).advance == 0
