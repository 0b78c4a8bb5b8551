"""Panels of a piece with a place for each one's name."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from pydantic import BaseModel

from stileblade.geometry.curves.places import Box, Point
from stileblade.geometry.curves.segments import concatenate
from stileblade.geometry.measures.distances import label_point
from stileblade.geometry.regions.remembered import with_figures
from stileblade.piece.work import Work
from stileblade.views.places import Bounds, box_of


class PanelView(BaseModel):
    """label is a place well inside the panel's paper, for its name."""

    name: str
    box: Bounds
    label: Point


@with_figures
def panels_of(work: Work) -> tuple[PanelView, ...]:
    drawn = _drawn_boxes(work)
    return tuple(
        PanelView(
            name=p.name,
            box=box_of(p.box),
            label=label_point(work.paper, p.box, _small(drawn, p.box)),
        )
        for p in work.panels
    )


_ALONG = np.array([0.0, 0.25, 0.5, 0.75, 1.0])
_MOST_DRAWN = 400
_ROOM = 1.0
"""mm beside lettering that a name leaves free."""


def _drawn_boxes(work: Work) -> list[Box]:
    """Where something is drawn, a little larger; none where that is all over the paper."""
    ways = [way for line in work.lines_on_paper for way, _ in line.ways if len(way)]
    if not ways or len(ways) > _MOST_DRAWN:
        return []
    all_ = concatenate(ways)
    index = np.repeat(np.arange(len(all_)), len(_ALONG))
    t = all_.span[index, 0] + np.diff(all_.span)[index, 0] * np.tile(_ALONG, len(all_))
    places = all_.points_at(index, t)
    first = np.cumsum([0, *(len(way) for way in ways[:-1])]) * len(_ALONG)
    low = np.minimum.reduceat(places, first) - _ROOM
    high = np.maximum.reduceat(places, first) + _ROOM
    return [Box(*a, *b) for a, b in zip(low.tolist(), high.tolist(), strict=True)]


def _small(boxes: Sequence[Box], panel: Box) -> list[Box]:
    """Those that do not go round the panel, as a border does."""
    return [b for b in boxes if b.width < 0.7 * panel.width or b.height < 0.5 * panel.height]
