"""How a file would turn out in the hand: the sheet put in askew, stretched paper, a worn blade, a trail
that nobody made up for. The same seed gives the same play.
"""

from __future__ import annotations

import random
from dataclasses import replace

import numpy as np
from pydantic import Field

from stileblade.cutter.sent import Sent, Stroke
from stileblade.errors import ReadingError
from stileblade.fields import Values, angle, length, share
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after, rotation, scaling
from stileblade.geometry.curves.vectors import norms
from stileblade.machine.machine import Machine
from stileblade.words import say

_EVERY = 50.0
"""mm in which a worn blade fails once."""
MOST_WORN = 400_000.0
"""mm of lines: each place where the blade fails is looked for in all that comes loose."""


class Conditions(Values):
    """What goes wrong with sheet and blade."""

    askew_deg: float = angle(0, "Put in askew", "The sheet, turned about its middle.")
    stretch: float = share(
        0,
        "Stretched",
        "The sheet, along its height; 0.002 is two mm on a metre.",
        least=-0.02,
        most=0.02,
    )
    worn: float = length(
        0, "Worn blade", "It fails to cut so much in each 50 mm.", least=0, most=10
    )
    trail: float = length(0, "Trail", "Of the knife, not made up for in the file.", least=0, most=2)
    seed: int = Field(1, title="Play", description="Another number, another play.", ge=0, le=10**6)

    @property
    def any(self) -> bool:
        return bool(self.askew_deg or self.stretch or self.worn or self.trail)


def on_sheet(conditions: Conditions, places: Floats, size: tuple[float, float]) -> Floats:
    """Where on the paper places of the machine come to lie (n, 2), of a sheet of that size."""
    askew = rotation(-conditions.askew_deg, about=(size[0] / 2, size[1] / 2))
    # paper that is stretched while it is cut is smaller after
    matrix = after(scaling(1.0, 1.0 / (1.0 + conditions.stretch)), askew)
    return np.asarray(places @ matrix[:, :2].T + matrix[:, 2])


def turned_out(
    sent: Sent, machine: Machine, conditions: Conditions, size: tuple[float, float]
) -> tuple[Sent, Machine]:
    """What the machine really does to a sheet of a size in mm."""
    chance = random.Random(conditions.seed)
    cut = sum(_length(s) for s in sent.strokes)
    if conditions.worn and cut > MOST_WORN:
        raise ReadingError(
            say(
                "The file runs the tool over {length:,.0f} m; a worn blade is tried on {most:.0f} m at most.",
                length=cut / 1000,
                most=MOST_WORN / 1000,
            ),
            hint="Send it in parts, sheet by sheet.",
        )
    knives = {tool.number for tool in machine.tools if tool.cuts}
    found = Sent(
        sent.language, refused=list(sent.refused), left_out=list(sent.left_out), size=sent.size,
        travels_off=sent.travels_off,
    )  # fmt: skip
    for stroke in sent.strokes:
        placed = replace(stroke, places=on_sheet(conditions, stroke.places, size))
        if conditions.worn and stroke.tool in knives:
            for part in _worn(placed, conditions.worn, chance):
                found.add(part)
        else:
            found.add(placed)
    tools = tuple(
        tool.model_copy(update={"trail": max(tool.trail, conditions.trail)}) if tool.cuts else tool
        for tool in machine.tools
    )
    return found, machine.model_copy(update={"tools": tools})


def _worn(stroke: Stroke, fails: float, chance: random.Random) -> list[Stroke]:
    """The stroke in parts, with so much left out in each 50 mm, somewhere."""
    if len(stroke.places) == 1:
        return [stroke]
    ends = np.concatenate([[0.0], np.cumsum(norms(np.diff(stroke.places, axis=0)))])
    total, at, low = float(ends[-1]), 0.0, 0.0
    found = []
    while at < total:
        gap = at + chance.uniform(0, max(_EVERY - fails, 0.0))
        if gap > low and gap < total:
            found.append(_part(stroke, ends, low, gap))
            low = min(gap + fails, total)
        at += _EVERY
    if total > low:
        found.append(_part(stroke, ends, low, total))
    return [part for part in found if len(part.places) > 1]


def _length(stroke: Stroke) -> float:
    return float(norms(np.diff(stroke.places, axis=0)).sum())


def _part(stroke: Stroke, ends: Floats, low: float, high: float) -> Stroke:
    """The stroke between two lengths along it; ``ends`` (n,) are those of its places."""
    inner = slice(np.searchsorted(ends, low, "right"), np.searchsorted(ends, high, "left"))
    cut = np.array([_place_at(stroke.places, ends, at) for at in (low, high)])
    return replace(stroke, places=np.concatenate([cut[:1], stroke.places[inner], cut[1:]]))


def _place_at(places: Floats, ends: Floats, at: float) -> Floats:
    k = min(max(int(np.searchsorted(ends, at)), 1), len(ends) - 1)
    width = ends[k] - ends[k - 1]
    share = (at - ends[k - 1]) / width if width > 0 else 0.0
    return np.asarray(places[k - 1] + share * (places[k] - places[k - 1]))
