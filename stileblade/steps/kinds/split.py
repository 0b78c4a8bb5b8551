"""Part a piece in two or more."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import angle, choice, length, offset, special
from stileblade.geometry.curves.line import Line
from stileblade.geometry.measures.distances import holds_any, inner_point
from stileblade.geometry.regions.clipping import clip_line
from stileblade.geometry.regions.region import Region, by_size, from_left, gather
from stileblade.geometry.regions.set_operations import (
    cut_off,
    difference,
    intersection,
    polygon,
    union,
)
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figure import outline_of
from stileblade.outlines.figures.round import Circle
from stileblade.piece.parts import Parted
from stileblade.piece.work import Work
from stileblade.steps.handle import (
    BoxHandle,
    Candidate,
    Handle,
    LineHandle,
    Moved,
    PickHandle,
    Share,
)
from stileblade.steps.measured import Edge, Runs, edge_field, runs_field
from stileblade.steps.placing import Anchor, turned
from stileblade.steps.placing import place_at as placed_at
from stileblade.steps.repeating import together
from stileblade.steps.slivers import drop_field, least_field, slivers_of
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step
from stileblade.words import within

LEAST = 0.01
"""mm^2: what is smaller is no part."""


class By(StrEnum):
    LINE = "line"
    FIGURE = "figure"


class Keep(StrEnum):
    LARGEST = "largest"
    PICKED = "picked"


_LINE, _FIGURE = {"by": ["line"]}, {"by": ["figure"]}


@register_step
class Split(Step):
    """The piece parted along a straight line, a thin strip or a figure. Any of the parts are kept;
    the others can be made pieces of their own, which follow every change of this one."""

    stage = Stage.WINDOWS
    parts_piece = True
    title = "Split"
    words = "divide part cut apart strip separate halves pieces"
    sayings = (
        "cut in two",
        "separate",
        "two pieces",
        "divide",
        "tear apart",
        "cut a strip off",
        "halves",
    )
    takes = ("distance",)
    kind: Literal["split"] = "split"
    by: By = choice(
        By.LINE, "Parted by", "What parts it.", line="a line or strip", figure="a figure"
    )
    runs: Runs = runs_field(when=_LINE)
    target: str = special("card", "Measured on", "Whose box it is measured on.", control="target")
    edge: Edge = edge_field(Edge.MIDDLE, when=_LINE)
    distance: float = offset(
        0, "Distance", "From there inwards; from the middle, down or right.", when=_LINE
    )
    strip: float = length(
        0, "Strip", "How wide the strip is that falls out between the parts.", least=0, when=_LINE
    )
    tab: float = length(
        0,
        "Glue tab",
        "How far the right or lower part reaches under the other, to be glued to it; 0 is none.",
        least=0,
        most=100,
        when=_LINE,
    )
    outline: AnyFigure = figure_field(Circle(diameter=50), "Figure", "What parts it.", when=_FIGURE)
    turn: float = angle(0, "Turn", "Clockwise, about the centre of its box.", when=_FIGURE)
    at: Anchor = special(
        Anchor.CENTRE, "Position", "The place that it is set to.", control="anchor", when=_FIGURE
    )
    dx: float = offset(0, "To the right", "Moved on from there; negative is to the left.",
                       when=_FIGURE)  # fmt: skip
    dy: float = offset(0, "Down", "Moved on from there; negative is up.", when=_FIGURE)
    keep: Keep = choice(
        Keep.LARGEST,
        "Keep",
        "Which parts stay. A part that is a piece of its own is not kept as well.",
        largest="the largest",
        picked="picked ones",
    )
    picks: tuple[tuple[Share, Share], ...] = special(
        (),
        "Parts",
        "Places in the parts that stay, as shares of the piece's box from its head left.",
        control="picks",
        when={"keep": ["picked"]},
    )

    least: float = least_field(when=_FIGURE)
    drop: bool = drop_field(when=_FIGURE)

    @property
    def glues_on(self) -> bool:
        return self.by is By.LINE and self.tab > 0

    def _at(self, work: Work) -> float:
        origin, sign = self.edge.origin(work.box_of(self.target), self.runs.axis)
        return origin + sign * self.distance

    def _figure(self, work: Work, setting: Setting) -> Region:
        region = outline_of(self.outline, setting.shelf)
        region = turned(region, self.turn)
        spot = self.at.of(work.box_of(self.target))
        return placed_at(region, spot, Anchor.CENTRE, self.dx, self.dy)

    def parts(self, work: Work, setting: Setting) -> list[Region]:
        """All parts, from left to right and from head to foot. StepError where it is still one."""
        if self.by is By.FIGURE:
            figure = self._figure(work, setting)
            halves = [difference(work.paper, figure), intersection(work.paper, figure)]
            field = "dx"
        else:
            at, half, field = self._at(work), self.strip / 2, "distance"
            halves = [
                cut_off(work.paper, axis=self.runs.axis, at=at - half, keep="less"),
                cut_off(work.paper, axis=self.runs.axis, at=at + half, keep="more"),
            ]
            if self.tab and all(halves):
                halves[1] = union(halves[1], self._tab(work, at + half))
        if not all(halves):
            raise StepError(
                "Nothing is parted: all of the paper lies on one side.",
                hint="Move it onto the paper.",
                field=field,
                would_do=None if self.by is By.FIGURE else 0.0,
            )
        found = [part for half in halves for part in half.parts() if part.area > LEAST]
        return [found[i] for i in from_left(found)]

    def _tab(self, work: Work, at: float) -> Region:
        """What the second part has beyond the line: paper there, its ends slanting inwards."""
        axis, deep = self.runs.axis, self.tab
        line = Line.on(axis, at)
        found = []
        for a, b in clip_line(work.paper, *line.ends_beyond(work.paper.bounds)):
            low, high = sorted((line.place_of(a), line.place_of(b)))
            slant = min(deep, (high - low) / 4)
            corners = ((0.0, low), (0.0, high), (-deep, high - slant), (-deep, low + slant))
            spots = [(at + d, p) if axis == "x" else (p, at + d) for d, p in corners]
            found.append(polygon(spots))
        return intersection(together(found), work.paper) if found else Region.empty()

    def _kept(self, work: Work, parts: list[Region], setting: Setting) -> list[int]:
        if self.keep is Keep.LARGEST or not self.picks:
            taken = setting.taken.get(self.id, ())
            free = [i for i in range(len(parts)) if i + 1 not in taken] or list(range(len(parts)))
            return [free[by_size([parts[i] for i in free])[0]]]
        box = work.paper.bounds
        spots = [box.at_share(u, v) for u, v in self.picks]
        found = [i for i, p in enumerate(parts) if holds_any(p, spots)]
        if not found:
            raise StepError(
                "None of the places that were picked lies in a part any more.",
                hint="Pick the parts that stay.",
                field="picks",
            )
        return found

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        parts = self.parts(work, setting)
        kept = self._kept(work, parts, setting)
        parted = Parted(self.id, tuple(parts), tuple(kept))
        paper, notes = gather([parts[i] for i in kept]), work.notes
        if self.by is By.FIGURE:
            slivers = slivers_of(work.paper, paper, self.least)
            if slivers and self.drop:
                paper = slivers.dropped(paper)
            elif slivers:
                notes = (*notes, slivers.note(self.id))
        return replace(work, paper=paper, parted=(*work.parted, parted), notes=notes)

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        parted = after.parted[-1]
        return [
            Told("Parts", len(parted.parts), "count"),
            Told("Kept", len(parted.kept), "count"),
            Told("Area kept", after.paper.area, "mm2"),
        ]

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        if self.by is By.FIGURE:
            figure = self._figure(before, setting)
            word = within(self.outline.title)
            moves = Moved("dx", self.dx), Moved("dy", self.dy)
            place: Handle = BoxHandle(*moves, figure.bounds, figure, word)
        else:
            origin, sign = self.edge.origin(before.box_of(self.target), self.runs.axis)
            sets = Moved("distance", self.distance, sign)
            place = LineHandle(sets, self.runs.axis, self._at(before), origin, word="split")
        if self.keep is Keep.LARGEST:
            return [place]
        parts = self.parts(before, setting)
        kept = self._kept(before, parts, setting)
        box = before.paper.bounds
        candidates = []
        for i, part in enumerate(parts):
            candidates.append(Candidate(part, box.share_of(*inner_point(part)), i in kept))
        picks = PickHandle("picks", tuple(candidates), picked_by="keep", word="part")
        return [place, picks]

    def caption(self) -> Caption:
        if self.by is By.FIGURE:
            return Caption(within(self.outline.title))
        return Caption("strip", self.strip) if self.strip else Caption("in two")

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(strip=10, distance=-20)]
