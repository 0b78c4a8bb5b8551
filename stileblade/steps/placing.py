"""Placing a further figure by anchors and exact offsets: shared by weld, cut away, window."""

from __future__ import annotations

from enum import StrEnum
from functools import lru_cache
from typing import Any

import numpy as np

from stileblade.errors import StepError
from stileblade.fields import angle, choice, length, number_of, offset, special, switch
from stileblade.geometry.curves.places import Box, around
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import rotation, translation
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import intersection, rectangle
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figure import Figure, outline_of
from stileblade.outlines.figures.round import Circle
from stileblade.piece.carrying import carried, closed_box, closed_fronts
from stileblade.piece.windows import Copy
from stileblade.piece.work import CLOSED, Work
from stileblade.steps.handle import BoxHandle, Handle, Moved, Sizing
from stileblade.steps.repeating import (
    Also,
    Repeat,
    as_many_as_fit,
    in_grid,
    in_ring,
    mirrored_too,
    together,
)
from stileblade.steps.step import Setting, Step
from stileblade.words import within


class Anchor(StrEnum):
    """Nine places of a box: head, middle, foot by left, centre, right."""

    HEAD_LEFT = "head-left"
    HEAD = "head"
    HEAD_RIGHT = "head-right"
    LEFT = "left"
    CENTRE = "centre"
    RIGHT = "right"
    FOOT_LEFT = "foot-left"
    FOOT = "foot"
    FOOT_RIGHT = "foot-right"

    def of(self, box: Box) -> tuple[float, float]:
        """The place in a box."""
        x = box.left if "left" in self else box.right if "right" in self else box.centre[0]
        y = box.head if "head" in self else box.foot if "foot" in self else box.centre[1]
        return x, y


def place_at(region: Region, spot: tuple[float, float], by: Anchor, dx: float, dy: float) -> Region:
    """The region with its own anchor ``by`` at a spot, moved on by dx and dy."""
    x, y = by.of(region.bounds)
    return region.transformed(translation(spot[0] - x + dx, spot[1] - y + dy))


_ANCHORED = {"repeat": [Repeat.ONCE, Repeat.GRID, Repeat.RING]}
"""As many as fit fill what they are placed on, whatever anchor there is."""


def anchor_at(default: Anchor) -> Anchor:
    """The field for the place that a figure is set to."""
    at: Anchor = special(
        default,
        "Position",
        "The place on the panel that it is set to.",
        control="anchor",
        when=_ANCHORED,
    )
    return at


