"""How a file lies against what was meant: as it is, larger or smaller, mirrored."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from stileblade.cutter.sent import Fault, Found
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import identity
from stileblade.geometry.measures.nearness import Near, spaced
from stileblade.words import say

NEAR = 0.25
"""mm: a line that is this near to one that was meant is that."""
_ENOUGH = 0.995
_SURE = 0.98
"""What fits so well is believed where it is better at all; else it has to be far better."""
_LIKELY = 0.8
_BETTER, _FAR_BETTER = 0.003, 0.02
_LEAST = 0.0015
"""Sizes that differ by less are those of tools and of rounding."""
_STRETCH = 0.03
"""Sizes that differ by less are those of paper that gave way, or a machine that is not set right."""
_EVERY = 1.5
_MOST = 30_000


@dataclass(frozen=True, eq=False)
class Register:
    """``matrix`` takes places of the file to where they were meant, so that lines are told; the faults say
    why it has to. ``pieces`` does so for what came loose: where all is only a little larger or smaller,
    as paper stretches, it changes nothing, so that it is seen by how much pieces are off."""

    matrix: Floats
    faults: tuple[Found, ...] = ()
    stretched: bool = False

    @property
    def pieces(self) -> Floats:
        return identity() if self.stretched else self.matrix


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
    little = bool((np.abs(size - 1) < _STRETCH).all())
    even = abs(size[0] - size[1]) < 0.004 * size.max()
    if even and not little:
        size = np.full(2, size.mean())
    for mirrored in ("", "x", "y"):
        for scaled in (False, True):
            if (not mirrored and not scaled) or (scaled and not (even or little)):
                continue
            s = size if scaled else np.ones(2)
            if scaled and float(np.abs(s - 1).max()) < _LEAST:
                continue
            matrix = _onto(a, b, s, mirrored)
            share = _share(run, places, matrix)
            least = _BETTER if share > _SURE else _FAR_BETTER
            if share > max(best + least, _LIKELY):
                faults = _faults(s, mirrored, scaled)
                best, found = share, Register(matrix, faults, little and not mirrored)
    return found


def _faults(size: Floats, mirrored: str, scaled: bool) -> tuple[Found, ...]:
    said = []
    if scaled:
        s = float(size[np.argmax(np.abs(size - 1))])
        word = "large" if s > 1 else "small"
        one = abs(size[0] - size[1]) > _LEAST
        along = (
            (", across" if abs(size[0] - 1) > abs(size[1] - 1) else ", along its height")
            if one
            else ""
        )
        why = "" if abs(s - 1) < _STRETCH else " Look at the units when it is sent."
        text = say(
            "All is {s:.1f} % of what was meant{along}: too {word}.{why}",
            s=100 * s,
            along=along,
            word=word,
            why=why,
        )
        said.append(Found(Fault.SCALE, text))
    if mirrored:
        side = "left for right" if mirrored == "x" else "head for foot"
        said.append(Found(Fault.MIRRORED, say("All is mirrored, {side}.", side=side)))
    return tuple(said)


def _box(lines: Sequence[Floats]) -> tuple[Floats, Floats]:
    low = np.min([line.min(axis=0) for line in lines], axis=0)
    high = np.max([line.max(axis=0) for line in lines], axis=0)
    return low, high


def _onto(a: tuple[Floats, Floats], b: tuple[Floats, Floats], s: Floats, mirrored: str) -> Floats:
    """Takes one box' middle to the other's."""
    sides = np.array([-1.0 if mirrored == "x" else 1.0, -1.0 if mirrored == "y" else 1.0])
    linear = np.diag(sides / s)
    shift = (b[0] + b[1]) / 2 - linear @ ((a[0] + a[1]) / 2)
    return np.column_stack([linear, shift])


def _share(run: Sequence[Floats], places: Floats, matrix: Floats) -> float:
    """How much of what was meant is there."""
    back = np.linalg.inv(matrix[:, :2])
    there = (places - matrix[:, 2]) @ back.T
    return float((Near(run).away(there) < NEAR).mean())
