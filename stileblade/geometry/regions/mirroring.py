"""A half and its mirror image in one piece.

The half ends at the axis: its edges that lie there fall away, and each stretch of outline
between them closes with its own image. So both halves are congruent to the last bit, and
nothing has to be looked up. What is not that simple (a half in several parts, or one that
touches the axis in a point) is left to the general union.
"""

from __future__ import annotations

from itertools import pairwise

import numpy as np

from stileblade.geometry.curves.arrays import run_starts
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.measurement import signed_area
from stileblade.geometry.curves.segments import Bools, Segments, concatenate
from stileblade.geometry.curves.transforms import mirror_across
from stileblade.geometry.regions.assemble import rejoin
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import union
from stileblade.tolerance import TOLERANCE


def weld_mirrored(half: Region, *, axis: str, at: float) -> Region:
    """The union of ``half``, which lies on one side of x = at or y = at, and its image."""
    matrix = mirror_across(axis=axis, at=at)
    across = 0 if axis == "x" else 1
    segments = half.segments
    starts = np.abs(segments.start[:, across] - at) < TOLERANCE.grid
    ends = np.abs(segments.end[:, across] - at) < TOLERANCE.grid
    on_axis = starts & ends & (segments.kind == Kind.LINE)
    rings: list[tuple[Segments, Bools]] = []
    for ring in range(len(half.shell)):
        low, high = int(half.rings[ring]), int(half.rings[ring + 1])
        contour, gone = segments.take(slice(low, high)), on_axis[low:high]
        image = contour.transformed(matrix).reversed()
        if not starts[low:high].any():
            rings += [(contour, np.zeros(high - low, bool)), (image, np.zeros(high - low, bool))]
            continue
        chains = _between(gone)
        touches = int(starts[low:high].sum()) != int(gone.sum()) + len(chains)
        if not chains or touches:
            return union(half, half.transformed(matrix))
        n = high - low
        for chain in chains:
            made = concatenate([contour.take(chain), image.take(n - 1 - chain[::-1])])
            # mirroring may move a point of the axis by its last bit
            made.start[len(chain)] = made.end[len(chain) - 1]
            made.start[0] = made.end[-1]
            fresh = np.zeros(len(made), bool)
            fresh[[0, len(chain)]] = True
            rings.append((made, fresh))
    shells = rings if len(rings) == 1 else [r for r in rings if signed_area(r[0]) > 0]
    if len(shells) != 1:
        return union(half, half.transformed(matrix))
    ordered = shells + [r for r in rings if r is not shells[0]]
    sizes = [len(r[0]) for r in ordered]
    return rejoin(
        concatenate([r[0] for r in ordered]),
        np.arange(len(ordered)).repeat(sizes),
        np.zeros(len(ordered), np.int64),
        fresh=np.concatenate([r[1] for r in ordered]),
    )[0]


def _between(gone: Bools) -> list[np.ndarray]:
    """Runs of a ring's segments between those that are gone, each in order of running."""
    n = len(gone)
    first = int(np.argmax(gone))
    if not gone.any():
        return []
    order = (np.arange(n) + first) % n
    kept = ~gone[order]
    stops = np.append(run_starts(kept), n)
    return [order[a:b] for a, b in pairwise(stops) if kept[a]]
