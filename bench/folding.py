"""Folding and all checks of each demo design and of two large outlines, against the geometry operations that made it."""

from __future__ import annotations

import time
from pathlib import Path

from bench.evaluation import document
from bench.shapes import figure_300, outline_20000
from stileblade.checks.check import run_checks
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design, load_design, read_design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.folding.closed import closed_card
from stileblade.folding.space import faces_in_space, sequence
from stileblade.folding.stand import stand_of

AIM_MS = 40.0
_ROUNDS = 5


def folded_and_checked(evaluation: Evaluation) -> float:
    """Seconds for all that folding tells, and the checks, of an evaluation nobody has looked at:
    what is remembered of outcomes is remembered by their identity."""
    started = time.perf_counter()
    for piece in evaluation.pieces:
        if piece.work is not None and piece.work.paper:
            closed_card(piece.work)
            faces_in_space(piece.work)
            sequence(piece.work)
            stand_of(piece.work)
    run_checks(evaluation)
    return time.perf_counter() - started


def times_of(design: Design) -> tuple[float, float]:
    """Least seconds of folding and checks, and of the geometry operations alone."""
    ours, bare = [], []
    for _ in range(_ROUNDS):
        started = time.perf_counter()
        evaluation = evaluate(design, OutcomeCache())
        bare.append(time.perf_counter() - started)
        ours.append(folded_and_checked(evaluation))
    return min(ours), min(bare)


def report() -> None:
    print(
        f"{'folding and checks':44}{'ms':>8}{'geometry':>10}{'ratio':>7}{'pieces':>8}{'a piece':>9}{'aim ms':>8}"
    )
    designs = [read_design(p.read_text()) for p in sorted(Path("demo/designs").glob("*.json"))]
    named = [(design.name, design) for design in designs]
    named += [
        ("figure of 300 cubics", load_design(document(figure_300()))),
        ("20,000-vertex outline", load_design(document(outline_20000()))),
    ]
    for name, design in named:
        ours, bare = times_of(design)
        count = len(design.pieces)
        print(
            f"{name:44}{ours * 1e3:8.1f}{bare * 1e3:10.1f}{ours / bare:7.2f}{count:8}"
            f"{ours * 1e3 / count:9.1f}{AIM_MS:8.0f}"
        )
