"""A word set in a font file."""

from __future__ import annotations

from stileblade.errors import ReadingError
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.regions.fill import fill
from stileblade.outlines.reading.found import Found, Shape, SizeReading
from stileblade.outlines.text.font import Font
from stileblade.words import say

CAPITALS = 20.0
"""mm: how high capitals are set; fitted to the card later."""
SAMPLE = "Ahoy"


def read_font(content: bytes, text: str) -> Found:
    """The text as one outline, kerned, letters that overlap united. ``ReadingError`` for what is
    no font, and where it has none of the letters."""
    font = Font([content])
    text = " ".join(text.split()) or SAMPLE
    line = font.set_line(text, CAPITALS / font.cap_height)
    region = fill(line.contours)
    missing = " ".join(dict.fromkeys(line.missing.strip()))
    if not region:
        said = say(" It lacks {missing}.", missing=missing) if missing else ""
        raise ReadingError(
            say("The font has no outline for “{what}”.{said}", what=text[:40], said=said),
            hint="Type other letters.",
        )
    box = region.bounds
    region = region.transformed(translation(-box.left, -box.head))
    found = Found("font", box.width, box.height, [SizeReading("capitals 20 mm high", 1.0)])
    found.shapes.append(Shape(text[:60], "#262626", region))
    found.notes.append(say("Set in {name}.", name=font.name[:60] or "a font without name"))
    if missing:
        found.left_out[say("letters that the font has not: {missing}", missing=missing[:60])] += (
            len(line.missing.strip())
        )
    return found
