"""What a change in one design offers to another of its family, and how that one looks with it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal

from pydantic import BaseModel

from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design
from stileblade.design.evaluation import evaluate
from stileblade.design.kin.differences import Difference, How, Names, differences
from stileblade.design.kin.here import Here, here, is_length, ratio_of, scaled_length
from stileblade.design.kin.taking import with_differences
from stileblade.errors import StilebladeError
from stileblade.units import Unit, format_length
from stileblade.views.cards import CardLook, look_of
from stileblade.views.said import Said
from stileblade.words import say

_SIGNS = {"deg": "°", "share": "", "count": "", "mm2": " mm²"}
HowName = Literal["kept", "scaled", "left"]


class OfferedChange(BaseModel):
    """``here`` is what the other design has; ``kept`` and ``scaled`` what it would get, in words; ``scaled`` is
    "" where there are no lengths. ``own``: it had a value of its own before."""

    key: str
    piece: str
    of: Said
    title: Said
    before: Said
    after: Said
    here: Said
    kept: Said
    scaled: Said
    own: bool
    how: HowName


class KinOffer(BaseModel):
    """``look`` is how the other design would look with it; none where it would be no design, ``problem`` says why."""

    changes: list[OfferedChange]
    look: CardLook | None
    problem: Said


def chosen(
    before: Design, source: Design, target: Design, names: Names, how: Mapping[str, How]
) -> list[tuple[Difference, Here, How]]:
    """What can be taken over, each with how."""
    ratio = ratio_of(source, target)
    found = []
    for one in differences(before, source):
        stands = here(target, one, ratio, names)
        if stands is not None:
            found.append((one, stands, how.get(one.key, stands.usual)))
    return found


def offered(
    before: Design,
    source: Design,
    target: Design,
    names: Names,
    how: Mapping[str, How],
    cache: OutcomeCache | None = None,
) -> KinOffer:
    found = chosen(before, source, target, names, how)
    ratio = ratio_of(source, target)
    changes = [_offered(one, stands, as_, ratio, source, target) for one, stands, as_ in found]
    try:
        made, _ = with_differences(target, source, [(o, h) for o, _, h in found], names)
        look = CardLook.model_validate(look_of(evaluate(made, cache)))
    except StilebladeError as error:
        return KinOffer(changes=changes, look=None, problem=str(error))
    return KinOffer(changes=changes, look=look, problem="")


def taken_over(
    before: Design,
    source: Design,
    target: Design,
    behind: Design,
    names: Names,
    how: Mapping[str, How],
) -> tuple[Design, Design, Names]:
    """The target with what was chosen; what the source had of it, ``behind``, with the same, so that it is not
    offered back; and the names."""
    found = [(one, as_) for one, _, as_ in chosen(before, source, target, names, how)]
    made, named = with_differences(target, source, found, names)
    kept, _ = with_differences(behind, source, found, named, fixed=True)
    return made, kept, named


def _offered(
    one: Difference, stands: Here, how: How, ratio: float, source: Design, target: Design
) -> OfferedChange:
    scaled = ""
    if is_length(one):
        scaled = _said(scaled_length(float(one.after), ratio), one, target.units)
    elif one.has_lengths:
        scaled = say("lengths times {ratio:.3g}", ratio=ratio)
    piece = next((p.name for p in source.pieces if p.id == one.piece), "")
    return OfferedChange(
        key=one.key,
        piece=piece if len(source.pieces) > 1 else "",
        of=one.of,
        title=one.title,
        before=_said(one.before, one, source.units),
        after=_said(one.after, one, source.units),
        here=_said(stands.value, one, target.units),
        kept=_said(one.after, one, target.units),
        scaled=scaled,
        own=stands.usual is How.LEFT,
        how=how.value,
    )


def _said(value: Any, one: Difference, unit: Unit) -> str:
    """In words, "" for what has none: whole steps and pieces, orders, lists."""
    if value is None or isinstance(value, (dict, list)) or not one.path:
        return ""
    if isinstance(value, bool):
        return "on" if value else "off"
    if isinstance(value, str):
        return one.labels.get(value, value)
    if one.unit == "mm":
        return format_length(float(value), unit)
    return f"{value:g}{_SIGNS.get(one.unit, f' {one.unit}')}"
