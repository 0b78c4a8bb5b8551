"""Start: a part that was split off another piece."""

from __future__ import annotations

from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import number_of, special
from stileblade.geometry.curves.places import Box
from stileblade.piece.parts import Parted
from stileblade.piece.work import Work
from stileblade.steps.step import (
    Caption,
    PartTaken,
    Setting,
    Stage,
    StartsWith,
    Step,
    Told,
    register_step,
)
from stileblade.words import say


@register_step
class Part(Step):
    """A part that a split cut off another piece, as the start of a piece of its own. It follows
    every change of that piece; its folds and lines come with it."""

    stage = Stage.OUTLINE
    title = "Part of a piece"
    words = "split start rest other half offcut"
    sayings = (
        "other half",
        "use the rest",
        "what was cut off",
        "the offcut",
    )
    starts_with = StartsWith.PART
    kind: Literal["part"] = "part"
    piece: str = special("base", "Piece", "The piece that was split.", control="piece")
    step: str = special("", "Split by", "Which split; empty means the last.", control="hidden")
    number: int = number_of(
        1, "Part", "Counted from left to right and from head to foot.", least=1, most=400
    )

    @classmethod
    def taking(cls, part: PartTaken) -> Part:
        return cls(piece=part.piece, step=part.step, number=part.number)

    @property
    def takes_part(self) -> PartTaken:
        return PartTaken(self.piece, self.step, self.number)

    def _parted(self, setting: Setting) -> tuple[Work, Parted]:
        work = setting.pieces.get(self.piece)
        if work is None:
            raise StepError(
                say("There is no piece {piece!r} before this one.", piece=self.piece),
                hint="Choose a piece that stands before it.",
                field="piece",
            )
        for parted in reversed(work.parted):
            if self.step in ("", parted.step):
                return work, parted
        raise StepError(
            say("The piece {piece!r} is not split", piece=self.piece)
            + (say(" by {step!r}.", step=self.step) if self.step else "."),
            hint="Split it first: the parts that it does not keep can be taken from there.",
            field="step" if self.step else "piece",
        )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        whole, parted = self._parted(setting)
        if self.number > len(parted.parts):
            raise StepError(
                say(
                    "There is no part {number}: the split makes {n}.",
                    number=self.number,
                    n=len(parted.parts),
                ),
                field="number",
                would_do=len(parted.parts),
            )
        paper = parted.parts[self.number - 1]
        box = paper.bounds
        panels = tuple(p for p in whole.panels if _shares(p.box, box))
        names = [p.name for p in panels]
        front = whole.front if whole.front in names else (names[-1] if names else "")
        return Work(
            paper,
            panels,
            whole.folds,
            reference=box,
            lines=whole.lines_on_paper,
            front=front,
            fronts=tuple(n for n in whole.fronts if n in names),
            lies_on=whole.lies_on if whole.lies_on in names else "",
        )

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        box = after.paper.bounds
        _, parted = self._parted(setting)
        return [
            Told("Parts", len(parted.parts), "count"),
            Told("Wide", box.width),
            Told("High", box.height),
        ]

    def caption(self) -> Caption:
        return Caption(say("part {number}", number=self.number))

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls()]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        from stileblade.steps.kinds.blank import Blank
        from stileblade.steps.kinds.split import Split

        return [[Blank(), Split(distance=20, strip=6)]]


def _shares(a: Box, b: Box) -> bool:
    return (
        min(a.right, b.right) - max(a.left, b.left) > 0.01
        and min(a.foot, b.foot) - max(a.head, b.head) > 0.01
    )
