"""The two machines that come with the application."""

from __future__ import annotations

from stileblade.machine.machine import Lifting, Machine, Tool
from stileblade.machine.operation import CUTS, Operation

_KNIFE = (Operation.PERFORATE, Operation.PRICK, *CUTS)

PLOTTER = Machine(
    name="plotter",
    title="Desktop plotter, two holders",
    bed_width=330,
    bed_height=720,
    tools=(
        Tool(number=3, name="crease tip", does=(Operation.SCORE,), speed=30),
        Tool(number=2, name="pen", does=(Operation.DRAW,), speed=60),
        Tool(number=1, name="knife", does=_KNIFE, speed=20),
    ),
    travel=150,
    lift_s=0.12,
    change_s=20,
    lifting=Lifting.SWITCH,
)

FLATBED = Machine(
    name="flatbed",
    title="Flat bed with pen, crease wheel and knife",
    bed_width=720,
    bed_height=1020,
    tools=(
        Tool(number=3, name="crease wheel", does=(Operation.SCORE,), speed=60),
        Tool(number=2, name="pen", does=(Operation.DRAW,), speed=100),
        Tool(number=1, name="knife", does=_KNIFE, speed=40),
    ),
    travel=300,
    lift_s=0.2,
    change_s=5,
    lifting=Lifting.HEIGHT,
)

MACHINES = (PLOTTER, FLATBED)
