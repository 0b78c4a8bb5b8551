"""What can be asked of the workers: one form for each job. Documents are plain data here, since they
may be of an earlier version; the schema says what they are now."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import BaseModel, Field

from stileblade.design.document import Card
from stileblade.design.kin.differences import How
from stileblade.formats.options import FileOptions
from stileblade.views.aims import RelationName, TriedView
from stileblade.views.bench import Wanted

DOCUMENT_MARK = "x-document"
Document = Annotated[dict[str, Any], Field(json_schema_extra={DOCUMENT_MARK: True})]
"""A design document as JSON."""
MOST_CARDS = 24
Key = Annotated[str, Field(max_length=40)]
Number = Annotated[int, Field(ge=0, le=2**31 - 1)]
"""Of a row or of a place in a list: one beyond has no place in a database."""
Finite = Annotated[float, Field(allow_inf_nan=False, ge=-1e4, le=1e4)]


class Wish(BaseModel):
    document: Document


class Looked(Wish):
    """A document and the piece looked at."""

    piece: Key


class Evaluate(Looked):
    """A document, the piece looked at, the step in hand, and the pictures already known."""

    step: Key | None = None
    known: list[Key] = Field(default_factory=list, max_length=2000)
    part: Wanted = Wanted.ALL


class Export(Looked):
    """A document, the piece in hand, a format, and what was chosen about the files."""

    format: str = Field(max_length=20)
    options: FileOptions = Field(default_factory=FileOptions)


class Picture(Looked):
    """A document, the piece in hand, its folds' angles in degrees, and where the eye and up are, as
    directions in the frame of the flat view turned upwards."""

    angles: Annotated[list[Finite], Field(max_length=1000)]
    eye: tuple[Finite, Finite, Finite]
    up: tuple[Finite, Finite, Finite] = (0.0, 1.0, 0.0)
    apart: Annotated[float, Field(allow_inf_nan=False, ge=0, le=100)] = 0.0


class Offers(Wish):
    """A document, and the base's panel that is looked at."""

    panel: Key = ""


class Begin(Wish):
    """A document whose card, papers and artworks a card is begun with; the figure, which is made as large as
    the card takes it less a margin in mm, or keeps its own size."""

    figure: dict[str, Any]
    margin: float = Field(0.0, ge=0, le=500)
    fits: bool = True


class Refold(Wish):
    """A document and the cards that it is wanted on; whether its figures are made larger or smaller with the card,
    or how many times as large they are made."""

    cards: list[Card] = Field(min_length=1, max_length=MOST_CARDS)
    along: bool = False
    factor: float | None = Field(None, ge=0.01, le=100, allow_inf_nan=False)


class Joins(Looked):
    """The piece with the mirror in question, the area in mm^2 that each half may lose, laps in mm and
    turns in degrees either way, and how many spans are wished for, 0 for any number."""

    loss: float = Field(ge=0.1, le=1e6)
    least_lap: float = Field(0.1, ge=0.1, le=1000)
    most_lap: float = Field(1000, ge=0.1, le=1000)
    most_turn: float = Field(180, ge=0, le=180)
    spans: int = Field(0, ge=0, le=40)


class AimWish(Looked):
    """A document, and a figure of one of its pieces with what it is to be; what was tried before, to go on from."""

    figure: str = Field(max_length=120)
    relation: RelationName = "least"
    target: float = Field(allow_inf_nan=False, ge=-1e7, le=1e7)
    tried: list[TriedView] = Field(default_factory=list, max_length=400)


class Kin(BaseModel):
    """Two designs of a family: the first as the other last took it, and as it is; the other, and what the first
    had of that; keys that differ, and how changes are taken over, by their keys."""

    before: Document
    source: Document
    target: Document
    behind: Document
    names: dict[str, str] = Field(default_factory=dict)
    how: dict[str, How] = Field(default_factory=dict)
