"""Documents that cost far more than their size: each a generator of steps, with artworks."""

from __future__ import annotations

import random
from collections.abc import Callable
from typing import Any

from tests.conftest import design_of

Document = dict[str, Any]
BLANK = {"kind": "blank", "id": "a"}
MANY = {"repeat": "grid", "columns": 20, "rows": 20}


def _of(*steps: dict[str, Any], **card: Any) -> Document:
    numbered = [{**s, "id": f"s{n}"} for n, s in enumerate(steps)]
    return design_of(*numbered, **card).model_dump(mode="json")


def with_artwork(path: str, rule: str = "nonzero") -> Document:
    data = _of({"kind": "figure", "outline": {"kind": "drawn", "ref": "k"}})
    return {**data, "artworks": {"k": {"layers": [{"path": path, "rule": rule}]}}}


def crossing_path(points: int) -> str:
    """A closed line to and fro between random places: it crosses itself about n^2 / 9 times."""
    lots = random.Random(points)
    places = (f"{lots.uniform(0, 100):.1f} {lots.uniform(0, 100):.1f}" for _ in range(points))
    return f"M{'L'.join(places)}Z"


def _star_windows(count: int) -> Document:
    star = {"kind": "window", "outline": {"kind": "star", "points": 100}}
    return _of(BLANK, *[{**star, "dx": n / 10} for n in range(count)])


DOCUMENTS: dict[str, Callable[[], Document]] = {
    "stars of a hundred points on each other": lambda: _of(
        BLANK, {"kind": "window", "outline": {"kind": "star", "points": 100}, **MANY, "gap": -7}
    ),
    "stars welded on each other": lambda: _of(
        BLANK, {"kind": "weld", "outline": {"kind": "star", "points": 12}, **MANY, "gap": -20}
    ),
    "a path that crosses itself": lambda: with_artwork(crossing_path(500)),
    "one that does so ten million times": lambda: with_artwork(crossing_path(10_000), "evenodd"),
    "an arc of a hundred and fifty nines": lambda: with_artwork("M0 0A" + "9" * 150),
    "numbers without end": lambda: with_artwork("M0 0L" + "9" * 100_000),
    "a hundred thousand moves": lambda: with_artwork("M0 0" * 100_000),
    "windows of many points": lambda: _star_windows(199),
    "a stencil of as many rings as fit": lambda: _of(
        BLANK,
        {"kind": "stencil", "outline": {"kind": "ring", "diameter": 10, "opening": 5},
         "repeat": "fit", "gap": 1}, size={"name": "A5", "width": 148, "height": 210}),
    "a stencil in all corners": lambda: _of(
        BLANK,
        {"kind": "stencil", "outline": {"kind": "heart", "width": 3, "height": 3}, "bridges": 12,
         "repeat": "grid", "columns": 10, "rows": 26, "gap": 0.5, "also": "corners"}),
    "the longest ladder": lambda: _of(
        BLANK, {"kind": "slot-ladder", "count": 100, "change": 0, "height": 0.5, "between": 0.5}),
    "two hundred of them": lambda: _of(
        BLANK, *[{"kind": "slot-ladder", "count": 100, "change": 0, "dx": n / 10}
                 for n in range(199)]),
    "loose pieces": lambda: _of(
        BLANK, *[{"kind": "window", "outline": {"kind": "ring", "diameter": 3, "opening": 2},
                  **MANY, "gap": 0.2, "dx": n} for n in range(4)]),
    "the finest holes pricked everywhere": lambda: _of(
        BLANK, *[{"kind": "drawn-figure", "how": "prick", "spacing": 0.5, "diameter": 0.3,
                  "lines": 20, "apart": 0.2, **MANY, "gap": -60, "dx": n} for n in range(6)]),
    "the finest stitches": lambda: _of(
        BLANK, *[{"kind": "drawn-figure", "how": "stitch", "stitch": 0.5, "between": 0.3,
                  "lines": 20, "apart": 0.2, **MANY, "gap": -60, "dx": n} for n in range(6)]),
    "words": lambda: _of(
        BLANK, *[{"kind": "stencil", "outline": {"kind": "word", "text": "@%&8" * 20},
                  "dx": n / 10} for n in range(60)]),
}  # fmt: skip
