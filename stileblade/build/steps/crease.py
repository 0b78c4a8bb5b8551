"""How a fold is made."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from stileblade.build.step import Caption, Setting, Stage, Step, register_step
from stileblade.build.work import Made, Work
from stileblade.errors import StepError
from stileblade.fields import choice, length, special


@register_step
class Crease(Step):
    """Folds scored or perforated, or left for folding by hand; scores may stop short."""

    stage = Stage.FOLDS
    title = "Crease"
    words = "score perforate fold line setback"
    kind: Literal["crease"] = "crease"
    fold: str = special("", "Fold", "Which fold; empty means all.", control="fold")
    made: Made = choice(
        Made.PERFORATE,
        "Made by",
        "How the crease is made.",
        score="scoring",
        perforate="perforating",
        none="nothing",
    )
    cut: float = length(
        2,
        "Cut",
        "Length of each cut of a perforation.",
        least=0.2,
        most=50,
        when={"made": ["perforate"]},
    )
    leave: float = length(
        1, "Left", "Paper left between two cuts.", least=0.2, most=50, when={"made": ["perforate"]}
    )
    setback: float = length(
        0,
        "Set-back",
        "How far a score stops before the edge.",
        least=0,
        most=50,
        when={"made": ["score"]},
    )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        names = [f.name for f in work.folds]
        if not names:
            raise StepError(
                "The piece has no fold yet.", hint="Mirror the figure first.", field="fold"
            )
        if self.fold and self.fold not in names:
            raise StepError(
                f"There is no fold {self.fold!r}.", hint=f"Folds: {', '.join(names)}.", field="fold"
            )
        folds = tuple(
            replace(f, made=self.made, cut=self.cut, leave=self.leave, setback=self.setback)
            if self.fold in ("", f.name)
            else f
            for f in work.folds
        )
        return replace(work, folds=folds)

    def caption(self) -> Caption:
        return Caption({"score": "scored", "perforate": "perforated", "none": "by hand"}[self.made])

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.build.steps.blank import Blank

        return [Blank(), cls(cut=6, leave=4)]
