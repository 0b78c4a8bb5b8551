"""Grilles, slot ladders, stencils and shaped edges: the worked figures of the rules."""

from __future__ import annotations

import itertools
import math
from typing import Any

import pytest

from stileblade.design.evaluation import Outcome, evaluate
from stileblade.folding.flat import fold_flat
from stileblade.piece.work import Work
from stileblade.steps.step import Told
from tests.conftest import design_of
from tests.geometry.regions.test_set_operations import check_whole

BLANK = {"kind": "blank"}
OPENING = {"kind": "window", "id": "w",
           "outline": {"kind": "rectangle", "width": 60, "height": 40}}  # fmt: skip


def last(*steps: dict[str, Any], **card: Any) -> Outcome:
    return evaluate(design_of(BLANK, *steps, **card)).pieces[0].outcomes[-1]


def made(*steps: dict[str, Any], **card: Any) -> Work:
    outcome = last(*steps, **card)
    assert outcome.problem is None, outcome.problem
    assert outcome.work is not None
    check_whole(outcome.work.paper)
    return outcome.work


def told(*steps: dict[str, Any], **card: Any) -> dict[str, Told]:
    piece = evaluate(design_of(BLANK, *steps, **card)).pieces[0]
    outcome = piece.outcomes[-1]
    assert outcome.work is not None
    return {t.name: t for t in outcome.step.tells(outcome.before, outcome.work, piece.setting)}


def open_area(*steps: dict[str, Any]) -> float:
    """What is cut out of the blank."""
    return made().paper.area - made(*steps).paper.area


def grille(**values: Any) -> dict[str, Any]:
    return {"kind": "grille", "bar": 3, "gap": 6, **values}


def test_a_grille_in_one_direction() -> None:
    """60 x 40, bar 3, gap 6: bars at 0, +-9, +-18, +-27; open 60 * 40 - 7 * 3 * 40 = 1560."""
    assert open_area(OPENING, grille()) == pytest.approx(1560, abs=1e-6)
    found = told(OPENING, grille())
    assert (found["Bars"].value, found["Open"].value) == (7, pytest.approx(1560))
    assert found["Open share"].value == pytest.approx(65)
    assert len(made(OPENING, grille()).paper.openings) == 8


def test_a_grille_in_two_directions() -> None:
    """7 by 5 bars, open (60 - 21) * (40 - 15) = 975."""
    both = grille(pattern="both")
    assert open_area(OPENING, both) == pytest.approx(975, abs=1e-6)
    assert told(OPENING, both)["Bars"].value == 12
    assert made(OPENING, both).paper.pieces == 1


@pytest.mark.parametrize("angle", [-30, 17, 45, 90])
@pytest.mark.parametrize("pattern", ["one", "both", "wheel"])
def test_no_bar_floats_however_it_is_turned(angle: float, pattern: str) -> None:
    round_ = {"kind": "window", "outline": {"kind": "circle", "diameter": 60}}
    work = made(round_, grille(pattern=pattern, angle=angle))
    assert work.paper.pieces == 1
    assert 0 < open_area(round_, grille(pattern=pattern, angle=angle)) < 900 * math.pi


def test_a_grille_without_a_window_says_so() -> None:
    problem = last(grille()).problem
    assert problem is not None
    assert problem.message == "There is no window yet."
    known = last(OPENING, grille(window="x")).problem
    assert known is not None
    assert known.hint == "Windows: w."


def test_a_slot_ladder() -> None:
    """n = 6, w1 = 20, dw = 6, h = 5, v = 4: widths 20 to 50, height 50; cut out 35 * 6 * 5 = 1050."""
    ladder = {
        "kind": "slot-ladder",
        "count": 6,
        "first": 20,
        "change": 6,
        "height": 5,
        "between": 4,
    }
    work = made(ladder)
    widths = sorted(c.bounds.width for c in work.paper.openings)
    assert widths == pytest.approx([20, 26, 32, 38, 44, 50])
    tops = sorted(c.bounds.head for c in work.paper.openings)
    assert [b - a for a, b in itertools.pairwise(tops)] == pytest.approx([9] * 5)
    box = work.windows[-1].outline.bounds
    assert (box.width, box.height) == pytest.approx((50, 50))
    assert box.centre == pytest.approx((107.95 * 1.5, 69.85))
    assert open_area(ladder) == pytest.approx(1050, abs=1e-6)
    # a stem of 4 parts each slot in two
    stemmed = made({**ladder, "stem": 4})
    assert len(stemmed.paper.openings) == 12
    assert open_area({**ladder, "stem": 4}) == pytest.approx(1050 - 6 * 4 * 5, abs=1e-6)


