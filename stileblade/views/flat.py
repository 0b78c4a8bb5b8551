"""The flat view: the piece as it stands after the step in hand, and what can be done with it there."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel

from stileblade.card.sizes import room_in
from stileblade.checks.check import Subject
from stileblade.checks.envelope import bulk_of
from stileblade.design.evaluation import Evaluation, Outcome, PieceOutcome
from stileblade.errors import StepError
from stileblade.folding.flat import fold_flat
from stileblade.formats.pens import PENS
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.transforms import after, identity, scaling
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.work import Work
from stileblade.steps.ground import inverse
from stileblade.steps.step import PartTaken, taking_part
from stileblade.unexpected import Attempts
from stileblade.views.folds import FoldView, folds_of
from stileblade.views.guides import Guide, guides_of
from stileblade.views.handles import HandleView, LineHandleView, card_handles, handle_view
from stileblade.views.panels import PanelView, panels_of
from stileblade.views.places import NO_BOUNDS, Bounds, box_of, screen_path, ways_path
from stileblade.views.said import Said
from stileblade.words import say

MOST_COPIES = 24
"""Of a window set many times, how many are offered by themselves."""


class ToldView(BaseModel):
    """A figure that the step in hand tells of itself."""

    name: Said
    value: float
    unit: str
    note: Said


class PlacedView(BaseModel):
    """An artwork of the document in the piece: a, b, c, d, e, f as in an SVG matrix, from the
    units of its layers' paths to mm; it is seen within a box."""

    ref: str
    matrix: tuple[float, float, float, float, float, float]
    within: Bounds


class WindowView(BaseModel):
    """A window that a later step can name: by the key of the step that cut it."""

    key: str
    title: Said


class LineView(BaseModel):
    """Lines of one step that are not cut, as path data."""

    path: str
    how: Literal["draw", "stitch", "prick", "score", "perforate", "cut"]
    pen: int
    colour: str
    """The pen's; "" for what no pen draws."""


class PartView(BaseModel):
    """A part that the step in hand made, by its number, the piece made of it, if there is one, and the
    values of the step that begins one with it."""

    number: int
    kept: bool
    box: Bounds
    piece: str
    start: dict[str, Any]


class GhostView(BaseModel):
    """Another piece where it lies about this one: its name, its outline, and whether it lies above."""

    piece: str
    name: str
    path: str
    above: bool


class EffectView(BaseModel):
    """The closed card with the step in hand, and the room left in its envelope."""

    closed: Point
    room: float | None
    slack: float
    envelope: str


class SizedView(BaseModel):
    """Sizes of the step's figure that its own values do not say, by field in mm; and what is set besides where one of
    them is typed."""

    values: dict[str, float]
    beside: dict[str, Any]


class FlatView(BaseModel):
    """The piece after the step in hand; ``before`` is what it was given, if different."""

    path: str
    box: Bounds
    before: str
    panels: list[PanelView]
    folds: list[FoldView]
    handles: list[HandleView]
    card_handles: list[LineHandleView]
    told: list[ToldView]
    sized: SizedView | None
    present: dict[str, float]
    """What measures in mm the figure has, by the values of the step that would give it those."""
    artwork: PlacedView | None
    guides: list[Guide]
    targets: list[str]
    offers: dict[str, list[str]]
    """By field: what can be chosen as things stand."""
    lines: list[LineView]
    windows: list[WindowView]
    opened: bool
    """Whether there is a window as it is seen."""
    parts: list[PartView]
    effect: EffectView | None
    around: list[GhostView]


