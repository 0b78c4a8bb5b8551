"""Places for the names of panels: in the middle, and beside what is drawn there."""

from __future__ import annotations

from stileblade.piece.work import Work
from stileblade.views.panels import panels_of
from tests.whole import whole

WORD = {"kind": "lettering", "text": "TIDE", "height": 12}


def work_of(*steps: dict[str, object]) -> Work:
    work = whole([{"kind": "blank"}, *steps]).pieces[0].work
    assert work is not None
    return work


def test_a_name_stands_in_the_middle_of_plain_paper() -> None:
    """Two panels of 105 x 148 (ISO A6)."""
    assert [p.label for p in panels_of(work_of())] == [(52.5, 74.0), (157.5, 74.0)]


def test_a_name_steps_aside_from_lettering() -> None:
    """The word stands in the middle of one panel; its name is elsewhere on it, the other's stays."""
    work = work_of(WORD)
    places = [p for line in work.lines_on_paper for edge in line.edges for p in edge]
    xs, ys = [x for x, _ in places], [y for _, y in places]
    left, right, head, foot = min(xs), max(xs), min(ys), max(ys)
    on = [p for p in panels_of(work) if p.box[0] < (left + right) / 2 < p.box[2]]
    (panel,) = on
    assert left < (panel.box[0] + panel.box[2]) / 2 < right
    assert head < (panel.box[1] + panel.box[3]) / 2 < foot
    (x, y) = panel.label
    assert panel.box[0] < x < panel.box[2]
    assert panel.box[1] < y < panel.box[3]
    assert not (left - 4 < x < right + 4 and head - 4 < y < foot + 4)
    other = next(p for p in panels_of(work) if p is not panel)
    assert other.label in [(52.5, 74.0), (157.5, 74.0)]
