"""How a file lies against what was meant: as it is, larger or smaller, mirrored."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from stileblade.cutter.sent import Fault, Found
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import identity
from stileblade.geometry.measures.nearness import Near, spaced

NEAR = 0.25
"""mm: a line that is this near to one that was meant is that."""
_ENOUGH = 0.995
_SURE = 0.98
"""What fits so well is believed where it is better at all; else it has to be far better."""
_LIKELY = 0.8
_BETTER, _FAR_BETTER = 0.003, 0.02
_LEAST = 0.0015
"""Sizes that differ by less are those of tools and of rounding."""
_EVERY = 1.5
_MOST = 30_000


@dataclass(frozen=True, eq=False)
class Register:
    """``matrix`` takes places of the file to where they were meant; the faults say why it has to."""

    matrix: Floats
    faults: tuple[Found, ...] = ()


def sampled(lines: Sequence[Floats]) -> Floats:
    """Places along all lines, a bounded number of them."""
    places = np.concatenate([spaced(line, _EVERY) for line in lines])
    step = max(1, len(places) // _MOST)
    return np.asarray(places[::step])


def register(run: Sequence[Floats], meant: Sequence[Floats]) -> Register:
    """As it is where most of what was meant is there; else scaled or mirrored, where that fits far
    better."""
    if not run or not meant:
        return Register(identity())
    places = sampled(meant)
    now = _share(run, places, identity())
    if now >= _ENOUGH:
        return Register(identity())
    best, found = now, Register(identity())
    a, b = _box(run), _box(meant)
    size = (a[1] - a[0]) / np.maximum(b[1] - b[0], 1e-9)
    even = abs(size[0] - size[1]) < 0.004 * size.max()
    for mirrored in ("", "x", "y"):
        for scaled in (False, True):
            if (not mirrored and not scaled) or (scaled and not even):
                continue
            s = float(size.mean()) if scaled else 1.0
            if scaled and abs(s - 1) < _LEAST:
                continue
            matrix = _onto(a, b, s, mirrored)
            share = _share(run, places, matrix)
            least = _BETTER if share > _SURE else _FAR_BETTER
            if share > max(best + least, _LIKELY):
                best, found = share, Register(matrix, _faults(s, mirrored, scaled))
    return found


def _faults(s: float, mirrored: str, scaled: bool) -> tuple[Found, ...]:
    said = []
    if scaled:
        word = "large" if s > 1 else "small"
        said.append(
            Found(
                Fault.SCALE,
                f"All is {100 * s:.1f} % of what was meant: too {word}. Look at the units when it is sent.",
            )
        )
    if mirrored:
        side = "left for right" if mirrored == "x" else "head for foot"
        said.append(Found(Fault.MIRRORED, f"All is mirrored, {side}."))
    return tuple(said)


def _box(lines: Sequence[Floats]) -> tuple[Floats, Floats]:
    low = np.min([line.min(axis=0) for line in lines], axis=0)
    high = np.max([line.max(axis=0) for line in lines], axis=0)
    return low, high


def _onto(a: tuple[Floats, Floats], b: tuple[Floats, Floats], s: float, mirrored: str) -> Floats:
    """Takes one box' middle to the other's."""
    linear = np.diag([-1.0 if mirrored == "x" else 1.0, -1.0 if mirrored == "y" else 1.0]) / s
    shift = (b[0] + b[1]) / 2 - linear @ ((a[0] + a[1]) / 2)
    return np.column_stack([linear, shift])


def _share(run: Sequence[Floats], places: Floats, matrix: Floats) -> float:
    """How much of what was meant is there."""
    back = np.linalg.inv(matrix[:, :2])
    there = (places - matrix[:, 2]) @ back.T
    return float((Near(run).away(there) < NEAR).mean())
