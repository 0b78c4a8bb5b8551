"""The design document: a versioned, typed JSON document. See docs/decisions/0002."""

from __future__ import annotations

import json
from collections.abc import Callable
from enum import StrEnum
from typing import Any, Literal

from pydantic import Field, TypeAdapter, ValidationError, model_validator

from stileblade.card.folding import Folding
from stileblade.card.sizes import CardSize
from stileblade.card.stock import Paper
from stileblade.errors import DocumentError
from stileblade.fields import Values, length
from stileblade.outlines.artwork import Artwork
from stileblade.outlines.catalogue import AnyFigure
from stileblade.outlines.figure import Figure
from stileblade.piece.lying import Around, Facing, FixedBy, Lies
from stileblade.steps.step import Setting
from stileblade.steps.union import AnyStep
from stileblade.units import Unit
from stileblade.words import say

VERSION = 4
MOST_STEPS = 200
MOST_PIECES = 60


class Card(Values):
    """What is folded, how, and the envelope it goes in."""

    size: CardSize = Field(default_factory=CardSize, title="Size", description="Closed, upright.")
    turned: bool = Field(False, title="Turned", description="Held lying, width and height swapped.")
    folding: Folding = Field(
        default_factory=Folding, title="Folding", description="How the card is folded."
    )
    slack: float = length(
        2, "Slack", "Room wished for in the envelope, each way.", least=0, most=50
    )


class Piece(Values):
    """One piece of paper and the steps that make it; a layer has a host, which comes before it."""

    id: str = Field("base", max_length=40)
    name: str = Field("Base", min_length=1, max_length=60)
    paper: str = Field("paper", description="Key of its paper in the document.", max_length=40)
    host: str = Field("", description="Key of the piece that it lies on, if any.", max_length=40)
    panel: str = Field("", description="The host's panel; empty: its front.", max_length=40)
    side: Facing = Field(Facing.OUTSIDE, description="Which side of the host it lies on.")
    order: int = Field(
        0, ge=-1000, le=1000, description="Its place in the stack, from the host's paper on."
    )
    fixing: FixedBy = Field(FixedBy.GLUE, description="How it is held.")
    pad: float = length(1.5, "Pads", "How high they are.", least=0, most=20)
    hidden: bool = Field(False, description="Left out of pictures, not of the card.")
    steps: list[AnyStep] = Field(default_factory=list, max_length=MOST_STEPS)

    @model_validator(mode="before")
    @classmethod
    def _keys_for_steps(cls, data: Any) -> Any:
        """Steps without a key get one; a key given twice is refused."""
        if not isinstance(data, dict) or not isinstance(data.get("steps"), list):
            return data
        steps = data["steps"]
        keys = [s.get("id") for s in steps if isinstance(s, dict)]
        taken = [key for key in keys if isinstance(key, str) and key]  # the schema refuses others
        if len(set(taken)) < len(taken):
            raise ValueError("two steps have the same id")
        number, out = 0, []
        for step in steps:
            if isinstance(step, dict) and not step.get("id"):
                number += 1
                while f"s{number}" in taken:
                    number += 1
                step = {**step, "id": f"s{number}"}
            out.append(step)
        return {**data, "steps": out}


class Relation(StrEnum):
    LEAST = "least"
    EXACTLY = "exactly"
    MOST = "most"


class Aim(Values):
    """A figure of a piece that is to come out so; a step's value, or one of the card's folding where
    ``step`` is "", is set anew for it when something changes."""

    piece: str = Field("base", max_length=40)
    figure: str = Field(max_length=120)
    relation: Relation = Relation.LEAST
    target: float
    step: str = Field("", max_length=40)
    field: str = Field(max_length=80)


class Acceptance(Values):
    """A finding that the person leaves as it is, and why. It is set aside while the same check says the same
    of the same piece and step, no more severely than then."""

    code: str = Field(max_length=80)
    piece: str = Field("base", max_length=40)
    step: str = Field("", max_length=40)
    severity: Literal["error", "warning", "note"]
    reason: str = Field(min_length=1, max_length=200)


MOST_AIMS = 20
MOST_ACCEPTED = 400
FIGURE: TypeAdapter[Figure] = TypeAdapter(AnyFigure)


