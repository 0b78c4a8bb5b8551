"""A sheet with its pieces: what is cut of it, and what it is meant to become."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from stileblade.card.stock import Paper, price_of
from stileblade.formats.lines import Line, Lines, nothing
from stileblade.formats.order import in_rounds
from stileblade.formats.plan import REGISTER, REGISTER_HOLE, TURN, Plan, moved_places
from stileblade.formats.sides import Side, side_of
from stileblade.formats.turnover import Turnover
from stileblade.geometry.curves.segments import Floats, arc
from stileblade.geometry.curves.transforms import after, identity, translation
from stileblade.geometry.measures import rows
from stileblade.geometry.paths.pathdata import PathPen
from stileblade.geometry.paths.pens import draw_contour
from stileblade.geometry.paths.ways import Way, joined, segments_of, way_of
from stileblade.machine.machine import Machine
from stileblade.machine.operation import Operation
from stileblade.meant.sheet import MeantPiece, MeantSheet
from stileblade.sheets.holes import Places, hole_places
from stileblade.sheets.job import Wanted
from stileblade.sheets.layout.parts import Format, Placed
from stileblade.words import say


@dataclass(frozen=True, eq=False)
class Lying:
    """A piece on a sheet."""

    wanted: Wanted
    placed: Placed

    @cached_property
    def matrix(self) -> Floats:
        """From the piece's own frame, its box at 0, 0, to the sheet's."""
        part, turn = self.placed.part, self.placed.turn
        turned = rows.turning(turn, flipped=part.flipped)
        left, head, _, _ = rows.box_of(rows.mapped(part.shape, turned))
        return after(translation(self.placed.x - left, self.placed.y - head), turned)

    @cached_property
    def lines(self) -> Lines:
        return {
            op: [replace(line.moved(self.matrix), round=0) for line in some]
            for op, some in self.wanted.lines.items()
        }

    @cached_property
    def beneath(self) -> Lines:
        """What is done to the side that lies on the bed, once the sheet is turned over."""
        return self._lines(beneath=True)

    @cached_property
    def above(self) -> Lines:
        """What is done as the piece lies."""
        return self._lines(beneath=False)

    def _lines(self, *, beneath: bool) -> Lines:
        down = Side.OUTSIDE if self.placed.part.flipped else Side.INSIDE
        return {
            op: [line for line in some if (side_of(op, line) is down) is beneath]
            for op, some in self.lines.items()
        }


@dataclass(frozen=True, eq=False)
class Sheet:
    """A sheet of a job: its paper, its number among those of that paper, and what lies on it."""

    job: str
    paper: Paper
    number: int
    form: Format
    lying: tuple[Lying, ...]
    machine: Machine
    bridges: int = 0
    bridge_width: float = 0.4

    @property
    def area(self) -> float:
        return sum(p.placed.part.area for p in self.lying)

    @property
    def use(self) -> float:
        """Share of the sheet that becomes cards."""
        return self.area / (self.form.width * self.form.height)

    @cached_property
    def turned_over(self) -> bool:
        """Whether something is done to the side that lies on the bed, so that there is a second set-up."""
        return any(p.wanted.beneath(flipped=p.placed.part.flipped) for p in self.lying)

    @property
    def price(self) -> float:
        """Of the sheet, as its share of one as it is bought."""
        return price_of(self.form.width * self.form.height, self.paper)

    @cached_property
    def over(self) -> Floats:
        """From the sheet as it lies to the sheet turned over."""
        width, height = self.form.width, self.form.height
        return Turnover.of(width, height).matrix(width, height)

    @property
    def draws_holes(self) -> bool:
        """Whether the second set-up draws the register holes, for the eye to see that they lie where they should."""
        return any(Operation.DRAW in tool.does for tool in self.machine.tools)

    @cached_property
    def plans(self) -> list[Plan]:
        """What is done to it as it lies, and after that turned over where something is done so."""
        together, beneath = nothing(), nothing()
        for p in self.lying:
            for op, some in p.beneath.items():
                beneath[op] += [line.moved(self.over) for line in some]
            for op, some in p.above.items():
                held = self.bridges and op is Operation.CUT_OUTER
                for line in some:
                    together[op] += (
                        bridged(line, self.bridges, self.bridge_width) if held else [line]
                    )
        title = say("sheet {number}", number=self.number)
        plan = Plan(
            self.job, title, self.form.width, self.form.height, in_rounds(together),
            paper=self.paper.name, machine=self.machine, cut_runs=self.paper.cut_runs,
        )  # fmt: skip
        if not self.turned_over:
            return [plan]
        holes = self.holes()
        first = {**plan.lines, Operation.CUT_INNER: [*holes, *plan.lines[Operation.CUT_INNER]]}
        if self.draws_holes:
            beneath[Operation.DRAW] += [hole.moved(self.over) for hole in holes]
        places = self.hole_places
        turned = moved_places(places, self.over)
        return [
            replace(plan, lines=first, holes=places),
            replace(plan, lines=beneath, inside=True, label="inside", holes=turned),
        ]

    @property
    def hole_places(self) -> Places:
        """The middles of the register holes, as the sheet lies."""
        return self.form.holes or hole_places(self.form)

    def holes(self) -> list[Line]:
        """Register holes, by which the sheet is turned over."""
        r = REGISTER_HOLE / 2
        return [
            Line(arc(spot, (r, 0.0), (0.0, r), 0.0, TURN), True, group=REGISTER)
            for spot in self.hole_places
        ]

    def meant(self, *, inside: bool = False, runs: int = 1) -> MeantSheet:
        """What a file of it has to become, that runs along each cut so many times; of the second set-up
        that alone."""
        matrix = self.over if inside else identity()
        shown = self.turned_over and (self.draws_holes or not inside)
        holes = [hole.moved(matrix) for hole in self.holes()] if shown else []
        own = Operation.DRAW if inside else Operation.CUT_INNER
        return MeantSheet(
            job=self.job,
            number=self.number,
            paper=self.paper.name,
            format_mm=(self.form.width, self.form.height),
            pieces=tuple(self._piece(p, inside=inside) for p in self.lying),
            others={own: path_of(holes)} if holes else {},
            runs=runs,
            registered=self.turned_over,
        )

    def _piece(self, p: Lying, *, inside: bool) -> MeantPiece:
        done = p.beneath if inside else p.above
        lines = {
            op: path_of([s.moved(self.over) for s in some] if inside else some)
            for op, some in done.items()
            if some
        }
        bridges = () if inside else self._bridge_places(p)
        return MeantPiece(
            design=p.wanted.card.name,
            piece=p.wanted.name,
            x_mm=round(p.placed.x, 4),
            y_mm=round(p.placed.y, 4),
            turn_deg=p.placed.turn,
            flipped=p.placed.part.flipped,
            held=bool(bridges),
            bridges=bridges,
            bridge_width=self.bridge_width if bridges else 0,
            lines=lines,
        )

    def _bridge_places(self, p: Lying) -> tuple[tuple[float, float], ...]:
        """The middles of a piece's holding bridges, to a thousandth of a mm."""
        if not self.bridges:
            return ()
        return tuple(
            place
            for line in p.above.get(Operation.CUT_OUTER, ())
            for place in bridge_middles(line, self.bridges, self.bridge_width)
        )


