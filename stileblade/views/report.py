"""An evaluation as plain data: what ``python -m stileblade evaluate`` prints.

Lengths in mm; the finished piece's top left is 0, 0, x to the right and y downwards.
"""

from __future__ import annotations

from typing import Any

from stileblade.checks.check import Finding, run_checks
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.folding.flat import fold_flat
from stileblade.folding.hinge import hinge_length
from stileblade.geometry.curves.places import Point
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.paths.pathdata import path_data
from stileblade.piece.folds import Fold
from stileblade.piece.work import Work
from stileblade.views.pieces import card_weight, placement

_PLACES = 6


def number(value: float) -> float:
    """Rounded to a millionth of a mm, without a negative zero."""
    return round(value, _PLACES) + 0.0


def report(evaluation: Evaluation) -> dict[str, Any]:
    """card, pieces and findings."""
    return {
        "card": card_measures(evaluation) | whole_card(evaluation),
        "pieces": [_lying(evaluation, p) | _piece(p) for p in evaluation.pieces],
        "findings": [finding_data(f) for f in run_checks(evaluation)],
    }


def whole_card(evaluation: Evaluation) -> dict[str, Any]:
    """Bulk and weight of the card with all that lies on it."""
    stack = evaluation.stack
    return {
        "bulk_mm": number(stack.bulk) if stack else 0.0,
        "weight_g": number(card_weight(evaluation)),
        "posted_g": number(card_weight(evaluation, posted=True)),
    }


def card_measures(evaluation: Evaluation) -> dict[str, list[float]]:
    """Open size of the first piece, the base, and its closed size with what stands out of it; 0 x 0 while
    there is none."""
    work = evaluation.pieces[0].whole
    if work is None or not work.paper:
        return {"open_mm": [0.0, 0.0], "closed_mm": [0.0, 0.0]}
    stack = evaluation.stack
    box, closed = work.paper.bounds, stack.closed if stack else fold_flat(work).closed
    return {
        "open_mm": [number(box.width), number(box.height)],
        "closed_mm": [number(closed[0]), number(closed[1])],
    }


def finding_data(finding: Finding) -> dict[str, Any]:
    return {
        "code": finding.code,
        "severity": str(finding.severity),
        "message": finding.message,
        "piece": finding.piece,
        "value": None if finding.value is None else number(finding.value),
        "hint": finding.hint,
        "step": finding.step,
        "mends": [m.title for m in finding.mends],
        "accepted": finding.accepted or None,
    }


def _lying(evaluation: Evaluation, outcome: PieceOutcome) -> dict[str, Any]:
    """On what the piece lies, and how: ``matrix`` maps its outline as printed here to its host's."""
    piece, work = outcome.piece, outcome.work
    matrix = placement(evaluation, outcome)
    layer = evaluation.stack.layer(piece.id) if evaluation.stack else None
    return {
        "id": piece.id,
        "host": piece.host or None,
        "panel": (work.lying.panel or None) if work and work.lying else None,
        "side": str(piece.side) if piece.host else None,
        "order": piece.order,
        "paper": piece.paper,
        "parts": work.paper.pieces if work else 0,
        "heights_mm": [number(layer.low), number(layer.high)] if layer else None,
        "matrix": None
        if matrix is None
        else [number(float(v)) for v in (*matrix[:, 0], *matrix[:, 1], *matrix[:, 2])],
    }


def _piece(outcome: PieceOutcome) -> dict[str, Any]:
    work = outcome.work
    if work is None or not work.paper:
        return {
            "name": outcome.piece.name,
            "area_mm2": 0.0,
            "bounds_mm": [0.0, 0.0, 0.0, 0.0],
            "contours": 0,
            "openings": 0,
            "nodes": 0,
            "folds": [],
            "path": "",
        }
    box = work.paper.bounds
    paper = work.paper.transformed(translation(-box.left, -box.head))
    return {
        "name": outcome.piece.name,
        "area_mm2": number(paper.area),
        "bounds_mm": [0.0, 0.0, number(box.width), number(box.height)],
        "contours": len(paper.shell),
        "openings": len(paper.openings),
        "nodes": paper.nodes,
        "folds": [_fold(work, fold) for fold in work.folds],
        "path": path_data(paper, 6),
    }


def _fold(work: Work, fold: Fold) -> dict[str, Any]:
    box = work.paper.bounds

    def at(point: Point) -> list[float]:
        return [number(point[0] - box.left), number(point[1] - box.head)]

    spans = work.spans[fold.name]
    if spans:
        start, end = spans[0].start, spans[-1].end
    else:
        start, end = fold.line.ends_beyond(box)
    return {
        "name": fold.name,
        "from": at(start),
        "to": at(end),
        "hinge_mm": number(hinge_length(spans, fold)),
        "made": str(fold.made),
        "spans": [
            {
                "from": at(s.start),
                "to": at(s.end),
                "length_mm": number(s.length),
                "direction": str(s.direction),
            }
            for s in spans
        ],
    }
