"""The windows of pieces, in which others may lie or not."""

from __future__ import annotations

from dataclasses import replace

from stileblade.geometry.measures import rows
from stileblade.sheets.layout.pack import Layout
from stileblade.sheets.layout.parts import Part


class Windows:
    """The windows of pieces, closed while they are laid out where no other piece may lie in them."""

    def __init__(self, *, open: bool) -> None:
        self.open = open
        self._closed: dict[Part, Part] = {}
        self._own: dict[Part, Part] = {}

    def closed(self, part: Part) -> Part:
        """The part as it is laid out; the same for the same part."""
        if self.open:
            return part
        if part not in self._closed:
            closed = replace(part, shape=rows.filled(part.shape), _made={})
            self._closed[part], self._own[closed] = closed, part
        return self._closed[part]

    def opened(self, layout: Layout) -> Layout:
        """The layout with its parts as they are."""
        placed = tuple(replace(p, part=self._own.get(p.part, p.part)) for p in layout.placed)
        return replace(layout, placed=placed)
