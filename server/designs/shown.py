"""The forms in which the browser is shown an evaluation. Lengths in mm, y downwards."""

from __future__ import annotations

from enum import StrEnum
from typing import Any, Literal

from pydantic import BaseModel

Point = tuple[float, float]
Bounds = tuple[float, float, float, float]
Stroke = tuple[float, float, float, float]


class PanelView(BaseModel):
    """label is a place well inside the panel's paper, for its name."""

    name: str
    box: Bounds
    label: Point


class FoldView(BaseModel):
    """from_left and from_right are from the piece's head and foot where the fold is level."""

    name: str
    axis: Literal["x", "y"]
    at: float
    made: str
    direction: str
    hinge: float
    spans: list[Stroke]
    from_left: float
    from_right: float
    from_centre: float


class CandidateView(BaseModel):
    """An opening that can be picked: its outline, area, box, the share of the figure's box by
    which a pick names it, and whether it is closed now."""

    path: str
    area: float
    box: Bounds
    share: Point
    taken: bool


class HandleView(BaseModel):
    shape: Literal["line", "box", "pick"]
    field: str
    value: float
    axis: str
    at: float
    origin: float
    factor: float
    least: float | None
    field_y: str
    value_y: float
    box: Bounds
    outline: str
    candidates: list[CandidateView]
    word: str


class ToldView(BaseModel):
    """A figure that the step in hand tells of itself."""

    name: str
    value: float
    unit: str
    note: str


class PlacedView(BaseModel):
    """An artwork of the document in the piece: a, b, c, d, e, f as in an SVG matrix, from the
    units of its layers' paths to mm."""

    ref: str
    matrix: tuple[float, float, float, float, float, float]


class Guide(BaseModel):
    axis: Literal["x", "y"]
    at: float
    word: str


class FlatView(BaseModel):
    """The piece after the step in hand; ``before`` is what it was given, if different."""

    path: str
    box: Bounds
    before: str
    panels: list[PanelView]
    folds: list[FoldView]
    handles: list[HandleView]
    told: list[ToldView]
    artwork: PlacedView | None
    guides: list[Guide]
    targets: list[str]
    fold_names: list[str]


class HingeView(BaseModel):
    axis: Literal["x", "y"]
    at: float
    direction: str


class FaceView(BaseModel):
    panel: str
    rings: list[list[Point]]
    parent: int | None
    hinge: HingeView | None


class SpaceView(BaseModel):
    faces: list[FaceView]
    outside: str
    inside: str
    thickness: float


class Reading(BaseModel):
    """One line of the readings: values with their unit ("mm", "g", "mm2", "count")."""

    name: str
    values: list[float]
    unit: str
    note: str = ""


class Change(BaseModel):
    """A change to the document: values set on a step, or a step put in before another."""

    op: Literal["set", "add"]
    piece: str
    step: str
    values: dict[str, Any]


class MendView(BaseModel):
    title: str
    changes: list[Change]


class FindingView(BaseModel):
    code: str
    severity: Literal["error", "warning", "note"]
    message: str
    hint: str
    piece: str
    step: str
    value: float | None
    lines: list[Stroke]
    outlines: list[str]
    mends: list[MendView]


class CaptionView(BaseModel):
    text: str
    value: float | None
    unit: str


class PictureView(BaseModel):
    """folds are scored ones; perforated are the cuts of the others."""

    path: str
    box: Bounds
    folds: list[Stroke]
    perforated: list[Stroke]


class ProblemView(BaseModel):
    message: str
    hint: str
    field: str


class StripView(BaseModel):
    """A step in the build strip; its picture only where the browser does not have it yet."""

    step: str
    key: str
    caption: CaptionView
    problem: ProblemView | None
    picture: PictureView | None


class ShapeView(BaseModel):
    path: str
    fill: str
    side: str


class FoldedPicture(BaseModel):
    box: Bounds
    shapes: list[ShapeView]


class RestView(BaseModel):
    """All but the flat view: of the finished piece, whatever step is in hand."""

    open: tuple[float, float]
    closed: tuple[float, float]
    space: SpaceView
    readings: list[Reading]
    findings: list[FindingView]
    strip: list[StripView]


class Part(StrEnum):
    """What is asked for: while something is edited, the flat view alone comes first."""

    ALL = "all"
    FLAT = "flat"
    REST = "rest"


class Evaluated(BaseModel):
    flat: FlatView | None
    rest: RestView | None
