"""The passes of a sheet for a picture that plays them."""

from __future__ import annotations

from typing import Any

import numpy as np

from stileblade.formats.passes import Pass, passes_of
from stileblade.machine.operation import WORDS
from stileblade.sheets.sheet import Sheet
from stileblade.words import say

_WITHIN = 0.05
MOST = 60_000
"""Places that are shown of one set-up."""


def passes_data(sheet: Sheet) -> dict[str, Any]:
    """Set-ups with their passes; strokes as flat lists of x and y, y downwards."""
    return {"setups": [_setup(sheet, number) for number in range(len(sheet.plans))]}


def _setup(sheet: Sheet, number: int) -> dict[str, Any]:
    plan = sheet.plans[number]
    made = passes_of(plan, sheet.machine)
    within = _WITHIN
    while True:
        lines = [[stroke.way.flat(within) for stroke in done.strokes] for done in made]
        if sum(len(line) for some in lines for line in some) <= MOST or within > 5:
            break
        within *= 3
    return {
        "inside": plan.inside,
        "turnover": say(plan.turnover),
        "width": plan.width,
        "height": plan.height,
        "passes": [_pass(done, some) for done, some in zip(made, lines, strict=True)],
    }


def _pass(done: Pass, lines: list[Any]) -> dict[str, Any]:
    round_ = say(", round {round}", round=done.round + 1) if done.round else ""
    return {
        "name": WORDS[done.operation] + round_,
        "operation": str(done.operation),
        "group": done.group,
        "tool": done.tool.name,
        "length_mm": round(done.length, 2),
        "lifts": done.lifts,
        "time_s": round(done.time_s, 2),
        "strokes": [np.round(line, 2).ravel().tolist() for line in lines],
    }
