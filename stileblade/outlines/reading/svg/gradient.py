"""Gradients, as far as outlines are concerned: one colour, and where they have faded out.

Soft shadows are painted by gradients that end in nothing. What they leave to be seen is
cut from the shape where less than 5 % of the colour is left.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from lxml import etree

from stileblade.geometry.curves.places import Box
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import after
from stileblade.geometry.curves.vectors import crosses
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.regions.fill import fill
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import difference, intersection, polygon
from stileblade.outlines.reading.svg import measures
from stileblade.outlines.reading.svg.style import BLACK, hex_of, paint_of, share_of
from stileblade.outlines.reading.svg.xml import link_of, local_name

SEEN = 0.05
Declared = Callable[[etree._Element], Mapping[str, str]]


@dataclass(frozen=True)
class Gradient:
    """colour and alpha are those of an even paint that shows as much as the gradient does where it is to be
    seen, densest is the alpha of its densest stop; hidden are the stretches of the gradient's offset, from
    -inf to inf, that leave nothing to be seen."""

    kind: str
    colour: str
    alpha: float
    densest: float
    hidden: tuple[tuple[float, float], ...]
    attributes: Mapping[str, str]

    def seen(self, region: Region, place: Floats, size: tuple[float, float], box: Box) -> Region:
        """What of a region in drawing units is to be seen. ``place`` maps user units there,
        ``size`` is the viewport's, ``box`` the shape's in user units."""
        if not self.hidden or not region:
            return region
        get = self.attributes.get
        own = measures.transform(get("gradientTransform"))
        matrix = place
        if get("gradientUnits") != "userSpaceOnUse":
            matrix = after(
                matrix, np.array([[box.width, 0, box.left], [0, box.height, box.head]], float)
            )
            size = (1.0, 1.0)
        if own is not None:
            matrix = after(matrix, own)
        if abs(float(np.linalg.det(matrix[:, :2]))) < 1e-9:
            return region
        for low, high in self.hidden:
            region = self._without(region, matrix, size, low, high)
        return region

    def _without(
        self, region: Region, matrix: Floats, size: tuple[float, float], low: float, high: float
    ) -> Region:
        w, h = size

        def number(name: str, of: float, default: str) -> float:
            return measures.length(self.attributes.get(name, default), of, 0.0)

        if self.kind == "radialGradient":
            r = number("r", (w + h) / 2, "50%")
            centre = number("cx", w, "50%"), number("cy", h, "50%")
            outer = _disc(centre, r * high, matrix) if np.isfinite(high) else None
            if low > 0:
                inner = _disc(centre, r * low, matrix)
                gone = difference(outer, inner) if outer is not None else None
                return intersection(region, inner) if gone is None else difference(region, gone)
            return Region.empty() if outer is None else difference(region, outer)
        start = np.array([number("x1", w, "0%"), number("y1", h, "0%")])
        way = np.array([number("x2", w, "100%"), number("y2", h, "0%")]) - start
        start, a, b = (_mapped(matrix, p) for p in (start, start + way, start + _turned(way)))
        way, across = a - start, b - start  # lines of one offset run along ``across``
        size_of = float(np.hypot(*across))
        if abs(float(crosses(way, across))) < 1e-12:
            return region
        # as much of the stripe as lies about the region
        box, axes = region.bounds, np.column_stack([way, across])
        here, beside = np.linalg.solve(axes, np.array(box.centre) - start)
        reach = np.hypot(box.width, box.height) / abs(float(np.linalg.det(axes)))
        there, wide = reach * size_of, reach * float(np.hypot(*way))
        ends = [start + way * float(np.clip(t, here - there, here + there)) for t in (low, high)]
        sides = [across * (beside - wide), across * (beside + wide)]
        corners = [ends[0] + sides[0], ends[1] + sides[0], ends[1] + sides[1], ends[0] + sides[1]]
        return difference(region, polygon([(float(x), float(y)) for x, y in corners]))


def _turned(way: Floats) -> Floats:
    return np.array([-way[1], way[0]])


def _mapped(matrix: Floats, point: Floats) -> Floats:
    mapped: Floats = matrix[:, :2] @ point + matrix[:, 2]
    return mapped


def _disc(centre: tuple[float, float], radius: float, matrix: Floats) -> Region:
    if radius <= 0:
        return Region.empty()
    drawing = Drawing()
    drawing.ellipse(*centre, radius, radius)
    return fill([c.transformed(matrix) for c in drawing.contours])


def gradient_of(
    element: etree._Element, ids: Mapping[str, etree._Element], declared: Declared
) -> Gradient | None:
    """A gradient with what it takes over from those it refers to; None without stops."""
    attributes: dict[str, str] = {}
    stops: list[etree._Element] = []
    kind = local_name(element)
    current: etree._Element | None = element
    for _ in range(8):
        if current is None:
            break
        for name, value in current.attrib.items():
            attributes.setdefault(str(name), str(value))
        stops = stops or [s for s in current if local_name(s) == "stop"]
        current = ids.get(link_of(current))
    if not stops:
        return None
    offsets: list[float] = []
    alphas: list[float] = []
    colours: list[list[int]] = []
    for stop in stops[:200]:
        given = declared(stop)
        paint = paint_of(given.get("stop-color"), BLACK, BLACK)
        alphas.append(paint.alpha * share_of(given.get("stop-opacity"), 1.0))
        offset = share_of(stop.get("offset"), 0.0)
        offsets.append(max(offset, offsets[-1] if offsets else 0.0))
        code = paint.colour or "#000000"
        colours.append([int(code[1 + 2 * i : 3 + 2 * i], 16) for i in range(3)])
    spread = attributes.get("spreadMethod", "pad").strip()
    hidden = _hidden(offsets, alphas) if spread == "pad" else ()
    colour, alpha = _mean(offsets, colours, alphas, kind == "radialGradient")
    return Gradient(kind, hex_of(*colour), alpha, max(alphas), hidden, attributes)


_SAMPLES = (np.arange(500) + 0.5) / 500


def _mean(
    offsets: list[float], colours: list[list[int]], alphas: list[float], radial: bool
) -> tuple[Floats, float]:
    """Colour (3,) from 0 to 1 and alpha of an even paint that shows as much: over the offsets from 0 to 1 by
    the way, or by the area of rings, where anything is to be seen."""
    alpha = np.interp(_SAMPLES, offsets, alphas)
    weight = np.where(alpha >= SEEN, _SAMPLES if radial else 1.0, 0.0)
    if not weight.any():
        weight = np.ones(len(_SAMPLES))
    painted = weight * alpha
    share = painted / painted.sum() if painted.any() else weight / weight.sum()
    channels = np.array(colours, float).T / 255
    mean = np.array([float(np.interp(_SAMPLES, offsets, c) @ share) for c in channels])
    return mean, float(painted.sum() / weight.sum())


def _hidden(offsets: list[float], alphas: list[float]) -> tuple[tuple[float, float], ...]:
    """Stretches of the offset where less than ``SEEN`` of the colour is painted."""
    t = np.r_[-np.inf, offsets, np.inf]
    a = np.r_[alphas[0], alphas, alphas[-1]]
    found: list[tuple[float, float]] = []
    for (t0, t1), (a0, a1) in zip(pairwise(t), pairwise(a), strict=True):
        if a0 >= SEEN and a1 >= SEEN:
            continue
        low, high = float(t0), float(t1)
        if a0 >= SEEN:
            low = t0 + (t1 - t0) * (a0 - SEEN) / (a0 - a1)
        elif a1 >= SEEN:
            high = t0 + (t1 - t0) * (SEEN - a0) / (a1 - a0)
        if found and abs(found[-1][1] - low) < 1e-9:
            found[-1] = (found[-1][0], high)
        elif high > low:
            found.append((low, high))
    return tuple(found)
