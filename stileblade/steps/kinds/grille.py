"""Bars left standing across a window."""

from __future__ import annotations

import math
from enum import StrEnum
from typing import Literal

import numpy as np

from stileblade.errors import StepError
from stileblade.fields import angle as degrees
from stileblade.fields import choice, length, number_of, special
from stileblade.geometry.curves.places import Box, Point
from stileblade.geometry.curves.transforms import rotation, translation
from stileblade.geometry.regions.region import Region, gather
from stileblade.geometry.regions.set_operations import difference, intersection, union, union_all
from stileblade.outlines.figures.round import Circle
from stileblade.piece.windows import Opened
from stileblade.piece.work import Note, Work
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, Told, register_step
from stileblade.steps.strips import Barred, Strip, held_at_both_ends
from stileblade.words import say

MOST_BARS = 400


class Pattern(StrEnum):
    ONE = "one"
    BOTH = "both"
    WHEEL = "wheel"


@register_step
class Grille(Step):
    """Strips left standing across a window: bars in one direction or two, one of them in the
    centre, or rings and spokes. They end welded to the frame, so that none floats."""

    needs_before = Needs.WINDOW
    stage = Stage.WINDOWS
    title = "Grille"
    words = "bars lantern porthole strips spokes rings grid"
    sayings = (
        "bars across the window",
        "lantern",
        "crossed bars",
        "spokes",
        "prison bars",
        "grid in the window",
        "ship's wheel",
    )
    takes = ("bar", "gap")
    kind: Literal["grille"] = "grille"
    window: str = special(
        "",
        "Window",
        "Which window; empty means the last one cut.",
        control="window",
        empty="the last one cut",
    )
    pattern: Pattern = choice(
        Pattern.ONE,
        "Bars",
        "How they run.",
        one="in one direction",
        both="in two directions",
        wheel="rings and spokes",
    )
    bar: float = length(3, "Bar", "How wide each bar is.", above=0, most=100)
    gap: float = length(6, "Gap", "Between two bars.", above=0, most=500)
    angle: float = degrees(0, "Angle", "Clockwise; at 0 the first bars stand upright.")
    spokes: int = number_of(
        8, "Spokes", "How many run to the frame.", least=1, most=120, when={"pattern": ["wheel"]}
    )

    def _bars(self, outline: Region, angle: float) -> tuple[list[list[Strip]], list[Region]]:
        """Straight bars across an outline in groups that do not meet each other, reaching beyond it,
        and rings."""
        box = outline.bounds
        reach = math.hypot(box.width, box.height) / 2 + 1
        centre = box.centre
        if self.pattern is Pattern.WHEEL:
            return self._wheel(centre, reach, angle)
        turned = outline.transformed(rotation(-angle, about=centre)).bounds
        groups = [self._parallel(turned, centre, reach, angle, upright=True)]
        if self.pattern is Pattern.BOTH:
            groups.append(self._parallel(turned, centre, reach, angle, upright=False))
        return groups, []

    def _parallel(
        self, box: Box, centre: Point, reach: float, angle: float, *, upright: bool
    ) -> list[Strip]:
        low, high = (box.left, box.right) if upright else (box.head, box.foot)
        middle = centre[0] if upright else centre[1]
        pitch = self.bar + self.gap
        # every bar of which something lies in the window
        first = math.ceil((low - middle - self.bar / 2) / pitch + 1e-9)
        last = math.floor((high - middle + self.bar / 2) / pitch - 1e-9)
        if last - first + 1 > MOST_BARS:
            least = (high - low) / MOST_BARS - self.bar
            raise StepError(
                say("More than {most_bars} bars would stand in the window.", most_bars=MOST_BARS),
                hint="Make the gap larger.",
                field="gap",
                would_do=round(max(least * 2, self.bar), 1),
            )
        # an upright bar runs down, with its normal to the left
        turn = angle + (90 if upright else 0)
        sign = -1 if upright else 1
        return [
            Strip(centre, turn, sign * n * pitch, self.bar, -reach, reach)
            for n in range(first, last + 1)
        ]

    def _wheel(
        self, centre: Point, reach: float, angle: float
    ) -> tuple[list[list[Strip]], list[Region]]:
        pitch = self.bar + self.gap
        rings = int(np.floor((reach - self.bar / 2) / pitch))
        if rings + self.spokes > MOST_BARS:
            raise StepError(
                say(
                    "More than {most_bars} rings and spokes would stand in the window.",
                    most_bars=MOST_BARS,
                ),
                hint="Make the gap larger.",
                field="gap",
                would_do=round(reach / 20, 1),
            )
        round_ones = [
            difference(
                _disc(2 * n * pitch + self.bar, centre), _disc(2 * n * pitch - self.bar, centre)
            )
            for n in range(1, rings + 1)
        ]
        turns = [angle - 90 + 360 * n / self.spokes for n in range(self.spokes)]
        spokes = [[Strip(centre, turn, 0.0, self.bar, 0.0, reach)] for turn in turns]
        return spokes, [_disc(self.bar, centre), *round_ones]

    def _across(self, window: Opened, paper: Region) -> Barred:
        """The bars that stand in one window."""
        outline = window.outline
        groups, rings = self._bars(outline, -self.angle if window.mirrored else self.angle)
        ground = outline if window.before is None else intersection(outline, window.before)
        beyond = bool(rings) and ground.area < outline.area - 0.01
        standing, count, left = Region.empty(), 0, 0
        for group in groups:
            kept: list[Region] = []
            # what stands already holds the ends of others
            open_ground = difference(ground, standing) if standing else ground
            frame = union(paper, intersection(standing, ground)) if standing else paper
            for strip in group:
                runs, air = strip.runs(open_ground, frame)
                kept += [strip.part(low, high) for low, high in runs]
                count += bool(runs)
                left += bool(air and not runs)
            standing = union(standing, gather(kept)) if kept else standing
        standing = intersection(standing, ground) if standing else standing
        for ring in rings:
            parts = [intersection(ring, ground)]
            if beyond:
                parts = held_at_both_ends(parts[0], standing, paper)
            added = [p for p in parts if p]
            count += bool(added) and ring is not rings[0]
            left += not added
            standing = union_all([standing, *added]) if standing else standing
        return Barred(ground, standing, count, left)

    def _all(self, work: Work) -> list[Barred]:
        return [self._across(w, work.paper) for w in work.windows_of(self.window)]

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        made = self._all(work)
        left = sum(b.left_out for b in made)
        if not any(b.standing for b in made):
            raise StepError(
                "No bar stands at both ends: each would end in the air.",
                hint="Turn them, make the gap smaller, or move the window onto the paper.",
                field="angle",
                would_do=(self.angle + 90) % 180 if self.pattern is Pattern.ONE else None,
            )
        if not any(difference(b.ground, b.standing) for b in made):
            raise StepError(
                "The bars fill the whole window.",
                hint="Make the gap larger.",
                field="gap",
                would_do=round(self.bar * 2, 1),
            )
        notes = work.notes
        if left:
            said = say(
                "One bar would end in the air, at a fold or beyond the paper, and is left out."
                " | {n} bars would end in the air, at a fold or beyond the paper, and are left out.",
                n=left,
            )
            notes = (*notes, Note("grille.left-out", said, self.id))
        paper = work.paper
        for barred in made:
            paper = union(paper, barred.standing)
        return work.with_paper(paper, notes=notes)

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None:
            return []
        made = self._all(before)
        ground = sum(b.ground.area for b in made)
        free = ground - sum(b.standing.area for b in made)
        left = sum(b.left_out for b in made)
        return [
            Told("Bars", sum(b.count for b in made), "count"),
            *([Told("Left out", left, "count", "they would end in the air")] if left else []),
            Told("Open", free, "mm2"),
            Told("Open share", free / ground * 100, "percent"),
        ]

    def caption(self) -> Caption:
        return Caption("bars of", self.bar)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank
        from stileblade.steps.kinds.window import Window

        return [
            Blank(),
            Window(outline=Circle(diameter=70)),
            cls(bar=5, gap=10, pattern=Pattern.BOTH),
        ]


def _disc(diameter: float, centre: Point) -> Region:
    disc = Circle(diameter=diameter).outline({})
    x, y = disc.bounds.centre
    return disc.transformed(translation(centre[0] - x, centre[1] - y))