def flat_of(
    evaluation: Evaluation, piece: PieceOutcome, outcome: Outcome | None, attempt: Attempts
) -> FlatView:
    """The piece after ``outcome``, its step in hand; what fails is left out, and kept by ``attempt``."""
    work = outcome.work if outcome else None
    before = outcome.before if outcome else None
    seen, given = work or before, before or work
    given = (outcome.step.placed_on(piece.setting) if outcome else None) or given
    # what begins a layer speaks of the windows of what it lies on
    host = evaluation.piece(piece.piece.host) if outcome and outcome.before is None else None
    cut, of = (host.work, host) if host else (given, piece)
    return FlatView(
        path=screen_path(seen.paper) if seen else "",
        box=box_of(seen.paper.bounds) if seen else NO_BOUNDS,
        before=_before(outcome),
        panels=attempt("panels", lambda: list(panels_of(seen)) if seen else [], []),
        folds=attempt("folds", lambda: folds_of(seen) if seen else [], []),
        handles=_handles(outcome, piece, attempt),
        card_handles=card_handles(evaluation.design.card.folding),
        told=attempt("figures of the step", lambda: _told(outcome, piece), []),
        sized=attempt("sizes", lambda: _sized(outcome, piece), None),
        present=attempt(
            "measures",
            lambda: outcome.step.present(outcome.work) if outcome and outcome.work else {},
            {},
        ),
        artwork=attempt("artwork", lambda: _placed(seen, piece) if seen else None, None),
        guides=attempt("guides", lambda: guides_of(given), []),
        targets=attempt(
            "targets", lambda: outcome.step.targets(given) if outcome and given else [], []
        ),
        offers=attempt(
            "choices", lambda: outcome.step.offers(given) if outcome and given else {}, {}
        ),
        lines=attempt(
            "lines", lambda: [_line(line) for line in seen.lines_on_paper] if seen else [], []
        ),
        windows=attempt("windows", lambda: _windows(cut, of), []),
        opened=bool(seen and seen.windows),
        parts=attempt("parts", lambda: _parts(outcome, piece, evaluation), []),
        effect=attempt("closed size", lambda: _effect(outcome, piece, evaluation), None),
        around=attempt("pieces about it", lambda: _around(piece, evaluation), []),
    )


def _around(piece: PieceOutcome, evaluation: Evaluation) -> list[GhostView]:
    """What a layer lies on, and what lies about it, in its own flat view."""
    stack = evaluation.stack
    own = stack.layer(piece.piece.id) if stack else None
    if stack is None or own is None:
        return []
    back = inverse(own.matrix)
    found = [(stack.base.key, stack.base.work, identity(), False)]
    found += [
        (la.key, la.work, la.matrix, la.low >= own.high - 1e-9)
        for la in stack.layers
        if la.key != own.key and la.inside == own.inside
    ]
    names = {p.id: p.name for p in evaluation.design.pieces}
    return [
        GhostView(
            piece=key,
            name=names[key],
            path=screen_path(work.paper.transformed(after(back, matrix))),
            above=above,
        )
        for key, work, matrix, above in found
    ]


def _line(line: DrawnLine) -> LineView:
    drawn = line.how in (How.DRAW, How.STITCH)
    return LineView(
        path=ways_path(line, 3),
        how=line.how.value,
        pen=line.pen,
        colour=PENS[f"pen-{line.pen}"] if drawn else "",
    )


def _before(outcome: Outcome | None) -> str:
    """What the step was given, where its paper is another now; a mirror's is seen as it is."""
    if outcome is None or outcome.before is None or outcome.work is None:
        return ""
    if outcome.before.paper is outcome.work.paper or outcome.work.mirrored:
        return ""
    return screen_path(outcome.before.paper)


def _handles(outcome: Outcome | None, piece: PieceOutcome, attempt: Attempts) -> list[HandleView]:
    if outcome is None or not outcome.step.on:
        return []
    step, before = outcome.step, outcome.before

    def made() -> list[HandleView]:
        return [handle_view(h) for h in step.handles(before, piece.setting)]

    # a value that cannot be applied has no handle, but a finding
    trying = attempt if outcome.problem is None else Attempts(quiet=True)
    return trying("handles of the step", made, [])


