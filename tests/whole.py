"""Whole cards for tests: a base and pieces that lie on it."""

from __future__ import annotations

from typing import Any

from stileblade.design.document import load_design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.piece.work import Work

ISO_A6 = {"name": "ISO A6", "width": 105, "height": 148,
          "envelope": {"name": "C6", "width": 114, "height": 162}}  # fmt: skip
BLANK = {"kind": "blank"}
WINDOW = {"kind": "window", "id": "w", "outline": {"kind": "rectangle", "width": 60, "height": 80}}
CIRCLES = (
    {"kind": "figure", "outline": {"kind": "circle", "diameter": 110}},
    {"kind": "mirror", "towards": "left", "lap": 8},
)
"""Two circles of 110, that run into each other by 8."""


def layer(key: str, *steps: dict[str, Any], host: str = "base", **more: Any) -> dict[str, Any]:
    """A piece that lies on another."""
    return {"id": key, "name": key, "host": host, "steps": list(steps), **more}


def whole(
    base: list[dict[str, Any]] | tuple[dict[str, Any], ...],
    *layers: dict[str, Any],
    size: dict[str, Any] | None = None,
    way: dict[str, Any] | None = None,
    papers: list[dict[str, Any]] | None = None,
    artworks: dict[str, Any] | None = None,
) -> Evaluation:
    """The evaluation of a card of 0.3 mm stock, upright ISO A6 if nothing else is said."""
    return evaluate(
        load_design(
            {
                "card": {"size": size or ISO_A6, "folding": way or {"kind": "side-fold"}},
                "papers": papers or [{"thickness": 0.3, "sheet_width": 320, "sheet_height": 450}],
                "pieces": [{"id": "base", "name": "Base", "steps": list(base)}, *layers],
                "artworks": artworks or {},
            }
        )
    )


def work_of(evaluation: Evaluation, key: str) -> Work:
    """A finished piece; an assertion where a step of it was passed over."""
    piece = next(p for p in evaluation.pieces if p.piece.id == key)
    assert [o.problem for o in piece.outcomes if o.problem] == []
    assert piece.work is not None
    return piece.work


def problem_of(evaluation: Evaluation, key: str) -> str:
    """Why the piece's last step was passed over."""
    piece = next(p for p in evaluation.pieces if p.piece.id == key)
    problem = piece.outcomes[-1].problem
    assert problem is not None
    return problem.message
