"""How layers lie: on folds, over windows, on each other, and how well they hold."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.design.evaluation import PieceOutcome
from stileblade.errors import StepError
from stileblade.folding.flat import fold_flat
from stileblade.folding.stack import Layer, Stack
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.cells import Cell
from stileblade.geometry.measures.widths import is_wide, reach_out, widest
from stileblade.piece.lying import AtFolds, FixedBy, Lying
from stileblade.piece.small_parts import NARROW, SMALL, is_small
from stileblade.piece.work import Work
from stileblade.steps.kinds.at_folds import AtFoldsStep, Way, folds_under
from stileblade.steps.kinds.lay_on import LayOn
from stileblade.steps.step import Step
from stileblade.words import named, say, together

GLUE = 15.0
"""mm^2 of glue that hold a layer."""
MOST_PARTS = 60
_AREA = 0.5
"""mm^2: what overlaps, shows or stands out by less does not count."""


@CHECKS.register("layers")
def layers(subject: Subject) -> Iterator[Finding]:
    """Each layer for itself: what it does at folds, whether it stands out, covers a window, holds."""
    work, stack = subject.piece.work, subject.evaluation.stack
    host = subject.evaluation.piece(subject.piece.piece.host)
    if not subject.is_layer or work is None or not work.paper or stack is None:
        return
    if work.lying is None:
        yield _lies_on_nothing(subject)
        return
    layer = stack.layer(subject.piece.piece.id)
    if layer is None or host is None or host.work is None:
        return
    yield from _at_folds(subject, work, work.lying, host.work)
    yield from _standing_out(subject, work, layer, stack)
    yield from _over_windows(subject, layer, stack)
    yield from _glued(subject, layer, stack)
    yield from _parts(subject, work)


def _lies_on_nothing(subject: Subject) -> Finding:
    return Finding(
        "layers.start",
        Severity.WARNING,
        "It is said to lie on another piece, but nothing says where.",
        subject.name,
        hint="Lay it on the panel, or take its host away.",
        mends=(Mend("lay it on the panel", add=LayOn()),),
    )


def _at_folds(subject: Subject, work: Work, lying: Lying, host: Work) -> Iterator[Finding]:
    if lying.at_folds is not AtFolds.UNDECIDED:
        return
    folds = folds_under(work, host)
    if not folds:
        return
    names = together(named(f.name) for f in folds)
    spans = [(s.start, s.end) for f in folds for s in work.spans_of(f)]
    ways = {
        "end it on either side": Way.ENDED,
        "crease it with the fold": Way.CREASED,
        "fix it on one side only": Way.HALF,
    }
    if not lying.panel:
        ways.pop("fix it on one side only")
    yield Finding(
        "layers.fold",
        Severity.ERROR,
        say("It lies across {names}, and nothing says what it does there.", names=names),
        subject.name,
        sum(_length(a, b) for a, b in spans),
        hint="Let it end on either side, be creased with the fold, or be fixed on one side only.",
        place=Place(lines=tuple(spans)),
        mends=tuple(Mend(title, add=AtFoldsStep(way=way)) for title, way in ways.items()),
    )


def _length(a: tuple[float, float], b: tuple[float, float]) -> float:
    """How far two places are apart, in mm."""
    return float(((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2) ** 0.5)


def _standing_out(subject: Subject, work: Work, layer: Layer, stack: Stack) -> Iterator[Finding]:
    lying = work.lying
    if lying is None or lying.stands_out:
        return
    if lying.at_folds is AtFolds.HALF:
        yield from _out_when_closed(subject, layer, stack)
        return
    below = [la.shape for la in stack.layers if la.key == subject.piece.piece.host]
    on = below[0] if below else kernel.flattened(stack.base.work.paper)
    yield from _out(
        subject, layer.shape, kernel.filled_cell(on), "what it lies on", "Move it, make it smaller"
    )


def _out_when_closed(subject: Subject, layer: Layer, stack: Stack) -> Iterator[Finding]:
    """What is fixed on one side only may reach over the fold, but not out of the closed card."""
    faces = fold_flat(stack.base.work).faces
    card = kernel.united(kernel.filled_cell(f.closed_cell) for f in faces)
    closed = kernel.united(kernel.mapped(c, faces[f].closed) for f, c in layer.cells)
    yield from _out(subject, closed, card, "the closed card", "Fix it on the other side, move it")


def _out(subject: Subject, shape: Cell, on: Cell, of: str, how: str) -> Iterator[Finding]:
    work, out = subject.piece.work, kernel.less(shape, on)
    if work is None or kernel.area_of(out) <= _AREA:
        return
    by = reach_out(out, on)
    yield Finding(
        "layers.out",
        Severity.WARNING,
        say("It stands out of {of} by up to {by}.", of=of, by=subject.say(by)),
        subject.name,
        by,
        hint=say("{how}, or say that it may stand out.", how=how),
        step=_start(subject),
        place=Place(outlines=(work.paper,)),
        mends=_saying(subject, "may_stand_out", "let it stand out"),
    )


def _saying(subject: Subject, field: str, title: str) -> tuple[Mend, ...]:
    """The switch of the piece's start that says that it is meant so, if it has one."""
    start = next((o.step for o in subject.piece.outcomes if o.step.on), None)
    if start is None or field not in type(start).model_fields:
        return ()
    return (Mend(title, start.id, {field: True}),)


