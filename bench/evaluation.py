"""Whole evaluations and single edits against the sum of their geometry operations run bare."""

from __future__ import annotations

import inspect
import sys
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from bench.shapes import figure_300, outline_20000
from bench.timing import fresh
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design, load_design, read_design
from stileblade.design.evaluation import evaluate
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.paths.pathdata import path_data, region_from_path
from stileblade.geometry.regions.mirroring import weld_mirrored
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import cut_off, difference
from stileblade.outlines.figures.round import Circle


def document(region: Region, *, lap: float = 12.0, grow: float = 0.0) -> dict[str, Any]:
    """Figure, trimmed foot, mirror, window; and a surround where ``grow`` is given."""
    steps: list[dict[str, Any]] = [
        {"id": "f", "kind": "figure", "outline": {"kind": "drawn", "ref": "o"}},
        {"id": "s", "kind": "slice", "keep": "above", "edge": "far", "distance": 3},
        {"id": "m", "kind": "mirror", "towards": "left", "lap": lap},
        {"id": "w", "kind": "window", "outline": {"kind": "circle", "diameter": 20}},
    ]
    if grow:
        steps.insert(1, {"id": "g", "kind": "grow", "margin": grow})
    return {
        "name": "bench",
        "card": {"size": {"name": "large", "width": 200, "height": 200, "envelope": None}},
        "artworks": {"o": {"layers": [{"path": path_data(region, 5)}]}},
        "pieces": [{"steps": steps}],
    }


def bare(region: Region, lap: float, *, all_steps: bool) -> Callable[[], float]:
    """The same operations without documents, steps and caches; seconds of one run.

    ``all_steps`` false: what a change of the lap makes necessary, mirror and window.
    """
    box = region.bounds
    start = region.transformed(translation(-box.left, -box.head))
    foot = start.bounds.foot - 3
    sliced = cut_off(start, axis="y", at=foot, keep="less")
    disc = Circle(diameter=20).outline({})

    def run() -> float:
        base = fresh(start) if all_steps else sliced
        started = time.perf_counter()
        if all_steps:
            base = cut_off(base.transformed(translation(0, 0)), axis="y", at=foot, keep="less")
        at = base.bounds.left + lap / 2
        half = cut_off(base, axis="x", at=at, keep="more")
        whole = weld_mirrored(half, axis="x", at=at)
        x, y = half.bounds.centre
        cx, cy = disc.bounds.centre
        difference(whole, disc.transformed(translation(x - cx, y - cy)))
        return time.perf_counter() - started

    return run


def whole_evaluation(design: Design) -> float:
    started = time.perf_counter()
    evaluate(design, OutcomeCache())
    return time.perf_counter() - started


def edits(data: dict[str, Any], laps: list[float]) -> list[float]:
    """Seconds of each change of the lap on a cache that knows the rest."""
    cache = OutcomeCache()
    evaluate(load_design(data), cache)
    times = []
    for lap in laps:
        data["pieces"][0]["steps"][-2]["lap"] = lap
        design = load_design(data)
        started = time.perf_counter()
        evaluate(design, cache)
        times.append(time.perf_counter() - started)
    return times


Call = tuple[Callable[..., Any], tuple[Any, ...], dict[str, Any]]


def recorded(design: Design) -> list[Call]:
    """The geometry operations that the design's steps call, in their order."""
    calls: list[Call] = []
    depth = 0

    def recording(operation: Callable[..., Any]) -> Callable[..., Any]:
        def called(*args: Any, **more: Any) -> Any:
            nonlocal depth
            if depth == 0:
                calls.append((operation, args, more))
            depth += 1
            try:
                return operation(*args, **more)
            finally:
                depth -= 1

        return called

    patched = []
    for name, module in list(sys.modules.items()):
        if not name.startswith(
            ("stileblade.steps.", "stileblade.piece.", "stileblade.design.", "stileblade.outlines.")
        ):
            continue
        for attribute, value in list(vars(module).items()):
            of = getattr(value, "__module__", None)
            if inspect.isfunction(value) and str(of).startswith("stileblade.geometry."):
                patched.append((module, attribute, value))
                setattr(module, attribute, recording(value))
    try:
        evaluate(design, OutcomeCache())
    finally:
        for module, attribute, value in patched:
            setattr(module, attribute, value)
    return calls


def _fresh(value: Any) -> Any:
    if isinstance(value, Region):
        return fresh(value)
    if isinstance(value, list | tuple):
        return type(value)(_fresh(v) for v in value)
    return value


def run_bare(calls: list[Call]) -> float:
    """Seconds of the operations by themselves, on regions of which nothing is remembered."""
    ready = [(f, [_fresh(a) for a in args], more) for f, args, more in calls]
    started = time.perf_counter()
    for operation, args, more in ready:
        operation(*args, **more)
    return time.perf_counter() - started


def demo_designs() -> None:
    """Whole evaluations of the demo designs against the operations that they are made of."""
    found = []
    for path in sorted((Path(__file__).parents[1] / "demo" / "designs").glob("*.json")):
        design = read_design(path.read_text())
        whole_evaluation(design)
        calls = recorded(design)
        ours = min(whole_evaluation(design) for _ in range(5))
        base = min(run_bare(calls) for _ in range(5))
        nodes = sum(p.work.paper.nodes for p in evaluate(design).pieces if p.work)
        found.append((nodes, design.name, ours, base))
    found.sort(reverse=True)
    for nodes, name, ours, base in found[:3]:
        title = f"{name} ({nodes} nodes): whole"
        print(f"{title:44}{ours * 1e3:8.1f}{base * 1e3:8.1f}{ours / base:7.2f}{1.5:7.1f}")


def report() -> None:
    print(f"{'evaluation':44}{'ms':>8}{'bare':>8}{'ratio':>7}{'aim':>7}")
    for name, shape in (
        ("figure of 300 cubics", figure_300()),
        ("20,000-vertex outline", outline_20000()),
    ):
        data = document(shape)
        region = region_from_path(data["artworks"]["o"]["layers"][0]["path"])
        design = load_design(data)
        whole_evaluation(design)  # reads the outline, which is remembered by its text
        ours = min(whole_evaluation(design) for _ in range(7))
        base = min(bare(region, 12, all_steps=True)() for _ in range(7))
        print(
            f"{name + ': whole':44}{ours * 1e3:8.1f}{base * 1e3:8.1f}{ours / base:7.2f}{1.5:7.1f}"
        )
        laps = [12.1 + 0.1 * k for k in range(7)]
        ours = min(edits(data, laps))
        base = min(bare(region, lap, all_steps=False)() for lap in laps)
        print(
            f"{name + ': lap changed':44}{ours * 1e3:8.1f}{base * 1e3:8.1f}{ours / base:7.2f}{1.5:7.1f}"
        )
    demo_designs()
