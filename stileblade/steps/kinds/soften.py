"""Round off corners."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

import numpy as np

from stileblade.errors import StepError
from stileblade.fields import choice, length, special
from stileblade.geometry.curves.segments import Ints
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures.distances import touching
from stileblade.geometry.measures.turns import Corners, corners_of
from stileblade.geometry.offset.offset import Join, largest_inset, offset
from stileblade.geometry.regions.region import Region, gather
from stileblade.geometry.regions.set_operations import difference, union
from stileblade.outlines.figures.round import Circle
from stileblade.piece.work import Work
from stileblade.steps.handle import Candidate, Handle, PickHandle, Share
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step

MOST_PICKS = 500
_NEAR = 0.05
"""A pick means the nearest corner, no further away than this share of the box's diagonal."""


class Which(StrEnum):
    OUTER = "outer"
    INNER = "inner"
    BOTH = "both"
    PICKED = "picked"


class Of(StrEnum):
    OUTLINE = "outline"
    ALL = "all"


@register_step
class Soften(Step):
    """Corners rounded off: outer ones, so that they do not lift, inner ones, so that they do not
    tear. All that is narrower than twice the radius goes."""

    stage = Stage.WINDOWS
    title = "Soften corners"
    words = "round radius fillet smooth sharp"
    sayings = (
        "round corners",
        "rounded corner",
        "corner",
        "corners",
        "smooth corners",
        "radius",
        "soften",
        "no sharp corners",
    )
    takes = ("radius",)
    kind: Literal["soften"] = "soften"
    radius: float = length(3, "Radius", "Of the rounding.", above=0, most=100)
    which: Which = choice(
        Which.OUTER,
        "Corners",
        "Which corners are rounded.",
        outer="outer ones",
        inner="inner ones",
        both="both",
        picked="picked ones",
    )
    picks: tuple[tuple[Share, Share], ...] = special(
        (),
        "Picked",
        "Places of the corners that are rounded, as shares of the piece's box from its head left.",
        control="picks",
    )
    of: Of = choice(
        Of.OUTLINE,
        "Corners of",
        "The outer outline alone, or windows and grilles as well.",
        outline="the outer outline",
        all="windows, too",
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        paper = self._base(work)
        if self.which is Which.PICKED:
            paper = self._picked(work, paper)
        else:
            paper = self._softened(paper, self.which)
        if self.of is Of.OUTLINE and (openings := list(work.paper.openings)):
            paper = difference(paper, gather([c.as_region() for c in openings]))
        return work.with_paper(paper)

    def _base(self, work: Work) -> Region:
        """What is softened: all of the paper, or as if it had no openings."""
        if self.of is Of.ALL:
            return work.paper
        return gather([c.as_region() for c in work.paper.contours if not c.opening])

    def _softened(self, paper: Region, which: Which) -> Region:
        if which is not Which.OUTER:
            grown = offset(paper, self.radius, join=Join.ROUND)
            paper = offset(grown, -self.radius, join=Join.ROUND)
        if which is not Which.INNER:
            inset = offset(paper, -self.radius, join=Join.ROUND)
            if not inset:
                most = largest_inset(paper)
                raise StepError(
                    "A radius of {} rounds everything away; {} is the most here.",
                    self.radius,
                    most,
                    field="radius",
                    would_do=round(most * 0.5, 1),
                )
            paper = offset(inset, self.radius, join=Join.ROUND)
        return paper

    def _taken(self, work: Work, corners: Corners) -> Ints:
        """Numbers of the corners that the step rounds."""
        if self.which is Which.PICKED:
            box = work.paper.bounds
            size = np.hypot(box.width, box.height)
            found = set()
            for u, v in self.picks if len(corners) else ():
                away = norms(corners.places - box.at_share(u, v))
                if away.min() <= _NEAR * size:
                    found.add(int(away.argmin()))
            return np.array(sorted(found), np.int64)
        sides = {Which.OUTER: corners.turn > 0, Which.INNER: corners.turn < 0}
        return np.flatnonzero(sides.get(self.which, corners.turn != 0))

    def _picked(self, work: Work, paper: Region) -> Region:
        """What rounding all of them would change, done at the corners that were picked."""
        corners = corners_of(paper)
        taken = self._taken(work, corners)
        if not len(taken):
            raise StepError("No corner is picked yet.", hint="Point at corners.", field="picks")
        softened = paper
        for which, side in ((Which.OUTER, corners.turn > 0), (Which.INNER, corners.turn < 0)):
            own = taken[side[taken]]
            if not len(own):
                continue
            whole = self._softened(paper, which)
            outer = which is Which.OUTER
            changed = difference(paper, whole) if outer else difference(whole, paper)
            parts = [p for p in changed.parts() if len(touching(p, corners.places[own]))]
            for part in parts:
                also = touching(part, corners.places)
                if not np.isin(also, taken).all():
                    raise StepError(
                        "A radius of {} takes corners with it that are not picked.",
                        self.radius,
                        hint="Take a smaller one, or pick them, too.",
                        field="radius",
                        would_do=round(self.radius / 2, 2),
                    )
            if parts:
                put = gather(parts)
                softened = difference(softened, put) if outer else union(softened, put)
        return softened

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None or not before.paper:
            return []
        corners = corners_of(self._base(before))
        taken, box = set(self._taken(before, corners).tolist()), before.paper.bounds
        disc = Circle(diameter=2 * min(max(self.radius, 1.0), 8.0)).outline({})
        found = []
        for i, (x, y) in enumerate(corners.places[:MOST_PICKS].tolist()):
            figure = (float(corners.inside()[i]), "deg")
            found.append(
                Candidate(
                    disc.transformed(translation(x, y)), box.share_of(x, y), i in taken, figure
                )
            )
        return [PickHandle("picks", tuple(found), picked_by="which", word="corner")]

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None or not before.paper:
            return []
        found = [Told("Area changed", after.paper.area - before.paper.area, "mm2")]
        if self.which is Which.PICKED:
            taken = len(self._taken(before, corners_of(self._base(before))))
            found.append(Told("Rounded", taken, "count"))
            if taken < len(self.picks):
                missed = len(self.picks) - taken
                found.append(Told("Picks without corner", missed, "count", "it is rounded or gone"))
        return found

    def caption(self) -> Caption:
        return Caption("radius", self.radius)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(radius=16)]
