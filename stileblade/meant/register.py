"""How a file lies against its design: in place, moved, turned, mirrored, larger or smaller."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from stileblade.cutter.sent import Fault, Found
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import identity
from stileblade.geometry.measures.nearness import Near, spaced
from stileblade.words import say, together

_NEAR = 0.1
"""mm: a line of the file this near to a designed one is taken for it."""
_ROUNDED = 0.03
"""mm: a small file's places are rounded to so much."""
_ENOUGH = 0.995
_SURE = 0.98
"""A fit this good is believed if it is better at all; any other has to be far better."""
_LIKELY = 0.8
_BETTER, _FAR_BETTER = 0.003, 0.02
_LEAST_SCALE = 0.0015
"""A smaller difference in size comes from tools and rounding."""
_STRETCH = 0.03
"""A smaller difference in size comes from paper that gave way, or from a machine that is not calibrated."""
_LEAST_MOVE = 0.1
_EVERY = 1.5
_MOST = 3000
_ANCHORS = np.array([(0.5, 0.5), (0, 0), (1, 1), (0, 1), (1, 0)])
"""Places of the box round all lines, as shares of its sides, that are laid on each other: if a line at one side is
missing or added, another corner still fits."""
_UNITS = (
    25.4,
    1 / 25.4,
    72 / 96,
    96 / 72,
    96 / 25.4,
    25.4 / 96,
    72 / 25.4,
    25.4 / 72,
    10.0,
    0.1,
    2.0,
    0.5,
    90 / 96,
    96 / 90,
)
"""Sizes that come of a wrong unit; the file's origin stays where it was."""


@dataclass(frozen=True, eq=False)
class Register:
    """``matrix`` takes places of the file to where they were designed, so that lines can be told apart; the faults
    say why it has to. ``pieces`` does so for what came loose: where all is only a little larger or smaller, as
    stretched paper is, it changes nothing, so that the report shows by how much pieces are off."""

    matrix: Floats
    faults: tuple[Found, ...] = ()
    stretched: bool = False

    @property
    def pieces(self) -> Floats:
        return identity() if self.stretched else self.matrix

    @property
    def resized(self) -> bool:
        """Whether the file's millimetres are not those of the design."""
        return not self.stretched and any(f.code is Fault.SCALE for f in self.faults)


@dataclass(frozen=True)
class _Pose:
    """How a file may lie: turned by so many quarters, mirrored before, and its size (2,) as a share of the design's."""

    quarters: int
    mirrored: bool
    size: tuple[float, float] = (1.0, 1.0)

    @property
    def linear(self) -> Floats:
        """Takes directions of the file to those of the design (2, 2)."""
        c, s = ((1, 0), (0, 1), (-1, 0), (0, -1))[self.quarters]
        turned = np.array([[c, -s], [s, c]], float) @ np.diag([-1.0 if self.mirrored else 1.0, 1.0])
        return np.diag(1 / np.array(self.size)) @ turned


_TURNED = tuple(
    _Pose(quarters, mirrored) for mirrored in (False, True) for quarters in (0, 2, 1, 3)
)


def register(run: Sequence[Floats], designed: Sequence[Floats]) -> Register:
    """As it is where most of what was designed is there; else moved, turned, mirrored or scaled, whichever fits far
    better. Lines are polylines (n, 2) in mm."""
    if not run or not designed:
        return Register(identity())
    places, near = _sample(designed), Near(run)
    share = _share(near, places, identity())
    if share >= _ENOUGH:
        return Register(identity())
    found = Register(identity())
    for matrix, pose in _candidates(_box(run), _box(designed)):
        now = _share(near, places, matrix)
        if now > max(share + (_BETTER if now > _SURE else _FAR_BETTER), _LIKELY):
            faults = _faults(pose, matrix)
            stretched = pose.size != (1.0, 1.0) and _is_little(pose.size)
            share, found = now, Register(matrix, faults, stretched and not pose.mirrored)
        if share >= _ENOUGH:
            break
    return found


def _candidates(
    file: tuple[Floats, Floats], designed: tuple[Floats, Floats]
) -> Iterator[tuple[Floats, _Pose]]:
    """Matrices that take the file to the design, the likeliest first."""
    for scaled in (False, True):
        for pose in _TURNED:
            if scaled:
                size = _size(pose, file, designed)
                if size is None:
                    continue
                pose = _Pose(pose.quarters, pose.mirrored, size)
            low, high = _mapped(pose.linear, file)
            for anchor in _ANCHORS:
                at = designed[0] + anchor * (designed[1] - designed[0])
                yield np.column_stack([pose.linear, at - (low + anchor * (high - low))]), pose
    for unit in _UNITS:
        pose = _Pose(0, False, (unit, unit))
        yield np.column_stack([pose.linear, np.zeros(2)]), pose