class PlacedStep(Step):
    """A step that sets a figure at an anchor of a panel, of the card or of the figure."""

    outline: AnyFigure = figure_field(Circle(diameter=20), "Figure", "Its outline.")
    turn: float = angle(0, "Turn", "Clockwise, about the centre of its box.")
    target: str = special(
        "front", "On", "The panel, or the open card, that it is placed by.", control="target"
    )
    at: Anchor = anchor_at(Anchor.CENTRE)
    by: Anchor = special(
        Anchor.CENTRE,
        "Its point",
        "The point of the figure's own box that is set there.",
        control="anchor",
        when=_ANCHORED,
    )
    dx: float = offset(0, "To the right", "Moved on from there; negative is to the left.")
    dy: float = offset(0, "Down", "Moved on from there; negative is up.")

    edge_strip: float = length(
        0,
        "Strip at the edges",
        "Left to stand along the edges where the front's panels meet; 0 is none.",
        least=0,
        most=100,
        when={"target": [CLOSED]},
    )
    repeat: Repeat = choice(
        Repeat.ONCE,
        "Repeated",
        "How often it is set.",
        once="once",
        grid="in columns and rows",
        ring="in a ring",
        fit="as many as fit, evenly",
    )
    columns: int = number_of(
        3, "Columns", "Side by side.", least=1, most=100, when={"repeat": ["grid"]}
    )
    rows: int = number_of(2, "Rows", "Below each other.", least=1, most=100,
                          when={"repeat": ["grid"]})  # fmt: skip
    gap: float = offset(8, "Between", "From one to the next; to the edges as well where they fill it.",
                        when={"repeat": ["grid", "fit"]})  # fmt: skip
    count: int = number_of(8, "How many", "Round the ring.", least=1, most=120,
                           when={"repeat": ["ring"]})  # fmt: skip
    radius: float = length(30, "Radius", "From the ring's centre to theirs.", least=0,
                           when={"repeat": ["ring"]})  # fmt: skip
    also: Also = choice(
        Also.NO,
        "Mirror images",
        "Its mirror images about the middle of what it is placed on.",
        no="none",
        sides="at the other side",
        ends="at the other end",
        corners="at all four corners",
    )

    also_on: str = special(
        "",
        "The same on",
        "Another panel that has the same: what is changed here changes there.",
        control="target",
        empty="no other panel",
    )
    mirrored: bool = switch(
        True,
        "Mirrored there",
        "As if the card were folded on it, or in the same place as here.",
        when={"also_on": ["*"]},
    )

    def placed(self, work: Work, setting: Setting) -> Region:
        """The figure, and all its copies, where the values put it."""
        return outline_of_all([c for _, copies in self.by_panel(work, setting) for c in copies])

    def by_panel(self, work: Work, setting: Setting) -> list[tuple[str, list[Copy]]]:
        """The figure and its copies on the panel that it is placed by, and on the other one that has
        the same; over the closed card's front, what of them lies on each of its panels."""
        here = self.here(work, setting)
        if self.target == CLOSED:
            return self._over_the_front(work, here)
        found = [(work.panel_name(self.target), here)]
        return found + [(self.also_on, self.there(here, work))] if self.also_on else found

    def here(self, work: Work, setting: Setting) -> list[Copy]:
        """The figure and its copies on the panel that it is placed by."""
        return mirrored_too(self._first(work, setting), self.target_box(work), self.also)

    def target_box(self, work: Work) -> Box:
        """The box that it is placed by."""
        return closed_box(work) if self.target == CLOSED else work.box_of(self.target)

    def targets(self, before: Work) -> list[str]:
        more = [CLOSED] if before.closed_over_several else []
        return super().targets(before) + more

    def _over_the_front(self, work: Work, here: list[Copy]) -> list[tuple[str, list[Copy]]]:
        """Parts of what lies over the closed front, each on its panel in the flat view; a strip stays
        along the panels' meeting edges where one is wished for."""
        found = []
        for name, box, back in closed_fronts(work):
            inner = _shrunk_at_meeting_edges(work, box, self.edge_strip)
            part = rectangle(inner)
            copies = [intersection(c.outline, part) for c in here]
            over = bool(np.linalg.det(back[:, :2]) < 0)
            some = [Copy(c.transformed(back), over) for c in copies if c]
            if some:
                found.append((name, some))
        if not found:
            raise StepError("It lies beside the closed card's front.", field="dx", would_do=0.0)
        return found

    @property
    def sizable(self) -> bool:
        """Whether the figure's own values give it its size."""
        return True

    def turned_figure(self, work: Work, setting: Setting) -> Region:
        """The figure in its size and turn, wherever it is."""
        return turned(outline_of(self.outline, setting.shelf), self.turn)

    def _first(self, work: Work, setting: Setting) -> list[Region]:
        """The figure and its repeats, without those at other sides and on other panels."""
        box, region = self.target_box(work), self.turned_figure(work, setting)
        if self.repeat is Repeat.FIT:
            move = translation(self.dx, self.dy)
            return [copy.transformed(move) for copy in as_many_as_fit(region, box, self.gap)]
        copies = [region]
        if self.repeat is Repeat.GRID:
            copies = in_grid(region, self.columns, self.rows, self.gap, self.gap)
        elif self.repeat is Repeat.RING:
            copies = in_ring(region, self.count, self.radius)
        (x, y), (u, v) = self.by.of(around([c.bounds for c in copies])), self.at.of(box)
        move = translation(u - x + self.dx, v - y + self.dy)
        return [copy.transformed(move) for copy in copies]

    def there(self, here: list[Copy], work: Work) -> list[Copy]:
        """The same on the other panel: where it would lie by folding, or by the same anchor."""
        there, over = self._to_there(work)
        return [Copy(c.outline.transformed(there), c.mirrored != over) for c in here]

    def _to_there(self, work: Work) -> tuple[Floats, bool]:
        """The map to the other panel, and whether it mirrors."""
        here, there = work.box_of(self.target), work.box_of(self.also_on, field="also_on")
        if here == there:
            raise StepError(
                "It is on that panel already.", hint="Choose another one.", field="also_on"
            )
        if not self.mirrored:
            (x, y), (u, v) = self.at.of(here), self.at.of(there)
            return translation(u - x, v - y), False
        names = [next((p.name for p in work.panels if p.box == b), "") for b in (here, there)]
        if not all(names):
            raise StepError(
                "Only what is on one panel can be mirrored onto another.",
                hint="Place it by a panel, not by the open card.",
                field="also_on",
            )
        matrix = carried(work, names[0], names[1], field="also_on")
        return matrix, bool(np.linalg.det(matrix[:, :2]) < 0)

    def scaled_by(self, factor: float, setting: Setting) -> dict[str, Any]:
        if not self.sizable:
            return {}
        places = {name: getattr(self, name) * factor for name in ("dx", "dy", "gap", "radius")}
        return {"outline": self.outline.scaled(factor, setting.shelf), **places}

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        region, sizing = together(self._first(before, setting)), None
        alone = self.repeat is Repeat.ONCE
        if alone and self.sizable:
            sizing = sizing_of(self.outline, self.turn, setting, self.by.of(region.bounds))
        word, turn = within(self.outline.title), self.turn if alone else None
        return [BoxHandle(*self.moves(before), region.bounds, region, word, sizing, turn)]

    def moves(self, before: Work) -> tuple[Moved, Moved]:
        return Moved("dx", self.dx), Moved("dy", self.dy)


