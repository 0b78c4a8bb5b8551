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


class SpanView(BaseModel):
    stroke: Stroke
    direction: Literal["mountain", "valley"]


class FoldView(BaseModel):
    """from_left and from_right are from the piece's head and foot where the fold is level; axis is
    empty where it slants. inner: of a step that stands forward. scores are the lines scored: two for a spine."""

    name: str
    axis: Literal["x", "y", ""]
    at: float
    made: str
    direction: str
    order: int
    folds: bool
    inner: bool
    hinge: float
    spans: list[SpanView]
    scores: list[Stroke]
    from_left: float
    from_right: float
    from_centre: float


class CandidateView(BaseModel):
    """Something that can be picked: its outline, the figure that is told of it, its box, the share
    of the figure's box by which a pick names it, and whether it is taken now."""

    path: str
    value: float
    unit: str
    box: Bounds
    share: Point
    taken: bool


class SizingView(BaseModel):
    """How the thing in a box is sized about ``fixed``: names and present values in mm."""

    fixed: Point
    across: list[tuple[str, float]]
    down: list[tuple[str, float]]
    both: list[tuple[str, float]]


class HandleView(BaseModel):
    shape: Literal["line", "box", "around", "pick"]
    field: str
    value: float
    axis: str
    at: float
    origin: float
    factor: float
    least: float | None
    field_y: str
    value_y: float
    factor_y: float
    least_y: float | None
    box: Bounds
    outline: str
    candidates: list[CandidateView]
    picked_by: str
    word: str
    centre: Point
    sizing: SizingView | None
    turn: float | None


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
    """A line worth snapping to; ``edge`` names the edge of a thing that it is for, "" any place."""

    axis: Literal["x", "y"]
    at: float
    word: str
    edge: Literal["", "low", "middle", "high"] = ""


class WindowView(BaseModel):
    """A window that a later step can name: by the key of the step that cut it."""

    key: str
    title: str


class LineView(BaseModel):
    """Lines of one step that are not cut, as path data."""

    path: str
    how: Literal["draw", "stitch", "score", "perforate", "cut"]


class PartView(BaseModel):
    """A part that the step in hand made, by its number, and the piece made of it, if there is one."""

    number: int
    kept: bool
    box: Bounds
    piece: str


class EffectView(BaseModel):
    """The closed card with the step in hand, and the room left in its envelope."""

    closed: Point
    room: float | None
    slack: float
    envelope: str


class PlacedThing(BaseModel):
    """A step's thing on the flat view that can be moved: by its values ``field`` and ``field_y``."""

    step: str
    title: str
    box: Bounds
    field: str
    value: float
    factor: float
    field_y: str
    value_y: float
    factor_y: float


class CutView(BaseModel):
    """A line that the machine gets: its operation, its length in mm, and the step that made it as
    it is."""

    path: str
    operation: str
    closed: bool
    length: float
    step: str
    made_by: str


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
    lines: list[LineView]
    windows: list[WindowView]
    parts: list[PartView]
    effect: EffectView | None


class HingeView(BaseModel):
    """A face turns about the line from start to end by sign times the angle of its fold; z is how
    far before the outside the line lies, in mm."""

    fold: int
    start: Point
    end: Point
    sign: int
    z: float


class FaceView(BaseModel):
    panel: str
    rings: list[list[Point]]
    parent: int | None
    hinge: HingeView | None


class StandView(BaseModel):
    """Space is x right, y up, z to the viewer of the outside; table is the height along up, eye the
    direction from which it is looked at, up being y."""

    angles: list[float]
    up: tuple[float, float, float]
    table: float
    eye: tuple[float, float, float]


class SpaceView(BaseModel):
    """sequence: angles of all folds after each stage of closing, the first one open. envelope:
    left, head, right, foot about the closed card, in the flat view's measures. eye: the direction
    from which the half-open card is looked at."""

    faces: list[FaceView]
    folds: list[str]
    sequence: list[list[float]]
    half: list[float]
    stand: StandView | None
    envelope: Bounds | None
    eye: tuple[float, float, float]
    outside: str
    inside: str
    thickness: float


class LayerView(BaseModel):
    panel: str
    turned: bool


class ClosedView(BaseModel):
    """The closed card seen from its front: outlines as path data, y downwards. reveal: what of the
    back is seen round the front; out: what of the front stands out; with area and reach."""

    box: Bounds
    outline: str
    front: str
    reveal: str
    out: str
    reveal_area: float
    reveal_by: float
    out_area: float
    out_by: float
    envelope: Bounds | None
    envelope_name: str
    layers: list[LayerView]


class ScoreRow(BaseModel):
    fold: str
    edge: str
    distance: float
    sixteenths: str
    error: float
    order: int
    direction: str
    side: str
    made: str


class LapPoint(BaseModel):
    lap: float
    hinge: float
    loss: float


class LapCurve(BaseModel):
    """The hinge over the lap of the mirror step, and what each half loses, in mm^2."""

    step: str
    lap: float
    hinge: float
    loss: float
    points: list[LapPoint]
    lost: str


class LoupePlace(BaseModel):
    """A place worth a closer look: how wide the view of it is, in mm, and why it is shown."""

    x: float
    y: float
    across: float
    title: str
    value: float | None


class Reading(BaseModel):
    """One line of the readings: values with their unit ("mm", "g", "mm2", "count")."""

    name: str
    values: list[float]
    unit: str
    note: str = ""


class Change(BaseModel):
    """A change to the document: values set on a step, a step put in before another, or values set
    on the card's folding."""

    op: Literal["set", "add", "fold"]
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
    drawn: str


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
    shut: ClosedView | None
    scoring: list[ScoreRow]
    ticks: list[Stroke]
    lap: LapCurve | None
    loupe: list[LoupePlace]
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
