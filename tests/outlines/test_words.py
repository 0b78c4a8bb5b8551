"""Words as figures, in the shipped fonts."""

from __future__ import annotations

import pytest

from stileblade.errors import StepError
from stileblade.geometry.curves.measurement import signed_area
from stileblade.geometry.regions.fill import fill
from stileblade.outlines.figures.word import SizedBy, Word
from stileblade.outlines.text.shipped import Face, shipped, stand_in


@pytest.mark.parametrize("face", Face)
def test_every_font_is_as_high_as_asked_for(face: Face) -> None:
    """Flat-topped capitals are 20 mm high, to the overshoot that a font gives them."""
    letter = Word(text="H", font=face, size=20).outline({})
    assert letter.bounds.height == pytest.approx(20, abs=1.1)
    for sized in (SizedBy.WIDTH, SizedBy.HEIGHT):
        box = Word(text="Shell", font=face, sized=sized, size=60).outline({}).bounds
        assert getattr(box, sized.value) == pytest.approx(60)


def test_kerning_spacing_and_islands() -> None:
    wide = [Word(text="AV", spacing=s).outline({}).bounds.width for s in (0, 3)]
    assert wide[1] > wide[0] + 2.9
    alone = sum(shipped(Face.SERIF).set_line(c, 20).advance for c in "AV")
    assert shipped(Face.SERIF).set_line("AV", 20).advance < alone
    assert len(Word(text="O", font=Face.SANS).outline({}).openings) == 1
    assert len(Word(text="O", font=Face.STENCIL).outline({}).openings) == 0
    assert Word(text="shell", font=Face.SCRIPT).outline({}).pieces == 1


@pytest.mark.parametrize(
    ("text", "message"), [("  ", "There is no text yet."), ("Ab海c海", "The font has no 海.")]
)
def test_what_cannot_be_set_is_said(text: str, message: str) -> None:
    with pytest.raises(StepError) as caught:
        Word(text=text).outline({})
    assert (caught.value.message, caught.value.field) == (message, "text")


@pytest.mark.parametrize(
    ("families", "face"),
    [
        ("Times New Roman, serif", Face.SERIF),
        ("'Open Sans', sans-serif", Face.SANS),
        ("Rockwell Slab", Face.SLAB),
        ("cursive", Face.SCRIPT),
        ("Army Stencil", Face.STENCIL),
        ("", Face.SANS),
    ],
)
def test_a_shipped_font_stands_in_for_each_kind(families: str, face: Face) -> None:
    assert stand_in(families) is face


def test_letters_drawn_in_parts_across_each_other_are_one_outline() -> None:
    """A font of variable weight has its letters so: united once, they need it in no line."""
    size = 20.0
    for letter in "amR":
        contours = shipped(Face.SANS).set_line(letter, size).contours
        together = fill(contours)
        assert len(list(together.contours)) == len(contours)
        assert sum(map(signed_area, contours)) == pytest.approx(together.area, rel=1e-9)
    inner = {c: len(shipped(Face.SANS).set_line(c, size).contours) for c in "mBi"}
    assert inner == {"m": 1, "B": 3, "i": 2}