def _size(
    pose: _Pose, file: tuple[Floats, Floats], designed: tuple[Floats, Floats]
) -> tuple[float, float] | None:
    """The size of the file's box as a share of the designed one's; None where the size is the same, or uneven."""
    low, high = _mapped(pose.linear, file)
    x, y = ((high - low) / np.maximum(designed[1] - designed[0], 1e-9)).tolist()
    if abs(x - y) < 0.004 * max(x, y) and not _is_little((x, y)):
        x = y = (x + y) / 2
    elif not _is_little((x, y)):
        return None
    return (x, y) if max(abs(x - 1), abs(y - 1)) >= _LEAST_SCALE and min(x, y) > 1e-4 else None


def _is_little(size: tuple[float, float]) -> bool:
    return max(abs(size[0] - 1), abs(size[1] - 1)) < _STRETCH


def _mapped(linear: Floats, box: tuple[Floats, Floats]) -> tuple[Floats, Floats]:
    ends = np.stack([box[0] @ linear.T, box[1] @ linear.T])
    return ends.min(axis=0), ends.max(axis=0)


def _faults(pose: _Pose, matrix: Floats) -> tuple[Found, ...]:
    said = []
    if pose.size != (1.0, 1.0):
        said.append(Found(Fault.SCALE, _scale_text(pose.size)))
    if pose.mirrored:
        text = (
            "Everything is mirrored, left for right.",
            "Everything is mirrored, and turned by a quarter.",
            "Everything is mirrored, head for foot.",
            "Everything is mirrored, and turned by a quarter.",
        )[pose.quarters]
        said.append(Found(Fault.MIRRORED, say(text)))
    elif pose.quarters:
        text = (
            "",
            "Everything is turned by a quarter, clockwise.",
            "Everything is turned by a half.",
            "Everything is turned by a quarter, against the clock.",
        )[pose.quarters]
        said.append(Found(Fault.MOVED, say(text)))
    elif pose.size == (1.0, 1.0):
        x, y = (-matrix[:, 2]).tolist()
        if max(abs(x), abs(y)) >= _LEAST_MOVE:
            said.append(Found(Fault.MOVED, _move_text(x, y)))
    return tuple(said)


def _scale_text(size: tuple[float, float]) -> str:
    s = max(size, key=lambda v: abs(v - 1))
    along = ""
    if abs(size[0] - size[1]) > _LEAST_SCALE:
        along = ", across" if abs(size[0] - 1) > abs(size[1] - 1) else ", along its height"
    return say(
        "All is {s:.1f} % of what was meant{along}: too {word}.{why}",
        s=100 * s,
        along=along,
        word="large" if s > 1 else "small",
        why="" if abs(s - 1) < _STRETCH else " Look at the units when it is sent.",
    )


def _move_text(x: float, y: float) -> str:
    right, left = "{by:.2f} mm to the right", "{by:.2f} mm to the left"
    across = say(right if x > 0 else left, by=abs(x))
    head, foot = "{by:.2f} mm towards the head", "{by:.2f} mm towards the foot"
    away = say(head if y > 0 else foot, by=abs(y))
    moves = [text for text, by in ((across, x), (away, y)) if abs(by) >= _LEAST_MOVE / 2]
    return say("Everything is moved by {moves}.", moves=together(moves))


def _sample(lines: Sequence[Floats]) -> Floats:
    """Places (n, 2) along all lines, a bounded number of them."""
    places = np.concatenate([spaced(line, _EVERY) for line in lines])
    return np.asarray(places[:: max(1, len(places) // _MOST)])


def _box(lines: Sequence[Floats]) -> tuple[Floats, Floats]:
    low = np.min([line.min(axis=0) for line in lines], axis=0)
    high = np.max([line.max(axis=0) for line in lines], axis=0)
    return low, high


def _share(near: Near, places: Floats, matrix: Floats) -> float:
    """How much of the design is there."""
    back = np.linalg.inv(matrix[:, :2])
    there = (places - matrix[:, 2]) @ back.T
    size = float(np.sqrt(abs(np.linalg.det(back))))
    return float((near.away(there) < max(_NEAR * size, _ROUNDED)).mean())
