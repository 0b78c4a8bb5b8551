"""An evaluation as the browser is shown it: see ``shown`` for the forms."""

from __future__ import annotations

from functools import lru_cache

from server.designs.folded_of import closed_of, lap_of, loupe_of, scoring_of, space_of
from server.designs.guides_of import guides_of
from server.designs.paths import box_of, ring_path, screen_path
from server.designs.readings_of import readings_of
from server.designs.shown import (
    CandidateView,
    CaptionView,
    Change,
    EffectView,
    Evaluated,
    FindingView,
    FlatView,
    FoldView,
    HandleView,
    LineView,
    MendView,
    PanelView,
    Part,
    PartView,
    PictureView,
    PlacedView,
    ProblemView,
    RestView,
    SizingView,
    SpanView,
    StripView,
    Stroke,
    ToldView,
    WindowView,
)
from stileblade.build.evaluation import Evaluation, Outcome, PieceOutcome
from stileblade.build.step import Handle
from stileblade.build.steps.part import Part as PartStep
from stileblade.build.work import DrawnLine, Made, Work
from stileblade.card.creases import Direction
from stileblade.card.sizes import room_in
from stileblade.checks.check import Finding, Mend, Subject, run_checks
from stileblade.checks.envelope import bulk_of
from stileblade.errors import StepError
from stileblade.folding.flat import fold_flat
from stileblade.folding.hinge import hinge_length, perforation
from stileblade.folding.scoring import score_spans, ticks
from stileblade.geometry.distances import label_point, rings_of, thin
from stileblade.geometry.pathdata import PathPen, path_data
from stileblade.geometry.pens import draw_contour
from stileblade.geometry.region import Box
from stileblade.geometry.transforms import after, scaling
from stileblade.units import Unit, format_length


def view(
    evaluation: Evaluation,
    piece: PieceOutcome,
    step: str | None,
    known: set[str],
    part: Part = Part.ALL,
) -> Evaluated:
    """What the bench shows of a piece with a step in hand (None: the last)."""
    outcome = piece.outcome_of(step) if step else None
    if outcome is None and piece.outcomes:
        outcome = piece.outcomes[-1]
    return Evaluated(
        flat=None if part is Part.REST else _flat(outcome, piece, evaluation),
        rest=None if part is Part.FLAT else _rest(evaluation, piece, known),
    )


def _rest(evaluation: Evaluation, piece: PieceOutcome, known: set[str]) -> RestView:
    work = piece.work if piece.work and piece.work.paper else None
    box = work.paper.bounds if work else Box(0.0, 0.0, 0.0, 0.0)
    return RestView(
        open=(box.width, box.height),
        closed=fold_flat(work).closed if work else (0.0, 0.0),
        space=space_of(evaluation, piece),
        shut=closed_of(evaluation, piece),
        scoring=scoring_of(work) if work else [],
        ticks=[(*a, *b) for a, b in ticks(work)] if work else [],
        lap=lap_of(work) if work else None,
        loupe=loupe_of(work, piece.paper) if work else [],
        readings=readings_of(evaluation, piece),
        findings=[_finding(f, evaluation) for f in run_checks(evaluation)],
        strip=[_strip(o, evaluation.design.units, known) for o in piece.outcomes],
    )


def folds_of(work: Work) -> list[FoldView]:
    box = work.paper.bounds
    found = []
    for fold in work.folds:
        spans = work.spans[fold.name]
        low, high = (box.left, box.right) if fold.axis == "x" else (box.head, box.foot)
        found.append(
            FoldView(
                name=fold.name,
                axis=fold.axis or "",
                at=fold.at,
                made=fold.made,
                direction=fold.direction,
                order=fold.crease.order,
                folds=fold.folds,
                inner=fold.crease.inner,
                hinge=hinge_length(spans, fold),
                spans=[
                    SpanView(
                        stroke=(*s.start, *s.end),
                        direction="valley" if s.direction is Direction.VALLEY else "mountain",
                    )
                    for s in spans
                ],
                scores=[(*s.start, *s.end) for s in score_spans(work, fold)]
                if fold.made is Made.SCORE
                else [],
                from_left=fold.at - low,
                from_right=high - fold.at,
                from_centre=fold.at - (low + high) / 2,
            )
        )
    return found


