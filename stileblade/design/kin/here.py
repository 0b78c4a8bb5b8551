"""How a difference stands in another member of the family: whether there is something to take over, and how
that is done if nothing else is said."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from stileblade.design.document import Design
from stileblade.design.kin.differences import Difference, How, Json, Names, What, as_json

_NEAR = 0.02
"""mm: a length that is so near to the scaled one was scaled."""


@dataclass(frozen=True)
class Here:
    """The value in the other member, None where there is none, and how the change is taken over if nothing
    else is said: as this value was, and not where it had one of its own."""

    value: Any
    usual: How


def ratio_of(of: Design, to: Design) -> float:
    """By how much the other card is larger, in the direction in which it is least so."""
    one, other = of.card.size, to.card.size
    return min(other.width / one.width, other.height / one.height)


def here(target: Design, one: Difference, ratio: float, names: Names) -> Here | None:
    """None where there is nothing to take over: it is so already, or what it is about is not there."""
    if one.what is What.CARD:
        return _stands(as_json(target.card), one, ratio)
    if one.what is What.PAPER:
        return _paper(target, one, ratio)
    piece = next((p for p in target.pieces if p.id == names.piece(one.piece)), None)
    if one.what is What.PIECE:
        known = piece is not None and one.piece in names.other
        return None if known else Here(None, How.KEPT)
    if piece is None:
        return None
    if one.what is What.PIECE_GONE:
        return Here(one.before, How.KEPT)
    steps = {s.id: s for s in piece.steps}
    if one.what is What.ORDER:
        wanted = [k for s in one.after if (k := names.step(one.piece, s)) in steps]
        own = [k for k in steps if k in wanted]
        return None if own == wanted else Here(own, How.KEPT)
    if one.what is What.STEP:
        known = f"{one.piece}/{one.step}" in names.other
        there = names.step(one.piece, one.step) in steps
        return None if known and there else Here(None, How.KEPT)
    if not one.step:
        return _stands(as_json(piece), one, ratio)
    step = steps.get(names.step(one.piece, one.step))
    if step is None:
        return None
    if one.what is What.STEP_GONE:
        return Here(one.before, How.KEPT) if step.title == one.title else None
    return _stands(as_json(step), one, ratio) if one.of.endswith(step.title) else None


def _paper(target: Design, one: Difference, ratio: float) -> Here | None:
    paper = next((p for p in target.papers if p.id == one.piece), None)
    if paper is None or not one.path:
        return Here(None, How.KEPT) if paper is None and not one.path else None
    return _stands(as_json(paper), one, ratio)


def _stands(values: Json, one: Difference, ratio: float) -> Here | None:
    value: Any = values
    for name in one.path.split("."):
        if not isinstance(value, dict) or name not in value:
            return None
        value = value[name]
    if value == one.after:
        return None
    if value == one.before:
        return Here(value, How.KEPT)
    if is_length(one) and abs(float(value) - float(one.before) * ratio) <= _NEAR:
        scaled = scaled_length(float(one.after), ratio)
        return None if value == scaled else Here(value, How.SCALED)
    return Here(value, How.LEFT)


def is_length(one: Difference) -> bool:
    return one.unit == "mm" and isinstance(one.before, (int, float)) and one.after is not None


def scaled_length(value: float, ratio: float) -> float:
    return round(value * ratio, 2)
