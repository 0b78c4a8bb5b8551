"""A motif along an edge of a panel."""

from __future__ import annotations

import random
from enum import StrEnum
from itertools import pairwise
from typing import Literal

from stileblade.build.edges import Side, must_be_open, side_field
from stileblade.build.step import Caption, Setting, Stage, Step, Told, register_step
from stileblade.build.work import Work
from stileblade.errors import StepError
from stileblade.fields import choice, length, number_of, special
from stileblade.geometry.pathdata import region_from_path
from stileblade.geometry.region import Box, Region
from stileblade.geometry.set_operations import difference, intersection, union
from stileblade.geometry.transforms import after, rotation, translation

_SINE = 0.3642
"""Handle of a cubic from trough to crest, as a share of its width, that is nearest to a sine."""


class Motif(StrEnum):
    SCALLOP = "scallop"
    WAVE = "wave"
    ZIGZAG = "zigzag"
    BATTLEMENT = "battlement"
    DECKLE = "deckle"


class Keep(StrEnum):
    SHORTENED = "shortened"
    ADDED = "added"


@register_step
class ShapedEdge(Step):
    """A motif along an edge, a whole number of times: cut into the panel, so that the closed size
    stays, or added to it."""

    stage = Stage.WINDOWS
    title = "Shaped edge"
    words = "scallop wave zigzag deckle battlement border trim edge"
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
    )
    depth: float = length(4, "Depth", "From its deepest places to its tips.", above=0, most=200)
    pitch: float = length(
        20, "Pitch", "Wished length of one; adjusted to a whole number.", least=0.5
    )
    keep: Keep = choice(
        Keep.SHORTENED,
        "Panel",
        "What becomes of its measure.",
        shortened="keeps its size, cut back by the depth",
        added="grows by the depth",
    )
    seed: int = number_of(
        1, "Seed", "Another one tears it otherwise.", least=0, most=9999,
        when={"motif": ["deckle"]},
    )  # fmt: skip

    def repeats(self, along: float) -> int:
        return max(1, round(along / self.pitch))

    def _box(self, work: Work) -> Box:
        return work.box_of(self.target)

    def curve(self, along: float) -> str:
        """Path data of the motif from (0, 0) to (along, 0), its tips at y = -depth."""
        n, d = self.repeats(along), -self.depth
        p = along / n
        found = []
        for i in range(n):
            s = i * p
            if self.motif is Motif.SCALLOP:
                found.append(f"A{p / 2!r} {-d!r} 0 0 1 {s + p!r} 0")
            elif self.motif is Motif.ZIGZAG:
                found.append(f"L{s + p / 2!r} {d!r}L{s + p!r} 0")
            elif self.motif is Motif.BATTLEMENT:
                a, b = s + p / 4, s + 3 * p / 4
                found.append(f"L{a!r} 0V{d!r}H{b!r}V0H{s + p!r}")
            elif self.motif is Motif.WAVE:
                h = p / 2 * _SINE
                found.append(f"C{s + h!r} 0 {s + p / 2 - h!r} {d!r} {s + p / 2!r} {d!r}")
                found.append(f"C{s + p / 2 + h!r} {d!r} {s + p - h!r} 0 {s + p!r} 0")
        return "".join(found) if self.motif is not Motif.DECKLE else self._torn(along, n)

    def _torn(self, along: float, n: int) -> str:
        """Uneven bumps, smooth at their tips; the same for the same seed."""
        rng = random.Random(self.seed)
        places = [along * (i + rng.uniform(-0.3, 0.3) * (0 < i < n)) / n for i in range(n + 1)]
        heights = [0.0, *(-self.depth * rng.uniform(0, 1) for _ in range(n - 1)), 0.0]
        if n > 1:  # tips reach the depth, troughs the edge
            heights[rng.randrange(1, n)] = -self.depth
        found = []
        for (a, b), (g, h) in zip(pairwise(places), pairwise(heights), strict=True):
            third = (b - a) * _SINE
            found.append(f"C{a + third!r} {g!r} {b - third!r} {h!r} {b!r} {h!r}")
        return "".join(found)

    def _placed(self, path: str, box: Box) -> Region:
        """Local coordinates, y outwards negative, turned and moved to the edge."""
        region = region_from_path(path)
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
        box = self._box(work)
        must_be_open(work, box, self.side)
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
        curve = self.curve(along)
        if self.keep is Keep.ADDED:
            motif = self._placed(f"M0 0{curve}Z", box)
            return work.with_paper(union(work.paper, motif))
        d = -self.depth
        gone = self._placed(f"M0 {d!r}V0{curve}V{d!r}Z", box)
        if not intersection(work.paper, gone):
            raise StepError("There is no paper along that edge.", field="side")
        return work.with_paper(difference(work.paper, gone))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        if before is None:
            return []
        along = self.side.length_in(self._box(before))
        n = self.repeats(along)
        return [Told("Repeats", n, "count"), Told("Pitch", along / n, note="as it comes out")]

    def caption(self) -> Caption:
        return Caption(self.motif.value, self.depth)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.build.steps.blank import Blank

        return [Blank(), cls(depth=12, pitch=30)]
