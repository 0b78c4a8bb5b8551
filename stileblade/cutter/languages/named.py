"""Lines of drawings, which name no tool: what their layers and groups say of what is to be done."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Sequence

import numpy as np

from stileblade.cutter.sent import LeftOut, Sent, Stroke
from stileblade.geometry.curves.flatten import subdivide
from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.machine.machine import Machine
from stileblade.machine.operation import CUTS, ORDER, Operation
from stileblade.words import say

_WORDS = {
    Operation.SCORE: "score scores scoring scored fold folds folding crease creases creasing falz falze falzen rill rille rillen",
    Operation.PERFORATE: "perforate perforated perforation perforations perf perforieren perforierung perforierungen",
    Operation.PRICK: "prick pricks pricking stechen vorstechen",
    Operation.DRAW: "draw draws drawing drawn pen pens engrave engraving stift zeichnen zeichnung gravur gravieren",
    Operation.CUT_OUTER: "cut cuts cutting outline outlines schnitt schnitte schneiden kontur konturen",
}
"""What people call groups and layers, in English and German. A kiss cut is none of them: it does not go through."""
_OPERATIONS = {word: operation for operation, some in _WORDS.items() for word in some.split()}
_FILLERS = frozenset(
    [
        "line",
        "lines",
        "layer",
        "layers",
        "path",
        "paths",
        "linie",
        "linien",
        "ebene",
        "ebenen",
        "pfad",
        "pfade",
    ]
)
_MOST_NAMES = 8


def operation_named(names: str) -> tuple[Operation, int] | None:
    """The operation and round that a layer's or group's name says, such as "CUT_INNER_2" or "fold lines"; None where
    it says none."""
    name = "-".join(re.split(r"[\s_-]+", names.strip().lower()))
    words = [_ending(word) for word in re.findall(r"[a-zäöüß]+", name)]
    said = {_OPERATIONS.get(word) for word in words if word not in _FILLERS}
    for operation in sorted(Operation, key=lambda o: -len(o)):
        if name == operation or name.startswith(f"{operation}-"):
            if not said - {None} <= {_GENERAL.get(operation, operation)}:
                return None
            digits = name[len(operation) + 1 :].split("-")[0]
            is_round = operation in CUTS and digits.isdigit() and len(digits) < 4
            return operation, int(digits) - 1 if is_round else 0
    (only,) = said if len(said) == 1 else (None,)
    return None if only is None else (only, 0)


_GENERAL = {Operation.CUT_INNER: Operation.CUT_OUTER}
"""Operations that are called by the same words as another one."""


def _ending(word: str) -> str:
    """The first part of a German compound such as "falzlinien"."""
    for filler in ("linien", "linie"):
        if word.endswith(filler) and word != filler:
            return word.removesuffix(filler)
    return word


def operation_of(called: Sequence[str]) -> tuple[Operation | None, str]:
    """What the innermost name that says anything says, of names from the outermost on, and that name; None and the
    innermost name where none says anything."""
    for name in reversed(called):
        found = operation_named(name)
        if found:
            return found[0], name
    return None, called[-1] if called else ""


class Unnamed:
    """Lines that are cut although no name says so."""

    def __init__(self) -> None:
        self.count: Counter[str] = Counter()
        self.first = 0

    def add(self, name: str, line: int = 0) -> None:
        self.first = self.first or line
        self.count[name] += 1

    def remarks(self) -> list[LeftOut]:
        """How many there are, and the names of their groups."""
        if not self.count:
            return []
        names = ", ".join(sorted(name for name in self.count if name)[:_MOST_NAMES])
        said = say(
            "1 line is cut although no name says what is done with it{named}."
            " | {n} lines are cut although no name says what is done with them{named}.",
            n=sum(self.count.values()),
            named=say(" ({name})", name=names) if names else "",
        )
        return [LeftOut(said, self.first)]


def add_line(
    sent: Sent,
    segments: Segments,
    operation: Operation | None,
    machine: Machine,
    name: str,
    line: int = 0,
) -> None:
    """A line of the drawing, y upwards; what is not named is cut."""
    tool = machine.tool_for(operation or Operation.CUT_OUTER)
    places = flat(segments)
    if len(places) > 1:
        sent.add(Stroke(tool.number, tool.speed, places, name=name, line=line))


def flat(segments: Segments) -> Floats:
    """Places (n, 2) of chords within the tolerance of flattening, the last included."""
    index, t = subdivide(segments)
    return np.concatenate([segments.points_at(index, t), segments.end[-1:]])


def in_passes(found: tuple[Operation, int] | None) -> tuple[int, int]:
    """By which lines are sorted where a drawing has no order of its own: round, then operation."""
    if found is None:
        return 0, ORDER[Operation.CUT_OUTER]
    operation, round_ = found
    return round_, ORDER[operation]