def path_of(some: Sequence[Line]) -> str:
    """Lines as path data, to a millionth of a mm."""
    pen = PathPen(6)
    for line in some:
        draw_contour(line.segments, pen, closed=line.closed)
    return pen.text


def bridged(line: Line, count: int, width: float) -> list[Line]:
    """An outer cut in as many stretches, with bridges between them that hold the piece; whole where they would take
    more than half of it."""
    way = way_of(line.segments, closed=True)
    total = way.length
    if count * width > total / 2:
        return [line]
    step = total / count
    found = []
    for middle in _bridge_middles(total, count):
        low = middle + width / 2
        part = _round(way, low, low + step - width, total)
        found.append(Line(segments_of(part), False, line.step, line.group, line.round))
    return found


def bridge_middles(line: Line, count: int, width: float) -> list[tuple[float, float]]:
    """Where the bridges of an outer cut are."""
    way = way_of(line.segments, closed=True)
    total = way.length
    if count * width > total / 2:
        return []
    places = [way.stretch(at, total).start for at in _bridge_middles(total, count)]
    return [(round(float(x), 3), round(float(y), 3)) for x, y in places]


def _bridge_middles(total: float, count: int) -> list[float]:
    """How far along a closed cut the middles of its bridges are, evenly spread."""
    return [(k + 0.5) * total / count for k in range(count)]


def _round(way: Way, low: float, high: float, total: float) -> Way:
    """A stretch of a closed way that may run over its start."""
    if high <= total:
        return way.stretch(low, high)
    return joined(way.stretch(low, total), way.stretch(0.0, high - total))
