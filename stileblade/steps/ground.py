"""The ground that a layer lies on: a panel of its host as it stands, with the folds along its sides.

An outline that runs into a fold is drawn on beyond it before it is made smaller: a circle that was mirrored
stays a circle, and a margin is measured from what would have gone on there.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from stileblade.errors import StepError
from stileblade.folding.stack import Stack
from stileblade.geometry.curves.places import Box, Side
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after, identity, mirror_across, translation
from stileblade.geometry.measures.distances import is_same
from stileblade.geometry.offset.offset import clearance
from stileblade.geometry.offset.offset import offset as grown_by
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.remembered import wherever
from stileblade.geometry.regions.set_operations import (
    cut_off,
    difference,
    is_rectangle,
    rectangle,
    union,
    union_all,
)
from stileblade.piece.folds import Fold
from stileblade.piece.lying import Facing
from stileblade.piece.mirrored import Mirrored
from stileblade.piece.work import Work
from stileblade.steps.step import Setting
from stileblade.tracing import ReadByPart
from stileblade.words import named, say

_SAME = 0.01
_NONE: frozenset[str] = frozenset()


@dataclass(frozen=True, eq=False)
class Ground(ReadByPart):
    """``panel`` of the ``host``, "" where that has none; all of its measures are of the host's flat view."""

    host: Work
    panel: str
    side: Facing = Facing.OUTSIDE

    @cached_property
    def box(self) -> Box:
        """The panel's box, before windows and edges."""
        return self.host.box_of(self.panel or "figure")

    @cached_property
    def folds(self) -> list[tuple[Side, Fold]]:
        """Folds along the panel's sides, each with its side."""
        if not self.panel:
            return []
        found = []
        for fold in self.host.folds:
            for side in Side:
                same = fold.axis == side.axis and fold.is_side_at(side.at(self.box))
                if same and fold.folds and self.host.spans[fold.name] and self._along(fold):
                    found.append((side, fold))
        return found

    def _along(self, fold: Fold) -> bool:
        """Whether the panel's side has a stretch of the fold."""
        box = self.box
        low, high = (box.head, box.foot) if fold.axis == "x" else (box.left, box.right)
        spans = fold.line.place(
            np.array([p for s in self.host.spans[fold.name] for p in (s.start, s.end)])
        )
        return bool(spans.min() < high - _SAME and spans.max() > low + _SAME)

    @cached_property
    def paper(self) -> Region:
        """The host's paper on this side of the panel's folds."""
        return self.cut(self.host.paper)

    @cached_property
    def whole(self) -> Region:
        """The same with its windows and other openings closed."""
        closed = filled(self.paper)
        parts = [closed, *map(filled, self.windows)]
        return union_all(parts) if len(parts) > 1 else closed

    @cached_property
    def windows(self) -> list[Region]:
        """Outlines of the windows cut in the panel that do not run across its edges."""
        name = self.panel
        named = (name, "front", "figure") if name == self.host.front else (name,)
        return [
            copy.outline
            for w in self.host.windows
            if not self.host.panels or w.panel in named
            for copy in w.each
            if not w.crosses
        ]

    @cached_property
    def openings(self) -> Region:
        """All that is open within the panel, as one: windows without what was left standing in them."""
        return union_all([*self.windows, difference(filled(self.paper), self.paper)])

    def cut(self, region: Region, back: float = 0.0, across: frozenset[str] = _NONE) -> Region:
        """What of a region lies on the panel's side of its folds, ``back`` mm from them; at those named
        ``across`` right up to them."""
        for side, fold in self.folds:
            at = self._end(side, fold, back, across)
            region = cut_off(region, axis=side.axis, at=at, keep="more" if side.low else "less")
        return region

    def _end(self, side: Side, fold: Fold, back: float, across: frozenset[str]) -> float:
        """x or y where something ends at a fold, ``back`` mm from it: from the near edge of its spine, where it
        has one. What runs on ``across`` it ends in its middle."""
        return fold.at if fold.name in across else side.at(self.box) - side.outwards * back

    def less(self, margin: float, fold_margin: float, across: frozenset[str] = _NONE) -> Region:
        """The panel with its openings closed, less a margin all round and another one at its folds, none
        at those named ``across``; empty where nothing is left."""
        if self.host.mirrored is None:
            corner = {"x": self.whole.bounds.left, "y": self.whole.bounds.head}
            cuts = tuple(
                (side.axis, round(side.at(self.box) - corner[side.axis], 9), side.outwards,
                 -fold.apart / 2 if fold.name in across else fold_margin)
                for side, fold in self.folds
            )  # fmt: skip
            return _less(self.whole, margin, cuts) if self.whole else self.whole
        if not margin:
            return self.cut(self.drawn_on, fold_margin, across)
        if self._figure is not None:
            figure, matrix = self._figure
            smaller = smaller_by(filled(figure), margin).transformed(matrix)
        else:
            smaller = smaller_by(self.drawn_on, margin)
        return self.cut(smaller, fold_margin, across)

    @cached_property
    def _figure(self) -> tuple[Region, Floats] | None:
        """The figure of which the panel is a half, and the map to where it lies; None where anything was
        changed since it was mirrored. What is made of it stays the same whatever lap it gets."""
        mirrored = self.host.mirrored
        if mirrored is None or len(self.folds) != 1:
            return None
        ((side, fold),) = self.folds
        own = mirrored.towards is side
        if not self._is_mirrored_at(mirrored, side, fold):
            return None
        matrix = identity() if own else mirror_across(axis=side.axis, at=fold.at)
        half = filled(mirrored.half).transformed(matrix)
        return (mirrored.figure, matrix) if is_same(half, self.whole) else None

    @cached_property
    def drawn_on(self) -> Region:
        """The panel with its openings closed, its outline drawn on beyond its folds."""
        found = self.whole
        for axis in ("x", "y"):
            before = found
            for side, fold in self.folds:
                if side.axis == axis:
                    found = union(found, self._beyond(side, fold, before))
        return found

    def _beyond(self, side: Side, fold: Fold, drawn: Region) -> Region:
        """What is drawn on beyond a fold: what the mirror cut off the figure, else its mirror image."""
        mirrored = self.host.mirrored
        if mirrored and self._is_mirrored_at(mirrored, side, fold):
            rest = difference(filled(mirrored.figure), filled(mirrored.half))
            same = mirrored.towards is side
            return rest if same else rest.transformed(mirror_across(axis=side.axis, at=fold.at))
        return drawn.transformed(mirror_across(axis=side.axis, at=side.at(self.box)))

    @staticmethod
    def _is_mirrored_at(mirrored: Mirrored, side: Side, fold: Fold) -> bool:
        """Whether the fold is the one that the figure was mirrored at."""
        edge = mirrored.place_at(mirrored.lap)
        return side.axis == mirrored.axis and fold.is_side_at(edge)

    def own_frame(self) -> Floats:
        """From a layer's own flat view, seen from the side that it lies on, to the host's: its origin is the
        panel's corner at the head, on the left as it is seen."""
        box = self.box
        if self.side is not Facing.INSIDE:
            return translation(box.left, box.head)
        return after(mirror_across(axis="x", at=box.right), translation(box.right, box.head))

    def seen(self, region: Region) -> Region:
        """A region of the host in the layer's own flat view."""
        return region.transformed(inverse(self.own_frame()))