def _flat(outcome: Outcome | None, piece: PieceOutcome, evaluation: Evaluation) -> FlatView:
    work = outcome.work if outcome else None
    before = outcome.before if outcome else None
    seen = work or before
    handles: list[Handle] = []
    if outcome is not None and outcome.step.on:
        try:
            handles = outcome.step.handles(before, piece.setting)
        except Exception as error:  # a value that cannot be applied has no handle, but a finding
            if outcome.problem is None:
                raise error
    changed = before is not None and work is not None and before.paper is not work.paper
    grown = changed and work is not None and before is not None and not work.mirrored
    return FlatView(
        path=screen_path(seen.paper) if seen else "",
        box=box_of(seen.paper.bounds) if seen else (0, 0, 0, 0),
        before=screen_path(before.paper) if grown and before else "",
        panels=list(panels_of(seen)) if seen else [],
        folds=folds_of(seen) if seen else [],
        handles=[_handle(h) for h in handles],
        told=_told(outcome, piece),
        artwork=_placed(seen, piece) if seen else None,
        guides=guides_of(before or seen),
        targets=(before or seen).targets() if (before or seen) else [],  # type: ignore[union-attr]
        fold_names=[f.name for f in seen.folds] if seen else [],
        lines=[
            LineView(path=_ways_path(line, 3), how=line.how.value) for line in seen.lines_on_paper
        ]
        if seen
        else [],
        windows=_windows(before or seen, piece),
        parts=_parts(outcome, piece, evaluation),
        effect=_effect(outcome, piece, evaluation),
    )


def _parts(outcome: Outcome | None, piece: PieceOutcome, evaluation: Evaluation) -> list[PartView]:
    """What the step in hand parted."""
    if outcome is None or outcome.work is None or not outcome.work.parted:
        return []
    parted = outcome.work.parted[-1]
    if parted.step != outcome.step.id:
        return []
    taken = {
        s.number: p.name
        for p in evaluation.design.pieces
        for s in p.steps
        if isinstance(s, PartStep) and s.piece == piece.piece.id and s.step in ("", parted.step)
    }
    return [
        PartView(
            number=n,
            kept=n - 1 in parted.kept,
            box=box_of(part.bounds),
            piece=taken.get(n, ""),
        )
        for n, part in enumerate(parted.parts, start=1)
    ]


def _effect(
    outcome: Outcome | None, piece: PieceOutcome, evaluation: Evaluation
) -> EffectView | None:
    """The closed card's size and room, while a step is in hand that changes them."""
    if outcome is None or outcome.work is None or outcome.problem is not None:
        return None
    if not outcome.step.changes_size:
        return None
    work, card = outcome.work, evaluation.design.card
    closed, envelope = fold_flat(work).closed, card.size.envelope
    room = (
        room_in(envelope, closed, bulk_of(Subject(evaluation, piece), work)) if envelope else None
    )
    return EffectView(
        closed=closed,
        room=room.least if room else None,
        slack=card.slack,
        envelope=envelope.name if envelope else "",
    )


def _ways_path(line: DrawnLine, decimals: int) -> str:
    pen = PathPen(decimals)
    for way, closed in line.ways:
        draw_contour(way, pen, closed=closed)
    return pen.text


def _windows(work: Work | None, piece: PieceOutcome) -> list[WindowView]:
    """The windows there are, as "2nd step: Window on front"."""
    found = []
    for window in work.windows if work else ():
        number = next((i for i, o in enumerate(piece.outcomes, 1) if o.step.id == window.step), 0)
        if number:
            title = piece.outcomes[number - 1].step.title
            found.append(
                WindowView(key=window.step, title=f"step {number}, {title} on {window.panel}")
            )
    return found


@lru_cache(maxsize=128)
def panels_of(work: Work) -> tuple[PanelView, ...]:
    return tuple(
        PanelView(name=p.name, box=box_of(p.box), label=label_point(work.paper, p.box))
        for p in work.panels
    )


