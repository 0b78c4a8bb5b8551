"""An offset outline while it is made: one record that goes from stage to stage."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from stileblade.geometry.curves.segments import TAU, Bools, Floats, Ints
from stileblade.geometry.offset.polygon import Polygon
from stileblade.geometry.regions.runs import Runs


@dataclass(frozen=True, eq=False)
class Outline:
    """Runs (n,) along curves, which close in rings: ``t1`` is where each ends on its curve, and
    ``corner`` (n, 2) the kernel's own corner at its start, before any search for the joint.

    Invariant: every corner is a vertex of the kernel's polygon; runs of one ring follow each other.
    """

    runs: Runs
    t1: Floats
    corner: Floats
    numbers: Ints
    """Which runs they are of all that there were."""
    astray: Bools
    """Those that lie nowhere near the kernel's polygon, and are to be left out."""

    def __len__(self) -> int:
        return len(self.runs)

    def take(self, rows: Ints) -> Outline:
        return Outline(
            self.runs.take(rows),
            self.t1[rows],
            self.corner[rows],
            self.numbers[rows],
            self.astray[rows],
        )

    def lead_astray(self, numbers: Ints) -> Outline:
        """With further runs, by their numbers, to be left out."""
        return replace(self, astray=self.astray | np.isin(self.numbers, numbers))


def outline_of(runs: Runs, corner: Floats, alone: Bools, polygon: Polygon) -> Outline:
    """The outline of runs with their corners. A closed curve ``alone`` (n,) in its ring, as a circle's
    parallel, runs once all round from where it starts."""
    runs.point[alone] = polygon.source.curves.points_at(runs.curve[alone], runs.t0[alone])
    t1 = runs.t1.copy()
    forwards = np.where(runs.t1 >= runs.t0, 1.0, -1.0)
    t1[alone] = runs.t0[alone] + forwards[alone] * TAU
    return Outline(runs, t1, corner, np.arange(len(runs)), np.zeros(len(runs), bool))