def _parts(outcome: Outcome | None, piece: PieceOutcome, evaluation: Evaluation) -> list[PartView]:
    """What the step in hand parted."""
    if outcome is None or outcome.work is None or not outcome.work.parted:
        return []
    parted = outcome.work.parted[-1]
    if parted.step != outcome.step.id:
        return []
    taken = {
        part.number: p.name
        for p in evaluation.design.pieces
        for part in (s.takes_part for s in p.steps)
        if part and part.piece == piece.piece.id and part.step in ("", parted.step)
    }
    return [
        PartView(
            number=n,
            kept=n - 1 in parted.kept,
            box=box_of(part.bounds),
            piece=taken.get(n, ""),
            start=_beginning(PartTaken(piece.piece.id, parted.step, n)),
        )
        for n, part in enumerate(parted.parts, start=1)
    ]


def _beginning(part: PartTaken) -> dict[str, Any]:
    return taking_part(part).model_dump(mode="json", exclude={"id"})


def _effect(
    outcome: Outcome | None, piece: PieceOutcome, evaluation: Evaluation
) -> EffectView | None:
    """The closed card's size and room, while a step is in hand that changes them."""
    if outcome is None or outcome.work is None or outcome.problem is not None:
        return None
    if not outcome.step.changes_size:
        return None
    work, card = outcome.work, evaluation.design.card
    # an envelope made to measure follows whatever the step does
    envelope = None if evaluation.design.makes_envelope else card.size.envelope
    closed = fold_flat(work).closed
    room = (
        room_in(envelope, closed, bulk_of(Subject(evaluation, piece), work)) if envelope else None
    )
    return EffectView(
        closed=closed,
        room=room.least if room else None,
        slack=card.slack,
        envelope=envelope.name if envelope else "",
    )


def _windows(work: Work | None, piece: PieceOutcome) -> list[WindowView]:
    """The windows there are, as "step 2, Window on front", and each copy of one that has several."""
    found: list[WindowView] = []
    for step in dict.fromkeys(w.step for w in work.windows) if work else ():
        number = next((i for i, o in enumerate(piece.outcomes, 1) if o.step.id == step), 0)
        if not number or work is None:
            continue
        title = say(
            "step {number}, {title}", number=number, title=piece.outcomes[number - 1].step.title
        )
        each = work.windows_of(step)
        panels = " and ".join(dict.fromkeys(w.panel for w in each))
        if len(each) == 1:
            found.append(
                WindowView(key=step, title=say("{title} on {panels}", title=title, panels=panels))
            )
            continue
        found.append(
            WindowView(
                key=step,
                title=say("{title} on {panels}, all {n}", title=title, panels=panels, n=len(each)),
            )
        )
        found += [
            WindowView(
                key=f"{step}.{n}",
                title=say(
                    "{title} on {panel}, {number} of {all}",
                    title=title,
                    panel=w.panel,
                    number=n,
                    all=len(each),
                ),
            )
            for n, w in enumerate(each[:MOST_COPIES], 1)
        ]
    return found


def _sized(outcome: Outcome | None, piece: PieceOutcome) -> SizedView | None:
    if outcome is None or outcome.before is None:
        return None
    try:
        found = outcome.step.sized_otherwise(outcome.before, piece.setting)
    except StepError:
        return None
    return SizedView(values=dict(found.values), beside=dict(found.beside)) if found else None


def _told(outcome: Outcome | None, piece: PieceOutcome) -> list[ToldView]:
    if outcome is None or outcome.problem or outcome.work is None or not outcome.step.on:
        return []
    told = outcome.step.tells(outcome.before, outcome.work, piece.setting)
    return [ToldView(name=t.name, value=t.value, unit=t.unit, note=t.note) for t in told]


def _placed(work: Work, piece: PieceOutcome) -> PlacedView | None:
    if work.artwork is None or work.lying is not None:
        return None
    ref = work.artwork.ref
    scale = piece.setting.shelf[ref].scale
    (a, c, e), (b, d, f) = after(work.artwork.matrix, scaling(scale, scale)).tolist()
    within = box_of(work.box_of("front") if work.panels else work.paper.bounds)
    return PlacedView(ref=ref, matrix=(a, b, c, d, e, f), within=within)
