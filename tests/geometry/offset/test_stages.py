"""Each stage of an offset keeps what it says of itself, looked at between the stages."""

from __future__ import annotations

import numpy as np
import pytest
import shapely

from stileblade.geometry.curves.arrays import neighbours
from stileblade.geometry.curves.crossing import feet
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.parallel import Of
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.offset.bridges import joined
from stileblade.geometry.offset.match import match
from stileblade.geometry.offset.offset import bounded, largest_inset
from stileblade.geometry.offset.polygon import Polygon
from stileblade.geometry.offset.source import Source, without_closed_segments
from stileblade.geometry.offset.tracing import searched, traced, without_specks
from stileblade.geometry.regions.trace import result_rings
from stileblade.tolerance import TOLERANCE
from tests.geometry.regions.test_set_operations import check_whole
from tests.geometry.zoo import ZOO

CASES = [
    (name, distance)
    for name in sorted(ZOO)
    for distance in (2.5, 0.3, -0.8)
    if ZOO[name] and distance > 0.001 - largest_inset(ZOO[name])
]


def staged(name: str, distance: float) -> tuple[Source, Polygon, np.ndarray]:
    source, _, grown = bounded(without_closed_segments(ZOO[name]), distance)
    rings = result_rings(grown)
    assert rings is not None
    return source, Polygon(without_specks(rings), source), grown


@pytest.mark.parametrize("name", sorted(ZOO))
def test_the_source_is_the_region_without_whole_ellipses(name: str) -> None:
    region = ZOO[name]
    made = without_closed_segments(region)
    assert made.area == pytest.approx(region.area, abs=1e-9 * max(1, region.area))
    s = made.segments
    closed = (s.start == s.end).all(axis=1)
    assert (s.kind[closed] == Kind.ARC).all()


@pytest.mark.parametrize(("name", "distance"), CASES)
def test_the_kernel_stays_at_its_distance(name: str, distance: float) -> None:
    """Vertices of the buffer are as far from the flattened source as was asked for, within the
    flattening of arcs round corners and of what it simplifies."""
    source, shape, grown = bounded(without_closed_segments(ZOO[name]), distance)
    off = shapely.distance(
        shapely.boundary(shape), shapely.points(shapely.get_coordinates(grown[0]))
    )
    assert np.abs(off - abs(distance)).max(initial=0) <= 0.05 * abs(distance) + TOLERANCE.flatten


@pytest.mark.parametrize(("name", "distance"), CASES)
def test_edges_are_matched_to_curves_they_are_on(name: str, distance: float) -> None:
    """All but a few, where the kernel is off the curves itself; and those are never far off."""
    source, polygon, _ = staged(name, distance)
    edges, curves = match(polygon), source.curves
    assert (edges.curve >= 0).all()
    assert (edges.curve < 5 * curves.n).all()
    assert np.isfinite(np.r_[edges.t0, edges.t1]).all()
    # an arc is there only where the outline turns outwards
    arcs = curves.of(edges.curve) == Of.ARC
    assert curves.turns_outwards[curves.segment(edges.curve[arcs])].all()
    foot = feet(curves, edges.curve, edges.t0, edges.points)
    off = norms(curves.points_at(edges.curve, foot) - edges.points)
    near = 2 * curves.flatness + 4 * TOLERANCE.grid
    assert (off <= near).mean() > 0.9
    assert off.max() <= 0.2 * abs(distance) + near


@pytest.mark.parametrize(("name", "distance"), CASES)
def test_an_outline_starts_at_the_corners_of_the_kernel(name: str, distance: float) -> None:
    """Every corner is a vertex of the polygon, and runs of one ring follow each other."""
    _, polygon, _ = staged(name, distance)
    outline = searched(polygon)
    vertices = shapely.multipoints(polygon.rings.points)
    assert (shapely.distance(vertices, shapely.points(outline.corner)) < 1e-9).all()
    assert (np.diff(outline.runs.ring) >= 0).all()
    assert not outline.astray.any()
    assert outline.numbers.tolist() == list(range(len(outline)))


@pytest.mark.parametrize(("name", "distance"), CASES)
def test_joints_close_every_ring(name: str, distance: float) -> None:
    """A run ends where the next begins, on both curves, or a bridge lies between the two; of every
    ring at least two runs stay, or all that it had."""
    source, polygon, _ = staged(name, distance)
    outline = searched(polygon)
    kept, joints = joined(outline, polygon)
    had = np.bincount(outline.runs.ring)
    left = np.bincount(kept.runs.ring, minlength=len(had))
    assert ((left >= 2) | (left == had)).all()
    curves, (_, before) = source.curves, neighbours(kept.runs.ring)
    bridged = np.zeros(len(kept), bool)
    bridged[[b.row for b in joints.bridges]] = True
    bridged[sorted(joints.gaps)] = True
    gap = norms(joints.start - joints.end[before])
    assert gap[~bridged].max(initial=0) < 1e-9
    whole = ~bridged & ~bridged[neighbours(kept.runs.ring)[0]]
    off = norms(curves.points_at(kept.runs.curve, joints.t0) - joints.start)
    assert off[whole].max(initial=0) <= TOLERANCE.gap
    for bridge in joints.bridges:
        away = shapely.distance(
            shapely.linestrings(np.r_[polygon.rings.points, polygon.rings.points[:1]]),
            shapely.points(bridge.places),
        )
        assert away.max(initial=0) <= 4 * TOLERANCE.flatten


@pytest.mark.parametrize(("name", "distance"), CASES)
def test_what_is_finished_is_whole_and_as_large_as_the_kernels(name: str, distance: float) -> None:
    source, _, grown = staged(name, distance)
    (made,) = traced(grown, source)
    check_whole(made)
    around = shapely.length(grown[0])
    assert made.area == pytest.approx(shapely.area(grown[0]), abs=0.006 * around + 0.01)


@pytest.mark.parametrize("name", sorted(ZOO))
def test_of_a_buffer_of_nothing_nothing_is_traced(name: str) -> None:
    source, _, grown = bounded(without_closed_segments(ZOO[name]), -500.0)
    assert [bool(r) for r in traced(grown, source)] == [False]
