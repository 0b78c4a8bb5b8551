"""What is wrong with a layout, measured exactly."""

from __future__ import annotations

from collections.abc import Sequence

from stileblade.geometry.measures import rows
from stileblade.sheets.layout.parts import Format, Placed

_EXACT = 1e-6


def apart(placed: Sequence[Placed], form: Format, *, within: float = _EXACT) -> list[str]:
    """What is wrong with a layout, measured exactly: pieces nearer than the gap, or over the edge, by more
    than ``within`` mm. What is locked is not held against itself: a person put it there."""
    wrong = []
    by_sheet: dict[int, list[Placed]] = {}
    for p in placed:
        by_sheet.setdefault(p.sheet, []).append(p)
    for number, some in sorted(by_sheet.items()):
        locked = [p.shape for p in some if p.locked]
        others: list[rows.Shape] = [*form.blocked(number), *locked]
        for p in (p for p in some if not p.locked):
            left, head, right, foot = rows.box_of(p.shape)
            over = max(
                form.edge - left, form.edge - head, right - form.width + form.edge,
                foot - form.height + form.edge,
            )  # fmt: skip
            if over > within:
                wrong.append(f"{p.part.key} is {over:.3f} mm over the edge of sheet {number + 1}")
            away, _ = rows.nearest(p.shape, others, form.gap)
            if away < form.gap - within:
                wrong.append(
                    f"{p.part.key} is {max(away, 0):.3f} mm from another on sheet {number + 1}"
                )
            others.append(p.shape)
    return wrong
