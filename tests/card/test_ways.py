"""Ways of folding against the worked figures of the rules."""

from __future__ import annotations

import pytest

from stileblade.card.folding import Folding, OwnPanel
from stileblade.card.layout import Layout
from stileblade.card.ways import WAYS

A2 = (107.95, 139.7)
A6 = (105.0, 148.0)
DL = (99.0, 210.0)


def layout(kind: str, size: tuple[float, float], *, t: float = 0.3, **values: object) -> Layout:
    return Folding.model_validate({"kind": kind, **values}).layout(*size, t)


def widths(made: Layout) -> list[float]:
    return [p.box.width for p in made.panels]


def folds(made: Layout) -> list[tuple[float, str, int]]:
    return [(f.line.at, str(f.crease.direction), f.crease.order) for f in made.folds]


@pytest.mark.parametrize(
    ("kind", "size", "values", "panels", "at"),
    [
        # A2 upright side fold: open 215.9, fold at 107.95
        ("side-fold", A2, {}, [107.95, 107.95], [107.95]),
        # DL roll fold of three, 0.25 mm stock, a = 1: open 296, folds at 98 and 197
        ("roll-3", DL, {"t": 0.25}, [98, 99, 99], [98, 197]),
        ("roll-4", DL, {"t": 0.25}, [97, 98, 99, 99], [97, 195, 294]),
        ("double-parallel", DL, {"t": 0.25}, [98, 98, 99, 99], [98, 196, 295]),
        # ISO A6 upright gatefold, g = 1: open 209, folds 52 and 157
        ("gatefold", A6, {}, [52, 105, 52], [52, 157]),
        # ISO A6 window card, a = 1: open 314, folds 105 and 210
        ("window-card", A6, {}, [105, 105, 104], [105, 210]),
        # accordion of four A2 panels: open 431.8
        ("accordion", A2, {}, [107.95] * 4, [107.95, 215.9, 323.85]),
        # A2 side fold with a flap of 40: open 255.9
        ("side-fold-flap", A2, {"flap": 40}, [107.95, 107.95, 40], [107.95, 215.9]),
    ],
)
def test_panels_and_folds(
    kind: str, size: tuple[float, float], values: dict[str, float], panels: list[float],
    at: list[float],
) -> None:  # fmt: skip
    made = layout(kind, size, **values)
    assert widths(made) == pytest.approx(panels, abs=1e-9)
    assert [f.line.at for f in made.folds] == pytest.approx(at, abs=1e-9)
    assert {p.box.height for p in made.panels} == {size[1]}


def test_a_top_fold_turned_has_one_panel_above_the_other() -> None:
    """A2 turned: panels 139.7 wide and 107.95 high, open 139.7 x 215.9."""
    made = layout("top-fold", (139.7, 107.95))
    assert [p.box.as_list() for p in made.panels] == [
        pytest.approx([0, 0, 139.7, 107.95]),
        pytest.approx([0, 107.95, 139.7, 215.9]),
    ]
    assert [(f.line.axis, f.line.at) for f in made.folds] == [("y", 107.95)]
    assert made.front == "front"


def test_directions_and_order_of_folding() -> None:
    """As in the table: the accordion's crease beside the front is a mountain, then in turn."""
    assert [d for _, d, _ in folds(layout("accordion", A2))] == ["mountain", "valley", "mountain"]
    assert [d for _, d, _ in folds(layout("accordion", A2, count=5))] == [
        "valley", "mountain", "valley", "mountain",
    ]  # fmt: skip
    assert folds(layout("double-parallel", DL, t=0.25)) == [
        (98, "valley", 2), (196, "mountain", 1), (295, "mountain", 2),
    ]  # fmt: skip
    assert [(d, n) for _, d, n in folds(layout("window-card", A6))] == [
        ("mountain", 2), ("mountain", 1),
    ]  # fmt: skip
    assert [(d, n) for _, d, n in folds(layout("side-fold-flap", A2))] == [
        ("mountain", 1), ("valley", 2),
    ]  # fmt: skip
    easel = layout("easel", A2, creases="upright")
    assert [(at, d) for at, d, _ in folds(easel)] == [
        (pytest.approx(107.95), "mountain"), (pytest.approx(161.925), "valley"),
    ]  # fmt: skip
    assert [f.crease.shut for f in easel.folds] == [True, False]


def test_a_french_fold_has_two_directions_on_its_second_fold() -> None:
    """2 x 2; across first, mountain; then down: the lower span mountain, the upper valley."""
    made = layout("french-fold", A2)
    across, down = made.folds
    assert (across.line.axis, across.line.at) == ("y", pytest.approx(139.7))
    assert (down.line.axis, down.line.at) == ("x", pytest.approx(107.95))
    upper, lower = down.crease.stretches
    assert (upper.high, upper.direction) == (pytest.approx(139.7), "valley")
    assert (lower.low, lower.direction) == (pytest.approx(139.7), "mountain")
    front = next(p.box for p in made.panels if p.name == "front")
    assert front.as_list() == pytest.approx([107.95, 139.7, 215.9, 279.4])


@pytest.mark.parametrize(("thickness", "a"), [(0.3, 1.0), (0.5, 1.0), (0.6, 1.2), (1.0, 2.0)])
def test_the_allowance_is_a_millimetre_or_twice_the_stock(thickness: float, a: float) -> None:
    made = layout("roll-3", DL, t=thickness)
    assert widths(made)[0] == pytest.approx(99 - a)
    assert made.panels[0].short == pytest.approx(a)
    own = layout("roll-3", DL, t=thickness, allow="own", allowance=2.5)
    assert widths(own)[0] == pytest.approx(96.5)


@pytest.mark.parametrize("kind", [k for k in WAYS.names() if k not in ("gatefold", "own")])
def test_opening_to_the_other_side_mirrors_the_open_card(kind: str) -> None:
    """Panels keep names and sizes; folds lie as far from the other edge."""
    plain, other = layout(kind, A2), layout(kind, A2, swapped=True)
    axis = plain.folds[0].line.axis
    if kind == "french-fold":
        axis = "x"
    low, high = ("left", "right") if axis == "x" else ("head", "foot")
    total = max(getattr(p.box, high) for p in plain.panels)
    for before, after in zip(plain.panels, other.panels, strict=True):
        assert before.name == after.name
        assert getattr(after.box, low) == pytest.approx(total - getattr(before.box, high))
    for b, a in zip(plain.folds, other.folds, strict=True):
        if b.line.axis == axis:
            assert a.line.at == pytest.approx(total - b.line.at)


@pytest.mark.parametrize("kind", WAYS.names())
def test_creases_run_the_other_way_when_asked(kind: str) -> None:
    usual = WAYS[kind].axis
    other = layout(kind, A2, creases="level" if usual == "x" else "upright")
    assert other.folds[0].line.axis == ("y" if usual == "x" else "x")


def test_own_panels_are_as_wide_as_asked() -> None:
    rows = [OwnPanel(width=30), OwnPanel(width=50, direction="valley", order=2), OwnPanel(width=20)]
    made = layout("own", A2, panels=[r.model_dump() for r in rows], front=2)
    assert widths(made) == [30, 50, 20]
    assert folds(made) == [(30, "mountain", 1), (80, "valley", 2)]
    assert made.front == "panel 2"
    with pytest.raises(ValueError, match="front=4: there are only 3 panels"):
        layout("own", A2, panels=[r.model_dump() for r in rows], front=4)
