"""Plotter language: IN SP VS PU PD, 40 units a mm, y upwards from the sheet's near left corner.

Curves are chords within 0.003 mm, so that all is within 0.02 mm of the plan.
"""

from __future__ import annotations

import numpy as np

from stileblade.formats.format import register_format
from stileblade.formats.machines import chosen_machine
from stileblade.formats.options import FileOptions
from stileblade.formats.passes import passes_of
from stileblade.formats.plan import Plan
from stileblade.geometry.curves.segments import Floats

UNITS = 40
"""A mm."""
_WITHIN = 0.003
_MOST = 100
"""Places in one command: some plotters read no longer lines."""


@register_format(
    "hpgl", title="Plotter language", about="passes in order, 40 units a mm, for the machine chosen",
    media_type="application/vnd.hp-hpgl", speaks=False, runs=True,
)  # fmt: skip
def hpgl(plan: Plan, options: FileOptions) -> bytes:
    """The plan as commands for a plotter. DocumentError where the machine lacks a tool for it."""
    machine = chosen_machine(plan, options)
    said = ["IN"]
    tool, speed = 0, 0.0
    for done in passes_of(plan, machine):
        if done.tool.number != tool:
            said.append(f"SP{done.tool.number}")
            tool, speed = done.tool.number, 0.0
        if done.tool.speed != speed:
            speed = done.tool.speed
            said.append(f"VS{speed / 10:.6g}")
        for stroke in done.strokes:
            said += _commands(stroke.axis.turned_over(plan.height).flat(_WITHIN))
    said += ["SP0", ""]
    return ";\n".join(said).encode("ascii")


def _commands(places: Floats) -> list[str]:
    units = np.rint(places * UNITS).astype(np.int64)
    apart = np.ones(len(units), bool)
    apart[1:] = (np.diff(units, axis=0) != 0).any(axis=1)
    units = units[apart]
    if len(units) == 1:
        units = np.repeat(units, 2, axis=0)
    said = [f"PU{units[0, 0]},{units[0, 1]}"]
    numbers = units[1:].tolist()
    for i in range(0, len(numbers), _MOST):
        part = ",".join(f"{x},{y}" for x, y in numbers[i : i + _MOST])
        said.append(f"PD{part}")
    return [*said, "PU"]
