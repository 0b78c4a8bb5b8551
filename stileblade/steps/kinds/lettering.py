"""Letters drawn in single strokes."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum
from typing import Any, Literal

from pydantic import Field

from stileblade.errors import StepError
from stileblade.fields import angle, choice, length, offset, special
from stileblade.geometry.curves.measurement import bounds
from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Floats, Segments, concatenate
from stileblade.geometry.curves.transforms import after, rotation, scaling, translation
from stileblade.geometry.regions.along import length_of
from stileblade.outlines.text.strokes import PenFace, set_strokes
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.work import Work
from stileblade.steps.handle import BoxHandle, Handle, Moved
from stileblade.steps.lining import pen_field
from stileblade.steps.placing import Anchor
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step
from stileblade.words import say


class Sized(StrEnum):
    CAPITALS = "capitals"
    WIDTH = "width"
    HEIGHT = "height"


@register_step
class Lettering(Step):
    """Words written by a pen in single strokes, as by hand: each line is drawn once, and not
    round the letters."""

    stage = Stage.WINDOWS
    title = "Pen lettering"
    words = "write text word letters single stroke line font greeting name plotter"
    sayings = (
        "write text",
        "letter",
        "letters",
        "handwriting",
        "name",
        "greeting",
        "happy birthday",
        "pen text",
        "write with a pen",
        "sentiment",
        "sign it",
        "date",
        "initials",
        "single line font",
    )
    takes = ("height",)
    kind: Literal["lettering"] = "lettering"
    text: str = Field("Ahoy", title="Text", description="What is written.", max_length=120)
    face: PenFace = choice(
        PenFace.PLAIN, "Hand", "How it is written.", plain="plain", script="joined"
    )
    sized: Sized = choice(
        Sized.CAPITALS,
        "Size by",
        "What gives the letters their size.",
        capitals="the height of capitals",
        width="the width of it all",
        height="the height of it all",
    )
    height: float = length(
        10, "Capitals", "How high they are.", above=0.5, most=300, when={"sized": ["capitals"]}
    )
    wide: float = length(60, "Wide", "From end to end.", above=1, when={"sized": ["width"]})
    high: float = length(20, "High", "From the highest to the lowest place of it.", above=1,
                         when={"sized": ["height"]})  # fmt: skip
    pen: int = pen_field()
    spacing: float = length(0, "Spacing", "More between the letters.", least=-50, most=200)
    turn: float = angle(0, "Turn", "Clockwise, about its centre.")
    target: str = special("front", "On", "The panel that it is placed by.", control="target")
    at: Anchor = special(Anchor.CENTRE, "Position", "The place on the panel.", control="anchor")
    dx: float = offset(0, "To the right", "Moved on from there; negative is to the left.")
    dy: float = offset(0, "Down", "Moved on from there; negative is up.")

    def ways(self, work: Work) -> list[Segments]:
        """The pen's ways where they are drawn."""
        text = " ".join(self.text.split())
        found = set_strokes(text, self.face, self.height, spacing=self.spacing)
        if found.missing:
            raise StepError(
                say(
                    "There are no strokes for {list}.", list=" ".join(dict.fromkeys(found.missing))
                ),
                hint="Use letters without accents, or draw the word of a font with 'Drawn figure'.",
                field="text",
            )
        if not found.ways:
            raise StepError("There is no text yet.", hint="Type a word.", field="text")
        fit = self._fit(self._box(found.ways))
        ways = [w.transformed(fit) for w in found.ways]
        turn = rotation(self.turn, about=self._box(ways).centre)
        turned = [w.transformed(turn) for w in ways]
        box, (x, y) = self._box(turned), self.at.of(work.box_of(self.target))
        cx, cy = self.at.of(box)
        move = after(translation(x - cx + self.dx, y - cy + self.dy), turn)
        return [w.transformed(move) for w in ways]

    def _fit(self, box: Box) -> Floats:
        """The map that gives the letters the size asked for."""
        share = {
            Sized.CAPITALS: 1.0,
            Sized.WIDTH: self.wide / max(box.width, 1e-6),
            Sized.HEIGHT: self.high / max(box.height, 1e-6),
        }[self.sized]
        return scaling(share, share)

    def _box(self, ways: list[Segments]) -> Box:
        return Box(*bounds(concatenate(ways)))

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        line = DrawnLine(
            self.id, How.DRAW, tuple((way, False) for way in self.ways(work)), self.pen
        )
        if not line.on(work.paper).ways:
            raise StepError("There is no paper under the letters.", field="dx", would_do=0.0)
        return replace(work, lines=(*work.lines, line))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        ways = [
            way for line in after.lines_on_paper if line.step == self.id for way, _ in line.ways
        ]
        box = self._box(ways)
        return [
            Told("Wide", box.width),
            Told("High", box.height),
            Told(
                "Drawn", sum(length_of(way) for way in ways), note=say("{n} strokes", n=len(ways))
            ),
        ]

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        box = self._box(self.ways(before))
        return [BoxHandle(*self.moves(before), box, word="letters", turn=self.turn)]

    def moves(self, before: Work) -> tuple[Moved, Moved]:
        return Moved("dx", self.dx), Moved("dy", self.dy)

    def scaled_by(self, factor: float, setting: Setting) -> dict[str, Any]:
        fields = ("height", "wide", "high", "spacing", "dx", "dy")
        return {name: getattr(self, name) * factor for name in fields}

    def caption(self) -> Caption:
        return Caption(self.text[:18])

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(height=34)]
