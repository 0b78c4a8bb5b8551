"""How a crease is made: the values that the steps about folds share."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum
from typing import Any

from stileblade.fields import choice, length
from stileblade.piece.folds import Fold, Made
from stileblade.steps.step import Step


class ScoredFrom(StrEnum):
    USUAL = "usual"
    INSIDE = "inside"


def made_by(default: Made) -> Made:
    """The field for how a crease is made."""
    made: Made = choice(
        default,
        "Made by",
        "How the crease is made.",
        score="scoring",
        perforate="perforating",
        none="nothing",
    )
    return made


class CreasingStep(Step):
    """A step that says how folds are made."""

    made: Made = made_by(Made.SCORE)
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
    spine: float = length(
        0,
        "Spine",
        "Distance of a double score, for bulk between the panels; 0 is a single one.",
        least=0,
        most=50,
        when={"made": ["score"]},
    )
    scored_from: ScoredFrom = choice(
        ScoredFrom.USUAL,
        "Scored from",
        "The groove lies on the outside of the bend, as is usual, or always on the inside.",
        usual="the outside of the bend",
        inside="the inside of the card",
        when={"made": ["score"]},
    )

    @classmethod
    def model_json_schema(cls, *args: Any, **more: Any) -> dict[str, Any]:
        """How a crease is made comes after where it is."""
        schema = super().model_json_schema(*args, **more)
        last = CreasingStep.model_fields.keys() - Step.model_fields.keys()
        schema["properties"] = dict(
            sorted(schema["properties"].items(), key=lambda p: p[0] in last)
        )
        return schema

    def onto(self, fold: Fold) -> Fold:
        """The fold, made as these values say."""
        return replace(
            fold,
            made=self.made,
            cut=self.cut,
            leave=self.leave,
            setback=self.setback,
            spine=self.spine if self.made is Made.SCORE else 0.0,
            inside=self.scored_from is ScoredFrom.INSIDE,
        )
