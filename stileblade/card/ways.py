"""Ways of folding: which panels a card has, the folds between them, in which order they fold.

Panels are named as seen from outside and listed from left to right or from head to foot.
W is a panel's closed measure across the creases, H along them. One way, one entry; the list
that is shown, the values that each asks for and the layouts all come from here.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Any

from stileblade.card.creases import Crease, Direction, Stretch
from stileblade.card.layout import FoldAxis, Layout, Panel, Strip, in_a_row
from stileblade.geometry.curves.line import Line
from stileblade.geometry.curves.places import Axis, Box
from stileblade.registry import Registry

if TYPE_CHECKING:
    from stileblade.card.folding import Folding


Making = Callable[["Folding", float, float, float], Layout]
"""From the values, W, H and the allowance a to the layout."""


@dataclass(frozen=True)
class Way:
    """axis: "x" where its creases run upright as is usual. sided: whether it can open to the other
    side, mirrored across its creases or, ``turns_over``, along them. mirrors: whether it is the two
    halves that a mirrored figure makes. shortens: whether panels
    are made shorter to lie inside. own_panels: whether their measures are given one by one."""

    kind: str
    title: str
    description: str
    axis: Axis
    make: Making
    sided: bool = True
    mirrors: bool = False
    turns_over: bool = False
    shortens: bool = False
    own_panels: bool = False
    shown_at: float = 1.0
    """Where it is told apart from other ways: the share of the way from open to half open."""
    spined: bool = False
    """Whether its folds may have a spine, for what lies between the panels."""
    cut_back: tuple[str, ...] = ()
    """The panels that are made less where the front is to be shorter; all that are in front then
    where none is named."""


WAYS: Registry[Way] = Registry("way of folding")
M, V = Direction.MOUNTAIN, Direction.VALLEY


def _way(
    kind: str, title: str, description: str, axis: Axis = "x", **more: Any
) -> Callable[[Making], Making]:
    def add(make: Making) -> Making:
        WAYS.add(kind, Way(kind, title, description, axis, make, **more))
        return make

    return add


@_way(
    "top-fold",
    "Top fold",
    "Stands like a tent; the fold is at the head.",
    "y",
    mirrors=True,
    spined=True,
)
@_way("side-fold", "Side fold", "Opens like a book; the fold is at the left.", mirrors=True,
      spined=True)  # fmt: skip
def _two(folding: Folding, w: float, h: float, a: float) -> Layout:
    return in_a_row(folding.axis, [Strip("back", w), Strip("front", w)], [Crease()], h, ("front",))


@_way("gatefold", "Gatefold", "Two doors that meet in the middle.", sided=False, spined=True)
def _gate(folding: Folding, w: float, h: float, a: float) -> Layout:
    door = w / 2 - folding.gap / 2
    doors = ("left door", "right door") if folding.axis == "x" else ("upper door", "lower door")
    creases = [Crease(order=n, half=100, stand=70) for n in (1, 2)]
    strips = [Strip(doors[0], door), Strip("back", w), Strip(doors[1], door)]
    return in_a_row(folding.axis, strips, creases, h, doors)


@_way(
    "roll-3", "Roll fold of three", "The inner panel first, then the front over it.", shortens=True
)
def _roll_3(folding: Folding, w: float, h: float, a: float) -> Layout:
    strips = [Strip("inner", w - a, a), Strip("back", w), Strip("front", w)]
    creases = [Crease(order=1, half=125, stand=120), Crease(order=2, half=75, stand=120)]
    return in_a_row(folding.axis, strips, creases, h, ("front",))


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
    return in_a_row(folding.axis, strips, creases, h, ("front",))


@_way(
    "window-card",
    "Window card",
    "A liner folds in behind the front and its window.",
    shortens=True,
    cut_back=("front", "liner"),
)
def _window_card(folding: Folding, w: float, h: float, a: float) -> Layout:
    strips = [Strip("back", w), Strip("front", w), Strip("liner", w - a, a)]
    creases = [Crease(order=2, half=80), Crease(order=1, half=160, stand=180)]
    return in_a_row(folding.axis, strips, creases, h, ("front",))


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
    return in_a_row(folding.axis, [Strip(name, w) for name in names], creases, h, ("front",))


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
    outer = Crease(M, order=2, half=70)
    inner = replace(outer, direction=V)
    creases = [inner, Crease(M, order=1, half=160, stand=180), outer]
    return in_a_row(folding.axis, strips, creases, h, ("front",))


@_way(
    "french-fold",
    "French fold",
    "Folded across, then down: four panels, no cut edge at the head.",
    "y",
    turns_over=True,
    shown_at=0.36,
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


@_way(
    "easel",
    "Easel",
    "The front is creased in its middle and props itself up.",
    "y",
    cut_back=("front half",),
)
def _easel(folding: Folding, w: float, h: float, a: float) -> Layout:
    strips = [Strip("back", w), Strip("front", w / 2), Strip("front half", w / 2)]
    # set up, the free half runs down to the back as the front runs up from it: 60 degrees each
    creases = [Crease(half=75, stand=120), Crease(V, order=2, shut=False, half=60, stand=60)]
    made = in_a_row(folding.axis, strips, creases, h, ("front half", "front"))
    return replace(made, lies_on="back")


@_way(
    "side-fold-flap",
    "Side fold with flap",
    "A flap at the open edge folds back on to the front.",
    cut_back=("front",),
)
def _flap(folding: Folding, w: float, h: float, a: float) -> Layout:
    strips = [Strip("back", w), Strip("front", w), Strip("flap", folding.flap)]
    creases = [Crease(order=1), Crease(V, order=2, half=150, stand=180)]
    made = in_a_row(folding.axis, strips, creases, h, ("front", "flap"))
    return replace(made, front="front")


@_way("own", "Own panels", "Any panels side by side, each crease up or down.", sided=False,
      own_panels=True)  # fmt: skip
def _own(folding: Folding, w: float, h: float, a: float) -> Layout:
    rows = folding.panels
    strips = [Strip(f"panel {i + 1}", p.width) for i, p in enumerate(rows)]
    creases = [Crease(p.direction, p.order, half=105, stand=100) for p in rows[:-1]]
    front = f"panel {folding.front}"
    made = in_a_row(folding.axis, strips, creases, h, (front,))
    return replace(made, front=front)
