"""Lay a finished piece on a panel."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import angle, offset, special, switch
from stileblade.geometry.curves.transforms import after, rotation, translation
from stileblade.piece.lying import Lying
from stileblade.piece.work import Work
from stileblade.steps.ground import ground_of, seen_from
from stileblade.steps.handle import Moved
from stileblade.steps.placing import Anchor
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step


@register_step
class LayOn(Step):
    """Lays the piece on the panel of the piece that it lies on, whatever it was made of: a part that was split
    off another one, a blank, a figure. Its own folds and lines stay on it."""

    stage = Stage.FOLDS
    title = "Lay it on the card"
    words = "layer place part piece glue host position"
    sayings = ("lay it on the card", "glue the part on", "put the piece on the panel")
    for_layers = True
    lays_piece = True
    kind: Literal["lay-on"] = "lay-on"
    turn: float = angle(0, "Turn", "Clockwise, about the centre of its box.")
    at: Anchor = special(
        Anchor.CENTRE, "Position", "The place on the panel that it is set to.", control="anchor"
    )
    by: Anchor = special(
        Anchor.CENTRE, "Its point", "The point of its own box that is set there.", control="anchor"
    )
    dx: float = offset(0, "To the right", "Moved on from there; negative is to the left.")
    dy: float = offset(0, "Down", "Moved on from there; negative is up.")
    may_stand_out: bool = switch(
        False, "May stand out", "On: it is meant to reach beyond what it lies on."
    )
    may_cover: bool = switch(False, "May cover windows", "On: it is meant to lie over an opening.")

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        if work.lying is not None:
            raise StepError(
                "The piece lies on the card already.",
                hint="Move it with the step that it begins with.",
            )
        ground = ground_of(setting)
        turned = rotation(self.turn, about=work.paper.bounds.centre)
        (x, y), (u, v) = self.by.of(work.paper.transformed(turned).bounds), self.at.of(ground.box)
        frame = after(translation(u - x + self.dx, v - y + self.dy), turned)
        lying = Lying(
            after(seen_from(ground), frame), ground.panel,
            stands_out=self.may_stand_out, covers=self.may_cover,
        )  # fmt: skip
        return replace(work, lying=lying)

    def placed_on(self, setting: Setting) -> Work | None:
        return setting.pieces.get(setting.lies.host)

    def moves(self, before: Work) -> tuple[Moved, Moved]:
        return Moved("dx", self.dx), Moved("dy", self.dy)

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        box = after.paper.bounds
        return [Told("Wide", box.width), Told("High", box.height)]

    def caption(self) -> Caption:
        return Caption(str(self.at))

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.outlines.figures.straight import Rectangle
        from stileblade.steps.kinds.figure import StartFigure

        return [StartFigure(outline=Rectangle(width=50, height=36)), cls()]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        from stileblade.steps.kinds.blank import Blank

        return [[Blank()]]