@lru_cache(maxsize=128)
def _ground(host: Work, panel: str, side: Facing) -> Ground:
    """One and the same for all that lies on it: what is found out of it is shared."""
    return Ground(host, panel, side)


@wherever
def _less(
    whole: Region, margin: float, folds: tuple[tuple[str, float, float, float], ...]
) -> Region:
    """A panel of no mirrored figure, drawn on beyond its folds as their mirror images are, less a margin, and cut
    off so far from each: ``folds`` are axis, place, which way is outwards, and that margin."""
    if is_rectangle(whole):
        return _rectangle_less(whole.bounds, margin, folds)
    drawn = whole
    for way in ("x", "y"):  # the second way with what the first has added: round their corner, too
        before = drawn
        for axis, at, _, _ in folds:
            if axis == way:
                drawn = union(drawn, before.transformed(mirror_across(axis=axis, at=at)))
    if margin:
        drawn = grown_by(drawn, -margin)
    for axis, at, outwards, back in folds:
        keep = "more" if outwards < 0 else "less"
        drawn = cut_off(drawn, axis=axis, at=at - outwards * back, keep=keep)
    return drawn


def _rectangle_less(
    box: Box, margin: float, folds: tuple[tuple[str, float, float, float], ...]
) -> Region:
    """The same of a rectangle, by its sides alone: those at folds have margins of their own."""
    left, head, right, foot = box.shrunk(margin).as_list()
    for axis, at, outwards, back in folds:
        side = at - outwards * back
        if axis == "x":
            left, right = (side, right) if outwards < 0 else (left, side)
        else:
            head, foot = (side, foot) if outwards < 0 else (head, side)
    if right <= left or foot <= head:
        return Region.empty()
    return rectangle(Box(left, head, right, foot))


