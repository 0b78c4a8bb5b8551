"""A laid out job as it is kept and shown: parts with their outlines, sheets with what lies where.

Lengths in mm from a sheet's head left, y downwards; turns clockwise in degrees. A piece's ``x``, ``y``
are those of the box of the piece as it is turned.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from pydantic import BaseModel, Field

from stileblade.errors import DocumentError
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.measures import rows
from stileblade.geometry.paths.pathdata import path_data, region_from_path
from stileblade.machine.machine import Machine
from stileblade.sheets.job import JobOptions, Stock
from stileblade.sheets.laying import Laid
from stileblade.sheets.layout.parts import Format, Part, Placed, Turns
from stileblade.sheets.sheet import Lying, Sheet

LEAST = 1e-3
"""mm: nearer by less is not too near."""


class KeptPart(BaseModel):
    """A piece of a design: its outline as path data with its box at 0, 0, and how it may be turned."""

    key: str
    design: str
    name: str
    piece: str
    d: str
    outside: str
    inside: str
    turns: Turns
    area: float


class KeptPiece(BaseModel):
    part: str
    x: float
    y: float
    turn: float
    width: float = 0
    height: float = 0
    flipped: bool = False
    locked: bool = False


class KeptSheet(BaseModel):
    """A sheet; ``taken`` is what was used of it before, as path data."""

    paper: str
    paper_key: str
    number: int
    width: float
    height: float
    edge: float
    gap: float
    price: float
    weight_gsm: float
    taken: list[str] = []
    pieces: list[KeptPiece]

    @property
    def area(self) -> float:
        return self.width * self.height


class KeptJob(BaseModel):
    """All of a layout; ``bound`` is the number of sheets that areas alone would need."""

    parts: dict[str, KeptPart]
    sheets: list[KeptSheet]
    bound: int
    advice: list[str]
    weight_g: float
    price: float
    designs: dict[str, int] = Field(default_factory=dict)
    """Of the designs that it was laid out from, their revisions."""


class Nearness(BaseModel):
    """How near a piece is to the next one, and how far over the edge it lies; ``allowed`` says whether it
    may lie there, ``said`` why not."""

    away: float | None
    to: str
    over: float
    allowed: bool
    said: str


def kept(laid: Laid, stocks: Sequence[Stock]) -> KeptJob:
    """What is kept of a layout."""
    parts = {}
    for stock in stocks:
        for wanted in stock.pieces:
            work = wanted.piece.work
            if work is None:
                continue
            box = work.paper.bounds
            region = work.paper.transformed(translation(-box.left, -box.head))
            parts[wanted.part.key] = KeptPart(
                key=wanted.part.key,
                design=wanted.card.name,
                name=wanted.name,
                piece=wanted.piece.piece.id,
                d=path_data(region),
                outside=stock.paper.outside,
                inside=stock.paper.inside,
                turns=wanted.part.turns,
                area=wanted.part.area,
            )
    return KeptJob(
        parts=parts,
        sheets=[_sheet(sheet) for sheet in laid.sheets],
        bound=laid.bound,
        advice=list(laid.advice),
        weight_g=laid.weight,
        price=laid.price,
    )


def _sheet(sheet: Sheet) -> KeptSheet:
    form = sheet.form
    own = form.taken[sheet.number - 1] if sheet.number <= len(form.taken) else ()
    return KeptSheet(
        paper=sheet.paper.name,
        paper_key=sheet.paper.id,
        number=sheet.number,
        width=form.width,
        height=form.height,
        edge=form.edge,
        gap=form.gap,
        price=sheet.paper.price,
        weight_gsm=sheet.paper.weight,
        taken=[rows.path_of(shape) for shape in (*form.everywhere, *own)],
        pieces=[_piece(lying.placed) for lying in sheet.lying],
    )


def _piece(placed: Placed) -> KeptPiece:
    width, height = placed.part.size(placed.turn)
    return KeptPiece(
        part=placed.part.key,
        x=round(placed.x, 4),
        y=round(placed.y, 4),
        turn=placed.turn,
        width=round(width, 4),
        height=round(height, 4),
        flipped=placed.part.flipped,
        locked=placed.locked,
    )


@lru_cache(maxsize=600)
def _shape(d: str) -> rows.Shape:
    return rows.shape_of(region_from_path(d))


@lru_cache(maxsize=3000)
def _turned(d: str, turn: float, flipped: bool) -> rows.Shape:
    return rows.turned(_shape(d), turn, flipped=flipped)


def _lying(job: KeptJob, piece: KeptPiece) -> rows.Shape:
    turned = _turned(job.parts[piece.part].d, piece.turn, piece.flipped)
    return rows.moved(turned, piece.x, piece.y)


def size_of(job: KeptJob, piece: KeptPiece) -> tuple[float, float]:
    """Width and height of a piece as it is turned."""
    return rows.size_of(_turned(job.parts[piece.part].d, piece.turn, piece.flipped))


def nearness(job: KeptJob, sheet: int, piece: KeptPiece, *, without: int = -1) -> Nearness:
    """How a piece would lie on a sheet; ``without`` is its own number there. DocumentError for a sheet
    that there is not."""
    on = sheet_of(job, sheet)
    shape = _lying(job, piece)
    others = [_lying(job, p) for i, p in enumerate(on.pieces) if i != without]
    names = [job.parts[p.part].name for i, p in enumerate(on.pieces) if i != without]
    taken = [_shape(d) for d in on.taken]
    reach = max(on.gap, 60.0)
    away, which = rows.nearest(shape, [*others, *taken], reach)
    left, head, right, foot = rows.box_of(shape)
    over = max(
        on.edge - left, on.edge - head, right - on.width + on.edge, foot - on.height + on.edge
    )
    name = "" if which < 0 else names[which] if which < len(names) else "what is used already"
    said = ""
    if away < 0:
        said = f"It lies over {name}."
    elif away < on.gap - LEAST:
        said = f"It is {away:.2f} mm from {name}: {on.gap:g} mm are asked for."
    if over > LEAST:
        said = f"It is {over:.2f} mm over the edge that the machine cannot reach. {said}".strip()
    return Nearness(
        away=None if which < 0 else round(max(away, 0.0), 3), to=name, over=round(max(over, 0.0), 3),
        allowed=not said, said=said,
    )  # fmt: skip


def sheet_of(job: KeptJob, number: int) -> KeptSheet:
    if not 0 <= number < len(job.sheets):
        raise DocumentError(f"There is no sheet {number + 1}.", hint="Lay the job out again.")
    return job.sheets[number]


def placed_anew(job: KeptJob, sheet: int, number: int, to: int, piece: KeptPiece) -> KeptJob:
    """The job with a piece elsewhere, locked there or not. DocumentError where it would be too near to
    another, over the edge, or on another paper."""
    source, target = sheet_of(job, sheet), sheet_of(job, to)
    if not 0 <= number < len(source.pieces):
        raise DocumentError(f"There is no piece {number + 1} on sheet {sheet + 1}.")
    if (source.paper_key, source.paper) != (target.paper_key, target.paper):
        raise DocumentError(f"Sheet {to + 1} is of another paper, {target.paper}.")
    was = source.pieces[number]
    if piece.part != was.part:
        raise DocumentError("That is another piece.", hint="Lay the job out again.")
    width, height = size_of(job, piece)
    piece = piece.model_copy(update={"width": round(width, 4), "height": round(height, 4)})
    same = (was.x, was.y, was.turn, was.flipped) == (piece.x, piece.y, piece.turn, piece.flipped)
    if not (same and sheet == to):
        near = nearness(job, to, piece, without=number if sheet == to else -1)
        if not near.allowed:
            raise DocumentError(near.said, hint="It was put back.")
    sheets = list(job.sheets)
    left = [p for i, p in enumerate(source.pieces) if i != number]
    if sheet == to:
        left = [piece if i == number else p for i, p in enumerate(source.pieces)]
    sheets[sheet] = source.model_copy(update={"pieces": left})
    if sheet != to:
        sheets[to] = target.model_copy(update={"pieces": [*target.pieces, piece]})
    return job.model_copy(update={"sheets": sheets})


def readings(job: KeptJob) -> list[dict[str, float | str | int]]:
    """By paper: sheets, share used in per cent, weight in grams, price where it is known."""
    found: dict[str, dict[str, float | str | int]] = {}
    for sheet in job.sheets:
        one = found.setdefault(
            sheet.paper,
            {
                "paper": sheet.paper,
                "sheets": 0,
                "area": 0.0,
                "used": 0.0,
                "weight_g": 0.0,
                "price": 0.0,
            },
        )
        used = sum(job.parts[p.part].area for p in sheet.pieces)
        one["sheets"] = int(one["sheets"]) + 1
        one["area"] = float(one["area"]) + sheet.area
        one["used"] = float(one["used"]) + used
        one["weight_g"] = float(one["weight_g"]) + used * 1e-6 * sheet.weight_gsm
        one["price"] = float(one["price"]) + sheet.price
    return list(found.values())


def placed_of(
    job: KeptJob, stocks: Sequence[Stock], *, locked_only: bool
) -> dict[int, list[Placed]]:
    """By a stock's number: where its parts lie, of designs that may have changed since. A piece whose
    part is no longer there, or lies with another paper, is left out."""
    found: dict[int, list[Placed]] = {}
    for number, stock in enumerate(stocks):
        known = {w.part.key: w.part for w in stock.pieces}
        mine = [s for s in job.sheets if s.paper == stock.paper.name]
        for index, sheet in enumerate(mine):
            for piece in sheet.pieces:
                part = known.get(piece.part)
                if part is None or (locked_only and not piece.locked):
                    continue
                part = _over(part) if piece.flipped else part
                placed = Placed(part, index, piece.x, piece.y, piece.turn, piece.locked)
                found.setdefault(number, []).append(placed)
    return found


@lru_cache(maxsize=500)
def _over(part: Part) -> Part:
    """The part turned over."""
    return Part(part.key, part.shape, part.turns, part.first, flipped=True)


def laid_again(
    job: KeptJob, stocks: Sequence[Stock], options: JobOptions, machine: Machine, name: str
) -> Laid:
    """The layout as it was kept, for files. DocumentError where the designs have other pieces now."""
    where = placed_of(job, stocks, locked_only=False)
    wanted = {w.part.key: w for stock in stocks for w in stock.pieces}
    count = sum(w.count for w in wanted.values())
    if sum(len(some) for some in where.values()) != count:
        raise DocumentError(
            "The designs of this job have changed since it was laid out.", hint="Lay it out again."
        )
    sheets: list[Sheet] = []
    for number, stock in enumerate(stocks):
        mine = [s for s in job.sheets if s.paper == stock.paper.name]
        for index, sheet in enumerate(mine):
            form = Format(sheet.width, sheet.height, sheet.edge, sheet.gap)
            lying = tuple(
                Lying(wanted[p.part.key], p) for p in where.get(number, []) if p.sheet == index
            )
            sheets.append(
                Sheet(
                    name,
                    stock.paper,
                    sheet.number,
                    form,
                    lying,
                    machine,
                    options.bridges,
                    options.bridge_width,
                )
            )
    order = {(s.paper, s.number): i for i, s in enumerate(job.sheets)}
    sheets.sort(key=lambda s: order[s.paper.name, s.number])
    return Laid(tuple(sheets), job.bound, tuple(job.advice))


def used_paths(job: KeptJob, number: int) -> list[str]:
    """What of a sheet is used, as path data: its pieces, and what was used before."""
    on = sheet_of(job, number)
    return [*on.taken, *(rows.path_of(_lying(job, piece)) for piece in on.pieces)]
