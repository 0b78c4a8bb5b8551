"""Steps that do something across a fold: which fold, and where along it."""

from __future__ import annotations

from stileblade.errors import StepError
from stileblade.fields import offset, special
from stileblade.piece.folds import Fold
from stileblade.piece.work import Work
from stileblade.steps.step import Step
from stileblade.words import named, say


def _choosable(work: Work) -> list[Fold]:
    return [f for f in work.folds if f.axis and f.folds and not f.crease.inner]


class OnFold(Step):
    """A step for an upright or level fold."""

    fold: str = special(
        "", "Fold", "Which fold; empty means the first.", control="fold", empty="the first"
    )

    def offers(self, before: Work) -> dict[str, list[str]]:
        return super().offers(before) | {"fold": [fold.name for fold in _choosable(before)]}

    def fold_of(self, work: Work) -> Fold:
        """The fold that is meant. StepError where the piece has none of that name."""
        folding = _choosable(work)
        if not folding:
            raise StepError(
                "The piece has no fold yet.",
                hint="Start with a blank, mirror the figure, or add a fold line.",
                field="fold",
            )
        for fold in folding:
            if self.fold in ("", fold.name):
                return fold
        names = ", ".join(named(f.name) for f in folding)
        raise StepError(
            say("There is no fold {fold!r}.", fold=self.fold),
            hint=say("Folds: {names}.", names=names),
            field="fold",
        )


class AcrossFold(OnFold):
    """A step at a place of a fold, measured from the middle of its paper."""

    along: float = offset(
        0, "Along the fold", "From the middle of the paper on it, down or to the right."
    )

    def middle(self, work: Work, fold: Fold) -> float:
        """The place meant along the fold: y of an upright one, x of a level one."""
        places = [fold.line.place_of(p) for s in work.spans[fold.name] for p in (s.start, s.end)]
        if not places:
            raise StepError(say("There is no paper on {name}.", name=fold.name), field="fold")
        return (min(places) + max(places)) / 2 + self.along

    def must_be_whole(self, work: Work, fold: Fold, low: float, high: float) -> None:
        """StepError unless the fold runs through paper all the way between two places along it."""
        for span in work.spans[fold.name]:
            ends = sorted(fold.line.place_of(p) for p in (span.start, span.end))
            if ends[0] - 0.01 <= low and high <= ends[1] + 0.01:
                return
        raise StepError(
            say("{name} has no paper all the way from {{}} to {{}} along it.", name=fold.name),
            low,
            high,
            hint="Move it along the fold, or make it smaller.",
            field="along",
            would_do=0.0,
        )
