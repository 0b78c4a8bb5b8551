"""A motif along an edge of a panel."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import choice, length, number_of, share, special
from stileblade.geometry.curves.places import Box, Side
from stileblade.geometry.curves.transforms import (
    after,
    mirror_across,
    rotation,
    scaling,
    translation,
)
from stileblade.geometry.paths.pathdata import region_from_path
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, intersection, rectangle, union
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figure import outline_of
from stileblade.outlines.figures.round import Circle
from stileblade.piece.edges import shapes_along
from stileblade.piece.sides import must_be_open, open_sides, side_field
from stileblade.piece.work import Work
from stileblade.steps.motifs import Motif, half, torn, whole
from stileblade.steps.repeating import together
from stileblade.steps.step import Caption, Setting, Stage, Step, Told, register_step
from stileblade.words import say

_SAME = 0.01


class Keep(StrEnum):
    SHORTENED = "shortened"
    ADDED = "added"


class Spread(StrEnum):
    EACH = "each"
    WHOLE = "whole"


class Ends(StrEnum):
    DEEP = "deep"
    FULL = "full"


@register_step
class ShapedEdge(Step):
    """A motif along an edge, a whole number of times: cut into the panel, so that the closed size
    stays, or added to it."""

    stage = Stage.WINDOWS
    title = "Shaped edge"
    words = "scallop wave zigzag deckle battlement border trim edge"
    sayings = (
        "wavy",
        "wavy edge",
        "torn",
        "torn edge",
        "ripped edge",
        "scalloped edge",
        "scallops",
        "zigzag",
        "pinking",
        "deckle",
        "fancy edge",
        "decorative edge",
        "lace edge",
        "battlements",
        "wave along the bottom",
    )
    takes = ("depth", "pitch")
    kind: Literal["shaped-edge"] = "shaped-edge"
    target: str = special("front", "On", "The panel whose edge it is.", control="target")
    side: Side = side_field(Side.RIGHT, "Which edge.")
    motif: Motif = choice(
        Motif.WAVE,
        "Motif",
        "What is repeated along it.",
        scallop="scallops",
        wave="waves",
        zigzag="zigzag",
        battlement="battlements",
        deckle="a torn edge",
        figure="a figure",
    )
    outline: AnyFigure = figure_field(
        Circle(diameter=20), "Figure", "What stands along it, as wide as the pitch.",
        when={"motif": ["figure"]},
    )  # fmt: skip
    depth: float = length(4, "Depth", "From its deepest places to its tips.", above=0, most=200)
    pitch: float = length(
        20, "Pitch", "Wished length of one; adjusted to a whole number.", least=0.5
    )
    spread: Spread = choice(
        Spread.EACH,
        "Whole ones",
        "Along an edge of several panels: a whole number on each, so that they meet when it is closed, "
        "or along all of it.",
        each="on each panel",
        whole="along the whole edge",
        when={"target": ["card"]},
    )
    keep: Keep = choice(
        Keep.SHORTENED,
        "Panel",
        "What becomes of its measure: it is cut back by the depth, or grows by it.",
        shortened="keeps its size",
        added="grows by the depth",
    )
    taper: float = share(
        1.0,
        "Fading to",
        "The depth at the other end, as a share of the depth at the first.",
        least=0.0,
        most=1.0,
    )
    ends: Ends = choice(
        Ends.DEEP,
        "At the corners",
        "How it comes to its ends: cut back as between two tips, or as half a tip.",
        deep="cut back",
        full="standing full",
        when={"motif": ["scallop", "wave", "zigzag", "battlement", "deckle"]},
    )
    plain: float = length(
        0, "Plain at the corners", "A straight stretch left at either end.", least=0, most=400
    )
    seed: int = number_of(
        1, "Seed", "Another one tears it otherwise.", least=0, most=9999,
        when={"motif": ["deckle"]},
    )  # fmt: skip

    def _free(self, along: float) -> float:
        """What the plain ends leave of the edge's length for the motif."""
        free = along - 2 * self.plain
        if free < 0.5:
            raise StepError(
                "Two plain ends of {} leave nothing of the edge's {}.",
                self.plain,
                along,
                field="plain",
                would_do=round(along / 10, 1),
            )
        return free

    def repeats(self, along: float) -> int:
        return max(1, round(self._free(along) / self.pitch))

    def _boxes(self, work: Work) -> list[Box]:
        """Of the panels that have the edge, or of all of it, up to where there is paper."""
        whole = work.box_of(self.target)
        boxes = [whole]
        if self.target == "card" and self.spread is Spread.EACH:
            at = self.side.at(whole)
            on_edge = [p.box for p in work.panels if abs(self.side.at(p.box) - at) < _SAME]
            boxes = sorted(on_edge, key=lambda b: (b.left, b.head)) or boxes
        return [self._to_paper(work, box) for box in boxes]

    def _to_paper(self, work: Work, box: Box) -> Box:
        """The box as far as there is paper towards the edge, which may have been cut back before."""
        there = intersection(work.paper, rectangle(box))
        if not there:
            raise StepError("There is no paper on that panel.", field="target")
        at = self.side.at(there.bounds)
        return replace(box, **{self.side.value: at})

    def offers(self, before: Work) -> dict[str, list[str]]:
        return super().offers(before) | {"side": open_sides(before, self.target)}

    def _depths(self, n: int) -> list[float]:
        """Of n tips, from the first, at the left or head, to the last."""
        found = [self.depth * (1 + (self.taper - 1) * i / max(n - 1, 1)) for i in range(n)]
        # the edge runs clockwise: from the right along the foot, from the foot up along the left
        return found[::-1] if self.side in (Side.LEFT, Side.FOOT) else found

    def curve(self, along: float) -> tuple[float, str, float]:
        """Where it starts, path data of the motif from (0, start) to (along, end), its tips at
        y = -depth, and where it ends."""
        n = self.repeats(along)
        free = self._free(along)
        p, x = free / n, self.plain
        full = self.ends is Ends.FULL
        depths = self._depths(n + 1 if full else n)
        start, end = (-depths[0], -depths[-1]) if full else (0.0, 0.0)
        found = []
        if self.motif is Motif.DECKLE:
            found.append(torn(self.seed, self.plain, free, depths[:n], start, end))
        elif full:
            found.append(half(self.motif, x, x + p / 2, start, 0.0))
            x += p / 2
            for depth in depths[1:-1]:
                found.append(whole(self.motif, x, p, -depth))
                x += p
            found.append(half(self.motif, x, x + p / 2, 0.0, end))
        else:
            for i, depth in enumerate(depths):
                found.append(whole(self.motif, x + i * p, p, -depth))
        ends = (f"H{self.plain!r}", f"H{along!r}") if self.plain else ("", "")
        return start, "".join([ends[0], *found, ends[1]]), end

    def _figures(self, along: float, setting: Setting) -> Region:
        """Copies of the figure as wide as the pitch, each standing out by its depth."""
        n = self.repeats(along)
        p = self._free(along) / n
        one = filled(outline_of(self.outline, setting.shelf))
        one = one.transformed(scaling(p / one.bounds.width, p / one.bounds.width))
        box = one.bounds
        if self.depth >= box.height:
            raise StepError(
                "As wide as the pitch the figure is {} high and cannot stand out by {}.",
                box.height,
                self.depth,
                hint="Take a smaller depth, or a larger pitch.",
                field="depth",
                would_do=round(box.height / 2, 1),
            )
        return together(
            [
                one.transformed(translation(self.plain + i * p - box.left, -depth - box.head))
                for i, depth in enumerate(self._depths(n))
            ]
        )

    def _turned(self, region: Region, along: float, turned: bool) -> Region:
        """The other way round along the edge."""
        return region.transformed(mirror_across(axis="x", at=along / 2)) if turned else region

    def _at_edge(self, region: Region, box: Box) -> Region:
        """Local coordinates, y outwards negative, turned and moved to the edge."""
        inwards = self.depth if self.keep is Keep.SHORTENED else 0.0
        matrix = {
            Side.HEAD: translation(box.left, box.head + inwards),
            Side.FOOT: after(translation(box.right, box.foot - inwards), rotation(180)),
            Side.RIGHT: after(translation(box.right - inwards, box.head), rotation(90)),
            Side.LEFT: after(translation(box.left + inwards, box.foot), rotation(-90)),
        }[self.side]
        return region.transformed(matrix)

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        must_be_open(work, work.box_of(self.target), self.side)
        whole = work.box_of(self.target)
        for number, box in enumerate(self._boxes(work)):
            # on every second panel it runs the other way, so that the two meet when it is closed
            work = self._along(work, box, setting, turned=number % 2 == 1)
        shapes = shapes_along(self.id, work.panels, whole, self.side, self.depth)
        return replace(work, edges=(*work.edges, *shapes))

    def _along(self, work: Work, box: Box, setting: Setting, *, turned: bool) -> Work:
        across = self.side.depth_of(box)
        if self.keep is Keep.SHORTENED and self.depth > across / 2:
            raise StepError(
                "A depth of {} takes more than half of the panel's {}.",
                self.depth,
                across,
                field="depth",
                would_do=round(across / 10, 1),
            )
        along = self.side.length_in(box)
        if self.motif is Motif.FIGURE:
            figures = self._turned(self._figures(along, setting), along, turned)
            return self._with_figures(work, box, self._at_edge(figures, box))
        start, curve, end = self.curve(along)
        # along the panel's own edge, or along the line of the deepest places
        level = 0.0 if self.keep is Keep.ADDED else -self.depth
        up = f"V{start!r}" if start != level else ""
        down = f"V{level!r}" if end != level else ""
        local = region_from_path(f"M0 {level!r}{up}{curve}{down}Z")
        shape = self._at_edge(self._turned(local, along, turned), box)
        if self.keep is Keep.ADDED:
            return work.with_paper(union(work.paper, shape))
        if not intersection(work.paper, shape):
            raise StepError("There is no paper along that edge.", field="side")
        return work.with_paper(difference(work.paper, shape))

    def _with_figures(self, work: Work, box: Box, figures: Region) -> Work:
        paper = work.paper
        if self.keep is Keep.SHORTENED:
            paper = difference(paper, rectangle(self.side.band(box, self.depth, 1.0, 1.0)))
            # what is sunk into the panel may not close its windows again
            figures = intersection(figures, rectangle(self.side.band(box, self.depth, 0.0, 1.0)))
        else:
            figures = intersection(figures, rectangle(self.side.band(box, 0.0, self.depth, 1.0)))
        joined = union(paper, figures)
        if joined.pieces > work.paper.pieces:
            raise StepError(
                "Some of the figures touch the panel in points only and would fall off.",
                hint="Let them stand out by less.",
                field="depth",
                would_do=round(self.depth * 0.7, 1),
            )
        return work.with_paper(joined)

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None:
            return []
        lengths = [self.side.length_in(box) for box in self._boxes(before)]
        counts = [self.repeats(along) for along in lengths]
        pitches = [self._free(along) / n for along, n in zip(lengths, counts, strict=True)]
        each = (
            say("{counts} on each panel", counts=counts[0])
            if len(set(counts)) == 1 < len(counts)
            else ""
        )
        note = (
            "as it comes out" if max(pitches) - min(pitches) < 1e-6 else "as it comes out, at most"
        )
        return [
            Told("Repeats", sum(counts), "count", each),
            Told("Pitch", max(pitches), note=note),
        ]

    def caption(self) -> Caption:
        return Caption(self.motif.value, self.depth)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(depth=12, pitch=30)]
