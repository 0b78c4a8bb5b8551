"""The card folded, as the browser is shown it: in space, closed, for scoring, enlarged."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from server.designs.paths import box_of, ring_path
from server.designs.shown import (
    Bounds,
    ClosedView,
    FaceView,
    FoldedPicture,
    HingeView,
    LapCurve,
    LapPoint,
    LayerView,
    LoupePlace,
    ScoreRow,
    ShapeView,
    SpaceView,
    StandView,
)
from stileblade.build.evaluation import Evaluation, PieceOutcome
from stileblade.build.work import Work
from stileblade.card.stock import Paper
from stileblade.checks.check import Subject
from stileblade.checks.envelope import room_of
from stileblade.checks.least import least_width
from stileblade.folding.closed import closed_card
from stileblade.folding.hinge import fold_at_lap
from stileblade.folding.joins import lap_curve
from stileblade.folding.picture import Picture, eye_of, half_open_picture, is_level
from stileblade.folding.scoring import scoring_table
from stileblade.folding.space import (
    Hinge,
    corners_in_space,
    faces_in_space,
    half_open,
    sequence,
    turned_up,
)
from stileblade.folding.stand import Stand, stand_of
from stileblade.geometry.distances import rings_of
from stileblade.geometry.narrow import sharp_corners, thin_places
from stileblade.geometry.segments import Floats
from stileblade.geometry.set_operations import cut_off

MOST_PLACES = 24


def space_of(evaluation: Evaluation, piece: PieceOutcome) -> SpaceView:
    work, paper = piece.work, piece.paper
    if work is not None and not work.paper:
        work = None
    faces = faces_in_space(work) if work else ()
    return SpaceView(
        faces=[
            FaceView(
                panel=f.panel,
                rings=[[(round(x, 3), round(y, 3)) for x, y in ring] for ring in f.rings],
                parent=f.parent,
                hinge=_hinge(f.hinge, paper.thickness) if f.hinge else None,
            )
            for f in faces
        ],
        folds=[f.name for f in work.folds] if work else [],
        sequence=sequence(work) if work else [],
        half=half_open(work) if work else [],
        stand=_stand(work, stand_of(work)) if work else None,
        envelope=_envelope(evaluation, piece) if work else None,
        eye=_eye(work, half_open(work)) if work else (0, 0, 1),
        outside=paper.outside,
        inside=paper.inside,
        thickness=paper.thickness,
    )


def _hinge(hinge: Hinge, thickness: float) -> HingeView:
    return HingeView(
        fold=hinge.fold,
        start=hinge.start,
        end=hinge.end,
        sign=hinge.sign,
        z=hinge.z * thickness,
    )


def _stand(work: Work, stand: Stand | None) -> StandView | None:
    if stand is None:
        return None
    x, y, z = stand.up.tolist()
    return StandView(
        angles=list(stand.angles), up=(x, y, z), table=stand.table,
        eye=_eye(work, stand.angles, stand.up),
    )  # fmt: skip


def _eye(
    work: Work, angles: Sequence[float], up: Floats | None = None
) -> tuple[float, float, float]:
    points = np.concatenate(corners_in_space(work, angles))
    if up is not None:
        points = points @ turned_up(up).T
    x, y, z = eye_of(points, level=is_level(work)).tolist()
    return x, y, z


def _envelope(evaluation: Evaluation, piece: PieceOutcome) -> Bounds | None:
    """The envelope about the middle of the closed card, in its better orientation."""
    found = room_of(Subject(evaluation, piece))
    if found is None or piece.work is None:
        return None
    envelope, room = found
    width, height = (
        (envelope.height, envelope.width) if room.turned else (envelope.width, envelope.height)
    )
    x, y = closed_card(piece.work).box.centre
    return (x - width / 2, y - height / 2, x + width / 2, y + height / 2)


def closed_of(evaluation: Evaluation, piece: PieceOutcome) -> ClosedView | None:
    """The closed card over its envelope."""
    work = piece.work
    if work is None or not work.paper:
        return None
    closed = closed_card(work)
    envelope = evaluation.design.card.size.envelope
    return ClosedView(
        box=box_of(closed.box),
        outline=ring_path(rings_of(closed.outline), 3),
        front=ring_path(rings_of(closed.front), 3),
        reveal=ring_path(rings_of(closed.reveal), 3),
        out=ring_path(rings_of(closed.out), 3),
        reveal_area=closed.reveal_area,
        reveal_by=closed.reveal_by,
        out_area=closed.out_area,
        out_by=closed.out_by,
        envelope=_envelope(evaluation, piece),
        envelope_name=envelope.name if envelope else "",
        layers=[LayerView(panel=la.panel, turned=la.turned) for la in closed.layers],
    )


def scoring_of(work: Work) -> list[ScoreRow]:
    return [
        ScoreRow(
            fold=r.fold,
            edge=r.edge,
            distance=r.distance,
            sixteenths=r.sixteenths,
            error=r.error,
            order=r.order,
            direction=r.direction,
            side=r.side,
            made=r.made,
        )
        for r in scoring_table(work)
    ]


def lap_of(work: Work) -> LapCurve | None:
    """The hinge over the lap of a mirrored figure, with what the present lap costs drawn."""
    mirrored = work.mirrored
    if mirrored is None or not mirrored.figure:
        return None
    low = mirrored.towards in ("left", "above")
    axis, at = fold_at_lap(mirrored.figure, mirrored.towards, mirrored.lap)
    lost = cut_off(mirrored.figure, axis=axis, at=at, keep="less" if low else "more")
    spans = work.spans[work.folds[0].name]
    return LapCurve(
        step=mirrored.step,
        lap=mirrored.lap,
        hinge=sum(s.length for s in spans),
        loss=mirrored.loss,
        points=[LapPoint(lap=p.lap, hinge=p.hinge, loss=p.loss) for p in lap_curve(mirrored)],
        lost=ring_path(rings_of(lost.polygons), 3) if lost else "",
    )


def loupe_of(work: Work, paper: Paper) -> list[LoupePlace]:
    """Places that are worth a closer look: thin ones first, then the ends of each fold, then sharp
    corners."""
    found = []
    for thin in thin_places(work.paper, least_width(paper))[:6]:
        x, y = ((a + b) / 2 for a, b in zip(thin.start, thin.end, strict=True))
        found.append(
            LoupePlace(
                x=x, y=y, across=max(6.0, 5 * thin.width), title="narrow paper", value=thin.width
            )
        )
    for fold in work.folds:
        if not fold.folds:
            continue
        spans = work.spans[fold.name]
        word = "seam" if work.mirrored else fold.name
        for span in spans[:4]:
            for point in (span.start, span.end):
                title = f"{word}, where the paper ends"
                found.append(
                    LoupePlace(x=point[0], y=point[1], across=8.0, title=title, value=None)
                )
    for corner in sharp_corners(work.paper, 20.0)[:4]:
        found.append(
            LoupePlace(x=corner.at[0], y=corner.at[1], across=8.0, title="sharp corner", value=None)
        )
    return found[:MOST_PLACES]


def folded_picture(work: Work, paper: Paper) -> FoldedPicture:
    return folded(half_open_picture(work, paper))


def folded(picture: Picture) -> FoldedPicture:
    return FoldedPicture(
        box=picture.box,
        shapes=[ShapeView(path=s.path, fill=s.fill, side=s.side) for s in picture.shapes],
    )
