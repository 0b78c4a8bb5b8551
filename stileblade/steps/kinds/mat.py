"""Start: a mat, the host's panel less a margin."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import choice, length, switch
from stileblade.geometry.curves.places import Box
from stileblade.geometry.offset.offset import largest_inset
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, intersection, rectangle
from stileblade.piece.lying import Facing, Lying
from stileblade.piece.windows import Opened
from stileblade.piece.work import Work
from stileblade.steps.ground import Ground, ground_of, grown
from stileblade.steps.proposing import NewPiece, OnCard, Proposal
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, Told, register_step
from stileblade.words import say


class Windows(StrEnum):
    LARGER = "larger"
    CLOSED = "closed"


_SHADES = ("#e7d9bd", "#7f9aa3", "#f4efe2")
"""Colours that mats are proposed in."""


def _of_side(title: str) -> float:
    margin: float = length(
        4,
        title,
        "From that side of the panel's paper.",
        least=0,
        most=200,
        when={"by_side": ["true"]},
    )
    return margin


@register_step
class Mat(Step):
    """The panel that it lies on as it stands, shaped edges included, less a margin; windows in it are
    larger by a margin of their own, or closed."""

    stage = Stage.OUTLINE
    title = "Mat"
    words = "layer start frame margin panel smaller paper stepping"
    sayings = (
        "mat",
        "matting",
        "smaller panel on top",
        "framed panel",
        "decorative paper on the front",
        "mat layer",
    )
    takes = ("margin",)
    starts_with = StartsWith.LAYER
    kind: Literal["mat"] = "mat"
    margin: float = length(
        4, "Margin", "What stays to be seen of the paper below, all round.", least=0, most=200
    )
    own_fold_margin: bool = switch(
        False, "Another margin at folds", "On: the fold's side has a margin of its own."
    )
    fold_margin: float = length(
        2, "At folds", "From the fold.", least=0, most=200, when={"own_fold_margin": ["true"]}
    )
    by_side: bool = switch(
        False, "Margins by side", "On: each side has its own, where that is more than the margin."
    )
    left: float = _of_side("Left")
    right: float = _of_side("Right")
    head: float = _of_side("Head")
    foot: float = _of_side("Foot")
    windows: Windows = choice(
        Windows.LARGER, "Windows", "What becomes of the panel's openings.",
        larger="larger by a margin", closed="closed",
    )  # fmt: skip
    window_margin: float = length(
        2, "Window margin", "What stays to be seen round an opening.", least=0, most=100,
        when={"windows": ["larger"]},
    )  # fmt: skip

    def apply(self, work: Work | None, setting: Setting) -> Work:
        ground = ground_of(setting)
        at_fold = self.fold_margin if self.own_fold_margin else self.margin
        mat = self._by_side(ground.less(self.margin, at_fold), ground)
        if not mat:
            widest = largest_inset(ground.paper)
            raise StepError(
                "A margin of {} leaves nothing: the panel is {} wide where it is widest.",
                self.margin,
                2 * widest,
                widest / 4,
                hint="{} would do.",
                field="margin",
                would_do=round(widest / 4, 1),
            )
        windows: tuple[Opened, ...] = ()
        if self.windows is Windows.LARGER and ground.openings:
            larger = grown(ground.openings, self.window_margin)
            opened = ground.seen(larger)
            windows = tuple(Opened(self.id, "figure", part, False) for part in opened.parts())
            mat = difference(mat, larger)
            if not mat:
                raise StepError(
                    "The windows, larger by {}, leave nothing of the mat.",
                    self.window_margin,
                    field="window_margin",
                    would_do=0.0,
                )
        paper = ground.seen(mat)
        return Work(
            paper,
            reference=paper.bounds,
            windows=windows,
            lying=Lying(ground.own_frame(), ground.panel),
        )

    def _by_side(self, mat: Region, ground: Ground) -> Region:
        if not (self.by_side and mat):
            return mat
        box = ground.whole.bounds
        inner = Box(
            box.left + self.left, box.head + self.head, box.right - self.right, box.foot - self.foot
        )
        if min(inner.width, inner.height) <= 0:
            return Region.empty()
        return intersection(mat, rectangle(inner))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        box = after.paper.bounds
        return [Told("Wide", box.width), Told("High", box.height)]

    def windows_larger_by(self, more: float) -> dict[str, float]:
        return {"window_margin": round(self.window_margin + more, 2)} if self.opens else {}

    @property
    def opens(self) -> bool:
        return self.windows is Windows.LARGER

    def caption(self) -> Caption:
        return Caption("margin", self.margin)

    @classmethod
    def proposals(cls, card: OnCard) -> list[Proposal]:
        first = card.next_order(Facing.OUTSIDE)
        one = NewPiece("Mat", (cls(),), card.panel, order=first, colour=_SHADES[0])
        steps = [
            NewPiece(
                say("Mat {n}", n=n + 1),
                (cls(margin=3 + 2 * n),),
                card.panel,
                order=first + n,
                colour=shade,
            )
            for n, shade in enumerate(_SHADES)
        ]
        inside = NewPiece(
            "Mat inside", (cls(windows=Windows.CLOSED),), card.panel, Facing.INSIDE,
            card.next_order(Facing.INSIDE), colour=_SHADES[1],
        )  # fmt: skip
        return [
            Proposal("A mat", "The panel less 4 mm all round", (one,)),
            Proposal("Three stepping mats", "Each 2 mm within the one below", tuple(steps)),
            Proposal("A mat inside", "On the inside of the panel", (inside,)),
        ]

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls(margin=8, window_margin=4)]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        from stileblade.outlines.figures.shaped import Arch
        from stileblade.steps.kinds.blank import Blank
        from stileblade.steps.kinds.window import Window

        return [[Blank(), Window(outline=Arch(width=44, height=70, rise=22))]]
