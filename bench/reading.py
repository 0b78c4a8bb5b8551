"""Reading: how painted area agrees with a renderer, by class of failure, and how fast it is."""

from __future__ import annotations

import gc
import os
import time
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from itertools import pairwise
from pathlib import Path

from stileblade.outlines.reading.svg.painted import read_svg
from tests.outlines.reading.reference import Judged, judge, sample

SETS = {"icons": (500, 0.99), "drawings": (350, 0.95), "tests": (240, 0.8)}
EDGES = (1.0, 0.999, 0.99, 0.97, 0.9, 0.5, 0.0)


def report() -> None:
    print("reading SVG: files by painted area in common with a renderer")
    print(f"{'':10}{'files':>6}{'>=0.99':>8}{'aim':>6}   " + "".join(f"{e:>7}" for e in EDGES[1:])
          + f"{'ms a file':>11}{'ms / 1,000 segments, files of 1,000 and more':>46}")  # fmt: skip
    for kind, (count, aim) in SETS.items():
        with ProcessPoolExecutor(os.cpu_count()) as pool:
            found = list(pool.map(judge, sample(kind, count), chunksize=8))
        _row(kind, [j for j in found if j.iou is not None], aim)


def _row(kind: str, found: list[Judged], aim: float) -> None:
    iou = [j.iou or 0.0 for j in found]
    good = sum(v >= 0.99 for v in iou) / len(iou)
    steps = [
        sum(low <= v < high or (high == 1.0 and v >= low) for v in iou)
        for high, low in pairwise(EDGES)
    ]
    each = sorted(j.seconds for j in found)[len(found) // 2] * 1e3
    large = [j for j in found if j.segments >= 1000]
    # once more one by one, as a person reads them: above, all cores are at work
    seconds = sum(_seconds(j.path) for j in large)
    speed = 1e6 * seconds / max(sum(j.segments for j in large), 1)
    print(f"{kind:10}{len(found):6}{good:8.1%}{aim:6.0%}   "
          + "".join(f"{n:7}" for n in steps) + f"{each:11.1f}{speed:46.0f}")  # fmt: skip
    classes = Counter(_class_of(j) for j in found if (j.iou or 0.0) < 0.99)
    if classes:
        print("           below 0.99: " + ", ".join(f"{n} {c}" for c, n in classes.most_common(9)))


def _seconds(path: Path) -> float:
    content = path.read_bytes()
    gc.disable()  # as the process that reads does
    started = time.perf_counter()
    read_svg(content, "painted")
    seconds = time.perf_counter() - started
    gc.enable()
    return seconds


def _class_of(judged: Judged) -> str:
    for word in ("filters", "masks", "markers", "patterns", "pictures of dots", "ading", "Text"):
        if word in judged.said:
            return {"ading": "fading gradients", "Text": "text"}.get(word, word)
    return "hairlines and others"
