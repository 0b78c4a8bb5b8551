"""Lines of the flat view worth snapping to."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations
from operator import itemgetter
from typing import Literal

from pydantic import BaseModel

from stileblade.errors import StepError
from stileblade.geometry.curves.places import Axis, Box
from stileblade.piece.carrying import carried
from stileblade.piece.work import Work
from stileblade.views.said import Said
from stileblade.words import say


class Guide(BaseModel):
    """A line worth snapping to; ``edge`` names the edge of a thing that it is for, "" any place."""

    axis: Axis
    at: float
    word: Said
    edge: Literal["", "low", "middle", "high"] = ""


def guides_of(work: Work | None) -> list[Guide]:
    """Lines worth snapping to: edges and centres of panels or figure, folds, windows' centres."""
    if work is None:
        return []
    boxes = [(p.name, p.box) for p in work.panels] or [("figure", work.reference)]
    found: dict[tuple[str, float], str] = {}

    for fold in work.folds:
        if fold.axis:
            found[fold.axis, round(fold.at, 6)] = fold.name
    for name, box in boxes:
        for axis, at, word in _box_guides(box, name):
            found.setdefault((axis, round(at, 6)), word)
    for axis, at, word in _window_guides(work):
        found.setdefault((axis, round(at, 6)), word)
    places = [Guide(axis="x" if a == "x" else "y", at=at, word=w) for (a, at), w in found.items()]
    return places + list(_spacing(work))


MOST_WINDOWS = 12


def _window_guides(work: Work) -> Iterator[tuple[Axis, float, str]]:
    """Centres and edges of windows, and the same places on the panels that they come to lie on."""
    boxes = [(w.panel, w.outline.bounds) for w in work.windows[-MOST_WINDOWS:]]
    for panel, box in boxes:
        yield from _box_guides(box, "window")
        for other in work.panels:
            if other.name != panel and any(p.name == panel for p in work.panels):
                try:
                    there = box.transformed(carried(work, panel, other.name))
                except StepError:
                    continue
                yield from _box_guides(there, say("window of {panel}", panel=panel))


def _spacing(work: Work) -> Iterator[Guide]:
    """Where a further thing is as far from one window as that is from another, and half-way."""
    boxes = [w.outline.bounds for w in work.windows[-MOST_WINDOWS:]]
    axes: tuple[tuple[Axis, int], ...] = (("x", 0), ("y", 1))
    for a, b in combinations(boxes, 2):
        for axis, i in axes:
            low, high = sorted((a.as_tuple(), b.as_tuple()), key=itemgetter(i))
            gap = high[i] - low[i + 2]
            if gap > 0.1:
                word, half = "equal distances", (low[i + 2] + high[i]) / 2
                yield Guide(axis=axis, at=high[i + 2] + gap, word=word, edge="low")
                yield Guide(axis=axis, at=low[i] - gap, word=word, edge="high")
                yield Guide(axis=axis, at=half, word="half-way between", edge="middle")


def _box_guides(box: Box, name: str) -> Iterator[tuple[Axis, float, str]]:
    cx, cy = box.centre
    yield "x", cx, say("{name} centre", name=name)
    yield "y", cy, say("{name} middle", name=name)
    yield "x", box.left, say("{name} left", name=name)
    yield "x", box.right, say("{name} right", name=name)
    yield "y", box.head, say("{name} head", name=name)
    yield "y", box.foot, say("{name} foot", name=name)
