"""DXF: its lines by layer, scores before cuts and inner cuts before outer."""

from __future__ import annotations

from stileblade.cutter.languages.named import Unnamed, add_line, in_passes, operation_named
from stileblade.cutter.sent import LeftOut, Sent, register_language
from stileblade.geometry.curves.transforms import after, mirror_across, scaling
from stileblade.machine.machine import Machine
from stileblade.outlines.reading.dxf import lines_of

_TAIL = 200
"""Bytes at the end of a file, in which its end has to be said."""


def _is_dxf(head: bytes) -> bool:
    return b"SECTION" in head[:2000] or head[:18] == b"AutoCAD Binary DXF"


@register_language("dxf", title="DXF", sniffs=_is_dxf)
def read_dxf(content: bytes, machine: Machine) -> Sent:
    """The lines of a drawing; layers are named as the groups of an SVG, and say in which order."""
    drawing = lines_of(content)
    sent = Sent("dxf", left_out=[LeftOut(text) for text in drawing.remarks])
    if b"EOF" not in content[-_TAIL:]:
        sent.refuse("The file is incomplete: its end is missing.")
    up = after(scaling(drawing.mm, drawing.mm), mirror_across(axis="y", at=0.0))
    unnamed = Unnamed()
    found = [(operation_named(layer), layer, way) for layer, way in drawing.lines]
    for named, layer, way in sorted(found, key=lambda f: in_passes(f[0])):
        if named is None:
            unnamed.add(layer)
        add_line(sent, way.transformed(up), named[0] if named else None, machine, layer)
    sent.left_out += unnamed.remarks()
    return sent
