"""How far offsets lie from where they should: every point at its distance from the source."""

from __future__ import annotations

import json
from pathlib import Path

import numpy as np
import pytest
import shapely

from bench.shapes import figure_300
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.offset.offset import Join, largest_inset, offset
from stileblade.geometry.regions.region import Region
from stileblade.outlines.artwork import Artwork, outlines_of
from stileblade.outlines.figures.word import Word
from stileblade.outlines.text.shipped import Face
from stileblade.tolerance import TOLERANCE
from tests.geometry.zoo import blob, cubic_disc, disc, ellipse, fine, outlines, ring, star

DRAWINGS = Path(__file__).parents[3] / "demo" / "shelf"
SHAPES: dict[str, Region] = {
    "disc": disc(0, 0, 30),
    "disc of cubics": cubic_disc(30, 8),
    "ellipse": ellipse(5, -3, 35, 18),
    "ring": ring(30, 14),
    "star": star(7, 40, 18),
    **{f"blob {seed}": blob(seed, 9, 50) for seed in (1, 4, 7)},
    "letter": Word(text="S", font=Face.SERIF, size=60).outline({}),
    "counter": Word(text="a", font=Face.SLAB, size=40).outline({}),
}


def off(region: Region, source: Region, distance: float) -> float:
    """The largest difference in mm between a point's distance from the source and ``distance``."""
    edges = []
    for line in outlines(source, 512):
        p = shapely.get_coordinates(line)
        edges.append(np.stack([p[:-1], p[1:]], axis=1))
    tree = shapely.STRtree(shapely.linestrings(np.concatenate(edges)))
    spots = shapely.points(fine(region, 24))
    _, far = tree.query_nearest(spots, return_distance=True, all_matches=False)
    return float(np.abs(far - abs(distance)).max())


@pytest.mark.parametrize("name", SHAPES)
@pytest.mark.parametrize("distance", [8.0, 2.5, 0.4, -0.4, -1.5])
def test_round_offsets_lie_at_their_distance(name: str, distance: float) -> None:
    source = SHAPES[name]
    grown = offset(source, distance)
    assert grown
    assert off(grown, source, distance) < 0.01
    assert (grown.area > source.area) == (distance > 0)


@pytest.mark.parametrize("path", sorted(DRAWINGS.glob("*.json")), ids=lambda p: p.stem)
@pytest.mark.parametrize("distance", [8.0, 4.0, 2.5, -0.5, -1.0])
def test_demo_outlines_keep_within_twice_their_nodes(path: Path, distance: float) -> None:
    """Mats and surrounds of hand-drawn outlines, as close to the true curves as all others."""
    drawing = Artwork.model_validate(json.loads(path.read_text())["artwork"])
    source = outlines_of(drawing).union()
    grown = offset(source, distance)
    assert 0 < grown.nodes <= 2 * source.nodes
    assert off(grown, source, distance) < 0.01


def layer_of(name: str, layer: int | None) -> Region:
    data = json.loads((DRAWINGS / f"{name}.json").read_text())["artwork"]
    drawing = outlines_of(Artwork.model_validate(data))
    return drawing.union() if layer is None else drawing.layers[layer]


@pytest.mark.parametrize(
    ("name", "layer", "distance"),
    [
        ("whale", 6, 4.0),
        ("tides", 2, 1.0),
        ("tides", 2, 1.452),  # one of its openings is too small for curves, the others are not
        ("tides", 2, -0.5),
        ("tides", 4, 3.0),
        ("tides", 2, 6.0),
        ("anchor", None, 4.5),
        ("anchor", 1, 8.0),
        ("shell", 2, 10.0),
        ("tides", 4, 5.91),
    ],
)
def test_joints_that_the_kernel_leaves_out_are_bridged(
    name: str, layer: int | None, distance: float
) -> None:
    """Letters and rivets whose parallels meet beside the ends of their segments, or in a sliver of a
    third: no joint is nearer to the source, and none is made of the kernel's polygon as a whole."""
    source = layer_of(name, layer)
    grown = offset(source, distance)
    assert off(grown, source, distance) < 0.01
    assert grown.nodes <= 2.4 * source.nodes
    kernel = shapely.buffer(source.polygons, distance, quad_segs=64)
    assert shapely.hausdorff_distance(grown.polygons.boundary, kernel.boundary) < 0.06
    assert grown.pieces == len(shapely.get_parts(kernel))


