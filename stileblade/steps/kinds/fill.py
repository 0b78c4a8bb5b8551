"""Fill openings."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.fields import area, choice, special
from stileblade.geometry.measures.distances import inner_point, rings_round
from stileblade.geometry.regions.fill import with_rings
from stileblade.geometry.regions.region import Region, by_size
from stileblade.piece.work import Work
from stileblade.steps.handle import Candidate, Handle, PickHandle, Share
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step

MOST_PICKS = 500


class Which(StrEnum):
    ALL = "all"
    BELOW = "below"
    PICKED = "picked"


@register_step
class Fill(Step):
    """Openings closed with paper: all of them, those smaller than an area, or picked ones."""

    stage = Stage.OUTLINE
    title = "Fill openings"
    words = "holes close tiny inner contours pick"
    sayings = (
        "close holes",
        "fill holes",
        "remove tiny holes",
        "close openings",
        "no inner contours",
        "outer outline alone",
        "solid shape",
    )
    kind: Literal["fill"] = "fill"
    which: Which = choice(
        Which.ALL,
        "Fill",
        "Which openings are closed.",
        all="all",
        below="below an area",
        picked="picked ones",
    )
    below: float = area(
        4, "Smaller than", "Openings smaller than this are closed.", when={"which": ["below"]}
    )
    picks: tuple[tuple[Share, Share], ...] = special(
        (),
        "Openings",
        "Places in the openings that are closed, as shares of the figure's box from its head left.",
        control="picks",
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        taken = self._taken(work)
        keep = [r for r in range(len(work.paper.shell)) if r not in taken]
        return work.with_paper(with_rings(work.paper, keep))

    def _taken(self, work: Work) -> set[int]:
        """Rings that are closed."""
        openings = opening_rings(work.paper)
        if self.which is Which.ALL:
            return set(openings)
        if self.which is Which.BELOW:
            return {r for r in openings if work.paper.contour(r).area < self.below}
        box = work.reference
        spots = [box.at_share(u, v) for u, v in self.picks]
        return rings_round(work.paper, openings, spots)

    def caption(self) -> Caption:
        if self.which is Which.PICKED:
            return Caption("", len(self.picks), "count")
        return Caption("all") if self.which is Which.ALL else Caption("below", self.below, "mm2")

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None:
            return []
        taken = self._taken(before)
        closed = sum(before.paper.contour(r).area for r in taken)
        found = [
            Told("Filled", len(taken), "count"),
            Told("Area filled", closed, "mm2"),
            Told("Left open", len(opening_rings(after.paper)), "count"),
        ]
        if self.which is Which.PICKED and len(taken) < len(self.picks):
            missed = len(self.picks) - len(taken)
            found.append(Told("Picks without opening", missed, "count", "it is filled or gone"))
        return found

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        taken, box = self._taken(before), before.reference
        found = []
        for ring in opening_rings(before.paper)[:MOST_PICKS]:
            outline = before.paper.contour(ring).as_region()
            share = box.share_of(*inner_point(outline))
            found.append(Candidate(outline, share, ring in taken))
        return [PickHandle("picks", tuple(found), picked_by="which", word="opening")]

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.round import Ring
        from stileblade.steps.kinds.figure import StartFigure

        return [StartFigure(outline=Ring()), cls()]


def opening_rings(paper: Region) -> list[int]:
    """Numbers of the rings that are openings, the largest first."""
    inner = [r for r in range(len(paper.shell)) if paper.shell[r] != r]
    return [inner[i] for i in by_size([paper.contour(r) for r in inner])]
