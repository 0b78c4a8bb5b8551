"""The fonts that come with the application, each of another kind. Their licences lie beside
them in ``fonts``."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from stileblade.outlines.text.font import Font

FOLDER = Path(__file__).parents[1] / "fonts"


class Face(StrEnum):
    """Which of the shipped fonts; the value is its file's name."""

    SANS = "nunito"
    SERIF = "cormorant-garamond"
    SCRIPT = "pacifico"
    SLAB = "alfa-slab-one"
    STENCIL = "stardos-stencil"


@dataclass(frozen=True)
class Kind:
    title: str
    families: tuple[str, ...]
    """Generic families and words in family names that it stands in for."""


KINDS = {
    Face.SANS: Kind("sans, heavy", ("sans-serif", "system-ui", "sans", "grotesk", "gothic")),
    Face.SERIF: Kind("serif", ("serif", "roman", "times", "antiqua", "garamond", "georgia")),
    Face.SCRIPT: Kind("joined script", ("cursive", "script", "hand", "brush", "fantasy")),
    Face.SLAB: Kind("slab", ("slab", "egyptian", "black")),
    Face.STENCIL: Kind("stencil, no islands", ("stencil",)),
}


@cache
def shipped(face: Face) -> Font:
    """The font of a face. What reads fonts takes long to import: only who sets words needs it."""
    from stileblade.outlines.text.font import Font

    files = [FOLDER / f"{face}.woff2", FOLDER / f"{face}-ext.woff2"]
    return Font([f.read_bytes() for f in files if f.exists()])


def stand_in(families: str) -> Face:
    """The shipped font for a list of families, as CSS has it: the first that suits one."""
    for family in families.lower().replace('"', "").replace("'", "").split(","):
        name = family.strip()
        for face in (Face.STENCIL, Face.SLAB, Face.SCRIPT, Face.SANS, Face.SERIF):
            if any(word in name for word in KINDS[face].families):
                return face
    return Face.SANS
