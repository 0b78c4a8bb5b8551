"""Files with one character changed: what comes of them is what was designed, or a fault is found, or they are refused."""

from __future__ import annotations

import random
import string

import numpy as np
import pytest

from stileblade.cutter.play import Played, play
from stileblade.cutter.sent import read_sent
from stileblade.errors import ReadingError
from stileblade.formats.options import FileOptions
from stileblade.geometry.measures.nearness import Near, spaced
from stileblade.machine.shipped import FLATBED
from stileblade.meant.report import report_of
from stileblade.sheets.files import files_of_sheets
from tests.conftest import TIMES
from tests.meant.test_report import sheets

FEELS = 0.12
"""mm: what is off by less is as it was designed."""


def by_tool(played: Played) -> dict[int, list[np.ndarray]]:
    found: dict[int, list[np.ndarray]] = {}
    for run in played.runs:
        found.setdefault(run.tool.number, []).append(run.places)
    return found


def is_same(played: Played, other: Played) -> bool:
    """Whether all tools run along the same lines, in both directions of comparing."""
    a, b = by_tool(played), by_tool(other)
    if set(a) != set(b):
        return False
    return all(
        Near(there).away(np.concatenate([spaced(line, 0.5) for line in here])).max() <= FEELS
        for one, two in ((a, b), (b, a))
        for number, here in one.items()
        for there in [two[number]]
    )


@pytest.mark.parametrize("kind", ["hpgl", "gcode", "svg", "dxf"])
def test_no_change_of_a_character_is_silent(kind: str) -> None:
    made = files_of_sheets(sheets(), kind, FileOptions())[0]
    content, meant = made.files[0].content, made.sheet.meant()
    right = play(read_sent(content, FLATBED), FLATBED)
    chance = random.Random(kind)
    silent = []
    for _ in range(40 * TIMES):
        at = chance.randrange(len(content))
        new = chance.choice(string.printable).encode()
        changed = content[:at] + new + content[at + 1 :]
        try:
            played = play(read_sent(changed, FLATBED), FLATBED)
        except ReadingError:
            continue
        if not is_same(right, played) and not report_of(played, meant).faults:
            silent.append((at, content[at : at + 1], new, content[max(0, at - 30) : at + 30]))
    assert not silent
