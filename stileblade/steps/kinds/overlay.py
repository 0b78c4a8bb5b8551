"""Start: a figure or a word that lies on a panel or on another layer, or a border behind one."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum
from typing import Any, Literal

from stileblade.card.layout import Panel
from stileblade.errors import StepError
from stileblade.fields import choice, length, special, switch
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import (
    after,
    rotation,
    translation,
)
from stileblade.geometry.offset.offset import offset as grown_by
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.region import Region
from stileblade.outlines.catalogue import AnyFigure, figure_field
from stileblade.outlines.figures.round import Heart
from stileblade.outlines.figures.word import Word
from stileblade.piece.carrying import closed_fronts
from stileblade.piece.lying import AtFolds, Facing, FixedBy, Lying
from stileblade.piece.windows import Opened
from stileblade.piece.work import CLOSED, FEATURE, Work
from stileblade.steps.ground import Ground, ground_of, seen_from
from stileblade.steps.handle import Handle
from stileblade.steps.placing import PlacedStep, outline_of_all
from stileblade.steps.proposing import NewPiece, OnCard, Proposal
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, Told, register_step
from stileblade.words import named, say, together, within


class Openings(StrEnum):
    FILLED = "filled"
    KEPT = "kept"


_OWN = {"of": [""]}


def _heart(width: float) -> Heart:
    """In the proportions that it has by itself."""
    own = Heart()
    return Heart(width=width, height=round(width * own.height / own.width, 1))


@register_step
class Overlay(PlacedStep):
    """Any outline, placed as a window is placed, or a border of so many mm behind another piece, which it
    follows."""

    stage = Stage.OUTLINE
    title = "Figure on it"
    words = "layer start word lettering sentiment greeting shape topper border overlay mat"
    by_figure = 0.6
    sayings = (
        "glue a figure on",
        "word on the front",
        "topper",
        "title on top",
        "figure on pads",
        "sticker",
        "decoration on top",
    )
    takes = ("borders", "outline")
    starts_with = StartsWith.LAYER
    kind: Literal["overlay"] = "overlay"
    of: str = special(
        "", "Border of", "The piece behind which it is a border; none: a figure of its own.",
        control="piece", empty="no other piece",
    )  # fmt: skip
    outline: AnyFigure = figure_field(_heart(30), "Figure", "Its outline.", when=_OWN)
    target: str = special(
        "figure", "On", "The panel, or a window, that it is placed by.", control="target", when=_OWN
    )
    also_on: str = special("", "The same on", "Layers lie on one panel.", control="hidden")
    borders: float = length(
        0, "Border", "By which it is larger than its figure all round.", least=0, most=100
    )
    openings: Openings = choice(
        Openings.FILLED, "Openings", "What becomes of them in a border.",
        filled="filled", kept="kept, as far as they are wide enough",
    )  # fmt: skip
    may_stand_out: bool = switch(
        False, "May stand out", "On: it is meant to reach beyond what it lies on."
    )
    may_cover: bool = switch(False, "May cover windows", "On: it is meant to lie over an opening.")

    def apply(self, work: Work | None, setting: Setting) -> Work:
        if self.of:
            paper, lying = self._behind(setting)
        elif self.target == CLOSED:
            paper, lying = self._over_the_doors(setting)
        else:
            paper, lying = self._placed(setting)
        if self.borders:
            paper = grown_by(paper, self.borders)
        if (self.borders or self.of) and self.openings is Openings.FILLED:
            paper = filled(paper)
        lying = replace(lying, stands_out=self.may_stand_out, covers=self.may_cover)
        return Work(paper, reference=paper.bounds, lying=lying)

    def _behind(self, setting: Setting) -> tuple[Region, Lying]:
        """The other piece's paper, and how it lies."""
        other = setting.pieces.get(self.of)
        if other is None or other.lying is None:
            raise StepError(
                say("There is no layer {of!r} before this piece.", of=self.of),
                hint="Choose a piece that lies on the same one, and stands before this in the list.",
                field="of",
            )
        return other.paper, other.lying

    def _over_the_doors(self, setting: Setting) -> tuple[Region, Lying]:
        """Placed by all that is in front of the closed card, and fixed on its own panel alone: when the card is
        opened it goes with that one."""
        ground = ground_of(setting)
        if ground.side is Facing.INSIDE:
            raise StepError(
                "On the inside there is no closed front to lie on.",
                hint="Let it lie on the outside, or place it by its panel.",
                field="target",
            )
        doors = {name: back for name, _, back in closed_fronts(ground.host)}
        if ground.panel not in doors:
            raise StepError(
                say("{panel!r} is not in front when the card is closed.", panel=ground.panel),
                hint=say("Let it lie on: {list}.", list=together(map(named, doors))),
                field="target",
            )
        own, frame = self._level(outline_of_all(self.here(ground.host, setting)))
        lying = Lying(after(doors[ground.panel], frame), ground.panel, AtFolds.HALF)
        return own, lying

    def _level(self, placed: Region) -> tuple[Region, Floats]:
        """What was placed, unturned with its box at 0, 0, and the map to where it was placed."""
        level = placed.transformed(rotation(-self.turn)) if self.turn else placed
        box = level.bounds
        own = level.transformed(translation(-box.left, -box.head))
        return own, after(rotation(self.turn), translation(box.left, box.head))

    def _placed(self, setting: Setting) -> tuple[Region, Lying]:
        ground = ground_of(setting)
        windows = _windows_seen(ground) if self.target.startswith(FEATURE) else ()
        seen = Work(
            Region.empty(), _panels_seen(ground), reference=ground.box, front=ground.panel,
            windows=windows,
        )  # fmt: skip
        own, frame = self._level(outline_of_all(self.here(seen, setting)))
        return own, Lying(after(seen_from(ground), frame), ground.panel)

    def placed_on(self, setting: Setting) -> Work | None:
        try:
            return _seen(ground_of(setting))
        except StepError:
            return None

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        return []

    def on_panel(self, panel: str, setting: Setting) -> dict[str, Any] | None:
        if self.target == CLOSED:
            return {} if panel in setting.host.fronts else None
        return {"target": "figure"} if self.target.startswith(FEATURE) else {}

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        box = after.paper.bounds
        return [Told("Wide", box.width), Told("High", box.height)]

    def caption(self) -> Caption:
        if self.of:
            return Caption("border", self.borders)
        return Caption(within(self.outline.title))

    @classmethod
    def proposals(cls, card: OnCard) -> list[Proposal]:
        order = card.next_order(Facing.OUTSIDE)
        wide = round(0.4 * card.base.box_of(card.panel or "figure").width, 1)
        figure = NewPiece("Figure", (cls(outline=_heart(wide)),), card.panel, order=order,
                          fixing=FixedBy.PADS, colour="#a5573c")  # fmt: skip
        word = cls(outline=Word(text="ahoy", size=wide / 2))
        found = [Proposal("A figure on pads", "Placed as a window is placed", (figure,))]
        if card.base.closed_over_several:
            over = cls(outline=_heart(wide), target=CLOSED)
            front = card.panel if card.panel in card.base.fronts else card.base.fronts[0]
            across = NewPiece("Figure", (over,), front, order=order, fixing=FixedBy.PADS,
                              colour="#a5573c")  # fmt: skip
            found.append(Proposal("A figure across both doors", "Fixed on one of them", (across,)))
        lettered = NewPiece("Word", (word,), card.panel, order=order + 2, colour="#33424f")
        borders = [
            NewPiece(say("Border {margin}", margin=margin), (cls(borders=margin),), card.panel, order=order + 1 - n,
                     colour=colour, of=1)
            for n, (margin, colour) in enumerate(((2, "#f4efe2"), (5, "#a9c4cc")))
        ]  # fmt: skip
        found.append(Proposal("A word", "Any text, in any shipped face", (lettered,)))
        found.append(Proposal("A word with two borders", "Of 2 and of 5 mm", (lettered, *borders)))
        return found

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls(outline=_heart(54))]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        from stileblade.steps.kinds.blank import Blank

        return [[Blank()]]


def _seen(ground: Ground) -> Work:
    """The panel as it is seen from its side, with its windows, as all that something is placed on."""
    return Work(
        ground.host.paper, _panels_seen(ground), reference=ground.box, front=ground.panel,
        fronts=ground.host.fronts if ground.side is not Facing.INSIDE else (), windows=_windows_seen(ground),
    )  # fmt: skip


def _panels_seen(ground: Ground) -> tuple[Panel, ...]:
    return (Panel(ground.panel, ground.box),) if ground.panel else ()


def _windows_seen(ground: Ground) -> tuple[Opened, ...]:
    mirror = seen_from(ground)
    return tuple(
        Opened(w.step, "figure", w.outline.transformed(mirror), w.crosses)
        for w in ground.host.windows
        if w.panel in (ground.panel, "front", "figure") or not ground.panel
    )
