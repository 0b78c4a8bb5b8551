"""Aims solved and best joins of the demo designs, and DXF of large outlines; against one evaluation each."""

from __future__ import annotations

import time
from pathlib import Path

from bench.evaluation import document
from bench.shapes import figure_300, outline_20000
from bench.timing import best
from stileblade.aims.solve import solve
from stileblade.aims.trial import Budget, Wish
from stileblade.checks.measures import measures_of
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design, Relation, load_design, read_design
from stileblade.design.evaluation import evaluate
from stileblade.folding.joins import Wish as JoinWish
from stileblade.folding.joins import best_joins
from stileblade.formats.format import formats
from stileblade.formats.plan import plan_of

AIM_MS, JOIN_MS = 1500.0, 2000.0


def _row(name: str, seconds: float, ratio: str, aim: float) -> None:
    print(f"{name:44}{seconds * 1e3:9.0f}{ratio:>18}{aim:9.0f}")


def aimed(design: Design) -> None:
    """A hinge a fifth longer and a card a twentieth wider, each from a cache that knows the design."""
    evaluation = evaluate(design, OutcomeCache())
    known = measures_of(evaluation, design.pieces[0].id)
    hinge = next((k for k in known if k.startswith("hinge:")), None)
    for key, relation, share in (
        (hinge, Relation.LEAST, 1.2),
        ("closed.width", Relation.EXACTLY, 1.05),
    ):
        value = known[key].measure() if key in known else None
        if key is None or value is None:
            continue
        cache, budget = OutcomeCache(), Budget()
        evaluate(design, cache)
        started = time.perf_counter()
        found = solve(
            design, Wish(design.pieces[0].id, key, relation, value * share), cache, budget=budget
        )
        took = time.perf_counter() - started
        met = sum(r.met for r in found)
        _row(f"{design.name[:24]}, {key[:16]}", took, f"{budget.spent} ev, {met} met", AIM_MS)


def report() -> None:
    print(f"{'aims, joins and DXF':44}{'ms':>9}{'':>18}{'aim ms':>9}")
    designs = [read_design(p.read_text()) for p in sorted(Path("demo/designs").glob("*.json"))]
    for design in designs:
        aimed(design)
    for design in designs:
        work = evaluate(design).pieces[0].work
        if work is not None and work.mirrored is not None:
            mirrored, loss = work.mirrored, max(60.0, 1.5 * work.mirrored.loss)
            started = time.perf_counter()
            found = best_joins(mirrored, JoinWish(loss))
            took = time.perf_counter() - started
            _row(f"{design.name[:24]}, best join", took, f"{len(found)} joins", JOIN_MS)
    for name, region in (("300 cubics", figure_300()), ("20,000 vertices", outline_20000())):
        design = load_design(document(region))
        alone = best(lambda d=design: evaluate(d, OutcomeCache()), repeat=3)  # type: ignore[misc]
        evaluation = evaluate(design)
        plan, form = plan_of(evaluation, evaluation.pieces[0]), formats()["dxf"]
        took = best(lambda p=plan, f=form: f.write(p), repeat=3)  # type: ignore[misc]
        _row(f"DXF of {name}", took, f"{took / alone:.2f} evaluations", 1000.0)