def _shrunk_at_meeting_edges(work: Work, box: Box, strip: float) -> Box:
    """A front panel's box in the closed card, less a strip along the edges that are towards the others."""
    if not strip:
        return box
    whole = closed_box(work)
    upright = whole.width - box.width > whole.height - box.height
    if upright:
        left = box.left + (strip if box.left > whole.left + 1e-6 else 0)
        return Box(
            left, box.head, box.right - (strip if box.right < whole.right - 1e-6 else 0), box.foot
        )
    head = box.head + (strip if box.head > whole.head + 1e-6 else 0)
    return Box(box.left, head, box.right, box.foot - (strip if box.foot < whole.foot - 1e-6 else 0))


def outline_of_all(copies: list[Copy]) -> Region:
    return together([copy.outline for copy in copies])


@lru_cache(maxsize=128)
def turned(region: Region, turn: float) -> Region:
    """The region turned about its middle: one and the same for one and the same, so that what is
    made of it is remembered."""
    return region.transformed(rotation(turn, about=region.bounds.centre)) if turn else region


def sizing_of(
    figure: Figure, turn: float, setting: Setting, fixed: tuple[float, float]
) -> Sizing | None:
    """How a figure that is turned by an angle is sized about a place of its box."""
    sizes = figure.sizes(outline_of(figure, setting.shelf).bounds)

    def value(name: str) -> tuple[tuple[str, float], ...]:
        return ((f"outline.{name}", getattr(figure, name) or sizes.shown),) if name else ()

    if sizes.both:
        return Sizing(fixed, both=value(sizes.both))
    across, down = value(sizes.across), value(sizes.down)
    if not across:
        return None
    if turn % 180 == 0:
        return Sizing(fixed, across, down)
    if turn % 90 == 0:
        return Sizing(fixed, down, across)
    return Sizing(fixed, both=across + down)