@pytest.mark.parametrize(("layer", "distance"), [(2, 0.251), (2, 0.416), (2, 0.488), (4, 2.832)])
def test_a_bend_that_is_tighter_than_the_distance_ends_where_its_parallel_crosses_itself(
    layer: int, distance: float
) -> None:
    """However short the curve: a parallel that turns back is no nearer to its source, and its way
    there and back leaves no scrap."""
    source = layer_of("tides", layer)
    grown = offset(source, distance)
    assert off(grown, source, distance) < 0.01
    scraps = grown.segments.chords < TOLERANCE.leftover
    assert scraps.sum() <= 2  # of a bridge along the kernel
    assert layer == 2 or not scraps.any()


@pytest.mark.parametrize(
    ("text", "face", "distance"),
    [
        ("Whale", Face.SERIF, -0.254),
        ("Whale", Face.SERIF, 1.504),
        ("shells", Face.STENCIL, 1.419),
        ("Whale", Face.STENCIL, 1.415),
    ],
)
def test_an_offset_does_not_cross_itself(text: str, face: Face, distance: float) -> None:
    """Letters whose parallels run close beside each other."""
    source = Word(text=text, font=face, size=25).outline({})
    grown = offset(source, distance)
    assert shapely.is_valid(grown.polygons)
    assert off(grown, source, distance) < 0.01


@pytest.mark.parametrize(
    ("text", "face", "size", "distance"),
    [
        # an opening 0.05 mm wide between two letters, with a scrap at its tip
        ("shells", Face.STENCIL, 25, 3.0),
        # bridges with pieces that are hardly longer than nothing
        ("Harbour", Face.SANS, 25, 0.115),
        ("TIDE 8&g", Face.SERIF, 60, -0.552),
        ("whale", Face.SANS, 60, 0.164),
    ],
)
def test_what_is_left_out_moves_its_neighbours_by_less_than_a_hundredth(
    text: str, face: Face, size: float, distance: float
) -> None:
    source = Word(text=text, font=face, size=size).outline({})
    grown = offset(source, distance)
    assert off(grown, source, distance) < 0.01
    assert grown.segments.chords.min() >= TOLERANCE.leftover


@pytest.mark.parametrize("distance", [0.187, 0.381, 1.2])
def test_flat_corners_get_no_arc_shorter_than_a_leftover(distance: float) -> None:
    source = layer_of("shell", None)
    grown = offset(source, distance)
    assert grown.segments.chords.min() >= TOLERANCE.leftover
    assert off(grown, source, distance) < 0.01


@pytest.mark.parametrize("distance", [2.5, 1.923, 1.0, -1.5, 4.0])
def test_bends_tighter_than_the_distance_are_cut_off_where_they_cross(distance: float) -> None:
    """300 cubics with 31 waves: parallels turn back in their troughs, and are no worn-down polygon."""
    source = figure_300()
    grown = offset(source, distance)
    assert grown.nodes <= 1.1 * source.nodes
    assert off(grown, source, distance) < 0.01


@pytest.mark.parametrize("name", ["disc", "ring", "star"])
@pytest.mark.parametrize("join", Join)
def test_lines_and_arcs_stay_lines_and_arcs(name: str, join: Join) -> None:
    for distance in (3.0, -3.0):
        grown = offset(SHAPES[name], distance, join=join, mitre_limit=10)
        assert set(grown.segments.kind) <= {Kind.LINE, Kind.ARC}
        assert grown.nodes <= 2 * SHAPES[name].nodes + 2


@pytest.mark.parametrize("name", SHAPES)
def test_an_inset_vanishes_where_it_is_said_to(name: str) -> None:
    source = SHAPES[name]
    most = largest_inset(source)
    assert offset(source, -most * 0.97)
    assert not offset(source, -most * 1.02)


@pytest.mark.parametrize("name", SHAPES)
def test_there_and_back_is_inside_and_near(name: str) -> None:
    """Grown and shrunk again by 1: nothing of the source is lost, only notches are filled."""
    source = SHAPES[name]
    back = offset(offset(source, 1.0), -1.0)
    lost = shapely.difference(source.polygons, shapely.buffer(back.polygons, 0.05))
    assert shapely.area(lost) < 1e-3
    assert back.area >= source.area - 0.02 * shapely.length(source.polygons)