def _start(subject: Subject) -> str:
    return next((o.step.id for o in subject.piece.outcomes if o.step.on), "")


def _over_windows(subject: Subject, layer: Layer, stack: Stack) -> Iterator[Finding]:
    work = layer.work
    if layer.inside or (work.lying and work.lying.covers):
        return
    for window in (w for opened in stack.base.work.windows for w in opened.each):
        opening = kernel.flattened(window.outline)
        covered = kernel.overlap(layer.shape, opening)
        if covered > max(_AREA, 0.02 * kernel.area_of(opening)):
            yield Finding(
                "layers.window",
                Severity.WARNING,
                say("It covers {covered} of a window of the base.", covered=subject.area(covered)),
                subject.name,
                covered,
                hint="Move it, cut the window in it as well, or say that it may cover windows.",
                step=_start(subject),
                place=Place(outlines=(work.paper,)),
                mends=_saying(subject, "may_cover", "let it cover windows"),
            )
            return


def _glued(subject: Subject, layer: Layer, stack: Stack) -> Iterator[Finding]:
    if subject.piece.piece.fixing is FixedBy.TUCKED:
        return
    face = face_of(layer, stack)
    area = kernel.area_of(face)
    if area >= GLUE and is_wide(face, NARROW):
        return
    wide = widest(face) if area > _AREA else 0.0
    yield Finding(
        "layers.glue",
        Severity.WARNING,
        say(
            "Only {area} of it lie on something, {wide} wide at most: glue will hardly hold it.",
            area=subject.area(area),
            wide=subject.say(wide),
        ),
        subject.name,
        area,
        hint=say(
            "At least {glue} and {narrow} wide are wanted.",
            glue=subject.area(GLUE),
            narrow=subject.say(NARROW),
        ),
        step=_start(subject),
        place=Place(outlines=(layer.work.paper,)),
    )


def face_of(layer: Layer, stack: Stack) -> Cell:
    """What of a layer lies on the base or on layers between: its glue face."""
    on = [kernel.flattened(stack.base.work.paper)]
    on += [la.shape for la in stack.layers if la.inside == layer.inside and la.high <= layer.low]
    return kernel.common(layer.shape, kernel.united(on))


def _parts(subject: Subject, work: Work) -> Iterator[Finding]:
    parts = work.paper.parts()
    if len(parts) > 1:
        yield Finding(
            "layers.parts",
            Severity.NOTE,
            say(
                "It is {n} separate parts; the smallest has {area}.",
                n=len(parts),
                area=subject.area(parts[-1].area),
            ),
            subject.name,
            len(parts),
            hint="So many pieces of it will lie on the table.",
            place=Place(outlines=tuple(parts)),
        )
    small = [p for p in parts[-MOST_PARTS:] if is_small(p)]
    if small:
        yield Finding(
            "layers.small",
            Severity.WARNING,
            say(
                "It is smaller than {small} or narrower than {narrow}."
                " | {n} of its {parts} parts are smaller than {small} or narrower than {narrow}.",
                n=len(small) if len(parts) > 1 else 1,
                parts=len(parts),
                small=subject.area(SMALL),
                narrow=subject.say(NARROW),
            ),
            subject.name,
            len(small),
            hint="Draw them with the pen on the layer below, make them one with their neighbour, or leave "
            "them out.",
            step=_start(subject),
            place=Place(outlines=tuple(small)),
            mends=_small_parts(subject, len(parts)),
        )


def _applies(step: Step, below: PieceOutcome) -> bool:
    """Whether the step can be put at the end of a piece."""
    try:
        step.apply(below.work, below.setting)
    except StepError:
        return False
    return True


def _small_parts(subject: Subject, count: int) -> tuple[Mend, ...]:
    """What the piece's start can do with its small parts, if it says so."""
    start = next((o.step for o in subject.piece.outcomes if o.step.on), None)
    if start is None or "small_parts" not in type(start).model_fields:
        return ()
    mends = [Mend("leave small parts out", start.id, {"small_parts": "left_out"})]
    if count > 1:
        mends.append(Mend("join them to the next part", start.id, {"small_parts": "joined"}))
    below, step = subject.evaluation.piece(subject.piece.piece.host), start.draws_small_parts()
    if step and below and below.work and below.work.artwork and _applies(step, below):
        left, of = {"small_parts": "left_out"}, below.piece.id
        mends.append(Mend("draw them with the pen below", start.id, left, add=step, of=of))
    return tuple(mends)
