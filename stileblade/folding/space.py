"""The card in space: flat faces with the hinges they turn about, for the folded view.

Coordinates are the flat view's (x right, y down, mm); a mountain fold turns what hangs on
it away from the viewer of the outside.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from stileblade.build.work import Work
from stileblade.card.ways import Axis, Direction
from stileblade.folding.flat import fold_flat
from stileblade.geometry.distances import in_strip, rings_of, thin

Point = tuple[float, float]
MOST_CORNERS = 1200
"""Each corner costs about four triangles, and 5,000 are what software rendering can turn."""


@dataclass(frozen=True)
class Hinge:
    """A line of the flat view about which a face turns."""

    axis: Axis
    at: float
    direction: Direction


@dataclass(frozen=True)
class SpaceFace:
    panel: str
    rings: list[list[Point]]
    """Closed polylines; shells run with positive area, openings against it."""
    parent: int | None
    hinge: Hinge | None


@lru_cache(maxsize=32)
def faces_in_space(work: Work) -> tuple[SpaceFace, ...]:
    """The faces as polylines, coarse enough for the folded view."""
    folded = fold_flat(work)
    shape = thin(work.paper, 0.02, most=MOST_CORNERS)
    return tuple(
        SpaceFace(
            face.panel,
            rings_of(in_strip(shape, folded.axis, face.strip)),
            face.parent,
            Hinge(face.fold.axis, face.fold.at, face.fold.direction) if face.fold else None,
        )
        for face in folded.faces
    )
