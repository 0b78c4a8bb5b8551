"""No paper runs through other paper on the way from flat to closed, nor to where the card stands."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import pytest
from shapely import LineString, Polygon

from stileblade.card.ways import WAYS
from stileblade.folding.space import (
    faces_in_space,
    half_open,
    in_space,
    maps_in_space,
    sequence,
    standing,
    stood_up,
)
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.segments import Floats
from stileblade.piece.work import Work
from stileblade.views.folded import layers_on
from tests.folding.test_flat import made
from tests.whole import BLANK, layer, whole, work_of

STEPS = 20
BESIDE = 0.6
"""mm: what is so near an edge is no running through."""


@dataclass(frozen=True)
class Sheet:
    """A flat part that moves with a face: its ring in the flat view, so many mm before the outside."""

    face: int
    ring: list[Point]
    z: float = 0.0


def faces_of(work: Work) -> list[Sheet]:
    return [Sheet(n, face.rings[0]) for n, face in enumerate(faces_in_space(work))]


def through(sheets: list[Sheet], maps: list[Floats], deep: float) -> float:
    """The longest line, in mm, along which one sheet runs through another, by more than ``deep``."""
    solid = [in_space(maps[s.face], np.array(s.ring), s.z) for s in sheets]
    longest = 0.0
    for sheet in sheets:
        inside = Polygon(sheet.ring).buffer(-BESIDE)
        for other, corners in zip(sheets, solid, strict=True):
            if other.face == sheet.face:
                continue
            # the other one as this one sees it, itself in the plane z = 0
            seen = np.column_stack([corners, np.ones(len(corners))])
            seen = (np.linalg.inv(maps[sheet.face]) @ seen.T).T
            seen[:, 2] -= sheet.z
            z, following = seen[:, 2], np.roll(seen, -1, axis=0)
            if min(abs(z.min()), abs(z.max())) < deep:
                continue
            hit = np.flatnonzero((z < 0) != (following[:, 2] < 0))
            share = (z[hit] / (z[hit] - following[hit, 2]))[:, None]
            places = seen[hit] + share * (following[hit] - seen[hit])
            if len(places) == 2:
                line = LineString(places[:, :2] * (1, -1))
                longest = max(longest, line.intersection(inside).length)
    return longest


def worst(
    work: Work,
    path: list[list[float]],
    sheets: list[Sheet] | None = None,
    rooms: tuple[float, ...] = (),
    deep: float = 0.05,
) -> float:
    between = [
        [a + (b - a) * n / STEPS for a, b in zip(start, end, strict=True)]
        for start, end in pairwise(path)
        for n in range(STEPS + 1)
    ]
    return max(
        through(sheets or faces_of(work), maps_in_space(work, angles, 0.3, rooms), deep)
        for angles in between
    )


@pytest.mark.parametrize("kind", WAYS.names())
def test_nor_do_layers(kind: str) -> None:
    """A mat on both sides of each panel. Where a fold of four has more than two papers in it, paper gives
    way by less than three thicknesses."""
    way = {"kind": kind}
    panels = [p.name for p in work_of(whole([BLANK], way=way), "base").panels]
    mats = [
        layer(f"{side} {panel}", {"kind": "mat"}, panel=panel, side=side)
        for panel in panels
        for side in ("inside", "outside")
    ]
    card = whole([BLANK], *mats, way=way)
    work, layers = work_of(card, "base"), layers_on(card, card.pieces[0])
    assert {s.piece for s in layers.sheets} == {m["id"] for m in mats}
    lying = [Sheet(s.face, s.rings[0], (s.low + s.high) / 2) for s in layers.sheets]
    for path in (sequence(work), stood_up(work, standing(work))):
        assert worst(work, path, [*faces_of(work), *lying], layers.rooms, deep=0.9) == 0
    without = (0.0,) * len(layers.rooms)
    assert layers.rooms == without or max(layers.rooms) >= 0.6


@pytest.mark.parametrize("kind", WAYS.names())
@pytest.mark.parametrize("creases", ["upright", "level"])
def test_no_paper_runs_through_other_paper(kind: str, creases: str) -> None:
    work = made(way=kind, thickness=0.3, folding={"creases": creases})
    path = sequence(work)
    assert half_open(work) in path
    assert worst(work, path) == 0
    assert worst(work, stood_up(work, standing(work))) == 0


def test_it_is_seen_where_paper_does() -> None:
    """Closed all at once, a liner runs through the back: that is what is looked for."""
    work = made(way="window-card", thickness=0.3)
    path = sequence(work)
    assert worst(work, [path[0], path[-1]]) > 100
    assert worst(work, [path[-1], half_open(work)]) > 100


def test_what_is_not_shut_is_flattened_before_the_card_is_closed() -> None:
    """An easel's front is creased where it stands, and flat when the card is closed."""
    path = sequence(made(way="easel"))
    assert path == [[0, 0], [75, 0], [75, 60], [75, 0], [180, 0]]
