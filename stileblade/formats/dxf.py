"""DXF R2010 in mm, a layer for each operation; y upwards.

Contours of lines and circular arcs are polylines with bulges; Beziers become splines with
the same control points, elliptical arcs ellipses.
"""

from __future__ import annotations

import io

import numpy as np
from ezdxf._options import options
from ezdxf.document import Drawing
from ezdxf.layouts.layout import Modelspace
from ezdxf.math import Bezier3P, Bezier4P, Vec3, bezier_to_bspline

from stileblade.formats.format import register_format
from stileblade.formats.plan import Line, Operation, Plan
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.parallel import circular
from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.geometry.paths.pens import Arc, draw_contour

options.write_fixed_meta_data_for_testing = True  # the same plan gives the same bytes
_COLOURS = {
    Operation.SCORE: 5,
    Operation.PERFORATE: 30,
    Operation.DRAW: 3,
    Operation.CUT_INNER: 7,
    Operation.CUT_OUTER: 7,
}


def layer_of(operation: Operation) -> str:
    return operation.replace("-", "_").upper()


class _DxfPen:
    """Entities of one line, y flipped at ``height``."""

    def __init__(self, space: Modelspace, layer: str, height: float, *, polyline: bool) -> None:
        self.space, self.layer, self.height, self.polyline = space, layer, height, polyline
        self.vertices: list[tuple[float, float, float]] = []
        self.at = np.zeros(2)

    @property
    def style(self) -> dict[str, object]:
        return {"layer": self.layer}

    def up(self, points: Floats) -> Floats:
        return np.stack([points[..., 0], self.height - points[..., 1]], axis=-1)

    def move_to(self, point: Floats) -> None:
        self.at = self.first = point

    def lines_to(self, points: Floats) -> None:
        for point in points:
            self.vertex(0.0)
            self.at = point

    def vertex(self, bulge: float) -> None:
        x, y = self.up(self.at)
        self.vertices.append((float(x), float(y), bulge))

    def flush(self, *, close: bool) -> None:
        """What has been gathered of lines, as a polyline ending where the pen is."""
        if not self.vertices:
            return
        if not close:
            self.vertex(0.0)
        self.space.add_lwpolyline(self.vertices, format="xyb", close=close, dxfattribs=self.style)
        self.vertices = []

    def arc_to(self, arc: Arc) -> None:
        a, b, turn_deg = arc.axes()
        if a - b < 1e-9 * a:
            # a positive bulge runs anticlockwise as seen
            sign = -1.0 if arc.clockwise else 1.0
            for part in arc.split(np.pi / 2):
                self.vertex(sign * float(np.tan(abs(part.t1 - part.t0) / 4)))
                self.at = part.end
            return
        self.flush(close=False)
        turn = np.radians(turn_deg)
        axis = np.array([np.cos(turn), np.sin(turn)])
        # angles of both ends on the ellipse's own axes, seen with y upwards
        ends = np.stack([self.at, arc.end]) - arc.centre
        along, across = ends @ axis / a, ends @ np.array([-axis[1], axis[0]]) / b
        first, last = np.arctan2(-across, along)
        if arc.clockwise:
            first, last = last, first
        if abs(abs(arc.t1 - arc.t0) - 2 * np.pi) < 1e-9:
            first, last = 0.0, 2 * np.pi
        self.space.add_ellipse(
            tuple(self.up(arc.centre)),
            (float(a * axis[0]), float(-a * axis[1])),
            b / a,
            float(first),
            float(last),
            dxfattribs=self.style,
        )
        self.at = arc.end

    def control(self, points: Floats) -> list[Vec3]:
        """Control points of a curve from where the pen is."""
        return Vec3.list(self.up(np.vstack([self.at[None], points])).tolist())

    def quads_to(self, points: Floats) -> None:
        self.flush(close=False)
        for p in points:
            self.spline(Bezier3P(self.control(p)))
            self.at = p[-1]

    def cubics_to(self, points: Floats) -> None:
        self.flush(close=False)
        for p in points:
            self.spline(Bezier4P(self.control(p)))
            self.at = p[-1]

    def spline(self, curve: Bezier3P | Bezier4P) -> None:
        entity = self.space.add_spline(dxfattribs=self.style)
        entity.apply_construction_tool(bezier_to_bspline([curve]))

    def close(self) -> None:
        if self.polyline:
            if (self.at != self.first).any():
                self.vertex(0.0)
            self.flush(close=True)
        elif (self.at != self.first).any():
            self.lines_to(self.first[None])
            self.flush(close=False)


def is_polyline(segments: Segments) -> bool:
    """Whether the contour is made of lines and circular arcs alone."""
    round_, _ = circular(segments)
    return bool(((segments.kind == Kind.LINE) | round_).all())


def write_line(space: Modelspace, layer: str, height: float, line: Line) -> None:
    pen = _DxfPen(space, layer, height, polyline=is_polyline(line.segments))
    draw_contour(line.segments, pen, closed=line.closed)
    pen.flush(close=False)


@register_format(
    "dxf", title="DXF", about="R2010, mm, a layer for each operation", media_type="image/vnd.dxf"
)
def dxf(plan: Plan) -> bytes:
    """The plan as a DXF file."""
    document = Drawing.new("R2010")
    classes = document.classes
    classes.add_required_classes(document.dxfversion)
    classes.classes = dict(sorted(classes.classes.items()))  # by itself in no order
    document.units = 4
    document.header.custom_vars.append("Title", plan.title)
    document.header.custom_vars.append("Description", plan.about)
    space = document.modelspace()
    for operation in Operation:
        document.layers.add(layer_of(operation), color=_COLOURS[operation])
        for line in plan.lines[operation]:
            write_line(space, layer_of(operation), plan.height, line)
    space.reset_extents((0, 0, 0), (plan.width, plan.height, 0))
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode("utf-8")
