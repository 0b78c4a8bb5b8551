"""The kernel's buffers, which say what bounds an offset."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final, Literal

import numpy as np
import shapely

from stileblade.geometry.curves.arrays import true_at
from stileblade.geometry.curves.parallel import Corner, OffsetCurves
from stileblade.geometry.curves.segments import Floats, Ints
from stileblade.geometry.regions.set_operations import run_kernel


class Join(StrEnum):
    ROUND = "round"
    MITRE = "mitre"
    BEVEL = "bevel"


CORNERS = {Join.ROUND: Corner.ROUNDED, Join.MITRE: Corner.MITRED, Join.BEVEL: Corner.BEVELLED}
KernelCap = Literal["round", "flat"]
KernelJoin = Literal["round", "mitre", "bevel"]
_KERNEL_JOINS: Final[dict[Join, KernelJoin]] = {
    Join.ROUND: "round",
    Join.MITRE: "mitre",
    Join.BEVEL: "bevel",
}


@dataclass(frozen=True)
class KernelStyle:
    """How the kernel goes round corners and ends of one shape."""

    join: Join = Join.ROUND
    mitre_limit: float = 2.0
    cap: KernelCap = "round"


def buffered(
    shapes: np.ndarray,
    distance: Floats,
    styles: Sequence[KernelStyle],
    curves: OffsetCurves,
    corners: Ints,
    owner: Ints,
) -> np.ndarray:
    """The kernel's buffers (k,) of ``shapes`` (k,) by ``distance`` (k,); ``owner`` (n,) is the number
    of the shape that each of the ``corners`` of ``curves`` is of, -1 where it is an end.

    The kernel cuts a mitre beyond its limit short; where that would happen it makes bevels, and
    the tips of the other corners are put on.
    """
    flatness = curves.flatness / np.abs(distance)
    quarter = np.ceil(np.pi / 4 / np.arccos(np.maximum(1 - flatness, 0.7)))
    outer = true_at(curves.turns_outwards & (owner >= 0))
    cut_short = np.zeros(len(shapes), bool)
    cut_short[owner[outer[corners[outer] == Corner.BEVELLED]]] = True
    alike: dict[tuple[int, KernelJoin, KernelStyle], list[int]] = {}
    for i, style in enumerate(styles):
        cut_short[i] &= style.join is Join.MITRE
        join = "bevel" if cut_short[i] else _KERNEL_JOINS[style.join]
        alike.setdefault((max(4, int(quarter[i])), join, style), []).append(i)
    grown = np.empty(len(shapes), object)
    for (quad_segs, join, style), rows in alike.items():
        grown[rows] = shapely.buffer(
            shapes[rows], distance[rows], quad_segs=quad_segs, cap_style=style.cap,
            join_style=join, mitre_limit=style.mitre_limit,
        )  # fmt: skip
    sharp = outer[(corners[outer] == Corner.MITRED) & cut_short[owner[outer]]]
    for i in np.unique(owner[sharp]).tolist():
        grown[i] = _with_tips(grown[i], float(distance[i]), sharp[owner[sharp] == i], curves)
    return grown


def _with_tips(
    grown: shapely.Geometry, distance: float, sharp: Ints, curves: OffsetCurves
) -> shapely.Geometry:
    (a, tip), (_, b) = curves.mitres
    wedges = np.stack([curves.segments.start, a, tip, b], axis=1)[sharp]
    tips = shapely.polygons(np.concatenate([wedges, wedges[:, :1]], axis=1))
    if distance > 0:
        return run_kernel(shapely.union_all, np.r_[[grown], tips])
    return run_kernel(shapely.difference, grown, run_kernel(shapely.union_all, tips))
