"""Cut a figure's contours out of a panel, its islands bridged."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from stileblade.errors import StepError
from stileblade.fields import angle, choice, length, number_of, special
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.transforms import after, rotation, translation
from stileblade.geometry.measures.bridges import Bridge, bridges_of
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.region import Contour, Region
from stileblade.geometry.regions.remembered import with_figures
from stileblade.geometry.regions.set_operations import (
    difference,
    intersection,
    rectangle,
    union_all,
)
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figures.round import Ring
from stileblade.piece.windows import Opened
from stileblade.piece.work import Work
from stileblade.steps.handle import AroundHandle, Handle
from stileblade.steps.placing import PlacedStep
from stileblade.steps.recalled import Recalled
from stileblade.steps.repeating import Also, Repeat
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step
from stileblade.words import say, within

MOST_HANDLES = 60
Angle = Annotated[float, Field(ge=-360, le=360)]
_BRIDGED = {"bridged": ["true"]}


class Sectors(StrEnum):
    SHORTEST = "shortest"
    OWN = "own"


@register_step
class Stencil(PlacedStep):
    """A figure, an artwork or a word cut out of a panel. What it encloses are islands that would
    drop out: each is joined by bridges, where they are shortest, opposite each other."""

    stage = Stage.WINDOWS
    title = "Stencil"
    words = "cut out bridge island letters word drop"
    sayings = (
        "stencil",
        "cut out a word",
        "cut out letters",
        "islands",
        "bridges",
        "letters that do not fall out",
        "name cut out",
    )
    takes = ("bridge",)
    kind: Literal["stencil"] = "stencil"
    outline: AnyFigure = figure_field(Ring(diameter=40, opening=20), "Figure", "What is cut out.")
    bridged: bool = Field(
        True, title="Bridges", description="Off: the islands drop out with the rest."
    )
    bridge: float = length(
        2, "Bridge", "How wide each bridge is.", least=0.2, most=50, when=_BRIDGED
    )
    bridges: int = number_of(
        2, "For each island", "How many bridges hold it.", least=1, most=12, when=_BRIDGED
    )
    placed_by: Sectors = choice(
        Sectors.SHORTEST,
        "Bridges begin",
        "Where the first bridge of each island is.",
        shortest="where it is shortest",
        own="at an angle",
        when=_BRIDGED,
    )
    first: float = angle(
        0,
        "First at",
        "Clockwise, 0 to the right of the island.",
        when={"placed_by": ["own"], **_BRIDGED},
    )

    angles: tuple[Angle | None, ...] = special(
        (),
        "Own places",
        "For each bridge that was moved its angle about its island, clockwise, 0 to the right.",
        control="hidden",
        when=_BRIDGED,
    )

    def _cut_out(self, work: Work, setting: Setting) -> _CutOut:
        return _RECALLED(self, work, setting, lambda: self._worked_out(work, setting))

    def _worked_out(self, work: Work, setting: Setting) -> _CutOut:
        """All of it where it is placed. A figure that is set once is bridged wherever it is, and
        moved: its bridges are the same all along a drag."""
        figure = self.placed(work, setting)
        turn = self.first if self.placed_by is Sectors.OWN else None
        wish = (self.bridges, turn, self.angles, self.bridge) if self.bridged else None
        if self.repeat is not Repeat.ONCE or self.also is not Also.NO or self.also_on:
            return _bridged(figure, wish)
        home = self.turned_figure(work, setting)
        made, box = _bridged(home, wish), figure.bounds
        return made.moved(figure, box.left - home.bounds.left, box.head - home.bounds.head)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        made = self._cut_out(work, setting)
        if not intersection(work.paper, made.cut):
            raise StepError(
                "There is no paper under the figure: nothing is cut out.",
                hint="Move it on to the paper.",
                field="dx",
            )
        paper = difference(work.paper, made.cut)
        if not paper:
            raise StepError(
                "The figure covers the whole piece: nothing would be left.", field="outline"
            )
        # with its islands filled: what is cut inside it is meant
        opened = Opened(
            self.id,
            work.panel_name(self.target),
            filled(made.figure),
            crosses=False,
            before=work.paper,
        )
        return work.with_paper(paper, windows=(*work.windows, opened))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None:
            return []
        made = self._cut_out(before, setting)
        bridges = made.bridges
        note = (
            say("the longest {longest:.1f} mm", longest=max(b.length for b in bridges))
            if bridges
            else ""
        )
        return [
            Told("Islands", len(made.figure.openings), "count"),
            Told("Bridges", len(bridges), "count", note),
            Told("Cut out", made.cut.area, "mm2"),
        ]

    @property
    def opens(self) -> bool:
        return True

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        found = super().handles(before, setting)
        if before is None or not self.bridged:
            return found
        made = self._cut_out(before, setting)
        islands = [c.bounds.centre for c in made.figure.openings]
        for number, bridge in enumerate(made.bridges[:MOST_HANDLES]):
            cx, cy = islands[number // self.bridges]
            x, y = (a + (b - a) / 2 for a, b in zip(bridge.start, bridge.end, strict=True))
            angle = math.degrees(math.atan2(bridge.start[1] - cy, bridge.start[0] - cx))
            spot = Box(x - 0.5, y - 0.5, x + 0.5, y + 0.5)
            field, word = f"angles.{number}", say("bridge {number}", number=number + 1)
            found.append(AroundHandle(field, round(angle, 1), spot, (cx, cy), word))
        return found

    def caption(self) -> Caption:
        return Caption(within(self.outline.title))

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(outline=Ring(diameter=76, opening=40), bridge=6)]


_Wish = tuple[int, float | None, tuple[float | None, ...], float]
"""How many bridges for each island, where the first is, those moved by hand, and how wide."""


@dataclass(frozen=True, eq=False)
class _CutOut:
    """A figure, its bridges, and what is cut out of it: the figure less its bridges, or with its
    islands where none is bridged."""

    figure: Region
    cut: Region
    bridges: tuple[Bridge, ...] = ()

    def moved(self, figure: Region, dx: float, dy: float) -> _CutOut:
        """The same for the figure where it has been moved to."""
        bridges = tuple(b.moved(dx, dy) for b in self.bridges)
        return _CutOut(figure, self.cut.transformed(translation(dx, dy)), bridges)


_RECALLED: Recalled[_CutOut] = Recalled()


@with_figures
def _bridged(figure: Region, wish: _Wish | None) -> _CutOut:
    if wish is None:
        return _CutOut(figure, filled(figure))
    count, turn, own, width = wish
    bridges: list[Bridge] = []
    known: dict[bytes, tuple[list[Bridge], float, float]] = {}
    """Those of islands that are alike but for their place, and where the first of them is."""
    for ring, shell in enumerate(figure.shell.tolist()):
        if shell == ring:
            continue
        island, edge = figure.contour(ring), figure.contour(int(shell))
        moved = own[len(bridges) : len(bridges) + count]
        x, y = edge.bounds.left, edge.bounds.head
        key = b"" if moved else _alike(island, x, y) + _alike(edge, x, y)
        if key not in known:
            known[key] = (bridges_of(island, edge, count, turn_deg=turn, own=moved), x, y)
        found, left, head = known.pop(key) if moved else known[key]
        bridges += [b.moved(x - left, y - head) for b in found]
    cut = difference(figure, union_all([_strip(bridge, width) for bridge in bridges]))
    return _CutOut(figure, cut, tuple(bridges))


def _alike(contour: Contour, x: float, y: float) -> bytes:
    """The same for contours that are alike as seen from a place, to a millionth of a mm."""
    s = contour.segments.transformed(translation(-x, -y))
    numbers = np.hstack([s.coef, s.span, s.start, s.end])
    return s.kind.tobytes() + np.rint(numbers * 1e6).astype(np.int64).tobytes()


def _strip(bridge: Bridge, width: float) -> Region:
    """A rectangle along the bridge, half its width longer at either end, so that curved edges are
    reached all across."""
    (ax, ay), (bx, by) = bridge.start, bridge.end
    flat = rectangle(Box(-width / 2, -width / 2, bridge.length + width / 2, width / 2))
    turn = math.degrees(math.atan2(by - ay, bx - ax))
    return flat.transformed(after(translation(ax, ay), rotation(turn)))