def _handle(h: Handle) -> HandleView:
    return HandleView(
        shape=h.shape,
        field=h.field,
        value=h.value,
        axis=h.axis,
        at=h.at,
        origin=h.origin,
        factor=h.factor,
        least=h.least,
        field_y=h.field_y,
        value_y=h.value_y,
        factor_y=h.factor_y,
        least_y=h.least_y,
        box=h.box,
        outline=path_data(h.outline, 3) if h.outline else "",
        candidates=[
            CandidateView(
                path=path_data(c.outline, 3),
                value=c.told[0],
                unit=c.told[1],
                box=box_of(c.outline.bounds),
                share=c.share,
                taken=c.taken,
            )
            for c in h.candidates
        ],
        picked_by=h.picked_by,
        word=h.word,
        centre=h.centre,
        sizing=SizingView(
            fixed=h.sizing.fixed,
            across=list(h.sizing.across),
            down=list(h.sizing.down),
            both=list(h.sizing.both),
        )
        if h.sizing
        else None,
        turn=h.turn,
    )


def _told(outcome: Outcome | None, piece: PieceOutcome) -> list[ToldView]:
    if outcome is None or outcome.problem or outcome.work is None or not outcome.step.on:
        return []
    told = outcome.step.tells(outcome.before, outcome.work, piece.setting)
    return [ToldView(name=t.name, value=t.value, unit=t.unit, note=t.note) for t in told]


def _placed(work: Work, piece: PieceOutcome) -> PlacedView | None:
    if work.artwork is None:
        return None
    ref = work.artwork.ref
    scale = piece.setting.shelf[ref].scale
    (a, c, e), (b, d, f) = after(work.artwork.matrix, scaling(scale, scale)).tolist()
    return PlacedView(ref=ref, matrix=(a, b, c, d, e, f))


def _finding(finding: Finding, evaluation: Evaluation) -> FindingView:
    piece = next((p.piece.id for p in evaluation.pieces if p.piece.name == finding.piece), "")
    return FindingView(
        code=finding.code,
        severity=finding.severity.value,
        message=finding.message,
        hint=finding.hint,
        piece=piece,
        step=finding.step,
        value=finding.value,
        lines=[(*a, *b) for a, b in finding.place.lines],
        outlines=[path_data(r, 3) for r in finding.place.outlines[:200]],
        mends=[MendView(title=m.title, changes=[_change(m, piece)]) for m in finding.mends],
    )


def _change(mend: Mend, piece: str) -> Change:
    if mend.card:
        return Change(op="fold", piece=piece, step="", values=mend.card)
    if mend.add is not None:
        values = mend.add.model_dump(mode="json", exclude={"id"})
        return Change(op="add", piece=piece, step=mend.before, values=values)
    return Change(op="set", piece=piece, step=mend.step, values=mend.values)


def _problem(problem: StepError, unit: Unit) -> ProblemView:
    message, hint = problem.said(lambda mm: format_length(mm, unit))
    return ProblemView(message=message, hint=hint, field=problem.field)


def _strip(outcome: Outcome, unit: Unit, known: set[str]) -> StripView:
    caption = outcome.step.caption()
    work = outcome.work
    return StripView(
        step=outcome.step.id,
        key=outcome.key,
        caption=CaptionView(text=caption.text, value=caption.value, unit=caption.unit),
        problem=_problem(outcome.problem, unit) if outcome.problem else None,
        picture=small_picture(work) if work and outcome.key not in known else None,
    )


@lru_cache(maxsize=512)
def small_picture(work: Work) -> PictureView:
    """A thinned-out picture of the work, at about a 300th of its size."""
    box = work.paper.bounds
    rings = rings_of(thin(work.paper, max(box.width, box.height) / 300))
    path = ring_path(rings, 1)
    folds: list[Stroke] = []
    cuts: list[Stroke] = []
    for fold in work.folds:
        for span in work.spans[fold.name]:
            if fold.made is Made.PERFORATE:
                cuts += [(*a, *b) for a, b in perforation(span, fold)]
            elif fold.folds:
                folds.append((*span.start, *span.end))
    drawn = "".join(_ways_path(line, 1) for line in work.lines_on_paper)
    return PictureView(path=path, box=box_of(box), folds=folds, perforated=cuts, drawn=drawn)
