"""How a fold is made."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import special
from stileblade.piece.folds import Made
from stileblade.piece.work import Work
from stileblade.steps.creasing import CreasingStep, made_by
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, register_step
from stileblade.words import named, say


@register_step
class Crease(CreasingStep):
    """Folds scored or perforated, or left for folding by hand; scores may stop short, or be double
    where the card gets thick."""

    needs_before = Needs.FOLD
    stage = Stage.FOLDS
    title = "Crease"
    words = "score perforate fold line setback spine double"
    sayings = (
        "two score lines",
        "double crease",
        "spine",
        "thick card fold",
        "perforate the fold",
        "score the fold",
        "make the fold perforated",
        "dashed fold",
    )
    kind: Literal["crease"] = "crease"
    fold: str = special(
        "", "Fold", "Which fold; empty means all.", control="fold", empty="all folds"
    )
    made: Made = made_by(Made.PERFORATE)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        names = [f.name for f in work.folds]
        if not names:
            raise StepError(
                "The piece has no fold yet.",
                hint="Mirror the figure first, or set a fold line.",
                field="fold",
            )
        if self.fold and self.fold not in names:
            raise StepError(
                say("There is no fold {fold!r}.", fold=self.fold),
                hint=say("Folds: {names}.", names=", ".join(map(named, names))),
                field="fold",
            )
        folds = tuple(self.onto(f) if self.fold in ("", f.name) else f for f in work.folds)
        return replace(work, folds=folds)

    def caption(self) -> Caption:
        if self.made is Made.SCORE and self.spine:
            return Caption("spine", self.spine)
        return Caption({"score": "scored", "perforate": "perforated", "none": "by hand"}[self.made])

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(cut=6, leave=4)]
