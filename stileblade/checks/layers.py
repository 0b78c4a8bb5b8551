"""How layers lie: on folds, over windows, on each other, and how well they hold."""

from __future__ import annotations

from collections.abc import Iterator

from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.folding.flat import fold_flat
from stileblade.folding.stack import Layer, Stack
from stileblade.geometry.measures import cells as kernel
from stileblade.geometry.measures.cells import Cell
from stileblade.piece.folds import Made
from stileblade.piece.lying import AtFolds, FixedBy, Lying
from stileblade.piece.work import Work
from stileblade.steps.kinds.at_folds import AtFoldsStep, Way, folds_under
from stileblade.steps.kinds.crease import Crease
from stileblade.steps.kinds.layers import NARROW, SMALL, is_small

GLUE = 15.0
"""mm^2 of glue that hold a layer."""
SLIVER = 0.4
"""mm: a rim of the paper below that is narrower looks like a mistake."""
THICK = 1.5
"""mm: a card that is thicker wants a spine."""
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
        "It is said to lie on another piece, but does not begin with a layer.",
        subject.name,
        hint="Begin it with a mat, a figure or another layer, or take its host away.",
    )


def _at_folds(subject: Subject, work: Work, lying: Lying, host: Work) -> Iterator[Finding]:
    if lying.at_folds is not AtFolds.UNDECIDED:
        return
    folds = folds_under(work, host)
    if not folds:
        return
    names = " and ".join(f.name for f in folds)
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
        f"It lies across {names}, and nothing says what it does there.",
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
    out = kernel.less(layer.shape, kernel.filled_cell(on))
    yield from _out(subject, out, "what it lies on", "Move it, make it smaller")


def _out_when_closed(subject: Subject, layer: Layer, stack: Stack) -> Iterator[Finding]:
    """What is fixed on one side only may reach over the fold, but not out of the closed card."""
    faces = fold_flat(stack.base.work).faces
    card = kernel.united(kernel.filled_cell(f.closed_cell) for f in faces)
    out = kernel.less(
        kernel.united(kernel.mapped(c, faces[f].closed) for f, c in layer.cells), card
    )
    yield from _out(subject, out, "the closed card", "Fix it on the other side, move it")


