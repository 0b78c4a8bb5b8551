"""The hinge over the lap of a mirrored figure, with what the present lap costs drawn."""

from __future__ import annotations

from pydantic import BaseModel

from stileblade.folding.hinge import hinge_at_lap
from stileblade.folding.joins import lap_curve
from stileblade.geometry.regions.set_operations import cut_off
from stileblade.piece.work import Work
from stileblade.views.places import shape_path


class LapPoint(BaseModel):
    lap: float
    hinge: float
    loss: float


class LapCurve(BaseModel):
    """The hinge over the lap of the mirror step, and what each half loses, in mm^2; ``finished`` is
    the hinge of the finished piece, with what later steps weld on and take away."""

    step: str
    lap: float
    hinge: float
    finished: float
    loss: float
    points: list[LapPoint]
    lost: str


def lap_of(work: Work) -> LapCurve | None:
    mirrored = work.mirrored
    if mirrored is None or not mirrored.figure:
        return None
    keep = "less" if mirrored.towards.low else "more"
    at = mirrored.place_at(mirrored.lap)
    lost = cut_off(mirrored.figure, axis=mirrored.axis, at=at, keep=keep)
    spans = work.spans[work.folds[0].name]
    return LapCurve(
        step=mirrored.step,
        lap=mirrored.lap,
        hinge=hinge_at_lap(mirrored, mirrored.lap),
        finished=sum(s.length for s in spans),
        loss=mirrored.loss,
        points=[LapPoint(lap=p.lap, hinge=p.hinge, loss=p.loss) for p in lap_curve(mirrored)],
        lost=shape_path(lost.polygons, 3) if lost else "",
    )
