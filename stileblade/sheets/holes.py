"""Register holes, by which a sheet is turned over: near three corners, where nothing else lies."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from stileblade.formats.plan import REGISTER_HOLE
from stileblade.geometry.measures import rows
from stileblade.sheets.layout.parts import Format

HOLE_IN = 4.0
"""mm from the reachable corner to a register hole's middle."""
_APART = 0.3
"""Of the sheet's shorter side: holes that are nearer to each other turn it too loosely."""
Places = tuple[tuple[float, float], ...]


def hole_places(form: Format) -> Places:
    """The middles of the three holes on a sheet where nothing is in their way: head left, head right,
    foot left; in mm from its head left."""
    low = form.edge + HOLE_IN
    right, foot = form.width - low, form.height - low
    return (low, low), (right, low), (low, foot)


def free_holes(form: Format, shapes: Sequence[rows.Shape]) -> Places | None:
    """The places nearest to those that keep the sheet's gap to all shapes; None where there are none, or
    where holes would come too near to each other."""
    clear = form.gap + REGISTER_HOLE / 2
    wanted = hole_places(form)
    away = rows.distances(shapes, np.array(wanted))
    if (away >= clear).all():
        return wanted
    low = form.edge + REGISTER_HOLE / 2
    reach = rows.rectangle(low, low, form.width - low, form.height - low)
    free = rows.beside(reach, shapes, clear)
    found = []
    for place, room in zip(wanted, away, strict=True):
        nearest = place if room >= clear else rows.nearest_place(free, place)
        if nearest is None:
            return None
        found.append(nearest)
    least = _APART * min(form.width, form.height)
    pairs = ((0, 1), (0, 2), (1, 2))
    if any(np.hypot(*np.subtract(found[i], found[j])) < least for i, j in pairs):
        return None
    return tuple(found)
