"""Whole cards: the largest of the demo, computed anew, checked, edited and looked at."""

from __future__ import annotations

import statistics
import sys
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from bench.timing import fresh
from stileblade.checks.check import run_checks
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design, load_design, read_design
from stileblade.design.evaluation import evaluate
from stileblade.geometry.offset import offset
from stileblade.geometry.regions import fill, mirroring, set_operations
from stileblade.geometry.regions.region import Region
from stileblade.views.bench import Wanted, view

DESIGNS = Path(__file__).resolve().parents[1] / "demo" / "designs"
RUNS = 5


def _median(run: Callable[[], object]) -> float:
    """Milliseconds."""
    taken = []
    for _ in range(RUNS):
        started = time.perf_counter()
        run()
        taken.append((time.perf_counter() - started) * 1e3)
    return statistics.median(taken)


def _checked(design: Design) -> None:
    run_checks(evaluate(design))


def _edited(design: Design) -> tuple[float, float]:
    """Milliseconds from an edit of the base to its flat view, and from there to all that follows."""
    data: dict[str, Any] = design.model_dump(mode="json")
    steps = data["pieces"][0]["steps"]
    step = next((s for s in steps if "dx" in s or "lap" in s), steps[0])
    field = next((f for f in ("dx", "lap") if f in step), "")
    cache = OutcomeCache()
    evaluate(design, cache)
    flat, rest = [], []
    for _ in range(RUNS):
        if field:
            step[field] += 0.3
        made, started = load_design(data), time.perf_counter()
        first = evaluate(made, cache, until=(made.pieces[0].id, step["id"]))
        view(first, first.pieces[0], step["id"], set(), Wanted.FLAT)
        between = time.perf_counter()
        whole = evaluate(made, cache)
        view(whole, whole.pieces[0], step["id"], set(), Wanted.REST)
        flat.append((between - started) * 1e3)
        rest.append((time.perf_counter() - between) * 1e3)
    return statistics.median(flat), statistics.median(rest)


GEOMETRY = (
    set_operations.union, set_operations.union_all, set_operations.difference, set_operations.intersection,
    set_operations.cut_off, offset.offset, fill.filled, mirroring.weld_mirrored,
)  # fmt: skip
"""The geometry of a card: what is made of its outlines by these, each as it is called by the steps."""


def _bare(design: Design) -> float:
    """Milliseconds of the design's geometry run bare: all that an evaluation asks of it, asked again of fresh
    outlines, without documents, steps and caches."""
    called: list[tuple[Callable[..., Any], tuple[Any, ...], dict[str, Any]]] = []
    depth = 0

    def recorded(own: Callable[..., Any]) -> Callable[..., Any]:
        def record(*given: Any, **named: Any) -> Any:
            nonlocal depth
            if depth == 0:
                called.append((own, given, named))
            depth += 1
            try:
                return own(*given, **named)
            finally:
                depth -= 1

        return record

    instead = {own: recorded(own) for own in GEOMETRY}
    places = [
        (module, name, value)
        for key, module in list(sys.modules.items())
        if key.startswith("stileblade.")
        for name, value in list(vars(module).items())
        if callable(value) and getattr(value, "__hash__", None) and value in instead
    ]
    for module, name, value in places:
        setattr(module, name, instead[value])
    try:
        evaluate(design)
    finally:
        for module, name, value in places:
            setattr(module, name, value)
    return _median_of_calls(called)


def _median_of_calls(
    called: list[tuple[Callable[..., Any], tuple[Any, ...], dict[str, Any]]],
) -> float:
    taken = []
    for _ in range(RUNS):
        ready = [(own, [_anew(g) for g in given], named) for own, given, named in called]
        started = time.perf_counter()
        for own, given, named in ready:
            own(*given, **named)
        taken.append((time.perf_counter() - started) * 1e3)
    return statistics.median(taken)


def _anew(given: Any) -> Any:
    if isinstance(given, Region):
        return fresh(given)
    return [_anew(g) for g in given] if isinstance(given, list | tuple) else given


def report() -> None:
    print(
        "Whole cards (ms): the base alone, all pieces, their geometry run bare, with checks (aim 1.5 bare + 120);"
        " an edit of the base"
    )
    for path in sorted(DESIGNS.glob("*.json")):
        design = read_design(path.read_text())
        if len(design.pieces) < 4:
            continue
        _checked(design)
        alone = design.model_copy(update={"pieces": design.pieces[:1]})
        base = _median(lambda d=alone: evaluate(d))  # type: ignore[misc]
        every = _median(lambda d=design: evaluate(d))  # type: ignore[misc]
        checked = _median(lambda d=design: _checked(d))  # type: ignore[misc]
        bare = _bare(design)
        flat, rest = _edited(design)
        print(
            f"  {path.stem:28} {len(design.pieces):3} pieces  base {base:5.0f}  all {every:5.0f}  bare {bare:5.0f}"
            f"  checked {checked:5.0f} ({1.5 * bare + 120:3.0f})  edit: flat {flat:4.0f} (100),"
            f" the rest {rest:5.0f} (250)"
        )
