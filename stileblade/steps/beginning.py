"""What a card can be begun with: each kind of step says itself how it makes a card of a figure."""

from __future__ import annotations

from dataclasses import dataclass

from stileblade.card.folding import Folding
from stileblade.card.ways import WAYS
from stileblade.errors import StepError
from stileblade.outlines.figure import Figure, outline_of
from stileblade.piece.work import Work
from stileblade.steps.step import STEPS, Setting, Step
from stileblade.words import say, within


@dataclass(frozen=True, eq=False)
class Begun:
    """The card that is begun: its size, way of folding and paper, the figure, and how it gets its size: as large
    as the closed card takes it less a margin in mm, or its own."""

    setting: Setting
    figure: Figure
    margin: float = 0.0
    fits: bool = True

    @property
    def own_size(self) -> tuple[float, float]:
        """Width and height in mm of the figure before it is fitted."""
        box = outline_of(self.figure, self.setting.shelf).bounds
        return box.width, box.height

    @property
    def figure_steps(self) -> tuple[Step, ...]:
        """The steps that make the figure by itself."""
        return next(steps for kind in STEPS if (steps := kind.begun_with(self)))

    @property
    def blank_steps(self) -> tuple[Step, ...]:
        """The steps that make the card's panels."""
        return next(steps for kind in STEPS if (steps := kind.begun_plain()))

    @property
    def no_halves(self) -> str:
        """Why the card is not made of two mirrored halves."""
        able = ", ".join(within(way.title) for way in WAYS if way.mirrors)
        return say(
            "{title}: not made of two mirrored halves. Choose {able}.",
            title=self.setting.folding.way.title,
            able=able,
        )

    def made(self, steps: tuple[Step, ...]) -> Work:
        """The work after the steps. StepError where one cannot be applied."""
        work = None
        for step in steps:
            work = step.apply(work, self.setting)
        if work is None or not work.paper:
            raise StepError("There is no paper to begin with.")
        return work


@dataclass(frozen=True)
class Beginning:
    """A way to begin: the steps of the card's base, and how it is folded where that is not as chosen.
    Those of a lower ``place`` are offered first. ``size`` is the figure's width and height in mm on the card,
    None where it has no part in it; ``why`` says why the way is not open to this card or figure, and then
    there are no steps."""

    key: str
    place: int
    title: str
    about: str
    steps: tuple[Step, ...] = ()
    size: tuple[float, float] | None = None
    folding: Folding | None = None
    why: str = ""