def _out(subject: Subject, out: Cell, of: str, how: str) -> Iterator[Finding]:
    work = subject.piece.work
    if work is None or kernel.area_of(out) <= _AREA:
        return
    by = kernel.widest(out)
    yield Finding(
        "layers.out",
        Severity.WARNING,
        f"It stands out of {of}, by up to about {subject.say(by)}.",
        subject.name,
        by,
        hint=f"{how}, or say that it may stand out.",
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
                f"It covers {subject.area(covered)} of a window of the base.",
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
    if area >= GLUE and kernel.is_wide(face, NARROW):
        return
    wide = kernel.widest(face) if area > _AREA else 0.0
    yield Finding(
        "layers.glue",
        Severity.WARNING,
        f"Only {subject.area(area)} of it lie on something, {subject.say(wide)} wide at most: "
        "glue will hardly hold it.",
        subject.name,
        area,
        hint=f"At least {subject.area(GLUE)} and {subject.say(NARROW)} wide are wanted.",
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
            f"It is {len(parts)} separate parts; the smallest has {subject.area(parts[-1].area)}.",
            subject.name,
            len(parts),
            hint="So many pieces of it will lie on the table.",
            place=Place(outlines=tuple(parts)),
        )
    small = [p for p in parts[-MOST_PARTS:] if is_small(p)]
    if small:
        each = f"{len(small)} of its parts are" if len(parts) > 1 else "It is"
        yield Finding(
            "layers.small",
            Severity.WARNING,
            f"{each} smaller than {subject.area(SMALL)} or narrower than {subject.say(NARROW)}.",
            subject.name,
            len(small),
            hint="Draw them with the pen on the layer below, make them one with their neighbour, or leave "
            "them out.",
            step=_start(subject),
            place=Place(outlines=tuple(small)),
            mends=_small_parts(subject),
        )


def _small_parts(subject: Subject) -> tuple[Mend, ...]:
    """What the piece's start can do with its small parts, if it says so."""
    start = next((o.step for o in subject.piece.outcomes if o.step.on), None)
    if start is None or "small_parts" not in type(start).model_fields:
        return ()
    return (Mend("leave small parts out", start.id, {"small_parts": "left_out"}),)


@CHECKS.register("stack")
def stack_(subject: Subject) -> Iterator[Finding]:
    """The whole card: layers that nobody will see, rims too narrow, inserts in the way, a thick card."""
    stack = subject.evaluation.stack
    if stack is None or stack.base.key != subject.piece.piece.id or len(stack.pieces) < 2:
        return
    names = {p.id: p.name for p in subject.evaluation.design.pieces}
    yield from _hidden(subject, stack, names)
    yield from _slivers(subject, stack, names)
    yield from _in_the_way(subject, stack, names)
    if stack.bulk > THICK:
        shut = [
            f for f in stack.base.work.folds if f.folds and f.crease.shut and not f.crease.inner
        ]
        wide = round(stack.bulk, 1)
        narrow = any(f.spine < stack.bulk - 0.05 for f in shut)
        if narrow:
            yield Finding(
                "stack.thick",
                Severity.WARNING,
                f"Closed it is {subject.say(stack.bulk)} thick: a single score line will not close on that.",
                subject.name,
                stack.bulk,
                hint="Score the fold twice, as far apart as the card is thick.",
                mends=(
                    Mend(f"spine of {subject.say(wide)}", add=Crease(made=Made.SCORE, spine=wide)),
                )
                if wide <= 20
                else (),
            )


def _hidden(subject: Subject, stack: Stack, names: dict[str, str]) -> Iterator[Finding]:
    for i, lower in enumerate(stack.layers):
        for upper in stack.layers[i + 1 :]:
            if upper.inside != lower.inside or not _opaque(subject, upper.key):
                continue
            if not kernel.within(lower.shape, upper.shape):
                continue
            seen = kernel.less(lower.shape, kernel.flattened(stack.base.work.paper))
            if kernel.area_of(seen) > _AREA:  # from the other side
                continue
            yield Finding(
                "stack.hidden",
                Severity.WARNING,
                f"{names[upper.key]!r} hides all of {names[lower.key]!r}.",
                subject.name,
                hint="Change their order, make the upper one smaller, or take the lower one away.",
            )


def _opaque(subject: Subject, key: str) -> bool:
    made = subject.evaluation.piece(key)
    return made is None or made.paper.light <= 0


def _slivers(subject: Subject, stack: Stack, names: dict[str, str]) -> Iterator[Finding]:
    """Rims of the paper below a layer that show by less than SLIVER: of the layer right below it."""
    for i, upper in enumerate(stack.layers):
        under = [
            la for la in stack.layers[:i] if la.inside == upper.inside and la.high <= upper.low
        ]
        for lower in under:
            rim = kernel.thin_rim(lower.shape, upper.shape, SLIVER)
            if kernel.area_of(rim) > _AREA:
                yield Finding(
                    "stack.sliver",
                    Severity.WARNING,
                    f"{names[lower.key]!r} shows beside {names[upper.key]!r} by less than "
                    f"{subject.say(SLIVER)}.",
                    subject.name,
                    SLIVER,
                    hint="Let it show by more, or not at all.",
                )


def _in_the_way(subject: Subject, stack: Stack, names: dict[str, str]) -> Iterator[Finding]:
    """Inserts and other layers inside that lie on parts of the base which stand or are slit."""
    base = stack.base.work
    inner = {f.name for f in base.folds if f.crease.inner}
    if not inner and not base.slits:
        return
    moving = [
        f.cell
        for f in fold_flat(base).faces
        if f.joint is not None and base.folds[f.joint.fold].name in inner
    ]
    for layer in stack.layers:
        if not layer.inside:
            continue
        on = sum(kernel.overlap(layer.shape, cell) for cell in moving)
        cut = sum(kernel.length_in(layer.shape, a, b) for a, b in zip(*_ends(base), strict=True))
        if on > _AREA or cut > 1.0:
            what = "stands forward" if on > _AREA else "is slit"
            yield Finding(
                "stack.clear",
                Severity.WARNING,
                f"{names[layer.key]!r} lies where the base {what}.",
                subject.name,
                max(on, cut),
                hint="Cut it out there, or let it end before.",
            )


def _ends(base: Work) -> tuple[list[tuple[float, float]], list[tuple[float, float]]]:
    starts = [(float(x), float(y)) for way in base.slits for x, y in way.start]
    return starts, [(float(x), float(y)) for way in base.slits for x, y in way.end]