class Design(Values):
    """A card: its size, papers, artworks, and the pieces it is made of."""

    format: Literal["stileblade"] = "stileblade"
    version: Literal[4] = 4
    name: str = Field("New card", min_length=1, max_length=120)
    units: Unit = Unit.MM
    card: Card = Field(default_factory=Card)
    papers: list[Paper] = Field(default_factory=lambda: [Paper()], min_length=1, max_length=40)
    artworks: dict[str, Artwork] = Field(default_factory=dict, max_length=60)
    pieces: list[Piece] = Field(
        default_factory=lambda: [Piece()], min_length=1, max_length=MOST_PIECES
    )

    aims: list[Aim] = Field(default_factory=list, max_length=MOST_AIMS)
    accepted: list[Acceptance] = Field(default_factory=list, max_length=MOST_ACCEPTED)

    @model_validator(mode="after")
    def _consistent(self) -> Design:
        papers = [p.id for p in self.papers]
        if len(set(papers)) < len(papers):
            raise ValueError("two papers have the same id")
        names = [p.id for p in self.pieces]
        if len(set(names)) < len(names):
            raise ValueError("two pieces have the same id")
        for number, piece in enumerate(self.pieces):
            if piece.paper not in papers:
                raise ValueError(
                    f"piece {piece.name!r} is of paper {piece.paper!r}, which is not in papers"
                )
            if piece.host and piece.host not in names[:number]:
                raise ValueError(
                    f"piece {piece.name!r} lies on {piece.host!r}, and no piece before it has that key"
                )
        return self

    def paper_of(self, piece: Piece) -> Paper:
        return next(p for p in self.papers if p.id == piece.paper)

    def setting_for(self, piece: Piece, shelf: Any) -> Setting:
        """What the piece's steps may read."""
        return Setting(
            self.card.size,
            self.card.turned,
            self.card.folding,
            self.paper_of(piece),
            shelf,
            taken=self.taken_of(piece),
            lies=Lies(piece.host, piece.panel, piece.side),
        )

    @property
    def makes_envelope(self) -> bool:
        """Whether an envelope of its own is one of its pieces."""
        return any(s.on and s.goes_round is Around.ENVELOPE for p in self.pieces for s in p.steps)

    def layers_on(self, key: str) -> list[Piece]:
        """The pieces that lie on one, and on those."""
        found: list[Piece] = []
        for piece in self.pieces:
            if piece.host and piece.host in (key, *(p.id for p in found)):
                found.append(piece)
        return found

    def taken_of(self, piece: Piece) -> dict[str, tuple[int, ...]]:
        """By the step that parts a piece: the parts that begin other pieces."""
        last = next((s.id for s in reversed(piece.steps) if s.on and s.parts_piece), "")
        found: dict[str, tuple[int, ...]] = {}
        for other in self.pieces:
            for part in (s.takes_part for s in other.steps if s.on):
                if other is not piece and part and part.piece == piece.id:
                    step = part.step or last
                    found[step] = (*found.get(step, ()), part.number)
        return found


def _from_1(data: dict[str, Any]) -> dict[str, Any]:
    """Single outlines in mm became artworks of one layer."""
    rest = {k: v for k, v in data.items() if k != "outlines"}
    outlines = data.get("outlines", {})
    if not isinstance(outlines, dict) or not all(isinstance(o, dict) for o in outlines.values()):
        raise DocumentError("outlines: they are no objects by name.", where="outlines")
    artworks = {
        key: {
            **({"name": o["name"]} if "name" in o else {}),
            "layers": [
                {k: v for k, v in {**o, "name": o.get("name", "Layer")}.items() if k != "scale"}
            ],
        }
        for key, o in outlines.items()
    }
    return {**rest, "artworks": artworks, "version": 2}


def _from_2(data: dict[str, Any]) -> dict[str, Any]:
    """The way of folding, a key alone, became an object with the values that it asks for."""
    card = data.get("card", {})
    if not isinstance(card, dict):
        raise DocumentError("card: it is no object.", where="card")
    if "way" in card:
        card = {k: v for k, v in card.items() if k != "way"} | {"folding": {"kind": card["way"]}}
    return {**data, **({"card": card} if card else {}), "version": 3}


def _from_3(data: dict[str, Any]) -> dict[str, Any]:
    """All pieces were bases, and said so."""
    pieces = data.get("pieces", [])
    if not isinstance(pieces, list) or not all(isinstance(p, dict) for p in pieces):
        raise DocumentError("pieces: they are no list of objects.", where="pieces")
    kept = [{k: v for k, v in p.items() if k != "role"} for p in pieces]
    return {**data, **({"pieces": kept} if "pieces" in data else {}), "version": 4}


UPGRADES: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {
    1: _from_1,
    2: _from_2,
    3: _from_3,
}
"""From each earlier version a pure function to the next."""


def load_design(data: Any) -> Design:
    """The design in parsed JSON. ``DocumentError`` says what is wrong, where, and what to do."""
    if not isinstance(data, dict):
        raise DocumentError("This is no design document: it is not a JSON object.")
    if data.get("format", "stileblade") != "stileblade":
        raise DocumentError(
            say(
                "format={what!r}: this is no Stileblade design.", what=str(data.get("format"))[:40]
            ),
            where="format",
        )
    version = data.get("version", VERSION)
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise DocumentError(
            say("version={what!r} is no version.", what=str(version)[:20]), where="version"
        )
    if version > VERSION:
        raise DocumentError(
            say(
                "The design is of version {version}; this program reads versions up to {version2}.",
                version=version,
                version2=VERSION,
            ),
            hint="Open it with the newer program that wrote it. It has been left as it was.",
            where="version",
        )
    while version < VERSION:
        data = UPGRADES[version](data)
        version += 1
    try:
        return Design.model_validate(data)
    except ValidationError as error:
        raise DocumentError(*_in_words(error)) from error


def load_figure(data: Any) -> Figure:
    """The figure in parsed JSON. DocumentError says what is wrong with it."""
    try:
        return FIGURE.validate_python(data)
    except ValidationError as error:
        raise DocumentError(*_in_words(error)) from error


def read_design(text: str | bytes) -> Design:
    """The design in JSON text."""
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise DocumentError(say("This is no JSON: {error}.", error=error)) from error
    return load_design(data)


def _in_words(error: ValidationError) -> tuple[str]:
    first = error.errors(include_url=False, include_input=True)[0]
    where = ".".join(str(p) for p in first["loc"]) or "the document"
    message = first["msg"].removeprefix("Value error, ")
    value = first.get("input")
    shown = f" (it is {value!r})" if isinstance(value, str | int | float) else ""
    more = error.error_count() - 1
    rest = say(" And {more} more.", more=more) if more else ""
    return (f"{where}: {message}{shown[:80]}.{rest}",)
