"""G-code: G21 G90 G17, M6 with the tool, G0 up and G1 to G3 down, y upwards from the near left corner.

Curves are arcs within 0.003 mm; the tool is lifted by its height or by M5 and M3, as the machine says.
"""

from __future__ import annotations

import numpy as np

from stileblade.formats.format import register_format
from stileblade.formats.machines import chosen_machine
from stileblade.formats.options import FileOptions
from stileblade.formats.passes import passes_of
from stileblade.formats.plan import Plan
from stileblade.geometry.paths.ways import Way
from stileblade.machine.machine import Lifting, Machine


def _number(value: float) -> str:
    text = f"{value:.4f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


@register_format(
    "gcode", title="G-code", about="passes in order, arcs as arcs, for the machine chosen",
    media_type="text/x-gcode", runs=True,
)  # fmt: skip
def gcode(plan: Plan, options: FileOptions) -> bytes:
    """The plan as G-code. DocumentError where the machine lacks a tool for it."""
    machine = chosen_machine(plan, options)
    up, down = _lifts(machine)
    words = [plan.title, *filter(None, [plan.turning]), *plan.findings]
    said = [*(f"({_comment(text)})" for text in words), "G21", "G90", "G17", up]
    tool = 0
    for done in passes_of(plan, machine):
        said.append(f"({_comment(done.name)})")
        if done.tool.number != tool:
            tool = done.tool.number
            said.append(f"M6 T{tool}")
        said.append(f"F{_number(done.tool.speed * 60)}")
        for stroke in done.strokes:
            said += _moves(stroke.axis.turned_over(plan.height), up, down)
    said += ["M2", ""]
    return "\n".join(said).encode("ascii")


def _comment(text: str) -> str:
    """Words that cannot end the comment or the line; letters of other scripts are left out."""
    plain = text.encode("ascii", "ignore").decode("ascii")
    return "".join(" " if c in "()\r\n;%" else c for c in plain).strip() or "sheet"


def _lifts(machine: Machine) -> tuple[str, str]:
    if machine.lifting is Lifting.SWITCH:
        return "M5", "M3"
    return f"G0 Z{_number(machine.up)}", f"G1 Z{_number(machine.down)}"


def _moves(way: Way, up: str, down: str) -> list[str]:
    points = np.round(way.points, 4)
    said = [f"G0 X{_number(points[0, 0])} Y{_number(points[0, 1])}", down]
    # where an arc comes to lie from its rounded ends
    at = Way(points, way.bulges)
    for a, b, bulge, centre in zip(points[:-1], points[1:], way.bulges, at.centres, strict=True):
        to = f"X{_number(b[0])} Y{_number(b[1])}"
        if (a == b).all():
            continue
        if abs(bulge) < 1e-6:
            said.append(f"G1 {to}")
            continue
        i, j = centre - a
        # as seen with y upwards, a bulge from x to y runs against the clock
        said.append(f"{'G3' if bulge > 0 else 'G2'} {to} I{_number(i)} J{_number(j)}")
    return [*said, up]