@pytest.mark.parametrize(
    ("align", "lefts"), [("left", [0, 0, 0]), ("right", [20, 10, 0]), ("centre", [10, 5, 0])]
)
def test_slots_are_aligned(align: str, lefts: list[float]) -> None:
    ladder = {"kind": "slot-ladder", "count": 3, "first": 20, "change": 10, "align": align}
    openings = sorted(made(ladder).paper.openings, key=lambda c: c.bounds.head)
    least = min(c.bounds.left for c in openings)
    assert [c.bounds.left - least for c in openings] == pytest.approx(lefts)


@pytest.mark.parametrize(
    ("values", "message"),
    [
        ({"change": -6}, "The last slot would be -10 mm wide."),
        (
            {"first": 200, "change": 0},
            "The ladder of 200 mm x 50 mm runs 46.03 mm over the edge of its panel.",
        ),
        ({"stem": 60}, "A stem of 60 mm leaves nothing of the slots."),
    ],
)
def test_a_ladder_that_cannot_be(values: dict[str, float], message: str) -> None:
    ladder = {
        "kind": "slot-ladder",
        "count": 6,
        "first": 20,
        "change": 6,
        "height": 5,
        "between": 4,
    }
    problem = last({**ladder, **values}).problem
    assert problem is not None
    assert problem.message == message


def stencil(**values: Any) -> dict[str, Any]:
    ring = {"kind": "ring", "diameter": 40, "opening": 20}
    return {"kind": "stencil", "outline": ring, **values}


def test_the_island_of_a_ring_is_held_by_two_bridges() -> None:
    """Radii 20 and 10, two bridges of 2 mm: 300 pi - 2 * 20.0167 = 902.444."""
    assert open_area(stencil()) == pytest.approx(902.444, abs=1e-3)
    work = made(stencil())
    assert (work.paper.pieces, len(work.paper.openings)) == (1, 2)
    found = told(stencil())
    assert (found["Islands"].value, found["Bridges"].value) == (1, 2)
    assert found["Bridges"].note == "the longest 10.0 mm"
    # opposite each other: the two halves are alike
    a, b = (c.area for c in work.paper.openings)
    assert a == pytest.approx(b, rel=1e-3)


@pytest.mark.parametrize("count", [1, 3, 5])
def test_more_bridges_go_round_evenly(count: int) -> None:
    work = made(stencil(bridges=count, placed_by="own", first=90))
    assert len(work.paper.openings) == count
    assert work.paper.pieces == 1
    areas = [c.area for c in work.paper.openings]
    assert max(areas) == pytest.approx(min(areas), rel=0.02)


def test_without_bridges_the_island_drops_out() -> None:
    assert open_area(stencil(bridged=False)) == pytest.approx(400 * math.pi, abs=1e-6)


def test_bridges_stand_where_they_are_shortest() -> None:
    """A word's letters are held each by itself: nothing drops out of an O beside an I."""
    word = {"kind": "word", "text": "BOA", "size": 40}
    found = told(stencil(outline=word))
    work = made(stencil(outline=word))
    assert found["Islands"].value == 4
    assert found["Bridges"].value == 8
    assert work.paper.pieces == 1
    longest = float(found["Bridges"].note.split()[-2])
    assert longest < 12


def edge(**values: Any) -> dict[str, Any]:
    return {"kind": "shaped-edge", "depth": 4, "pitch": 20, **values}


def test_a_motif_repeats_a_whole_number_of_times() -> None:
    """Along 139.7 at 20 wished: 7 of 19.957."""
    found = told(edge())
    assert (found["Repeats"].value, found["Pitch"].value) == (7, pytest.approx(19.957, abs=1e-3))


