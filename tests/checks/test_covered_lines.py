"""Lines that a layer covers are said, with their number, and a window is made large enough for them."""

from __future__ import annotations

from typing import Any

import pytest

from stileblade.checks.check import Finding, run_checks
from stileblade.design.changes import with_changes
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.views.findings import changes_of
from tests.whole import BLANK, WINDOW, layer, whole

STITCHES = {"kind": "border-line", "id": "st", "along": "windows", "margin": 4, "how": "stitch"}


def covered(card: Evaluation) -> list[Finding]:
    return [f for f in run_checks(card) if f.code == "lines.covered"]


def test_stitches_round_a_window_below_a_mat() -> None:
    """Stitches 4 mm from a window of 60 x 80, a mat whose window is 2 mm larger: all are covered, and 4 + 0.5, to
    the half, leaves them free."""
    card = whole(
        [BLANK, WINDOW, STITCHES],
        layer("m", {"kind": "mat", "id": "s1", "window_margin": 2}, name="Mat"),
    )
    (finding,) = covered(card)
    work = card.pieces[0].work
    assert work is not None
    count = len(work.lines_on_paper[0].ways)
    assert count > 30
    assert finding.value == count
    assert finding.message == f"{count} of {count} stitches of step 3 are covered by 'Mat'."
    (mend,) = finding.mends
    assert mend.title == "window margin of 4.5 mm"
    assert covered(evaluate(with_changes(card.design, changes_of(mend, "base")))) == []


@pytest.mark.parametrize("mat", [
    {"kind": "mat", "window_margin": 5},
    {"kind": "mat", "margin": 30, "windows": "closed", "by_side": True, "head": 140},
])  # fmt: skip
def test_what_is_seen_is_no_finding(mat: dict[str, Any]) -> None:
    assert covered(whole([BLANK, WINDOW, STITCHES], layer("m", mat))) == []


def test_a_see_through_layer_covers_nothing() -> None:
    papers = [{"id": "paper", "thickness": 0.3}, {"id": "vellum", "thickness": 0.1, "light": 0.6}]
    mat = layer("m", {"kind": "mat", "window_margin": 2}, paper="vellum")
    assert covered(whole([BLANK, WINDOW, STITCHES], mat, papers=papers)) == []


def test_what_a_layer_draws_is_covered_by_the_one_on_it() -> None:
    """A line along a mat's own edge, and a second mat as large on it."""
    line = {"kind": "border-line", "id": "bl", "along": "outline", "margin": 1}
    low = layer("a", {"kind": "mat", "margin": 4, "windows": "closed"}, line)
    high = layer("b", {"kind": "mat", "margin": 4, "windows": "closed"}, order=1)
    (finding,) = covered(whole([BLANK], low, high))
    assert finding.message == "1 of 1 lines of step 2 are covered by 'b'."
    assert finding.mends == ()


def test_a_small_piece_under_a_large_one_is_laid_over_it() -> None:
    """A tag of 40 x 20 with a line round it, under a plate of 60 x 60: over it, the tag covers 800 of its 3,600 mm2.
    Over a plate of 40 x 30 it would cover two thirds, and the other way round it is the plate that has the line."""
    line = {"kind": "border-line", "id": "bl", "along": "outline", "margin": 2}

    def rect(width: float, height: float) -> dict[str, Any]:
        outline = {"kind": "rectangle", "width": width, "height": height}
        return {"kind": "overlay", "outline": outline}

    def card(*plate: float) -> Evaluation:
        return whole(
            [BLANK],
            layer("tag", rect(40, 20), line, name="Tag", order=0),
            layer("seal", rect(8, 8), order=3),
            layer("plate", rect(*plate), name="Plate", order=5),
        )

    (finding,) = covered(card(60, 60))
    (mend,) = finding.mends
    assert mend.title == "lay 'Tag' over 'Plate'"
    mended = evaluate(with_changes(card(60, 60).design, changes_of(mend, "tag")))
    assert covered(mended) == []
    orders = {p.piece.id: p.piece.order for p in mended.pieces if p.piece.host}
    assert sorted(orders, key=orders.__getitem__) == ["seal", "plate", "tag"]
    (finding,) = covered(card(40, 30))
    assert finding.mends == ()
