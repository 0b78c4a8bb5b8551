"""From the kernel's buffers back to curves, stage by stage.

``match`` says which offset curve each edge of a buffer is on; runs of one curve are joined
where they meet (``joints``), along the kernel's own polygon where no search finds that
(``bridges``), and made into contours (``finish``). Offsets of regions and outlines of strokes
both come this way.
"""

from __future__ import annotations

import numpy as np

from stileblade.geometry.curves.arrays import neighbours
from stileblade.geometry.curves.fit import as_segments
from stileblade.geometry.curves.segments import Ints
from stileblade.geometry.curves.stretches import Stretches
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.offset.bridges import joined
from stileblade.geometry.offset.finish import contours_of, finished
from stileblade.geometry.offset.joints import (
    at_their_corners,
    reach_of,
    round_their_corners,
    same_turn,
    strides,
    whole_lengths,
    with_flat_mitres,
    without_points,
)
from stileblade.geometry.offset.match import match
from stileblade.geometry.offset.outline import Outline, outline_of
from stileblade.geometry.offset.polygon import Polygon
from stileblade.geometry.offset.source import Source
from stileblade.geometry.regions.assemble import meet
from stileblade.geometry.regions.leftovers import without_leftovers
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.runs import join_edges
from stileblade.geometry.regions.trace import ResultRings, result_rings
from stileblade.tolerance import TOLERANCE

_ROUNDS = 2
"""How many times what has gone astray is left out."""


def traced(grown: np.ndarray, source: Source) -> list[Region]:
    """The buffers ``grown`` (k,) of a source's jobs as curves."""
    rings = result_rings(grown)
    if rings is None:
        return [Region.empty()] * len(grown)
    polygon, curves = Polygon(without_specks(rings), source), source.curves
    outline = searched(polygon)
    for _ in range(_ROUNDS):
        kept, joints = joined(outline, polygon)
        ends = joints.t0, joints.t1, joints.start, joints.end
        made, row = as_segments(Stretches(curves, kept.runs.curve, *ends))
        strays = polygon.strays(made, row, kept.runs)
        if not len(strays):
            break
        outline = outline.lead_astray(kept.numbers[strays])
    ring = kept.runs.ring
    lost = np.unique(ring[[*joints.gaps, *strays]])
    # of many strokes those alone in which a joint was not found
    doubtful = None if source.pairs is None else _rings(ring, [b.row for b in joints.bridges])
    contours = contours_of(made, row, kept.runs, joints, curves)
    return finished(contours, lost, doubtful, polygon, len(grown))


def _rings(ring: Ints, rows: list[int]) -> Ints:
    return ring[np.array(rows, np.int64)]


def searched(polygon: Polygon) -> Outline:
    """The kernel's polygon as runs along curves, with the joints that can be known or searched for."""
    curves = polygon.source.curves
    edges = match(polygon)
    runs = round_their_corners(join_edges(edges, strides(edges, curves)), curves)
    runs = without_points(runs, curves)
    runs = with_flat_mitres(runs, curves, polygon.source.corners)
    runs = at_their_corners(runs, curves)
    corner, round_ = runs.point, curves.round_(runs.curve)
    met = meet(runs, curves, reach_of(runs, curves), apart=TOLERANCE.one_place, own=round_)
    runs = same_turn(met, runs, curves)
    runs, kept = without_leftovers(runs, curves, whole=whole_lengths(curves))
    after, _ = neighbours(runs.ring)
    # other curves by themselves make a loop, which starts and ends where they cross themselves
    alone = (after == np.arange(len(runs))) & curves.round_(runs.curve)
    return outline_of(runs, corner[kept], alone, polygon)


def without_specks(rings: ResultRings) -> ResultRings:
    """Without edges no longer than the rounding of vertices, which run anywhere."""
    keep = norms(rings.points[rings.after] - rings.points) > 4 * TOLERANCE.grid
    ring = rings.ring[keep]
    return ResultRings(rings.points[keep], ring, rings.shell, neighbours(ring)[0], rings.origin)