@pytest.mark.parametrize("motif", ["scallop", "wave", "zigzag", "battlement", "deckle"])
@pytest.mark.parametrize("side", ["right", "head", "foot"])
def test_a_shortened_edge_keeps_the_closed_size(motif: str, side: str) -> None:
    work = made(edge(motif=motif, side=side))
    assert fold_flat(work).closed == pytest.approx((107.95, 139.7), abs=1e-6)
    assert work.paper.area < made().paper.area - 50
    assert work.paper.pieces == 1


@pytest.mark.parametrize("motif", ["scallop", "wave", "zigzag", "battlement", "deckle"])
def test_an_added_edge_grows_by_the_depth(motif: str) -> None:
    work = made(edge(motif=motif, keep="added"))
    assert fold_flat(work).closed[0] == pytest.approx(111.95, abs=1e-6)


def test_the_areas_of_the_motifs() -> None:
    """Along 139.7, 4 deep: zigzags and waves cut half of the strip away, scallops as half ellipses
    (1 - pi / 4) of it, battlements half."""
    strip = 139.7 * 4
    for motif, share in (
        ("zigzag", 0.5),
        ("wave", 0.5),
        ("scallop", 1 - math.pi / 4),
        ("battlement", 0.5),
    ):
        assert open_area(edge(motif=motif)) == pytest.approx(strip * share, abs=1e-3), motif


@pytest.mark.parametrize("plain", [0, 12])
@pytest.mark.parametrize(("ends", "kept"), [("deep", 0), ("full", 1)])
def test_the_corners_of_a_shaped_edge(ends: str, kept: int, plain: float) -> None:
    """139.7 - 2 x plain are shaped; the plain ends lie at the deepest places or stand full, and
    then the panel's corners are where they were."""
    shares = {"zigzag": 0.5, "wave": 0.5, "scallop": 1 - math.pi / 4, "battlement": 0.5}
    for motif, share in shares.items():
        step = edge(motif=motif, ends=ends, plain=plain)
        lost = (139.7 - 2 * plain) * 4 * share + (1 - kept) * 2 * plain * 4
        assert open_area(step) == pytest.approx(lost, abs=1e-3), motif
        work = made(step)
        at_corner = [p for p in work.paper.segments.start.tolist() if p[0] > 215.9 - 1e-6]
        heights = {round(y, 6) for _, y in at_corner}
        assert heights >= {0.0, 139.7} if kept else not heights & {0.0, 139.7}
        grown = made(edge(motif=motif, ends=ends, plain=plain, keep="added"))
        added = (139.7 - 2 * plain) * 4 * (1 - share) + kept * 2 * plain * 4
        assert grown.paper.area - made().paper.area == pytest.approx(added, abs=1e-3), motif
    assert told(edge(plain=12))["Pitch"].value == pytest.approx(115.7 / 6)


def test_plain_ends_leave_room_for_the_motif() -> None:
    problem = last(edge(plain=70)).problem
    assert problem is not None
    assert problem.message == "Two plain ends of 70 mm leave nothing of the edge's 139.7 mm."
    assert (problem.field, problem.would_do) == ("plain", 14.0)
    tapered = made(edge(motif="wave", ends="full", taper=0.25, keep="added"))
    ends = sorted(p for p in tapered.paper.segments.start.tolist() if p[1] in (0.0, 139.7))
    assert max(x for x, y in ends if y == 0.0) == pytest.approx(219.9)
    assert max(x for x, y in ends if y == 139.7) == pytest.approx(216.9)


def test_a_torn_edge_is_torn_the_same_way_again() -> None:
    assert open_area(edge(motif="deckle")) == open_area(edge(motif="deckle"))
    assert open_area(edge(motif="deckle")) != open_area(edge(motif="deckle", seed=2))


def test_a_fold_is_no_edge() -> None:
    problem = last(edge(side="left")).problem
    assert problem is not None
    assert problem.message == "That edge is no edge: fold lies there."
    assert problem.hint == "Take another one: right, head, foot."
    # the back's left edge is one
    assert made(edge(side="left", target="back")).paper.pieces == 1
