"""The hunt for the slowest evaluation: random values of every step, others each time, after a start
and its own sample's steps; the worst are printed with the document that makes them.

    python -m bench.slowest            30 designs for each kind of step
    TIMES=10 SEED=7 python -m bench.slowest
"""

from __future__ import annotations

import json
import logging
import os
import random
import sys
from time import process_time
from typing import Any

from hypothesis import HealthCheck, Phase, given, seed, settings
from hypothesis import strategies as st

from stileblade.card.ways import WAYS
from stileblade.design.evaluation import evaluate
from stileblade.spending import Allowance, OverSpent
from stileblade.views.bench import view
from tests.conftest import design_of
from tests.promises.values import BEFORE, BY_KIND, Values, starts

LONGEST = 30.0
SHOWN = 8
Row = tuple[float, str, list[Values], str]


def seconds_of(made: list[Values], way: str) -> float:
    """Processor time of the evaluation with all that the bench shows; LONGEST where it was given up."""
    design = design_of(*made, way=way)
    before = process_time()
    try:
        with Allowance(LONGEST, step=1, steps=1, look=1).job():
            evaluation = evaluate(design)
            view(evaluation, evaluation.pieces[0], None, set())
    except OverSpent:
        pass
    return process_time() - before


def hunt(kind: str, times: int, number: int) -> Row:
    """The slowest of so many random designs with a step of the kind."""
    worst: Row = (0.0, kind, [], "")

    @seed(number)
    @settings(
        max_examples=times,
        deadline=None,
        database=None,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    @given(
        st.one_of(starts.map(lambda start: [start]), st.just(BEFORE[kind])),
        BY_KIND[kind],
        st.sampled_from(WAYS.names()),
    )
    def look(before: list[Values], step: Values, way: str) -> None:
        nonlocal worst
        spent = seconds_of([*before, step], way)
        if spent > worst[0]:
            worst = (spent, kind, [*before, step], way)

    look()
    return worst


def report(times: int = 30, number: int | None = None) -> None:
    logging.disable(logging.CRITICAL)
    number = number if number is not None else random.randrange(10**6)
    rows: list[Any] = sorted((hunt(k, times, number) for k in sorted(BY_KIND)), reverse=True)
    print(
        f"Slowest evaluations of {times} random designs for each of {len(rows)} steps, seed {number}"
    )
    for spent, kind, made, way in rows[:SHOWN]:
        print(f"  {spent:6.2f} s  {kind:16} {way:14} {json.dumps(made)[:400]}")
    logging.disable(logging.NOTSET)


if __name__ == "__main__":
    given_seed = os.environ.get("SEED")
    report(30 * int(os.environ.get("TIMES", "1")), int(given_seed) if given_seed else None)
    sys.stdout.flush()
