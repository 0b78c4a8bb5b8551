"""Painted area against a general-purpose renderer, which judges how well SVG is read.

Both the file and what was read of it are rendered by the same renderer; a pixel counts as
painted where its alpha is above 5 %. Sample files lie in ``.samples`` (``make samples``):
modern icon sets, hand-made drawings of older programs, and a renderer's own test files.
"""

from __future__ import annotations

import io
import random
import time
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path

import numpy as np
import resvg_py
from fontTools.ttLib import TTFont
from PIL import Image

from stileblade.errors import StilebladeError
from stileblade.geometry.paths.pathdata import path_data
from stileblade.outlines.reading.found import Found
from stileblade.outlines.reading.svg.measures import PX
from stileblade.outlines.reading.svg.painted import read_svg
from stileblade.outlines.text.shipped import FOLDER

SAMPLES = Path(__file__).parents[3] / ".samples"
SETS = {
    "icons": SAMPLES / "icons",
    "drawings": SAMPLES / "debian/usr/share/openclipart/svg",
    "tests": SAMPLES / "debian/usr/libexec/installed-tests/RSVG/fixtures/reftests",
}


@dataclass(frozen=True)
class Judged:
    """iou is None where the reference paints nothing; seconds are those of reading alone."""

    path: Path
    iou: float | None
    said: str
    seconds: float = 0.0
    segments: int = 0


def sample(kind: str, count: int) -> list[Path]:
    """The same ``count`` files of a kind every time, up to 1.5 MB each; collections of
    gradients and patterns, which are no drawings, are passed over."""
    files = sorted(
        p
        for p in SETS[kind].rglob("*.svg")
        if p.is_file()
        and p.stat().st_size < 1_500_000
        and not p.name.endswith("-ref.svg")
        and "special" not in p.parts
    )
    random.Random(7).shuffle(files)
    return files[:count]


@lru_cache(maxsize=1)
def _fonts() -> list[str]:
    """The shipped fonts as plain files for the renderer."""
    folder = SAMPLES / "fonts"
    folder.mkdir(parents=True, exist_ok=True)
    found = []
    for source in FOLDER.glob("*.woff2"):
        if "-ext" in source.name:
            continue
        target = folder / f"{source.stem}.ttf"
        if not target.exists():
            font = TTFont(source)
            font.flavor = None
            font.save(target)
        found.append(str(target))
    return found


def render(svg: str, width: int) -> np.ndarray:
    """Alpha (h, w) of the drawing rendered ``width`` pixels wide."""
    png = resvg_py.svg_to_bytes(
        svg_string=svg,
        width=width,
        dpi=96,
        skip_system_fonts=True,
        font_files=_fonts(),
        font_family="Nunito ExtraLight",
        sans_serif_family="Nunito ExtraLight",
        serif_family="Cormorant Garamond Light",
        cursive_family="Pacifico",
    )
    return np.asarray(Image.open(io.BytesIO(bytes(png))).convert("RGBA"))[:, :, 3]


def as_svg(found: Found) -> str:
    """What was read, painted black on a page of the file's own size in px, since the renderer
    rounds that to whole pixels before it scales."""
    paths = "".join(f'<path d="{path_data(s.region, 5)}"/>' for s in found.shapes)
    width, height = (v * found.sizes[0].scale / PX for v in (found.width, found.height))
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}" height="{height}" '
        f'preserveAspectRatio="none" viewBox="0 0 {found.width} {found.height}">{paths}</svg>'
    )


def overlap(first: np.ndarray, second: np.ndarray) -> float | None:
    """Intersection over union of what is painted; None where the first paints nothing."""
    h, w = min(first.shape[0], second.shape[0]), min(first.shape[1], second.shape[1])
    a, b = first[:h, :w] > 12, second[:h, :w] > 12
    if not a.any():
        return None
    return float((a & b).sum() / (a | b).sum())


def judge(path: Path) -> Judged:
    """How much of what the renderer paints was read, at 512 or, if that is too coarse, 2048 px."""
    content = path.read_bytes()
    text = content.decode("utf-8", "replace")
    try:
        reference = render(text, 512)
    except (ValueError, BaseException) as error:  # a broken file: nothing to compare with
        if isinstance(error, KeyboardInterrupt):
            raise
        return Judged(path, None, f"the renderer: {str(error)[:60]}")
    started = time.perf_counter()
    try:
        found = read_svg(content, "painted")  # contours are another reading
    except StilebladeError as error:
        return Judged(path, None if not (reference > 12).any() else 0.0, str(error))
    seconds = time.perf_counter() - started
    iou = overlap(reference, render(as_svg(found), 512))
    if iou is not None and iou < 0.99:
        fine = render(text, 2048)
        iou = max(iou, overlap(fine, render(as_svg(found), 2048)) or 0.0)
    segments = sum(s.region.nodes for s in found.shapes)
    return Judged(path, iou, " ".join(found.remarks), seconds, segments)
