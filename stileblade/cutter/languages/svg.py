"""SVG: its lines in the order in which they are drawn, by the names of their groups."""

from __future__ import annotations

import numpy as np

from stileblade.cutter.languages.named import Unnamed, add_line, operation_of
from stileblade.cutter.sent import LeftOut, Sent, register_language
from stileblade.machine.machine import Machine
from stileblade.outlines.reading.svg.lines import lines_of
from stileblade.words import say


def _is_svg(head: bytes) -> bool:
    return head[:2] == b"\x1f\x8b" or b"<" in head[:200]


@register_language("svg", title="SVG", sniffs=_is_svg)
def read_svg(content: bytes, machine: Machine) -> Sent:
    """The lines that are seen in a drawing: the name of the innermost group that says what is done with its lines
    counts; lines that no name says anything of are cut, and listed."""
    drawing = lines_of(content)
    sent, unnamed = Sent("svg", size=drawing.size), Unnamed()
    # y upwards from the page's foot
    turned = np.array([[1.0, 0, 0], [0, -1.0, drawing.size[1]]])
    for message, line in drawing.broken:
        sent.refuse(say("A path is broken: {message}", message=message), line=line)
    for seen in drawing.lines:
        operation, name = operation_of(seen.called)
        if operation is None:
            unnamed.add(name, seen.line)
        add_line(sent, seen.segments.transformed(turned), operation, machine, name, seen.line)
    sent.left_out += [LeftOut(*remark) for remark in drawing.remarks] + unnamed.remarks()
    return sent
