"""What goes round the card: bands and envelopes to measure, wherever they stand in the list of pieces."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import run_checks
from stileblade.design.changes import with_changes
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.geometry.regions.region import Region
from stileblade.views.findings import changes_of
from tests.conftest import A2
from tests.whole import BLANK, layer, whole, work_of


def size_of(region: Region) -> tuple[float, float]:
    return region.bounds.width, region.bounds.height


def test_a_band_and_an_envelope_to_measure() -> None:
    card = whole([BLANK], layer("b", {"kind": "band"}, side="around"), size=A2)
    assert work_of(card, "b").paper.bounds.width == pytest.approx(238.1)
    assert [f.at for f in work_of(card, "b").folds] == pytest.approx([109.05, 218.1])
    card = whole([BLANK], layer("e", {"kind": "envelope"}, side="around"),
                 layer("l", {"kind": "liner"}, host="e", side="inside"), size=A2)  # fmt: skip
    assert inside_of(card) == pytest.approx((112.55, 144.3))
    assert work_of(card, "l").paper.bounds.width == pytest.approx(102.55)
    square = {"name": "s", "width": 150, "height": 150}
    thick = [{"thickness": 0.6, "sheet_width": 500, "sheet_height": 500}]
    for flap in ("pointed", "rounded", "straight"):
        card = whole([BLANK], layer("e", {"kind": "envelope", "flap": flap}, side="around"),
                     size=square, papers=thick)  # fmt: skip
        assert size_of(work_of(card, "e").paper) == pytest.approx((191.2, 318.16))


def inside_of(card: Evaluation, envelope: str = "e") -> tuple[float, float]:
    """The inside measures of a card's own envelope."""
    front = next(p for p in work_of(card, envelope).panels if p.name == "front").box
    return front.width, front.height


def heart(key: str, number: int) -> dict[str, Any]:
    return layer(key, {"kind": "overlay"}, fixing="pads", pad=1.0, order=number)


@pytest.mark.parametrize("at", [0, 1, 2, 3])
def test_an_envelope_holds_all_pieces_wherever_they_stand_in_the_list(at: int) -> None:
    """ISO A6 of 0.3 mm with three hearts of 0.3 on pads of 1: bulk 0.6 + 3 x 1.3 = 4.5; inside
    105 + 4.5 + 4 by 148 + 4.5 + 4."""
    pieces = [heart("a", 0), heart("b", 1), heart("c", 2)]
    pieces.insert(at, layer("e", {"kind": "envelope"}, side="around"))
    card = whole([BLANK], *pieces)
    assert card.stack is not None
    assert card.stack.bulk == pytest.approx(4.5)
    assert inside_of(card) == pytest.approx((113.5, 156.5))
    assert not [f for f in run_checks(card) if f.code.startswith("envelope.")]


@pytest.mark.parametrize("at", [0, 1, 2])
def test_an_envelope_holds_what_stands_out_and_the_band_round_it(at: int) -> None:
    """A half-fixed disc of 60 about the front's open edge stands out by 30; a band of 0.3 mm is three thick
    where it overlaps. Bulk 0.6 + 0.3 + 0.9 = 1.8; inside 105 + 30 + 1.8 + 4 by 148 + 1.8 + 4. The band
    itself is made for a bulk of 0.9 and is 2 (135 + 0.9 + 0.5) + 20 = 292.8 long, wherever it stands."""
    disc = {
        "kind": "overlay",
        "outline": {"kind": "circle", "diameter": 60},
        "at": "right",
        "may_stand_out": True,
    }
    pieces = [layer("d", disc), layer("b", {"kind": "band"}, side="around")]
    pieces.insert(at, layer("e", {"kind": "envelope"}, side="around"))
    for made in (pieces, pieces[::-1]):
        card = whole([BLANK], *made)
        assert card.stack is not None
        assert card.stack.bulk == pytest.approx(1.8)
        assert card.stack.closed == pytest.approx((135, 148))
        assert inside_of(card) == pytest.approx((140.8, 153.8))
        assert size_of(work_of(card, "b").paper)[0] == pytest.approx(292.8)


def test_a_liner_and_a_figure_on_the_band_do_not_count_twice() -> None:
    """What lies on the band counts in the envelope and not in the band: at its place two thicknesses of the
    band and 0.3 on pads of 1. What lies in the envelope counts in neither."""
    disc = {"kind": "overlay", "outline": {"kind": "circle", "diameter": 20}}
    on_band = layer("o", disc, host="b", fixing="pads", pad=1.0)
    card = whole([BLANK], layer("b", {"kind": "band"}, side="around"),
                 layer("e", {"kind": "envelope"}, side="around"),
                 layer("l", {"kind": "liner"}, host="e", side="inside"), on_band, size=A2)  # fmt: skip
    assert size_of(work_of(card, "b").paper)[0] == pytest.approx(238.1)
    assert inside_of(card) == pytest.approx((107.95 + 0.6 + 1.9 + 4, 139.7 + 0.6 + 1.9 + 4))


def test_a_card_is_held_against_its_own_envelope() -> None:
    """With a room of 1 the own envelope leaves 1 where 2 are wished for, though the card's C6 has plenty;
    the mend makes it 2."""
    card = whole(
        [BLANK],
        layer("e", {"kind": "envelope", "id": "s1", "room": 1}, side="around", name="Cover"),
    )
    (finding,) = [f for f in run_checks(card) if f.code == "envelope.tight"]
    assert finding.message == "Only 1 mm of room in its own envelope; 2 mm is wished for."
    (mend,) = finding.mends
    mended = evaluate(with_changes(card.design, changes_of(mend, "base")))
    assert inside_of(mended) == pytest.approx((105 + 0.6 + 2, 148 + 0.6 + 2))
    assert not [f for f in run_checks(mended) if f.code.startswith("envelope.")]


def test_a_thick_card_has_a_band_with_double_scores() -> None:
    card = whole([BLANK], layer("f", {"kind": "overlay"}, fixing="pads"),
                 layer("b", {"kind": "band"}, side="around"))  # fmt: skip
    assert [f.spine for f in work_of(card, "b").folds] == pytest.approx([2.4, 2.4])
