"""A layer's start names the windows of what it lies on, as steps of that piece."""

from __future__ import annotations

from stileblade.unexpected import Attempts
from stileblade.views.flat import flat_of
from tests.whole import BLANK, WINDOW, layer, whole


def test_a_backing_names_the_window_that_it_covers() -> None:
    card = whole([BLANK, WINDOW], layer("b", {"kind": "backing", "window": "w"}, side="inside"))
    piece = card.pieces[1]
    view = flat_of(card, piece, piece.outcomes[0], Attempts())
    assert [(w.key, w.title) for w in view.windows] == [("w", "step 2, Window on front")]
    base = card.pieces[0]
    assert flat_of(card, base, base.outcomes[0], Attempts()).windows == []
