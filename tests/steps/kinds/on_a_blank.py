"""Steps on a blank of A2, and what comes of them."""

from __future__ import annotations

from typing import Any

from stileblade.design.evaluation import PieceOutcome, evaluate
from stileblade.errors import StepError
from stileblade.piece.work import Work
from tests.conftest import design_of

BLANK = {"kind": "blank"}


def piece_of(*steps: dict[str, Any], **card: Any) -> PieceOutcome:
    return evaluate(design_of(BLANK, *steps, **card)).pieces[0]


def work_of(*steps: dict[str, Any], **card: Any) -> Work:
    piece = piece_of(*steps, **card)
    assert [o.problem for o in piece.outcomes] == [None] * len(piece.outcomes)
    assert piece.work is not None
    return piece.work


def problem_of(*steps: dict[str, Any], **card: Any) -> StepError:
    problem = piece_of(*steps, **card).outcomes[-1].problem
    assert problem is not None
    return problem
