"""The same design on another card: another size, or folded another way; with its figures as they are, or made larger
or smaller with the card.

Steps keep their values; what is placed by a panel that the new card does not have is placed by
the one that takes its place; steps that cannot be applied any more are switched off, not deleted.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

from pydantic import ValidationError

from stileblade.card.layout import Layout
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Card, Design, Piece
from stileblade.design.evaluation import Artworks, evaluate
from stileblade.geometry.curves.places import Box
from stileblade.outlines.figure import Figure, outline_of
from stileblade.steps.step import Step
from stileblade.units import format_length
from stileblade.words import say


@dataclass(frozen=True)
class Change:
    """What became of one step: "placed" anew, switched "off", or its figure "stayed" as large as it was; and why, or
    how large that is."""

    piece: str
    step: str
    title: str
    what: Literal["placed", "off", "stayed"]
    why: str


@dataclass(frozen=True)
class Refolded:
    design: Design
    changes: tuple[Change, ...]
    kept: int
    """How many steps apply as before."""
    factor: float = 1.0
    """How many times as large as the old card the new one is, in the direction in which it is less so."""


def refold(
    design: Design,
    card: Card,
    cache: OutcomeCache | None = None,
    *,
    along: bool = False,
    factor: float | None = None,
) -> Refolded:
    """The design on another card. Steps that could not be applied before stay as they are. ``along``: figures are made
    larger or smaller with the card; ``factor``: they are made that many times as large."""
    cache = cache or OutcomeCache()
    grown = _grown(design.card, card)
    wanted = factor if factor is not None else grown if along else 1.0
    if wanted != 1.0:
        design = with_figures_scaled(design, wanted, cache)
    thickness = design.paper_of(design.pieces[0]).thickness
    old, new = (_layout(c, thickness) for c in (design.card, card))
    panels, folds = _panels(old, new), _folds(old, new)
    changes: list[Change] = []
    pieces = []
    for piece in design.pieces:
        steps = []
        for step in piece.steps:
            placed, why = _placed(step, panels, folds)
            if why:
                changes.append(Change(piece.id, step.id, step.title, "placed", why))
            steps.append(placed)
        panel = panels.get(piece.panel, piece.panel)
        if panel != piece.panel and steps:
            why = say("lies on {panel!r} now", panel=panel)
            changes.append(Change(piece.id, steps[0].id, steps[0].title, "placed", why))
        pieces.append(piece.model_copy(update={"steps": steps, "panel": panel}))
    moved = design.model_copy(update={"card": card, "pieces": pieces})
    fine = {
        (p.piece.id, o.step.id)
        for p in evaluate(design, cache).pieces
        for o in p.outcomes
        if o.step.on and o.problem is None
    }
    # one step switched off may let another apply: from the first to the last, one at a time
    off: list[Change] = []
    while (bad := _first_bad(moved, fine, cache)) is not None:
        off.append(bad)
        fine.discard((bad.piece, bad.step))
        moved = moved.model_copy(update={"pieces": [_without(p, bad) for p in moved.pieces]})
    gone = {(c.piece, c.step) for c in off}
    changes = [c for c in changes if (c.piece, c.step) not in gone] + off
    if abs(grown / wanted - 1) > _SAME and factor is None:
        changes += [
            Change(piece.id, step.id, step.title, "stayed", _stays(values, moved))
            for piece, step, values in _scaled(moved, 1.0, cache)
            if (piece.id, step.id) in fine
        ]
    return Refolded(moved, tuple(changes), len(fine), grown)


_SAME = 1e-3
"""Cards whose measures differ by a smaller share are of the same size."""


def _grown(old: Card, new: Card) -> float:
    """How many times as large the new card is, closed, in the direction in which it is less so."""
    (w, h), (v, k) = (
        (c.size.height, c.size.width) if c.turned else (c.size.width, c.size.height)
        for c in (old, new)
    )
    return min(v / w, k / h)


def _scaled(
    design: Design, factor: float, cache: OutcomeCache
) -> list[tuple[Piece, Step, dict[str, Any]]]:
    """The steps in use that give figures sizes of their own, each with the values that make its figure ``factor``
    times as large. A figure that a later step of its piece sizes anew does not count."""
    found = []
    for made in evaluate(design, cache).pieces:
        anew = False
        for outcome in reversed(made.outcomes):
            step = outcome.step
            if not step.on or outcome.problem is not None:
                continue
            if not (anew and step.sizes_anew):
                values = step.scaled_by(factor, made.setting)
                if values:
                    found.append((made.piece, step, values))
            anew = anew or step.sizes_anew
    return found[::-1]


def _stays(values: dict[str, Any], design: Design) -> str:
    """How large a figure stays, by the values that give it its size."""
    figure = values.get("outline")
    if isinstance(figure, Figure):
        box = outline_of(figure, Artworks(design.artworks)).bounds
        size = [box.width, box.height]
    else:
        size = [values[name] for name in ("width", "height") if name in values]
    return say("stays {size}", size=" × ".join(format_length(mm, design.units) for mm in size))


def with_figures_scaled(design: Design, factor: float, cache: OutcomeCache) -> Design:
    """The design with all figures that have sizes of their own ``factor`` times as large, as far as the bounds of
    their values allow it."""
    values = {(p.id, s.id): v for p, s, v in _scaled(design, factor, cache)}
    pieces = []
    for piece in design.pieces:
        steps = [_with(s, values.get((piece.id, s.id), {})) for s in piece.steps]
        pieces.append(piece.model_copy(update={"steps": steps}))
    return design.model_copy(update={"pieces": pieces})


def _with(step: Step, values: dict[str, Any]) -> Step:
    if not values:
        return step
    try:
        return type(step).model_validate(step.model_copy(update=values).model_dump())
    except ValidationError:
        return step


def _layout(card: Card, thickness: float) -> Layout:
    width, height = card.size.width, card.size.height
    if card.turned:
        width, height = height, width
    return card.folding.layout(width, height, thickness)


def _share(box: Box, layout: Layout) -> tuple[float, float]:
    """A box's centre as shares of the open card."""
    right = max(p.box.right for p in layout.panels)
    foot = max(p.box.foot for p in layout.panels)
    return box.centre[0] / right, box.centre[1] / foot


