"""Polylines beside each other."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import shapely

from stileblade.geometry.curves.segments import Floats


def along_others(
    lines: Sequence[Floats], others: Sequence[Floats], near: float, least: float
) -> list[Floats]:
    """Stretches, longer than ``least`` mm, of polylines (n, 2) that run no farther than ``near`` mm from one
    of the others."""
    ours, theirs = (
        shapely.multilinestrings([shapely.linestrings(line) for line in some if len(line) > 1])
        for some in (lines, others)
    )
    (l0, h0, r0, f0), (l1, h1, r1, f1) = shapely.bounds(ours), shapely.bounds(theirs)
    if not (l0 <= r1 + near and l1 <= r0 + near and h0 <= f1 + near and h1 <= f0 + near):
        return []  # also where there are none, which have no box
    strips = shapely.buffer(theirs, near, quad_segs=2)
    found = shapely.get_parts(shapely.line_merge(shapely.intersection(ours, strips)))
    return [
        np.asarray(shapely.get_coordinates(part))
        for part in found
        if shapely.get_type_id(part) == 1 and shapely.length(part) > least
    ]
