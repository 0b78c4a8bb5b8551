"""Pieces of a kept layout moved by hand: how near they come to others, and whether they may lie there."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from pydantic import BaseModel

from stileblade.errors import DocumentError
from stileblade.formats.plan import REGISTER_HOLE
from stileblade.geometry.measures import rows
from stileblade.geometry.paths.pathdata import region_from_path
from stileblade.sheets.holes import Places, free_holes
from stileblade.sheets.kept import KeptJob, KeptPiece, KeptSheet, with_size
from stileblade.words import say

LEAST = 1e-3
"""mm: nearer by less is not too near."""


class Nearness(BaseModel):
    """How near a piece is to the next one, and how far over the edge it lies; ``allowed`` says whether it
    may lie there, ``said`` why not."""

    away: float | None
    to: str
    over: float
    allowed: bool
    said: str
    piece: KeptPiece


def measured(job: KeptJob, piece: KeptPiece, *, about: KeptPiece | None = None) -> KeptPiece:
    """The piece with its size; with ``about`` its middle is that of another one. DocumentError for a part
    that there is not."""
    part = job.parts.get(piece.part)
    if part is None:
        raise DocumentError("That piece is not in this job.", hint="Lay the job out again.")
    found = with_size(piece.model_copy(update={"turn": piece.turn % 360}), _shape(part.d))
    if about is None:
        return found
    x = about.x + (about.width - found.width) / 2
    y = about.y + (about.height - found.height) / 2
    return found.model_copy(update={"x": round(x, 4), "y": round(y, 4)})


@lru_cache(maxsize=600)
def _shape(d: str) -> rows.Shape:
    return rows.shape_of(region_from_path(d))


@lru_cache(maxsize=3000)
def _turned(d: str, turn: float, flipped: bool) -> rows.Shape:
    return rows.turned(_shape(d), turn, flipped=flipped)


def _lying(job: KeptJob, piece: KeptPiece) -> rows.Shape:
    turned = _turned(job.parts[piece.part].d, piece.turn, piece.flipped)
    return rows.moved(turned, piece.x, piece.y)


def nearness(job: KeptJob, sheet: int, piece: KeptPiece, *, without: int = -1) -> Nearness:
    """How a piece would lie on a sheet; ``without`` is its own number there. DocumentError for a sheet
    that there is not."""
    on = sheet_of(job, sheet)
    shape = _lying(job, piece)
    beside = [p for i, p in enumerate(on.pieces) if i != without]
    others = [_lying(job, p) for p in beside]
    names = [job.parts[p.part].name for p in beside]
    taken = [_shape(d) for d in on.taken]
    names += ["what is used already"] * len(taken)
    reach = max(on.gap, 60.0)
    away, which = rows.nearest(shape, [*others, *taken], reach)
    left, head, right, foot = rows.box_of(shape)
    over = max(
        on.edge - left, on.edge - head, right - on.width + on.edge, foot - on.height + on.edge
    )
    name = "" if which < 0 else names[which]
    said = ""
    if _turned_over(job, [*beside, piece]) and not free_holes(on.form, [*others, *taken, shape]):
        said = "There is no room left for the three holes by which the sheet is turned over."
    if away < 0:
        said = say("It lies over {name}.", name=name)
    elif away < on.gap - LEAST:
        said = say(
            "It is {away:.2f} mm from {name}: {gap:g} mm are asked for.",
            away=away,
            name=name,
            gap=on.gap,
        )
    if over > LEAST:
        said = say(
            "It is {over:.2f} mm over the edge that the machine cannot reach. {said}",
            over=over,
            said=said,
        ).strip()
    return Nearness(
        away=None if which < 0 else round(max(away, 0.0), 3), to=name, over=round(max(over, 0.0), 3),
        allowed=not said, said=said, piece=piece,
    )  # fmt: skip


def _beneath(job: KeptJob, piece: KeptPiece) -> bool:
    """Whether something is to be done to the side that lies on the bed."""
    part = job.parts[piece.part]
    return part.outside_only if piece.flipped else part.inside_only


def _turned_over(job: KeptJob, pieces: Sequence[KeptPiece]) -> bool:
    """Whether a sheet with such pieces has a second set-up."""
    return any(_beneath(job, p) for p in pieces)


def sheet_of(job: KeptJob, number: int) -> KeptSheet:
    if not 0 <= number < len(job.sheets):
        raise DocumentError(
            say("There is no sheet {number}.", number=number + 1), hint="Lay the job out again."
        )
    return job.sheets[number]


def placed_anew(job: KeptJob, sheet: int, number: int, to: int, piece: KeptPiece) -> KeptJob:
    """The job with a piece elsewhere, locked there or not. DocumentError where it would be too near to
    another, over the edge, or on another paper."""
    source, target = sheet_of(job, sheet), sheet_of(job, to)
    if not 0 <= number < len(source.pieces):
        raise DocumentError(
            say("There is no piece {number} on sheet {sheet}.", number=number + 1, sheet=sheet + 1)
        )
    if source.stock != target.stock:
        raise DocumentError(
            say("Sheet {to} is of another paper, {paper}.", to=to + 1, paper=target.paper)
        )
    was = source.pieces[number]
    if piece.part != was.part:
        raise DocumentError("That is another piece.", hint="Lay the job out again.")
    same = (was.x, was.y, was.turn, was.flipped) == (piece.x, piece.y, piece.turn, piece.flipped)
    if not (same and sheet == to):
        near = nearness(job, to, piece, without=number if sheet == to else -1)
        if not near.allowed:
            raise DocumentError(near.said, hint="It was put back.")
    sheets = list(job.sheets)
    left = [p for i, p in enumerate(source.pieces) if i != number]
    if sheet == to:
        left = [piece if i == number else p for i, p in enumerate(source.pieces)]
    sheets[sheet] = _with(job, source, left)
    if sheet != to:
        sheets[to] = _with(job, target, [*target.pieces, piece])
    return job.model_copy(update={"sheets": sheets})


def _with(job: KeptJob, on: KeptSheet, pieces: list[KeptPiece]) -> KeptSheet:
    """The sheet with other pieces, and with the holes that it needs for them."""
    holes: Places | None = ()
    if _turned_over(job, pieces):
        shapes = [*(_lying(job, p) for p in pieces), *(_shape(d) for d in on.taken)]
        holes = free_holes(on.form, shapes) or on.holes
    return on.model_copy(update={"pieces": pieces, "holes": holes})


def used_paths(job: KeptJob, number: int) -> list[str]:
    """What of a sheet is used, as path data: its pieces, and what was used before."""
    on = sheet_of(job, number)
    holes = [rows.path_of(rows.disc(x, y, REGISTER_HOLE / 2)) for x, y in on.holes]
    return [*on.taken, *holes, *(rows.path_of(_lying(job, piece)) for piece in on.pieces)]
