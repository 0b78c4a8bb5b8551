"""Outlines of a DXF file: its lines joined to contours, those sorted into figures.

Lines, arcs, circles, ellipses, splines and polylines with bulges are read, in inserted
blocks too, each on its layer. A figure is a contour with the contours next inside it as
its openings. y, upwards in the file, is turned downwards.
"""

from __future__ import annotations

import io
import math
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Final

import ezdxf
import numpy as np
from ezdxf import recover
from ezdxf.disassemble import recursive_decompose
from ezdxf.lldxf.const import DXFError
from ezdxf.math import BSpline

from stileblade import MADE_WITH
from stileblade.errors import GeometryError, ReadingError
from stileblade.geometry.curves.measurement import bounds, signed_area
from stileblade.geometry.curves.segments import Floats, Segments, beziers, concatenate, lines
from stileblade.geometry.curves.transforms import after, scaling, translation
from stileblade.geometry.regions.figures import figures_of
from stileblade.outlines.reading.dxf_ways import chain, circular, elliptical, flat, upright
from stileblade.outlines.reading.found import Found, OpenContour, Shape, SizeReading
from stileblade.outlines.reading.joining import join
from stileblade.outlines.reading.limits import LIMITS
from stileblade.words import say

LOOSE_ENDS: Final = 0.05
"""mm: ends this near belong together; measured on exploded, shuffled contours."""
_MM: Final = {1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0}
_UNITS: Final = {1: "inches", 2: "feet", 4: "mm", 5: "cm", 6: "metres"}
OUTLINES, OPENINGS = "CUT_OUTER", "CUT_INNER"
"""Layers of the application's own files, which are one figure."""
_LIKELY: Final = (15.0, 700.0)
"""mm: what a drawing for a card measures along its longer side, generously."""
_BLACK: Final = "#262626"


def read_dxf(content: bytes) -> Found:
    """All closed contours, and what stayed open. ``ReadingError`` says what is wrong."""
    return _Reading(_document(content)).run()


@dataclass(frozen=True)
class DrawnLines:
    """Lines of a file with their layers, y downwards; mm to a unit, 1 where the file says none; and what
    was left out, in words."""

    lines: list[tuple[str, Segments]]
    mm: float
    remarks: list[str]


def lines_of(content: bytes) -> DrawnLines:
    """All lines as they are drawn, joined to nothing. ``ReadingError`` says what is wrong."""
    reading = _Reading(_document(content))
    found = []
    for entity in reading.entities():
        way = reading.way(entity)
        if way is not None and len(way):
            found.append((reading.place_of(entity)[0], way))
            reading.count(way)
    unit = int(reading.document.header.get("$INSUNITS", 0))
    return DrawnLines(found, _MM.get(unit, 1.0), reading.found.remarks)


def _document(content: bytes) -> Any:
    try:
        document, _ = recover.read(io.BytesIO(content))
    except Exception as error:  # in a broken file the parser runs into anything
        raise ReadingError(
            "The DXF file cannot be read: it is broken or of an unknown version.",
            hint="Export it anew as DXF R2010 or R12.",
        ) from error
    return document


