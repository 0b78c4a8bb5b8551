"""Pieces in the windows of others, where a job allows it, and offcuts on which nothing finds room."""

from __future__ import annotations

import shapely

from stileblade.design.evaluation import evaluate
from stileblade.geometry.measures import rows
from stileblade.machine.shipped import FLATBED
from stileblade.sheets.job import Card, JobOptions, stocks_of
from stileblade.sheets.laying import Laid, lay_job
from tests.conftest import design_of

FRAME = [
    {"kind": "blank"},
    {"kind": "window", "outline": {"kind": "circle", "diameter": 90}},
]
A6 = {"kind": "blank"}


def cards() -> list[Card]:
    """A frame with a large window, and small gift tags that fit in it."""
    frame = design_of(*FRAME)
    tag = design_of(A6).model_dump(mode="json")
    tag["card"]["size"] = {
        "name": "tag", "width": 30, "height": 22, "envelope": {"name": "none", "width": 45, "height": 30},
    }  # fmt: skip
    small = type(frame).model_validate(tag)
    return [Card("0", "Frame", evaluate(frame), 1), Card("1", "Tag", evaluate(small), 1)]


def laid(options: JobOptions, **more: object) -> Laid:
    stocks = stocks_of(cards(), options)
    return lay_job("job", stocks, options, FLATBED, **more)  # type: ignore[arg-type]


def in_windows(job: Laid) -> int:
    """Pieces that lie in a window of another."""
    found = 0
    for sheet in job.sheets:
        shapes = [lying.placed.shape for lying in sheet.lying]
        whole = [rows.filled(shape) for shape in shapes]
        found += sum(
            shapely.within(a, b)
            for i, a in enumerate(shapes)
            for k, b in enumerate(whole)
            if i != k
        )
    return found


def test_pieces_lie_in_windows_of_others_where_the_job_allows_it() -> None:
    stocks = stocks_of(cards(), JobOptions())
    size = {stock.keys[0]: (160.0, 230.0) for stock in stocks}
    inside = laid(JobOptions(formats=size))
    outside = laid(JobOptions(formats=size, in_windows=False))
    assert (len(inside.sheets), in_windows(inside)) == (1, 1)
    assert (len(outside.sheets), in_windows(outside)) == (2, 0)
    assert outside.weight == inside.weight
    assert any("in the windows of others" in text for text in outside.advice)


def test_an_offcut_without_room_is_not_used() -> None:
    options = JobOptions()
    full = {0: [[shapely.box(0, 0, 320, 450)], [shapely.box(5, 5, 20, 20)]]}
    job = laid(options, taken=full)
    assert [bool(sheet.lying) for sheet in job.sheets] == [True] * len(job.sheets)
    assert job.sheets[0].form.taken == (tuple(full[0][1]),)
