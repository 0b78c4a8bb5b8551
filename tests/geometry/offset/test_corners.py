"""Mitres and bevels of offsets, against the kernel's own on finely flattened outlines."""

from __future__ import annotations

import json
import math

import pytest
import shapely

from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.offset.offset import Join, offset
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import cut_off, polygon
from stileblade.outlines.artwork import Artwork, outlines_of
from tests.geometry.offset.test_offset_deviation import DRAWINGS
from tests.geometry.regions.test_set_operations import check_whole
from tests.geometry.zoo import blob, disc, outlines, star


def kernel(region: Region, distance: float, join: Join, limit: float) -> shapely.Geometry:
    """The kernel's own offset of the outline flattened to thousandths."""
    rings = [shapely.get_coordinates(line) for line in outlines(region, 64)]
    shape = shapely.Polygon(rings[0], rings[1:])
    return shapely.buffer(shape, distance, quad_segs=64, join_style=join.value, mitre_limit=limit)


@pytest.mark.parametrize("points", [3, 5, 8])
@pytest.mark.parametrize("distance", [4.0, -2.0])
def test_mitres_of_stars_are_the_kernels(points: int, distance: float) -> None:
    """All corners within the limit: the same polygon, straight, without an arc."""
    source = star(points, 40, 24)
    grown = offset(source, distance, join=Join.MITRE, mitre_limit=20)
    assert set(grown.segments.kind) == {Kind.LINE}
    assert grown.area == pytest.approx(kernel(source, distance, Join.MITRE, 20).area, abs=1e-3)
    check_whole(grown)


@pytest.mark.parametrize("distance", [4.0, 12.0, -3.0])
def test_bevels_cut_off_what_a_round_joint_has_beyond_them(distance: float) -> None:
    """A square of 60 grown by d: each of four corners is a triangle of d^2 / 2."""
    square = polygon([(0, 0), (60, 0), (60, 60), (0, 60)])
    grown = offset(square, distance, join=Join.BEVEL)
    wished = 60**2 + 4 * 60 * distance + (2 * distance**2 if distance > 0 else 4 * distance**2)
    assert grown.area == pytest.approx(wished, abs=1e-6)
    assert grown.nodes == (8 if distance > 0 else 4)


def test_a_corner_sharper_than_the_limit_is_bevelled() -> None:
    """A mitre's length is 1 / sin(half the angle) times the distance: 2 at 60 degrees."""
    angle = math.radians(59)
    sharp = polygon([(0, 0), (80, 0), (80 * math.cos(angle), 80 * math.sin(angle))])
    within = offset(sharp, 3, join=Join.MITRE, mitre_limit=1 / math.sin(angle / 2) + 1e-6)
    beyond = offset(sharp, 3, join=Join.MITRE, mitre_limit=1 / math.sin(angle / 2) - 1e-3)
    assert within.nodes == 3
    assert beyond.nodes in (4, 5, 6)
    assert beyond.area < within.area


def test_mitres_beside_curves_end_on_them() -> None:
    """A half disc of 30: its two corners are right angles to the chord; grown by 3 each gets two
    straight sides, and the arc stays one."""
    half = cut_off(disc(0, 0, 30), axis="y", at=0, keep="less")
    grown = offset(half, 3, join=Join.MITRE, mitre_limit=2)
    kinds = grown.segments.kind.tolist()
    assert kinds.count(Kind.ARC) == 1
    assert kinds.count(Kind.LINE) == 3
    # the arc of 33, the chord moved out by 3, and the squares at the corners
    assert grown.bounds.foot == pytest.approx(3, abs=1e-6)
    assert grown.bounds.width == pytest.approx(66, abs=1e-6)


@pytest.mark.parametrize("path", sorted(DRAWINGS.glob("*.json")), ids=lambda p: p.stem)
@pytest.mark.parametrize("join", [Join.MITRE, Join.BEVEL])
@pytest.mark.parametrize("distance", [2.5, -0.5])
def test_drawings_keep_their_curves(path: object, join: Join, distance: float) -> None:
    """No outline is worn down to the kernel's polygon; the round offset lies between the two."""
    text = path.read_text()  # type: ignore[attr-defined]
    source = outlines_of(Artwork.model_validate(json.loads(text)["artwork"])).union()
    made = offset(source, distance, join=join)
    round_ = offset(source, distance)
    check_whole(made)
    assert made.nodes < 3 * source.nodes
    if join is Join.BEVEL:  # it cuts corners that the round one goes round
        assert (made.area <= round_.area + 1e-6) == (distance > 0)


@pytest.mark.parametrize("seed", range(6))
@pytest.mark.parametrize("join", [Join.MITRE, Join.BEVEL])
def test_blobs_have_no_corners_to_join(seed: int, join: Join) -> None:
    source = blob(seed, 9, 40)
    assert offset(source, 2, join=join).area == pytest.approx(offset(source, 2).area, abs=1e-2)