class _Reading:
    def __init__(self, document: Any) -> None:
        self.document = document
        self.found = Found("dxf", 0.0, 0.0, [])
        self.segments = 0
        said = dict(document.header.custom_vars.properties).get("Description", "")
        self.own = MADE_WITH in str(said)
        """Whether the application wrote it itself: then its units and layers are known."""

    def run(self) -> Found:
        on: dict[tuple[str, str], list[Segments]] = defaultdict(list)
        for entity in self.entities():
            way = self.way(entity)
            if way is not None and len(way):
                layer, colour = self.place_of(entity)
                if layer == OPENINGS and self.own:
                    layer = OUTLINES
                on[layer, colour].append(way)
                self.count(way)
        if not on:
            said = " ".join(self.found.remarks)
            raise ReadingError(
                say("There is no line in the file that could be cut. {said}", said=said).strip(),
                hint="Explode texts and hatches to lines, and export it again.",
            )
        matrix, scale = self._fit([w for ways in on.values() for w in ways])
        bridged, widest, doubled = 0, 0.0, 0
        for (layer, colour), ways in on.items():
            placed = [w.transformed(matrix) for w in ways]
            joined = join(placed, LOOSE_ENDS / scale)
            bridged += joined.bridged
            widest = max(widest, joined.widest * scale)
            contours, twice = _once(joined.closed)
            doubled += twice
            self._keep(contours, layer, colour)
            for way in joined.open:
                gap = float(np.hypot(*(way.end[-1] - way.start[0])))
                points = np.concatenate([way.start, way.end[-1:]])
                self.found.open.append(OpenContour(points, gap * scale))
        if bridged:
            self.found.notes.append(
                say(
                    "Joined: {bridged} gaps between ends, the widest {widest:.3f} mm.",
                    bridged=bridged,
                    widest=widest,
                )
            )
        if doubled:
            self.found.notes.append(
                say("Drawn twice, read once: {doubled} contours.", doubled=doubled)
            )
        if not self.found.shapes:
            raise ReadingError(
                say("No line closes to a contour; {n} stayed open.", n=len(self.found.open)),
                hint="Join their ends in the drawing, to a twentieth of a mm.",
            )
        return self.found

    def count(self, way: Segments) -> None:
        self.segments += len(way)
        if self.segments > LIMITS.segments:
            raise ReadingError(
                say("The drawing has more than {segments:,} segments.", segments=LIMITS.segments),
                hint="Simplify it, or read a part of it.",
            )

    def entities(self) -> Iterator[Any]:
        """All plain entities, blocks taken apart, up to the limit."""
        for number, entity in enumerate(recursive_decompose(self.document.modelspace())):
            if number >= LIMITS.elements * 5:
                raise ReadingError(
                    say(
                        "The drawing has more than {elements:,} entities.",
                        elements=LIMITS.elements * 5,
                    ),
                    hint="Simplify it, or read a part of it.",
                )
            if self._is_hidden(entity):
                self.found.left_out["lines on layers that are off or frozen"] += 1
                continue
            yield entity

    def _is_hidden(self, entity: Any) -> bool:
        """Whether its layer is off or frozen, so that nobody sees it."""
        name = str(entity.dxf.get("layer", "0"))
        if name not in self.document.layers:
            return False
        layer = self.document.layers.get(name)
        return bool(layer.is_off() or layer.is_frozen())

    def place_of(self, entity: Any) -> tuple[str, str]:
        """The layer's name and the colour it is drawn in."""
        layer = str(entity.dxf.get("layer", "0"))[:60]
        index = entity.dxf.get("color", 256)
        if entity.rgb is not None:
            return layer, "#{:02x}{:02x}{:02x}".format(*entity.rgb)
        if index in (0, 256) and layer in self.document.layers:
            index = abs(self.document.layers.get(layer).color)
        if index in (0, 7, 256) or not 0 < index < 256:
            return layer, _BLACK
        return layer, "#{:02x}{:02x}{:02x}".format(*ezdxf.colors.aci2rgb(index))

    def way(self, entity: Any) -> Segments | None:
        kind = entity.dxftype()
        try:
            if not upright(entity):
                self.found.left_out["lines that do not lie flat"] += 1
                return None
            if kind in ("LWPOLYLINE", "POLYLINE"):
                if kind == "POLYLINE" and not (entity.is_2d_polyline or entity.is_3d_polyline):
                    self.found.left_out["meshes"] += 1
                    return None
                return chain(self.way(part) for part in entity.virtual_entities())
            if kind == "LINE":
                return lines([flat(entity.dxf.start)], [flat(entity.dxf.end)])
            if kind in ("CIRCLE", "ARC"):
                return circular(entity, kind)
            if kind == "ELLIPSE":
                return elliptical(entity)
            if kind == "SPLINE":
                return self._spline(entity)
        except (DXFError, ValueError, ArithmeticError, IndexError) as error:
            self.found.left_out[
                say("a broken {entity} ({why})", entity=kind.lower(), why=str(error)[:60])
            ] += 1
            return None
        if kind not in ("POINT", "VIEWPORT"):
            self.found.left_out[_NAMES.get(kind, kind.lower()[:30])] += 1
        return None

    def _spline(self, entity: Any) -> Segments:
        spline: BSpline = entity.construction_tool()
        if spline.degree == 1:
            points = np.array([flat(p) for p in spline.control_points])
            return lines(points[:-1], points[1:])
        if not spline.is_rational and spline.is_clamped and spline.degree in (2, 3):
            parts = [[flat(p) for p in b] for b in spline.bezier_decomposition()]
            return beziers(np.array(parts, float))
        self.found.left_out["exactness of a rational or high spline: fitted"] += 1
        fitted = spline.cubic_bezier_approximation(level=6)
        return beziers(np.array([[flat(p) for p in b.control_points] for b in fitted]))

    def _fit(self, ways: list[Segments]) -> tuple[Floats, float]:
        """From the file's units to drawing units, and mm per drawing unit as is likeliest."""
        left, head, right, foot = bounds(concatenate(ways))
        longer = max(right - left, foot - head)
        if not math.isfinite(longer) or longer <= 0 or longer > 1e12:
            raise ReadingError("The drawing has no size.", hint="Export it again.")
        known = _MM.get(int(self.document.header.get("$INSUNITS", 0)))
        choices = [*([known] if known else []), *(_MM[u] for u in (4, 1, 5))]
        choices = [known] if self.own and known else list(dict.fromkeys(choices))
        likely = [c for c in choices if _LIKELY[0] <= longer * c <= _LIKELY[1]]
        first = known if known in likely else (likely or choices)[0]
        working = 100 / longer if longer < 100 else 1000 / longer if longer > 1000 else 1.0
        order = [first] if first == known else [first, *(c for c in choices if c != first)]
        names = {v: _UNITS[k] for k, v in _MM.items()}
        for mm in order:
            said = "as the file says, " if mm == known else "a unit is "
            word = (
                names[mm] if mm == known else {"inches": "1 inch"}.get(names[mm], f"1 {names[mm]}")
            )
            self.found.sizes.append(SizeReading(f"{said}{word}", mm / working))
        self.found.width, self.found.height = (right - left) * working, (foot - head) * working
        matrix = after(scaling(working, working), translation(-left, -head))
        return matrix, first / working

    def _keep(self, contours: list[Segments], layer: str, colour: str) -> None:
        try:
            figures = figures_of(contours)
        except GeometryError as error:
            self.found.left_out[say("contours: {message}", message=error.message)] += len(contours)
            return
        for number, region in enumerate(figures, 1):
            name = layer if len(figures) == 1 else f"{layer} {number}"
            self.found.shapes.append(Shape(name, colour, region, layer))


_NAMES: Final = {
    "TEXT": "texts", "MTEXT": "texts", "ATTRIB": "texts", "ATTDEF": "texts",
    "HATCH": "hatches", "MPOLYGON": "hatches", "SOLID": "solids", "TRACE": "solids",
    "DIMENSION": "dimensions", "LEADER": "dimensions", "IMAGE": "pictures of dots",
    "3DFACE": "faces in space", "MESH": "meshes", "WIPEOUT": "masks",
}  # fmt: skip


def _once(contours: list[Segments]) -> tuple[list[Segments], int]:
    """Contours without those that are drawn a second time, and how many those were."""
    seen: dict[tuple[float, ...], Segments] = {}
    for contour in contours:
        key = (*bounds(contour), abs(signed_area(contour)), len(contour))
        seen.setdefault(tuple(round(v, 4) for v in key), contour)
    return list(seen.values()), len(contours) - len(seen)
