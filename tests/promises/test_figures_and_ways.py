"""Every registered figure and way of folding is held to what the guide to extending says."""

from __future__ import annotations

import pytest

from stileblade.card.folding import Folding
from stileblade.card.ways import WAYS
from stileblade.design.evaluation import evaluate
from stileblade.folding.flat import fold_flat
from stileblade.outlines.figure import FIGURES, GivenBy
from tests.conftest import design_of
from tests.promises.described import assert_described


@pytest.mark.parametrize("kind", FIGURES.names())
def test_a_figure_is_described_and_encloses_something(kind: str) -> None:
    cls = FIGURES[kind]
    assert_described(cls)
    assert cls.title
    if cls.given_by is GivenBy.ARTWORK:
        return
    region = cls().outline({})
    assert region.area > 100
    assert region.pieces == (1 if cls.given_by is GivenBy.MEASURES else 4)
    for name in ("width", "height"):
        if name in cls.model_fields:
            assert getattr(region.bounds, name) == pytest.approx(getattr(cls(), name), abs=1e-6)


@pytest.mark.parametrize("kind", FIGURES.names())
def test_a_figure_is_sized_by_the_values_that_it_names(kind: str) -> None:
    """Each of them doubled, the figure is twice as wide, or high, or both."""
    cls = FIGURES[kind]
    if cls.given_by is not GivenBy.MEASURES:
        return
    figure = cls()
    box = figure.outline({}).bounds
    sizes = figure.sizes(box)
    for names, wide, high in (((sizes.across,), 2, 1), ((sizes.down,), 1, 2)):
        for name in filter(None, names):
            made = cls.model_validate({**figure.model_dump(), name: 2 * getattr(figure, name)})
            grown = made.outline({}).bounds
            assert grown.width == pytest.approx(wide * box.width, rel=1e-6)
            assert grown.height == pytest.approx(high * box.height, rel=1e-6)
    assert sizes.both or (sizes.across and sizes.down)


@pytest.mark.parametrize("kind", WAYS.names())
@pytest.mark.parametrize("turned", [False, True])
def test_a_way_closes_to_the_card(kind: str, turned: bool) -> None:
    """Its closed outline is the card's own, and nothing passes through anything."""
    way = WAYS[kind]
    assert way.title
    assert way.description.endswith(".")
    if way.own_panels:
        return
    work = evaluate(design_of({"kind": "blank"}, way=kind, turned=turned)).pieces[0].work
    assert work is not None
    folded = fold_flat(work)
    assert [t for t in folded.troubles if t.what != "tight"] == []
    expected = (139.7, 107.95) if turned else (107.95, 139.7)
    assert folded.closed == pytest.approx(expected, abs=1e-3)
    layout = Folding(kind=kind).layout(105, 148, 0.3)
    assert layout.front in {p.name for p in layout.panels}
    assert set(layout.fronts) <= {p.name for p in layout.panels}
