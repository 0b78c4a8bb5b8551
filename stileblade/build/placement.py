"""Placing a further figure by anchors and exact offsets: shared by weld, cut away, window."""

from __future__ import annotations

from enum import StrEnum

from stileblade.build.step import Handle, Setting, Step
from stileblade.build.work import Work
from stileblade.fields import angle, offset, special
from stileblade.geometry.region import Box, Region
from stileblade.geometry.transforms import rotation, translation
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figure import outline_of
from stileblade.outlines.figures.round import Circle


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


class PlacedStep(Step):
    """A step that sets a figure at an anchor of a panel, of the card or of the figure."""

    outline: AnyFigure = figure_field(Circle(diameter=20), "Figure", "Its outline.")
    turn: float = angle(0, "Turn", "Clockwise, about the centre of its box.")
    target: str = special(
        "front", "On", "The panel, or the open card, that it is placed by.", control="target"
    )
    at: Anchor = special(
        Anchor.CENTRE, "At", "The place on the panel that it is set to.", control="anchor"
    )
    by: Anchor = special(
        Anchor.CENTRE,
        "By",
        "The place of the figure's own box that is set there.",
        control="anchor",
    )
    dx: float = offset(0, "To the right", "Moved on from there; negative is to the left.")
    dy: float = offset(0, "Down", "Moved on from there; negative is up.")

    def placed(self, work: Work, setting: Setting) -> Region:
        """The figure where the values put it."""
        region = outline_of(self.outline, setting.shelf)
        region = region.transformed(rotation(self.turn, about=region.bounds.centre))
        return place_at(region, self.at.of(work.box_of(self.target)), self.by, self.dx, self.dy)

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        region = self.placed(before, setting)
        box = region.bounds
        return [
            Handle(
                "box",
                "dx",
                self.dx,
                field_y="dy",
                value_y=self.dy,
                box=(box.left, box.head, box.right, box.foot),
                outline=region,
                word=self.outline.title.lower(),
            )
        ]
