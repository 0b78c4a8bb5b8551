"""Start: an insert, the whole base less a margin, with its folds."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum
from typing import Literal

from stileblade.errors import StepError
from stileblade.fields import choice, length, special
from stileblade.geometry.curves.transforms import identity
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, union_all
from stileblade.piece.folds import Fold, Made
from stileblade.piece.lying import AtFolds, Facing, Lies, Lying
from stileblade.piece.work import Work
from stileblade.steps.ground import Ground, grounds_of
from stileblade.steps.proposing import NewPiece, OnCard, Proposal
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, Told, register_step
from stileblade.words import say


class Over(StrEnum):
    ALL = "all"
    TWO = "two"


class Windows(StrEnum):
    CLOSED = "closed"
    OPEN = "open"


@register_step
class Insert(Step):
    """A sheet to write on that lies inside the card and folds with it: the base less a margin, its
    folds where the base has them."""

    stage = Stage.OUTLINE
    title = "Insert"
    words = "layer start inside lining writing sheet paper inner"
    sayings = (
        "inside sheet",
        "writing paper inside",
        "inner sheet",
        "lining sheet",
        "insert",
    )
    takes = ("margin",)
    starts_with = StartsWith.LAYER
    sample_lies = Lies("base", "", Facing.INSIDE)
    kind: Literal["insert"] = "insert"
    margin: float = length(
        2, "Margin", "By which it is smaller than the base at every edge.", least=0, most=200
    )
    over: Over = choice(
        Over.ALL, "Lies over", "Which panels it lies on.",
        all="all panels", two="two that face each other",
    )  # fmt: skip
    and_on: str = special(
        "", "Second panel", "The panel beside the one that it lies on.", control="target",
        when={"over": ["two"]}, empty="the one across its fold",
    )  # fmt: skip
    windows: Windows = choice(
        Windows.CLOSED, "Windows", "Whether the base's openings are open in it.",
        closed="closed", open="open",
    )  # fmt: skip

    def apply(self, work: Work | None, setting: Setting) -> Work:
        host = setting.host
        grounds = list(grounds_of(host, setting.lies.side))
        if self.over is Over.TWO:
            grounds = self._two(grounds, setting)
        shared = {f.name for i, g in enumerate(grounds) for o in grounds[:i] for f in _shared(g, o)}
        parts = [self._part(ground, frozenset(shared)) for ground in grounds]
        if not all(parts):
            raise StepError(
                "A margin of {} leaves nothing of a panel.",
                self.margin,
                field="margin",
                would_do=0.0,
            )
        names = [g.panel for g in grounds]
        paper = union_all(parts)
        front = host.front if host.front in names else names[-1]
        return Work(
            paper,
            tuple(p for p in host.panels if p.name in names),
            tuple(
                replace(f, made=Made.SCORE, step=self.id, inside=False)
                for f in host.folds
                if f.name in shared
            ),
            reference=paper.bounds,
            front=front,
            fronts=tuple(n for n in host.fronts if n in names),
            lying=Lying(identity(), "", AtFolds.CREASED),
        )

    def _part(self, ground: Ground, across: frozenset[str]) -> Region:
        part = ground.less(self.margin, self.margin, across)
        return difference(part, ground.openings) if self.windows is Windows.OPEN else part

    def _two(self, grounds: list[Ground], setting: Setting) -> list[Ground]:
        host = setting.host
        first = next((g for g in grounds if g.panel == (setting.lies.panel or host.front)), None)
        if first is None or len(grounds) < 2:
            raise StepError(
                "There are no two panels that face each other.",
                hint="Let it lie over all panels.",
                field="over",
            )
        beside = [g for g in grounds if g is not first and _shared(first, g)]
        if self.and_on:
            beside = [g for g in beside if g.panel == self.and_on]
        if not beside:
            raise StepError(
                say(
                    "No fold lies between {panel!r} and {and_on!r}.",
                    panel=first.panel,
                    and_on=self.and_on or "another panel",
                ),
                hint="Choose the panel on the other side of one of its folds.",
                field="and_on",
            )
        return [g for g in grounds if g is first or g is beside[0]]

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        box = after.paper.bounds
        found = [Told("Open wide", box.width), Told("Open high", box.height)]
        for fold in after.folds:
            found.append(
                Told(
                    say("Hinge at {name}", name=fold.name),
                    sum(s.length for s in after.spans[fold.name]),
                )
            )
        return found

    def caption(self) -> Caption:
        return Caption("margin", self.margin)

    @classmethod
    def proposals(cls, card: OnCard) -> list[Proposal]:
        order = card.next_order(Facing.INSIDE)
        made = NewPiece("Insert", (cls(),), "", Facing.INSIDE, order, colour="#fbf8ef", thin=True)
        return [Proposal("An insert", "To write on, folded with the card", (made,))]

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls(margin=6)]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        from stileblade.steps.kinds.blank import Blank

        return [[Blank()]]


def _shared(first: Ground, second: Ground) -> list[Fold]:
    """The folds that two panels share: on opposite sides of the two."""
    return [
        f
        for side, f in first.folds
        for other, g in second.folds
        if f is g and other is side.opposite
    ]
