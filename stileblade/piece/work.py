"""The work: a piece as it stands after some of its steps."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from stileblade.card.layout import Panel
from stileblade.errors import StepError
from stileblade.geometry.curves.places import Box, around
from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.geometry.curves.transforms import after
from stileblade.geometry.regions.clipping import clip_line
from stileblade.geometry.regions.region import Region
from stileblade.piece.edges import EdgeShape
from stileblade.piece.folds import Fold, Span
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.lying import Lying
from stileblade.piece.mirrored import Mirrored
from stileblade.piece.parts import Parted
from stileblade.piece.windows import Opened
from stileblade.tolerance import TOLERANCE
from stileblade.tracing import ReadByPart
from stileblade.words import named, say


@dataclass(frozen=True, eq=False)
class Placed:
    """An artwork in the piece: its key, and the one map from mm of the artwork to mm of the
    piece that all its layers share. ``printed``: numbers of the layers whose colours are on the paper."""

    ref: str
    matrix: Floats
    printed: tuple[int, ...] = ()

    def moved(self, matrix: Floats) -> Placed:
        return replace(self, matrix=after(matrix, self.matrix))


@dataclass(frozen=True)
class Note:
    """Something that a step wants to be known."""

    code: str
    message: str
    step: str
    warning: bool = False
    mend: tuple[str, dict[str, object]] | None = None
    """The title and the values of the step that would end it."""


CLOSED = "closed front"
"""What lies in front when the card is closed, as one: over several panels."""
FEATURE = "step:"
"""Begins the name of a window as what something is placed by."""
NO_BOX = Box(0.0, 0.0, 0.0, 0.0)


@dataclass(frozen=True, eq=False)
class Work(ReadByPart):
    """paper, the panels it is divided into, its folds, and the figure's own box.

    ``reference`` is the figure's box as its own steps left it: trims, welds and windows do
    not move it, so that what is placed by it stays where it is.
    """

    paper: Region
    panels: tuple[Panel, ...] = ()
    folds: tuple[Fold, ...] = ()
    reference: Box = NO_BOX
    windows: tuple[Opened, ...] = ()
    lines: tuple[DrawnLine, ...] = ()
    edges: tuple[EdgeShape, ...] = ()
    """Edges of panels that steps gave a shape."""
    mirrored: Mirrored | None = None
    artwork: Placed | None = None
    front: str = ""
    """The panel that stays in its place when the card is closed."""
    fronts: tuple[str, ...] = ()
    """All panels that are in front then; ``front`` alone where empty."""
    lies_on: str = ""
    """The panel that lies on the table when the card stands; none where it stands on edges."""
    parted: tuple[Parted, ...] = ()
    """The parts that steps cut off and did not keep: pieces of their own may be made of them."""
    notes: tuple[Note, ...] = ()
    """Things that steps want to be known."""
    lying: Lying | None = None
    """How it lies on another piece, where it does."""

    def with_paper(self, paper: Region, **changes: object) -> Work:
        return replace(self, paper=paper, **changes)  # type: ignore[arg-type]

    def moved(self, matrix: Floats, *, reference: Box | None = None) -> Work:
        """The figure mapped by a 2x3 matrix, and with it the artwork that it is of."""
        return replace(
            self,
            paper=self.paper.transformed(matrix),
            reference=reference or self.reference.transformed(matrix),
            artwork=self.artwork and self.artwork.moved(matrix),
            lines=tuple(line.moved(matrix) for line in self.lines),
        )

    def targets(self) -> list[str]:
        """What things can be placed on."""
        if self.panels:
            return [*(p.name for p in self.panels), "card"]
        return ["figure"]

    @property
    def closed_over_several(self) -> bool:
        """Whether several panels are in front when the card is closed."""
        return len(self.fronts) > 1 and bool(self.panels)

    def box_of(self, target: str, *, field: str = "target") -> Box:
        """The box of a panel, of the open card, of the figure, or of a window by its step's key.

        "front" means the figure while there are no panels, and "figure" its panel afterwards,
        so that a step keeps its sense when it is moved past the mirror.
        """
        if target.startswith(FEATURE):
            return self.window_of(target.removeprefix(FEATURE), field=field).outline.bounds
        if not self.panels:
            if target in ("figure", "front", "card"):
                return self.reference
            raise StepError(
                say("There is no panel {target!r} yet; the figure has no fold.", target=target),
                hint="Mirror the figure first, or place this on the figure.",
                field=field,
            )
        if target == "card":
            return around([p.box for p in self.panels])
        names = [p.name for p in self.panels]
        name = target
        if target == "figure" or (target == "front" and target not in names):
            name = self.front
        for panel in self.panels:
            if panel.name == name:
                return panel.box
        raise StepError(
            say("There is no panel {target!r}.", target=target),
            hint=say("Panels are: {list}.", list=", ".join(named(p.name) for p in self.panels)),
            field=field,
        )

    def window_of(self, name: str, *, field: str = "window") -> Opened:
        """The window that a step cut, by the step's key, with all its copies on the panel that it is
        placed by; the last step's for "". StepError where there is none."""
        step, number = self._named(name, field)
        if number:
            return self.windows_of(name, field=field)[0]
        return next(w for w in reversed(self.windows) if w.step == step)

    def windows_of(self, name: str, *, field: str = "window") -> list[Opened]:
        """Each copy of the window that a step cut, those on the panel that it is placed by first; only
        copy n of it for "key.n". StepError where there is none."""
        step, number = self._named(name, field)
        each = [w for o in reversed(self.windows) if o.step == step for w in o.each]
        if number > len(each):
            raise StepError(
                say(
                    "The window of step {step!r} has {n} copies; there is no copy {number}.",
                    step=step,
                    n=len(each),
                    number=number,
                ),
                hint="Choose another one.",
                field=field,
            )
        return [each[number - 1]] if number else each

    def _named(self, name: str, field: str) -> tuple[str, int]:
        """The key of the step that cut a window, and the number of a copy, 0 for all."""
        if not self.windows:
            raise StepError("There is no window yet.", hint="Cut a window first.", field=field)
        known = list(dict.fromkeys(w.step for w in self.windows))
        if name in ("", *known):
            return name or known[-1], 0
        step, _, number = name.rpartition(".")
        if step in known and number.isdecimal() and 0 < len(number) < 5 and int(number):
            return step, int(number)
        raise StepError(
            say("There is no window of step {name!r} before this one.", name=name),
            hint=say("Windows: {list}.", list=", ".join(known)),
            field=field,
        )

    def panel_name(self, target: str) -> str:
        """What ``target`` lies on: the panel of a window, or itself."""
        if not target.startswith(FEATURE):
            return target
        return self.window_of(target.removeprefix(FEATURE), field="target").panel

    @cached_property
    def lines_on_paper(self) -> tuple[DrawnLine, ...]:
        """The lines where there is paper under them after all steps; those that follow the outline
        along the outline as it is in the end."""
        return tuple(self._found(line)[0] for line in self.lines)

    @property
    def lines_lost(self) -> list[tuple[DrawnLine, StepError]]:
        """Lines that cannot follow the outline as it is in the end, and why."""
        found = [(line, self._found(line)[1]) for line in self.lines if line.follows is not None]
        return [(line, problem) for line, problem in found if problem is not None]

    def _found(self, line: DrawnLine) -> tuple[DrawnLine, StepError | None]:
        if line.follows is None:
            return line.on(self.paper), None
        try:
            return replace(line, ways=line.follows(self), follows=None), None
        except StepError as problem:
            return replace(line, follows=None), problem

    @cached_property
    def slits(self) -> tuple[Segments, ...]:
        """What is cut through where there is paper, and is no outline of it."""
        cut = (line for line in self.lines_on_paper if line.how is How.CUT)
        return tuple(way for line in cut for way, _ in line.ways)

    @cached_property
    def spans(self) -> dict[str, list[Span]]:
        """By fold: where it has paper on both sides, in order, exact."""
        return {fold.name: self.spans_of(fold) for fold in self.folds}

    def spans_of(self, fold: Fold) -> list[Span]:
        """Where a fold, of the piece or not, has paper on both sides."""
        line, found = fold.line, []
        ends = line.ends_beyond(self.paper.bounds)
        for a, b in clip_line(self.paper, *ends, both_sides=True):
            if not fold.crease.stretches:
                found.append(Span(a, b, fold.direction))
                continue
            low, high = line.place(np.array([a, b])).tolist()
            for stretch in fold.crease.stretches:
                start, end = max(low, stretch.low), min(high, stretch.high)
                if end - start >= TOLERANCE.leftover:
                    p = a if start == low else line.point_at(start)
                    q = b if end == high else line.point_at(end)
                    found.append(Span(p, q, stretch.direction))
        return found
