"""DXF R2010 in mm, a layer for each operation; y upwards.

Each line is one polyline with bulges, closed where it is a contour: other programs select it at once.
Curves become arcs within 0.005 mm with the same tangents or, by choice, splines.
"""

from __future__ import annotations

import io

import numpy as np
from ezdxf._options import options
from ezdxf.document import Drawing
from ezdxf.layouts.layout import Modelspace
from ezdxf.math import Bezier3P, Bezier4P, Vec3, bezier_to_bspline

from stileblade.formats.format import register_format
from stileblade.formats.lines import Line, rounds_of
from stileblade.formats.options import Curves, FileOptions
from stileblade.formats.pens import PENS
from stileblade.formats.plan import Plan
from stileblade.geometry.curves.kinds import Kind
from stileblade.geometry.curves.parallel import circular
from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.geometry.paths.biarcs import bulged
from stileblade.geometry.paths.pens import Arc, draw_contour
from stileblade.machine.operation import Operation

options.write_fixed_meta_data_for_testing = True  # the same plan gives the same bytes
_COLOURS = {
    Operation.SCORE: 5,
    Operation.PERFORATE: 30,
    Operation.PRICK: 6,
    Operation.DRAW: 3,
    Operation.CUT_INNER: 7,
    Operation.CUT_OUTER: 7,
}


def layer_of(operation: Operation, group: str = "") -> str:
    return "_".join(filter(None, (operation, group))).replace("-", "_").upper()


def up(points: Floats, height: float) -> Floats:
    return np.stack([points[..., 0], height - points[..., 1]], axis=-1)


class _SplinePen:
    """Entities of one line, y flipped at ``height``: straight runs as polylines, curves as splines
    whose ends are those of their neighbours to the last digit."""

    def __init__(self, space: Modelspace, layer: str, height: float) -> None:
        self.space, self.style, self.height = space, {"layer": layer}, height
        self.run: list[Floats] = []
        self.at = self.first = np.zeros(2)

    def move_to(self, point: Floats) -> None:
        self.at = self.first = point

    def lines_to(self, points: Floats) -> None:
        self.run = self.run or [self.at]
        self.run += list(points)
        self.at = points[-1]

    def flush(self) -> None:
        if self.run:
            places = up(np.array(self.run), self.height).tolist()
            self.space.add_lwpolyline(places, format="xy", dxfattribs=self.style)
            self.run = []

    def curve(self, points: Floats, kind: type[Bezier3P] | type[Bezier4P]) -> None:
        self.flush()
        control = Vec3.list(up(np.vstack([self.at[None], points]), self.height).tolist())
        entity = self.space.add_spline(dxfattribs=self.style)
        entity.apply_construction_tool(bezier_to_bspline([kind(control)]))
        self.at = points[-1]

    def quads_to(self, points: Floats) -> None:
        for p in points:
            self.curve(p, Bezier3P)

    def cubics_to(self, points: Floats) -> None:
        for p in points:
            self.curve(p, Bezier4P)

    def arc_to(self, arc: Arc) -> None:
        self.cubics_to(arc.cubics())

    def close(self) -> None:
        if (self.at != self.first).any():
            self.lines_to(self.first[None])
        self.flush()


def is_round(segments: Segments) -> bool:
    """Whether it is made of lines and circular arcs alone."""
    round_, _ = circular(segments)
    return bool(((segments.kind == Kind.LINE) | round_).all())


def write_line(
    space: Modelspace, layer: str, height: float, line: Line, curves: Curves = Curves.ARCS
) -> None:
    """One line as one entity, a polyline with bulges; with ``curves`` as splines, what has curves that
    are no arcs as several."""
    if curves is Curves.SPLINES and not is_round(line.segments):
        pen = _SplinePen(space, layer, height)
        draw_contour(line.segments, pen, closed=line.closed)
        pen.flush()
        return
    chain = bulged(line.segments, closed=line.closed)
    places = np.column_stack([up(chain.points, height), -chain.bulges])
    entity = space.add_lwpolyline([], close=line.closed, dxfattribs={"layer": layer})
    # all at once, as the entity keeps its vertices: x, y, two widths, bulge
    packed = np.zeros((len(places), 5))
    packed[:, [0, 1, 4]] = places
    entity.lwpoints.set(packed)


@register_format(
    "dxf",
    title="DXF",
    about="R2010, mm, a layer for each operation and group",
    media_type="image/vnd.dxf",
)
def dxf(plan: Plan, options: FileOptions) -> bytes:
    """The plan as a DXF file."""
    document = Drawing.new("R2010")
    classes = document.classes
    classes.add_required_classes(document.dxfversion)
    classes.classes = dict(sorted(classes.classes.items()))  # by itself in no order
    document.units = 4
    document.header.custom_vars.append("Title", plan.title)
    document.header.custom_vars.append("Description", plan.about)
    for number, text in enumerate(plan.findings, 1):
        document.header.custom_vars.append(f"Finding {number}", text)
    space = document.modelspace()
    for operation, round_ in rounds_of(plan.lines):
        later = str(round_ + 1) if round_ else ""
        document.layers.add(layer_of(operation, later), color=_COLOURS[operation])
        for group, lines in plan.groups(operation, round_).items():
            layer = layer_of(operation, "_".join(filter(None, (later, group))))
            if group:
                colour = int(group[4:]) if group in PENS else _COLOURS[operation]
                document.layers.add(layer, color=colour)
            for line in lines:
                write_line(space, layer, plan.height, line, options.curves)
    space.reset_extents((0, 0, 0), (plan.width, plan.height, 0))
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode("utf-8")
