"""What a card is begun with: as large as was said, on a safe hinge, in its envelope."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.card.ways import WAYS
from stileblade.design.beginning import openings
from stileblade.design.document import Design, load_design, load_figure
from stileblade.design.evaluation import evaluate
from stileblade.errors import DocumentError
from stileblade.folding.flat import fold_flat
from stileblade.folding.hinge import LEAST_SPAN, chords, least_hinge
from stileblade.outlines.figure import FIGURES, Figure
from stileblade.outlines.figures.round import Circle, Heart
from stileblade.outlines.figures.straight import Star
from stileblade.outlines.figures.word import Word
from stileblade.piece.work import Work

SQUARE = {"name": "5 in square", "width": 127, "height": 127}
SHAPED = [kind for kind in FIGURES.names() if not FIGURES[kind]().reads() and kind != "word"]


def begun(
    figure: Figure, margin: float = 0.0, *, fits: bool = True, **card: Any
) -> dict[str, Design]:
    design = load_design({"card": {"size": SQUARE, **card}})
    found = openings(design, figure, margin, fits=fits)
    return {o.beginning.key: o.design for o in found if o.design is not None}


def whys(figure: Figure, **card: Any) -> dict[str, str]:
    design = load_design({"card": {"size": SQUARE, **card}})
    return {o.beginning.key: o.beginning.why for o in openings(design, figure, 0)}


def base(design: Design) -> Work:
    piece = evaluate(design).pieces[0]
    assert all(o.problem is None for o in piece.outcomes)
    assert piece.work is not None
    return piece.work


def closed(design: Design) -> tuple[float, float]:
    return fold_flat(base(design)).closed


def test_a_heart_on_a_square_is_as_wide_as_the_square_less_the_lap() -> None:
    """127 wide; folded, half of the lap of 3.5 is behind the fold: 125.25. Its own 70 x 64 came as 70 before."""
    design = begun(Heart())["mirrored"]
    assert closed(design)[0] == pytest.approx(125.25)
    assert closed(design)[1] == pytest.approx(127 * 64 / 70, abs=0.01)
    assert closed(begun(Heart(), 5)["mirrored"])[0] == pytest.approx(115.25)


@pytest.mark.parametrize("kind", SHAPED)
@pytest.mark.parametrize("way", ["side-fold", "top-fold"])
def test_the_lap_is_the_least_that_makes_a_safe_hinge(kind: str, way: str) -> None:
    work = base(begun(FIGURES[kind](), folding={"kind": way})["mirrored"])
    mirrored = work.mirrored
    assert mirrored is not None
    safe = least_hinge(mirrored.towards.length_in(mirrored.figure.bounds))
    spans = [s.length for s in work.spans["fold"]]
    assert sum(spans) >= safe - 1e-6
    assert min(spans) >= LEAST_SPAN - 1e-6
    if mirrored.lap > 3:
        less = chords(mirrored.figure, mirrored.axis, mirrored.place_at(mirrored.lap - 0.5))
        assert sum(less) < safe or min(less) < LEAST_SPAN


@pytest.mark.parametrize("kind", SHAPED)
@pytest.mark.parametrize("way", WAYS.names())
@pytest.mark.parametrize("swapped", [False, True])
def test_no_beginning_is_larger_than_the_card(kind: str, way: str, swapped: bool) -> None:
    folding = {"kind": way, "swapped": swapped}
    found = begun(FIGURES[kind](), folding=folding)
    assert {"plain"} <= found.keys()
    for key, design in found.items():
        if key != "half" and way != "own":
            assert all(c <= 127 + 1e-6 for c in closed(design)), key


def test_a_figure_stands_out_as_far_as_the_back_reaches() -> None:
    design = begun(Circle())["welded"]
    assert design.card.folding.front_shorter > 10
    assert closed(design) == pytest.approx((127, 127))
    work = base(design)
    front = work.box_of("front")
    assert work.paper.bounds.right - front.right == pytest.approx(design.card.folding.front_shorter)


def test_its_own_size_is_kept_where_that_is_wished() -> None:
    found = begun(Circle(), fits=False)
    assert base(found["half"]).paper.bounds.width == pytest.approx(60)
    assert closed(found["mirrored"]) == pytest.approx((60 - 3.5 / 2, 60), abs=0.01)
    assert base(found["window"]).windows[0].outline.bounds.width == pytest.approx(60)


def test_ways_that_are_not_open_say_why() -> None:
    found = whys(Heart(), folding={"kind": "gatefold"})
    assert "two mirrored halves" in found["mirrored"]
    assert found["plain"] == ""
    assert "separate parts" in whys(Word(text="Ahoy"))["mirrored"]


def test_only_artworks_that_are_read_stay() -> None:
    artwork = {"name": "Boat", "layers": [{"name": "Hull", "path": "M0 0H40V30H0Z"}]}
    design = load_design({"card": {"size": SQUARE}, "artworks": {"boat": artwork}})
    drawn = load_figure({"kind": "drawn", "ref": "boat"})
    made = {o.beginning.key: o.design for o in openings(design, drawn, 0)}
    shaped, plain = made["mirrored"], made["plain"]
    assert shaped is not None
    assert plain is not None
    assert list(shaped.artworks) == ["boat"]
    assert plain.artworks == {}
    assert shaped.pieces[0].steps[0].starts_with == "artwork"


def test_a_deep_lap_is_taken_where_a_tip_would_tear() -> None:
    """A star's tip holds 20 mm only far inside."""
    work = base(begun(Star())["mirrored"])
    assert work.mirrored is not None
    assert work.mirrored.lap > 20


def test_no_figure_is_said_in_words() -> None:
    with pytest.raises(DocumentError, match="kind"):
        load_figure({"kind": "pear"})


@pytest.mark.parametrize("kind", SHAPED)
@pytest.mark.parametrize("way", ["side-fold", "top-fold"])
@pytest.mark.parametrize("margin", [0.0, 4.0])
def test_a_stretched_figure_makes_a_card_of_exactly_its_size(
    kind: str, way: str, margin: float
) -> None:
    """150 x 210 less the margin all round, whatever the figure's proportions and the lap that the mirror cuts off."""
    size = {"name": "own", "width": 150, "height": 210}
    found = begun(FIGURES[kind](), margin, size=size, folding={"kind": way})
    wanted = (150 - 2 * margin, 210 - 2 * margin)
    assert closed(found["mirrored-stretched"]) == pytest.approx(wanted, abs=1e-3)
    assert "mirrored-stretched" not in begun(FIGURES[kind](), margin, fits=False, size=size)
