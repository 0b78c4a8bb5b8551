"""Files held against their sheets: reading, running and judging, by how many segments they have.

python -m bench.judging
"""

from __future__ import annotations

import math

import numpy as np

from bench.timing import best
from stileblade.cutter.play import play
from stileblade.cutter.sent import read_sent
from stileblade.machine.operation import Operation
from stileblade.machine.shipped import FLATBED
from stileblade.meant.report import report_of
from stileblade.meant.sheet import MeantPiece, MeantSheet

SEGMENTS = (2_500, 10_000, 40_000)
_EACH = 100
"""Segments of a piece, a wavy disc."""
_APART = 14.0
_WIDTH, _HEIGHT = 300.0, 600.0


def sheet(segments: int) -> tuple[bytes, MeantSheet]:
    """A sheet of so many segments as plotter language, and what it is to become."""
    angle = np.linspace(0, 2 * np.pi, _EACH + 1)
    radius = 5 + 0.6 * np.cos(6 * angle)
    disc = np.stack([radius * np.cos(angle), radius * np.sin(angle)], axis=1)
    across = int(_WIDTH // _APART)
    said, pieces = ["IN", "SP3", "VS2"], []
    for n in range(segments // _EACH):
        places = disc + [8 + _APART * (n % across), 8 + _APART * (n // across)]
        units = np.rint(places * 40).astype(int)
        units[-1] = units[0]
        numbers = ",".join(f"{x},{y}" for x, y in units[1:].tolist())
        said += [f"PU{units[0, 0]},{units[0, 1]}", f"PD{numbers}", "PU"]
        down = units / 40 * [1, -1] + [0, _HEIGHT]
        path = "M" + "L".join(f"{x:.4f} {y:.4f}" for x, y in down[:-1].tolist()) + "Z"
        pieces.append(MeantPiece(design="disc", piece=str(n), lines={Operation.CUT_OUTER: path}))
    meant = MeantSheet(format_mm=(_WIDTH, _HEIGHT), pieces=tuple(pieces))
    knife = FLATBED.tool_for(Operation.CUT_OUTER).number
    return ";".join([*said, "SP0;"]).replace("SP3", f"SP{knife}").encode(), meant


def report() -> None:
    print(
        "files judged against their sheets, seconds (wanted: 10,000 segments in 1 s, growth n^1.2)"
    )
    before = 0.0
    for segments in SEGMENTS:
        content, meant = sheet(segments)
        found = report_of(play(read_sent(content, FLATBED), FLATBED), meant)
        assert found.faults == ()
        took = best(
            lambda c=content, m=meant: report_of(play(read_sent(c, FLATBED), FLATBED), m), repeat=3
        )  # type: ignore[misc]
        growth = f"  n^{math.log(took / before) / math.log(4):.2f}" if before else ""
        print(f"  {segments:7,} segments {took:7.2f}{growth}")
        before = took


if __name__ == "__main__":
    report()
