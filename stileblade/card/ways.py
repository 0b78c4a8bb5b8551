"""Ways of folding: which panels a card has, the folds between them, in which order they fold.

Panels are named as seen from outside and listed from left to right or from head to foot.
W is a panel's closed measure across the creases, H along them. One way, one entry; the list
that is shown, the values that each asks for and the layouts all come from here.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import accumulate

from pydantic import Field, model_validator

from stileblade.card.creases import Crease, Direction, Stretch
from stileblade.fields import Values, choice, length, number_of, switch
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Axis, Box
from stileblade.registry import Registry

MOST_PANELS = 12


@dataclass(frozen=True)
class Panel:
    """A panel's name and its whole box, before windows and edges; ``short`` is by how much it is
    less than the closed measure, so that it lies flat inside."""

    name: str
    box: Box
    short: float = 0.0


@dataclass(frozen=True)
class FoldAxis:
    """A line that the card folds on."""

    name: str
    line: Line
    crease: Crease


@dataclass(frozen=True)
class Layout:
    """front: the panel that stays where it is when the card is closed; fronts: all that are in
    front then; lies_on: the panel that lies on the table when the card stands, if one does."""

    panels: tuple[Panel, ...]
    folds: tuple[FoldAxis, ...]
    front: str
    fronts: tuple[str, ...]
    lies_on: str = ""

    def swapped(self, axis: Axis) -> Layout:
        """In the opposite order: mirrored about the middle of the open card."""
        total = max(p.box.right if axis == "x" else p.box.foot for p in self.panels)

        def box(b: Box) -> Box:
            if axis == "x":
                return Box(total - b.right, b.head, total - b.left, b.foot)
            return Box(b.left, total - b.foot, b.right, total - b.head)

        def fold(f: FoldAxis) -> FoldAxis:
            if f.line.axis == axis:
                return replace(f, line=Line.on(axis, total - f.line.at))
            mirrored = tuple(
                Stretch(total - s.high, total - s.low, s.direction) for s in f.crease.stretches
            )
            return replace(f, crease=replace(f.crease, stretches=mirrored))

        return replace(
            self,
            panels=tuple(replace(p, box=box(p.box)) for p in self.panels),
            folds=tuple(fold(f) for f in self.folds),
        )


@dataclass(frozen=True)
class Strip:
    """A panel across the creases."""

    name: str
    width: float
    short: float = 0.0


def _in_a_row(
    axis: Axis,
    strips: Sequence[Strip],
    creases: Sequence[Crease],
    along: float,
    fronts: tuple[str, ...],
) -> Layout:
    """Panels side by side, a crease between each two."""
    panels, folds = [], []
    stops = [0.0, *accumulate(s.width for s in strips)]
    for i, strip in enumerate(strips):
        low, high = stops[i], stops[i + 1]
        box = Box(low, 0.0, high, along) if axis == "x" else Box(0.0, low, along, high)
        panels.append(Panel(strip.name, box, strip.short))
        if i:
            name = "fold" if len(strips) == 2 else f"fold {i}"
            folds.append(FoldAxis(name, Line.on(axis, low), creases[i - 1]))
    return Layout(tuple(panels), tuple(folds), fronts[-1], fronts)


Making = Callable[["Folding", float, float, float], Layout]
"""From the values, W, H and the allowance a to the layout."""


@dataclass(frozen=True)
class Way:
    """axis: "x" where its creases run upright as is usual. sided: whether it can open to the other
    side, mirrored across its creases or, ``turns_over``, along them. shortens: whether panels
    are made shorter to lie inside. own_panels: whether their measures are given one by one."""

    kind: str
    title: str
    description: str
    axis: Axis
    make: Making
    sided: bool = True
    turns_over: bool = False
    shortens: bool = False
    own_panels: bool = False


WAYS: Registry[Way] = Registry("way of folding")
M, V = Direction.MOUNTAIN, Direction.VALLEY


def _way(
    kind: str, title: str, description: str, axis: Axis = "x", **more: bool
) -> Callable[[Making], Making]:
    def add(make: Making) -> Making:
        WAYS.add(kind, Way(kind, title, description, axis, make, **more))
        return make

    return add


@_way("top-fold", "Top fold", "Stands like a tent; the fold is at the head.", "y")
@_way("side-fold", "Side fold", "Opens like a book; the fold is at the left.")
def _two(folding: Folding, w: float, h: float, a: float) -> Layout:
    return _in_a_row(folding.axis, [Strip("back", w), Strip("front", w)], [Crease()], h, ("front",))


@_way("gatefold", "Gatefold", "Two doors that meet in the middle.", sided=False)
def _gate(folding: Folding, w: float, h: float, a: float) -> Layout:
    door = w / 2 - folding.gap / 2
    doors = ("left door", "right door") if folding.axis == "x" else ("upper door", "lower door")
    creases = [Crease(order=n, half=100, stand=70) for n in (1, 2)]
    strips = [Strip(doors[0], door), Strip("back", w), Strip(doors[1], door)]
    return _in_a_row(folding.axis, strips, creases, h, doors)


@_way(
    "roll-3", "Roll fold of three", "The inner panel first, then the front over it.", shortens=True
)
def _roll_3(folding: Folding, w: float, h: float, a: float) -> Layout:
    strips = [Strip("inner", w - a, a), Strip("back", w), Strip("front", w)]
    creases = [Crease(order=1, half=125, stand=120), Crease(order=2, half=75, stand=120)]
    return _in_a_row(folding.axis, strips, creases, h, ("front",))


@_way("roll-4", "Roll fold of four", "Rolled up from the innermost panel.", shortens=True)
def _roll_4(folding: Folding, w: float, h: float, a: float) -> Layout:
    strips = [
        Strip("innermost", w - 2 * a, 2 * a),
        Strip("inner", w - a, a),
        Strip("back", w),
        Strip("front", w),
    ]
    creases = [
        Crease(order=1, half=130, stand=90),
        Crease(order=2, half=95, stand=90),
        Crease(order=3, half=60, stand=90),
    ]
    return _in_a_row(folding.axis, strips, creases, h, ("front",))


@_way(
    "window-card", "Window card", "A liner folds in behind the front and its window.", shortens=True
)
def _window_card(folding: Folding, w: float, h: float, a: float) -> Layout:
    strips = [Strip("back", w), Strip("front", w), Strip("liner", w - a, a)]
    creases = [Crease(order=2), Crease(order=1, half=165, stand=180)]
    return _in_a_row(folding.axis, strips, creases, h, ("front",))


@_way("accordion", "Accordion", "Panels to and fro, two to eight of them.")
def _accordion(folding: Folding, w: float, h: float, a: float) -> Layout:
    n = folding.count
    names = ["back", *(f"panel {i}" for i in range(2, n)), "front"]
    creases = [
        Crease(M if (n - 2 - i) % 2 == 0 else V, order=i + 1, half=105, stand=90)
        for i in range(n - 1)
    ]
    if n == 2:
        creases = [Crease()]
    return _in_a_row(folding.axis, [Strip(name, w) for name in names], creases, h, ("front",))


@_way(
    "double-parallel",
    "Double parallel",
    "Folded in half, and in half again the same way.",
    shortens=True,
)
def _double(folding: Folding, w: float, h: float, a: float) -> Layout:
    strips = [
        Strip("inner back", w - a, a),
        Strip("inner front", w - a, a),
        Strip("back", w),
        Strip("front", w),
    ]
    creases = [Crease(V, order=2), Crease(M, order=1, half=172, stand=180), Crease(M, order=2)]
    return _in_a_row(folding.axis, strips, creases, h, ("front",))


@_way(
    "french-fold",
    "French fold",
    "Folded across, then down: four panels, no cut edge at the head.",
    "y",
    turns_over=True,
)
def _french(folding: Folding, w: float, h: float, a: float) -> Layout:
    """W across the first crease, H along it, so that both layouts are of the same closed card."""
    first = folding.axis
    width, height = (h, w) if first == "y" else (w, h)
    boxes = {
        "inner left": Box(0, 0, width, height),
        "inner right": Box(width, 0, 2 * width, height),
        "back": Box(0, height, width, 2 * height),
        "front": Box(width, height, 2 * width, 2 * height),
    }
    if first == "x":
        boxes = {
            "inner left": boxes["inner left"],
            "back": boxes["inner right"],
            "inner right": boxes["back"],
            "front": boxes["front"],
        }
    panels = tuple(Panel(name, box) for name, box in boxes.items())
    level, upright = Line.on("y", height), Line.on("x", width)
    turn = height if first == "y" else width
    second = Crease(M, 2, stretches=(Stretch(-1e4, turn, V), Stretch(turn, 1e4, M)))
    one, two = (level, upright) if first == "y" else (upright, level)
    folds = (
        FoldAxis("fold 1", one, Crease(M, 1, half=180, stand=180)),
        FoldAxis("fold 2", two, second),
    )
    return Layout(panels, folds, "front", ("front",))


@_way("easel", "Easel", "The front is creased in its middle and props itself up.", "y")
def _easel(folding: Folding, w: float, h: float, a: float) -> Layout:
    strips = [Strip("back", w), Strip("front", w / 2), Strip("front half", w / 2)]
    creases = [Crease(half=75, stand=120), Crease(V, order=2, shut=False, half=60, stand=120)]
    made = _in_a_row(folding.axis, strips, creases, h, ("front half", "front"))
    return replace(made, lies_on="back")


@_way(
    "side-fold-flap", "Side fold with flap", "A flap at the open edge folds back on to the front."
)
def _flap(folding: Folding, w: float, h: float, a: float) -> Layout:
    strips = [Strip("back", w), Strip("front", w), Strip("flap", folding.flap)]
    creases = [Crease(order=1), Crease(V, order=2, half=150, stand=180)]
    made = _in_a_row(folding.axis, strips, creases, h, ("front", "flap"))
    return replace(made, front="front")


@_way("own", "Own", "Any panels side by side, each crease up or down.", sided=False,
      own_panels=True)  # fmt: skip
def _own(folding: Folding, w: float, h: float, a: float) -> Layout:
    rows = folding.panels
    strips = [Strip(f"panel {i + 1}", p.width) for i, p in enumerate(rows)]
    creases = [Crease(p.direction, p.order, half=105, stand=100) for p in rows[:-1]]
    front = f"panel {folding.front}"
    made = _in_a_row(folding.axis, strips, creases, h, (front,))
    return replace(made, front=front)


def allowance_of(thickness: float) -> float:
    """By how much a panel must be shorter, in mm, to lie flat inside another of this stock."""
    return max(1.0, 2 * thickness)


_SIDED = [w.kind for w in WAYS if w.sided]
_SHORTER = [w.kind for w in WAYS if w.shortens]


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
        "Creases run",
        "Upright, level, or as is usual for the way.",
        usual="as is usual",
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
    panels: tuple[OwnPanel, ...] = Field(
        (OwnPanel(), OwnPanel(order=2), OwnPanel()),
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

    def shorter(self, thickness: float) -> float:
        """The allowance a: what each panel further in is shorter by."""
        if self.allow is Allowance.OWN:
            return self.allowance
        return allowance_of(thickness)

    def layout(self, width: float, height: float, thickness: float) -> Layout:
        """Panels of a card whose closed front is width x height, the open card's corner at 0, 0."""
        across, along = (width, height) if self.axis == "x" else (height, width)
        made = self.way.make(self, across, along, self.shorter(thickness))
        if not self.swapped or not self.way.sided:
            return made
        other: Axis = "y" if self.axis == "x" else "x"
        return made.swapped(other if self.way.turns_over else self.axis)
