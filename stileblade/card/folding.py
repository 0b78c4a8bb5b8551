"""How a card is folded: the values that a design keeps, and the layout that they give."""

from __future__ import annotations

from enum import StrEnum

from pydantic import Field, model_validator

from stileblade.card.creases import Direction
from stileblade.card.layout import Layout
from stileblade.card.ways import WAYS, Way
from stileblade.fields import Values, choice, length, number_of, switch
from stileblade.geometry.curves.places import Axis

MOST_PANELS = 12
MOST_SPINE = 60.0


def allowance_of(thickness: float) -> float:
    """By how much a panel must be shorter, in mm, to lie flat inside another of this stock."""
    return max(1.0, 2 * thickness)


_SIDED = [w.kind for w in WAYS if w.sided]
_SHORTER = [w.kind for w in WAYS if w.shortens]
_SPINED = [w.kind for w in WAYS if w.spined]


class Creases(StrEnum):
    USUAL = "usual"
    UPRIGHT = "upright"
    LEVEL = "level"


class Allowance(StrEnum):
    STOCK = "stock"
    OWN = "own"


class OwnPanel(Values):
    """One panel of an own way of folding, and the crease that follows it."""

    width: float = length(60, "Width", "Across the creases.", least=1)
    direction: Direction = choice(
        Direction.MOUNTAIN,
        "Crease after it",
        "Which way the crease to the next panel points.",
        mountain="mountain",
        valley="valley",
    )
    order: int = number_of(1, "Folded as", "When it is folded; equal numbers fold together.",
                       least=1, most=MOST_PANELS)  # fmt: skip


class Folding(Values):
    """How a card is folded: the way, and what that way asks for."""

    kind: str = Field("side-fold", title="Way of folding", description="Its key.")
    creases: Creases = choice(
        Creases.USUAL,
        "Direction of folds",
        "Upright, level, or what is usual for this way of folding.",
        usual="usual for this way",
        upright="upright",
        level="level",
    )
    swapped: bool = switch(
        False,
        "Opens to the other side",
        "The panels in the opposite order.",
        when={"kind": _SIDED},
    )
    count: int = number_of(
        4, "Panels", "How many panels the accordion has.", least=2, most=8,
        when={"kind": ["accordion"]},
    )  # fmt: skip
    gap: float = length(
        1, "Gap", "Left between the two doors.", least=0, most=100, when={"kind": ["gatefold"]}
    )
    flap: float = length(
        40, "Flap", "How deep the flap is.", least=5, when={"kind": ["side-fold-flap"]}
    )
    allow: Allowance = choice(
        Allowance.STOCK,
        "Inner panels shorter",
        "So that they lie flat inside.",
        stock="as the paper needs",
        own="by an own measure",
        when={"kind": _SHORTER},
    )
    allowance: float = length(
        1, "Shorter by", "For each panel further in.", least=0, most=50,
        when={"allow": ["own"], "kind": _SHORTER},
    )  # fmt: skip
    front_shorter: float = length(
        0,
        "Front shorter by",
        "At its open edge, so that what lies behind it is seen; 0 is as large as the card.",
        least=0,
        most=300,
    )
    spine: float = length(
        0,
        "Spine",
        "Between the two score lines of a fold, for what lies between the panels; 0 is a single score.",
        least=0,
        most=MOST_SPINE,
        when={"kind": _SPINED},
    )
    panels: tuple[OwnPanel, ...] = Field(
        (OwnPanel(direction=Direction.VALLEY), OwnPanel(order=2), OwnPanel()),
        title="Panels",
        description="From left to right, or from head to foot.",
        min_length=1,
        max_length=MOST_PANELS,
        json_schema_extra={"control": "panels", "when": {"kind": ["own"]}},
    )
    front: int = number_of(
        3, "Front", "Which panel is in front when closed.", least=1, most=MOST_PANELS,
        when={"kind": ["own"]},
    )  # fmt: skip

    @model_validator(mode="after")
    def _known(self) -> Folding:
        if self.kind not in WAYS.names():
            raise ValueError(
                f"kind={self.kind!r} is not known; known are {', '.join(WAYS.names())}"
            )
        if self.way.own_panels and self.front > len(self.panels):
            raise ValueError(f"front={self.front}: there are only {len(self.panels)} panels")
        return self

    @property
    def way(self) -> Way:
        return WAYS[self.kind]

    @property
    def axis(self) -> Axis:
        """ "x" where the creases run upright."""
        if self.creases is Creases.USUAL:
            return self.way.axis
        return "x" if self.creases is Creases.UPRIGHT else "y"

    @property
    def apart(self) -> float:
        """mm between two panels: the spine, where the way of folding has one."""
        return self.spine if self.way.spined else 0.0

    def shorter(self, thickness: float) -> float:
        """The allowance a: what each panel further in is shorter by."""
        if self.allow is Allowance.OWN:
            return self.allowance
        return allowance_of(thickness)

    def layout(self, width: float, height: float, thickness: float) -> Layout:
        """Panels of a card whose closed front is width x height, the open card's corner at 0, 0."""
        across, along = (width, height) if self.axis == "x" else (height, width)
        made = self.way.make(self, across, along, self.shorter(thickness))
        if self.front_shorter:
            for name in self.way.cut_back or made.fronts:
                made = made.narrowed(name, self.axis, self.front_shorter)
        if self.swapped and self.way.sided:
            other: Axis = "y" if self.axis == "x" else "x"
            made = made.swapped(other if self.way.turns_over else self.axis)
        return made.spread(self.axis, self.apart) if self.apart else made
