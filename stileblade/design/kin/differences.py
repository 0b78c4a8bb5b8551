"""What was changed in one design of a family, told by the keys that its members share: those of pieces, steps
and papers. Where one got a key of its own for what it took over, ``Names`` say which.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any

from pydantic import BaseModel

from stileblade.design.document import Design, Piece
from stileblade.words import Own, say

Json = dict[str, Any]
_OF_PIECES = ("name", "paper", "host", "panel", "side", "order", "fixing", "pad", "hidden")
_OF_CARD = ("turned", "slack")


class How(StrEnum):
    """How a change is taken over."""

    KEPT = "kept"
    """As it is, lengths in mm."""
    SCALED = "scaled"
    """Lengths as the card's size is."""
    LEFT = "left"
    """Not at all."""


class What(StrEnum):
    VALUE = "value"
    STEP = "step"
    STEP_GONE = "step-gone"
    ORDER = "order"
    PIECE = "piece"
    PIECE_GONE = "piece-gone"
    PAPER = "paper"
    CARD = "card"


@dataclass(frozen=True)
class Difference:
    """``path`` leads to the value from the step, piece, paper or card: "outline.width"; it is "" for a whole
    one. ``after`` is JSON, None for what is gone; ``behind`` is the key of what an added one comes after."""

    what: What
    piece: str
    """The key of the piece, or of the paper."""
    step: str
    path: str
    before: Any
    after: Any
    title: str
    """Of the value, or of the step or piece as a whole."""
    of: str = ""
    """The step, paper or card that a value is one of, as a person reads it."""
    unit: str = ""
    labels: Mapping[str, str] = field(default_factory=dict)
    behind: str = ""

    @property
    def key(self) -> str:
        return " ".join([self.what, self.piece, self.step, self.path])

    @property
    def has_lengths(self) -> bool:
        return self.unit == "mm" or self.what in (What.STEP, What.PIECE)


@dataclass(frozen=True)
class Names:
    """Keys of one design that another has by other ones: of pieces, and of steps as "piece/step", both as the
    first names them."""

    other: Mapping[str, str] = field(default_factory=dict)

    def piece(self, key: str) -> str:
        return self.other.get(key, key)

    def step(self, piece: str, key: str) -> str:
        return self.other.get(f"{piece}/{key}", key)

    def the_other_way(self) -> Names:
        found = {}
        for key, named in self.other.items():
            piece, _, step = key.partition("/")
            found[f"{self.piece(piece)}/{named}" if step else named] = step or piece
        return Names(found)


def as_json(model: BaseModel) -> Json:
    return model.model_dump(mode="json")


def differences(before: Design, after: Design) -> list[Difference]:
    """What was changed, but for the name, the units and the size, which are each member's own."""
    found = list(_in_values(before.card, after.card, What.CARD, of="Card", only=_OF_CARD))
    old_folding, folding = before.card.folding, after.card.folding
    found += _in_values(old_folding, folding, What.CARD, of="Folding", prefix="folding.")
    old_papers = {p.id: p for p in before.papers}
    for paper in after.papers:
        if paper.id in old_papers:
            old_paper, of = old_papers[paper.id], say("paper {name}", name=Own(paper.name))
            found += _in_values(old_paper, paper, What.PAPER, of=of, piece=paper.id)
        else:
            made, title = as_json(paper), say("Paper {name}", name=Own(paper.name))
            found.append(Difference(What.PAPER, paper.id, "", "", None, made, title))
    old = {p.id: p for p in before.pieces}
    last = ""
    for piece in after.pieces:
        if piece.id in old:
            found += _in_piece(old[piece.id], piece)
        else:
            made, title = as_json(piece), say("Piece {name}", name=Own(piece.name))
            found.append(Difference(What.PIECE, piece.id, "", "", None, made, title, behind=last))
        last = piece.id
    kept = {p.id for p in after.pieces}
    for piece in before.pieces:
        if piece.id not in kept:
            title = say("Piece {name}", name=Own(piece.name))
            found.append(Difference(What.PIECE_GONE, piece.id, "", "", title, None, title))
    return found


def _in_piece(before: Piece, after: Piece) -> Iterator[Difference]:
    of = say("piece {name}", name=Own(after.name))
    yield from _in_values(before, after, What.VALUE, of=of, piece=after.id, only=_OF_PIECES)
    old, kept = {s.id: s for s in before.steps}, {s.id: type(s) for s in after.steps}
    # what is gone comes first: another kind of step may have its key
    for step in before.steps:
        if kept.get(step.id) is not type(step):
            gone = step.title
            yield Difference(What.STEP_GONE, after.id, step.id, "", gone, None, gone, of)
    both = [s.id for s in after.steps if s.id in old]
    was = [s.id for s in before.steps if s.id in kept]
    if both != was:
        yield Difference(What.ORDER, after.id, "", "", was, both, "Order of the steps", of)
    last = ""
    for number, step in enumerate(after.steps, 1):
        title = say("step {number}, {title}", number=number, title=step.title)
        if step.id in old and type(old[step.id]) is type(step):
            yield from _in_values(
                old[step.id], step, What.VALUE, of=title, piece=after.id, step=step.id
            )
        else:
            made = as_json(step)
            yield Difference(
                What.STEP, after.id, step.id, "", None, made, step.title, of, behind=last
            )
        last = step.id


def _in_values(
    before: BaseModel,
    after: BaseModel,
    what: What,
    *,
    of: str,
    piece: str = "",
    step: str = "",
    prefix: str = "",
    only: Sequence[str] = (),
) -> Iterator[Difference]:
    for name, info in type(after).model_fields.items():
        old, new = getattr(before, name), getattr(after, name)
        if old == new or name == "id" or (only and name not in only):
            continue
        if isinstance(new, BaseModel) and type(old) is type(new):
            yield from _in_values(
                old, new, what, of=of, piece=piece, step=step, prefix=f"{prefix}{name}."
            )
            continue
        extra = info.json_schema_extra if isinstance(info.json_schema_extra, dict) else {}
        labels = extra.get("labels", {})
        yield Difference(
            what,
            piece,
            step,
            f"{prefix}{name}",
            as_json(before)[name],
            as_json(after)[name],
            info.title or name.capitalize(),
            of,
            str(extra.get("unit", "")),
            {k: str(v) for k, v in labels.items()} if isinstance(labels, dict) else {},
        )
