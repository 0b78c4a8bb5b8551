"""Lines for the machine, by operation."""

from __future__ import annotations

from dataclasses import dataclass, replace

from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.machine.operation import Operation


@dataclass(frozen=True, eq=False)
class Line:
    """A contour or an open line of one operation; ``step`` made it, where that is known. ``group`` is
    its group within the operation, "" for none; cuts of a later ``round`` come after all of an earlier."""

    segments: Segments
    closed: bool
    step: str = ""
    group: str = ""
    round: int = 0

    def moved(self, matrix: Floats) -> Line:
        return replace(self, segments=self.segments.transformed(matrix))


Lines = dict[Operation, list[Line]]


def nothing() -> Lines:
    """No lines of any operation."""
    return {operation: [] for operation in Operation}


def rounds_of(lines: Lines) -> list[tuple[Operation, int]]:
    """Operations in the order in which they are done, with the round; those of the first round always."""
    later = {(op, line.round) for op, some in lines.items() for line in some if line.round}
    first = [(op, 0) for op in Operation]
    return first + sorted(later, key=lambda pair: (pair[1], list(Operation).index(pair[0])))
