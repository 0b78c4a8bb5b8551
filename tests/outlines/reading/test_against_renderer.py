"""What is read, against a general-purpose renderer: how much of the painted area agrees."""

from __future__ import annotations

import os
from concurrent.futures import ProcessPoolExecutor

import pytest

from tests.outlines.reading.reference import Judged, judge, sample

# of a hundred files of other people's, how many must agree to 0.99: see `make bench` for more
SAMPLE = {"icons": (40, 1.0), "drawings": (32, 0.93), "tests": (30, 0.8)}


@pytest.mark.parametrize("kind", SAMPLE)
def test_painted_area_agrees_with_the_renderer(kind: str) -> None:
    count, wanted = SAMPLE[kind]
    files = sample(kind, count)
    assert len(files) == count, "make samples"
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        found: list[Judged] = [j for j in pool.map(judge, files, chunksize=4) if j.iou is not None]
    good = [j for j in found if j.iou is not None and j.iou >= 0.99]
    below = {j.path.name: (round(j.iou or 0, 3), j.said) for j in found if j not in good}
    assert len(found) >= 0.9 * count
    assert len(good) >= wanted * len(found), below
    # what is not painted as it should be is said
    silent = [name for name, (_, said) in below.items() if not said]
    assert len(silent) <= 0.04 * count, silent
