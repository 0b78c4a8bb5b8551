"""A laid out job as it is kept and shown: parts with their outlines, sheets with what lies where.

Lengths in mm from a sheet's head left, y downwards; turns clockwise in degrees. A piece's ``x``, ``y``
are those of the box of the piece as it is turned.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from hashlib import blake2b

from pydantic import BaseModel, Field

from stileblade.card.stock import Paper
from stileblade.errors import DocumentError
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.measures import rows
from stileblade.geometry.measures.distances import label_point
from stileblade.geometry.paths.pathdata import path_data
from stileblade.machine.machine import Machine
from stileblade.sheets.holes import hole_places
from stileblade.sheets.job import JobOptions, Stock
from stileblade.sheets.laying import Laid
from stileblade.sheets.layout.distances import apart
from stileblade.sheets.layout.parts import Format, Part, Placed, Turns
from stileblade.sheets.sheet import Lying, Sheet
from stileblade.words import say

_KEPT = 2e-3
"""mm: places are kept to a ten-thousandth, and a person may put pieces so much too near."""


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
    outside_only: bool = False
    """Whether something is done to it that can be done from its outside alone; from its inside."""
    inside_only: bool = False
    label_x: float
    label_y: float
    """A place in its paper with room for its name."""


class KeptPiece(BaseModel):
    """``dx``, ``dy`` is where the part's own 0, 0 comes to lie from the piece's box' left and head."""

    part: str
    x: float
    y: float
    turn: float
    width: float = 0
    height: float = 0
    dx: float = 0
    dy: float = 0
    flipped: bool = False
    locked: bool = False


class KeptSheet(BaseModel):
    """A sheet; ``taken`` is what was used of it before, as path data, ``holes`` the middles of those that
    it is turned over by; of a ``roll`` the height is what is cut off."""

    paper: str
    paper_key: str
    stock: str
    """A digest of the paper: two may have one name."""
    number: int
    width: float
    height: float
    edge: float
    gap: float
    price: float
    weight_gsm: float
    taken: list[str] = []
    holes: tuple[tuple[float, float], ...] = ()
    roll: bool = False
    pieces: list[KeptPiece]

    @property
    def area(self) -> float:
        return self.width * self.height

    @property
    def form(self) -> Format:
        """Without what is taken of it."""
        return Format(
            self.width, self.height, self.edge, self.gap, holes=self.holes, roll=self.roll
        )


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
            label = label_point(region, region.bounds)
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
                outside_only=wanted.outside_only,
                inside_only=wanted.inside_only,
                label_x=round(label[0], 2),
                label_y=round(label[1], 2),
            )
    return KeptJob(
        parts=parts,
        sheets=[_sheet(sheet) for sheet in laid.sheets],
        bound=laid.bound,
        advice=list(laid.advice),
        weight_g=laid.weight,
        price=laid.price,
    )


def mark_of(paper: Paper) -> str:
    """A digest of all that a paper is, but for the key that a design has it by."""
    text = paper.model_copy(update={"id": ""}).model_dump_json()
    return blake2b(text.encode(), digest_size=6).hexdigest()


def _sheet(sheet: Sheet) -> KeptSheet:
    form = sheet.form
    own = form.taken[sheet.number - 1] if sheet.number <= len(form.taken) else ()
    return KeptSheet(
        paper=sheet.paper.name,
        paper_key=sheet.paper.id,
        stock=mark_of(sheet.paper),
        number=sheet.number,
        width=form.width,
        height=form.height,
        edge=form.edge,
        gap=form.gap,
        price=sheet.price,
        weight_gsm=sheet.paper.weight,
        taken=[rows.path_of(shape) for shape in own],
        holes=form.holes if sheet.turned_over else (),
        roll=form.roll,
        pieces=[_piece(lying.placed) for lying in sheet.lying],
    )


def _piece(placed: Placed) -> KeptPiece:
    part = placed.part
    piece = KeptPiece(
        part=part.key, x=round(placed.x, 4), y=round(placed.y, 4), turn=placed.turn,
        flipped=part.flipped, locked=placed.locked,
    )  # fmt: skip
    return with_size(piece, part.shape)


def with_size(piece: KeptPiece, shape: rows.Shape) -> KeptPiece:
    """With the size of its box as it is turned, and where its own 0, 0 lies from that."""
    turned = rows.turning(piece.turn, flipped=piece.flipped)
    left, head, right, foot = rows.box_of(rows.mapped(shape, turned))
    return piece.model_copy(
        update={
            "width": round(right - left, 4), "height": round(foot - head, 4),
            "dx": round(-left, 4), "dy": round(-head, 4),
        }
    )  # fmt: skip


def placed_of(
    job: KeptJob, stocks: Sequence[Stock], *, locked_only: bool
) -> dict[int, list[Placed]]:
    """By a stock's number: where its parts lie, of designs that may have changed since. A piece whose
    part is no longer there, or lies with another paper, is left out."""
    found: dict[int, list[Placed]] = {}
    for number, stock in enumerate(stocks):
        known = {w.part.key: w.part for w in stock.pieces}
        mine = [s for s in job.sheets if s.stock == mark_of(stock.paper)]
        for index, sheet in enumerate(mine):
            for piece in sheet.pieces:
                part = known.get(piece.part)
                if part is None or (locked_only and not piece.locked):
                    continue
                part = part if piece.flipped == part.flipped else _over(part)
                placed = Placed(part, index, piece.x, piece.y, piece.turn, piece.locked)
                found.setdefault(number, []).append(placed)
    return found


@lru_cache(maxsize=500)
def _over(part: Part) -> Part:
    """The part turned over."""
    return Part(part.key, part.shape, part.turns, part.first, flipped=not part.flipped)


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
        mine = [s for s in job.sheets if s.stock == mark_of(stock.paper)]
        for index, sheet in enumerate(mine):
            lying = tuple(
                Lying(wanted[p.part.key], p) for p in where.get(number, []) if p.sheet == index
            )
            made = Sheet(
                name, stock.paper, sheet.number, sheet.form, lying, machine,
                options.bridges, options.bridge_width,
            )  # fmt: skip
            if made.turned_over and not sheet.holes:
                made = replace(made, form=replace(sheet.form, holes=hole_places(sheet.form)))
            sheets.append(made)
    order = {(s.stock, s.number): i for i, s in enumerate(job.sheets)}
    sheets.sort(key=lambda s: order[mark_of(s.paper), s.number])
    for made in sheets:
        here = [replace(lying.placed, sheet=0, locked=False) for lying in made.lying]
        if apart(here, made.form, within=_KEPT):
            raise DocumentError(
                say(
                    "Pieces on a sheet of {name!r} have changed since it was laid out, and are too near to each other now.",
                    name=made.paper.name,
                ),
                hint="Lay it out again.",
            )
    return Laid(tuple(sheets), job.bound, tuple(job.advice))