def _panels(old: Layout, new: Layout) -> dict[str, str]:
    """For each old panel that is not among the new ones the one that takes its place."""
    names = {p.name for p in new.panels}
    found = {}
    for panel in old.panels:
        if panel.name in names:
            continue
        if panel.name in old.fronts:
            found[panel.name] = new.front
            continue
        x, y = _share(panel.box, old)
        found[panel.name] = min(
            new.panels,
            key=lambda p: (_share(p.box, new)[0] - x) ** 2 + (_share(p.box, new)[1] - y) ** 2,
        ).name
    return found


def _folds(old: Layout, new: Layout) -> dict[str, str]:
    """For each old fold that is not among the new ones the one in its place, from the front on."""
    names = [f.name for f in new.folds]
    found = {}
    for back, fold in enumerate(reversed(old.folds)):
        if fold.name not in names and names:
            found[fold.name] = names[-1 - min(back, len(names) - 1)]
    return found


def _placed(step: Step, panels: dict[str, str], folds: dict[str, str]) -> tuple[Step, str]:
    values = {}
    for name, info in type(step).model_fields.items():
        extra = info.json_schema_extra
        control = extra.get("control") if isinstance(extra, dict) else None
        others = {"target": panels, "fold": folds}.get(str(control), {})
        value = getattr(step, name)
        if value in others:
            values[name] = others[value]
    if not values:
        return step, ""
    why = ", ".join(say("now on {where!r}", where=v) for v in values.values())
    return step.model_copy(update=values), why


def _first_bad(design: Design, fine: set[tuple[str, str]], cache: OutcomeCache) -> Change | None:
    for piece in evaluate(design, cache).pieces:
        for outcome in piece.outcomes:
            if outcome.problem is not None and (piece.piece.id, outcome.step.id) in fine:
                message = outcome.problem.said(lambda mm: f"{mm:g} mm")[0]
                return Change(piece.piece.id, outcome.step.id, outcome.step.title, "off", message)
    return None


def _without(piece: Piece, change: Change) -> Piece:
    if piece.id != change.piece:
        return piece
    steps = [s.model_copy(update={"on": False}) if s.id == change.step else s for s in piece.steps]
    return piece.model_copy(update={"steps": steps})
