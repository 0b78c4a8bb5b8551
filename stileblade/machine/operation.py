"""What is done to a sheet, in the order in which it is done."""

from __future__ import annotations

from enum import StrEnum


class Operation(StrEnum):
    """In the order of the passes, so that a piece is held by its sheet until the last."""

    SCORE = "score"
    PERFORATE = "perforate"
    PRICK = "prick"
    DRAW = "draw"
    CUT_INNER = "cut-inner"
    CUT_OUTER = "cut-outer"

    @property
    def parts(self) -> bool:
        """Whether paper may come loose by it."""
        return self in (Operation.CUT_INNER, Operation.CUT_OUTER)


CUTS = (Operation.CUT_INNER, Operation.CUT_OUTER)
THROUGH = (Operation.PERFORATE, Operation.PRICK, *CUTS)
"""What goes through the paper."""
ORDER = {operation: number for number, operation in enumerate(Operation)}
WORDS = {
    Operation.SCORE: "score",
    Operation.PERFORATE: "perforate",
    Operation.PRICK: "prick",
    Operation.DRAW: "draw",
    Operation.CUT_INNER: "inner cuts",
    Operation.CUT_OUTER: "outer cuts",
}