@wherever
def smaller_by(region: Region, margin: float) -> Region:
    """A panel or a figure, less a margin: the same whatever is moved on it."""
    return grown_by(region, -margin)


@wherever
def grown(region: Region, margin: float) -> Region:
    """A window grown by a margin, which is kept everywhere; its corners are kept as far as points allow."""
    return clearance(region, margin) if margin else region


def ground_of(setting: Setting) -> Ground:
    """The ground of the setting's piece. StepError where the host or its panel is missing."""
    return setting.ask(_find_ground)


def _find_ground(setting: Setting) -> Ground:
    host, lies = setting.host, setting.lies
    if not host.panels:
        return _ground(host, "", lies.side)
    names = [p.name for p in host.panels]
    panel = lies.panel or host.front or names[-1]
    if panel not in names:
        if panel in ("front", "figure"):
            return _ground(host, host.front, lies.side)
        raise StepError(
            say("What it lies on has no panel {panel!r}.", panel=panel),
            hint=say(
                "Say in the list of pieces on which it lies: {list}.",
                list=", ".join(map(named, names)),
            ),
        )
    return _ground(host, panel, lies.side)


def seen_from(ground: Ground) -> Floats:
    """From the panel as it is seen from its side, its box in the same place, to the host's flat view."""
    if ground.side is not Facing.INSIDE:
        return identity()
    return mirror_across(axis="x", at=ground.box.centre[0])


def stack_of(setting: Setting) -> Stack:
    """The whole card that a band or an envelope goes round. StepError where there is none."""
    return setting.ask(_find_stack)


def _find_stack(setting: Setting) -> Stack:
    if setting.stack is None or setting.stack.base.key != setting.lies.host:
        raise StepError(
            "It goes round no card: what it lies on is not the card's base.",
            hint="Say in the list of pieces that it lies on the base.",
        )
    return setting.stack


def grounds_of(host: Work, side: Facing) -> list[Ground]:
    """One for each panel; one for all of a host without panels."""
    return [ground_on(host, name, side) for name in [p.name for p in host.panels] or [""]]


def ground_on(host: Work, panel: str, side: Facing = Facing.OUTSIDE) -> Ground:
    """The ground of one panel of a host."""
    return host.ask(_ground, panel, side)


def inverse(matrix: Floats) -> Floats:
    """The 2x3 map back."""
    linear = np.linalg.inv(matrix[:, :2])
    return np.column_stack([linear, -linear @ matrix[:, 2]])
