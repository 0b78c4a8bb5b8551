"""Layers of the artwork as lines on the paper below them."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import choice, special
from stileblade.geometry.regions.region import gather
from stileblade.geometry.regions.set_operations import difference, union_all
from stileblade.outlines.figures.drawn import named
from stileblade.piece.lines import DrawnLine, How, Ways
from stileblade.piece.small_parts import is_small
from stileblade.piece.work import Work
from stileblade.steps.kinds.artwork import StartArtwork
from stileblade.steps.lining import LiningStep
from stileblade.steps.step import Caption, Setting, Stage, Step, register_step


class Parts(StrEnum):
    ALL = "all"
    SMALL = "small"


@register_step
class DrawnLayers(LiningStep):
    """Outlines of the artwork's layers drawn, stitched or scored where they lie on the piece, in register:
    for what is too small to be cut of paper."""

    stage = Stage.WINDOWS
    title = "Drawn layers"
    words = "pen draw artwork layers lines small parts details register"
    sayings = (
        "draw the details of the artwork",
        "small parts with the pen",
        "pen lines of the artwork",
        "draw the artwork's layers",
    )
    sample_artworks = StartArtwork.sample_artworks
    kind: Literal["drawn-layers"] = "drawn-layers"
    layers: tuple[int, ...] = special(
        (), "Layers", "Numbers of the artwork's layers; none means all.", control="layers"
    )
    parts: Parts = choice(
        Parts.ALL, "Parts", "Which of their parts are drawn.",
        all="all of them", small="the small ones alone",
    )  # fmt: skip

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        placed = work.artwork
        if placed is None:
            raise StepError(
                "The piece was not made of an artwork, nor of its layers.",
                hint="Start it with an artwork, or draw a figure instead.",
            )
        drawn = named(setting.shelf, placed.ref)
        drawn.union(self.layers)  # says which of them are not there
        numbers = sorted(set(self.layers)) or range(len(drawn.layers))
        regions = [drawn.layers[n].transformed(placed.matrix) for n in numbers]
        small = self.parts is Parts.SMALL
        parts = [[p for p in r.parts() if not small or is_small(p)] for r in regions]
        if not any(parts):
            raise StepError(
                "The layers have no small parts.", hint="Draw all of them.", field="parts"
            )
        ways: Ways = ()
        for number, some in enumerate(parts):
            # where a layer lies on another one, that one's outline is not seen
            seen = difference(work.paper, union_all([gather(p) for p in parts[number + 1 :]]))
            ways += self.made_of(seen, [(c.segments, True) for part in some for c in part.contours])
        line = DrawnLine(self.id, How(self.how), ways, self.pen)
        return self.with_line(work, line, bool(ways), "layers")

    def caption(self) -> Caption:
        return Caption(", ".join(str(n + 1) for n in self.layers[:4]) or "all layers")

    @classmethod
    def sample(cls) -> list[Step]:
        return [*StartArtwork.sample(), cls()]
