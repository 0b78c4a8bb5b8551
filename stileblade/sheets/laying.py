"""A whole job laid out: the sheets of each paper, and what would save one."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from stileblade.card.stock import weight_of
from stileblade.checks.grain import best_lay
from stileblade.errors import DocumentError
from stileblade.formats.plan import REGISTER_HOLE
from stileblade.geometry.measures import rows
from stileblade.machine.machine import Machine
from stileblade.sheets.advice import advice_for
from stileblade.sheets.holes import HOLE_IN, free_holes
from stileblade.sheets.job import JobOptions, Stock, Wanted, sheet_size
from stileblade.sheets.layout.pack import Layout, lay_out
from stileblade.sheets.layout.parts import Format, Part, Placed, Turns
from stileblade.sheets.sheet import Lying, Sheet
from stileblade.sheets.windows import Windows
from stileblade.words import say

Progress = Callable[[float, str], bool]
"""Told the share done and what is done; False stops with the best so far."""


@dataclass(frozen=True, eq=False)
class Laid:
    """All sheets of a job; ``bound`` is how few their areas would need, ``advice`` what saves a sheet."""

    sheets: tuple[Sheet, ...]
    bound: int
    advice: tuple[str, ...]

    @property
    def price(self) -> float:
        """Of all sheets whose paper's price is known."""
        return sum(sheet.price for sheet in self.sheets)

    @property
    def weight(self) -> float:
        """Grams of the cards."""
        return sum(weight_of(sheet.area, sheet.paper) for sheet in self.sheets)


def form_of(
    stock: Stock,
    options: JobOptions,
    machine: Machine,
    locked: Sequence[Placed] = (),
    taken: Sequence[Sequence[rows.Shape]] = (),
) -> Format:
    """The sheets of a paper as the machine takes them; holes to turn them over by are where nothing that
    is locked or taken lies. DocumentError where its bed is too small, or there is no room for holes."""
    width, height = sheet_size(stock.paper, stock.keys, options.formats)
    roll = height == 0
    height = machine.bed_height if roll else height
    if not roll and not machine.has_room(width, height) and machine.has_room(height, width):
        width, height = height, width
    if not machine.has_room(width, height):
        raise DocumentError(
            say(
                "Sheets of {name!r} of {width:g} x {height:g} mm are larger than the bed of {title!r}, {bed_width:g} x {bed_height:g} mm.",
                name=stock.paper.name,
                width=width,
                height=height,
                title=machine.title,
                bed_width=machine.bed_width,
                bed_height=machine.bed_height,
            ),
            hint="Choose another format or another machine.",
        )
    own = max(stock.paper.edge, machine.edge)
    edge = own if options.edge_mm is None else options.edge_mm
    form = Format(
        width, height, edge, options.gap_mm, taken=tuple(tuple(some) for some in taken), roll=roll
    )
    if min(form.inner) <= 0:
        raise DocumentError(
            say(
                "An edge of {edge:g} mm leaves nothing of {width:g} x {height:g} mm.",
                edge=edge,
                width=width,
                height=height,
            )
        )
    known = {w.part.key: w for w in stock.pieces}
    lying = [*(w.part for w in stock.pieces), *(p.part for p in locked if p.part.key in known)]
    if any(known[part.key].beneath(flipped=part.flipped) for part in lying):
        there = [*(p.shape for p in locked), *(shape for some in taken for shape in some)]
        holes = free_holes(form, there)
        if holes is None:
            raise DocumentError(
                say(
                    "What lies on the sheets of {name!r} leaves no room for the three holes by which they are turned over.",
                    name=stock.paper.name,
                ),
                hint="Unlock a piece, or take no offcut.",
            )
        form = replace(form, holes=holes)
    return form


def lay_job(
    name: str,
    stocks: Sequence[Stock],
    options: JobOptions,
    machine: Machine,
    *,
    locked: Mapping[int, Sequence[Placed]] | None = None,
    taken: Mapping[int, Sequence[Sequence[rows.Shape]]] | None = None,
    progress: Progress = lambda share, what: True,
    advise: bool = True,
) -> Laid:
    """Every paper's pieces on its sheets. ``locked`` are pieces that stay, by the stock's number, and
    ``taken`` what of its first sheets is used already. DocumentError where a piece fits on no sheet."""
    sheets: list[Sheet] = []
    bound, advice = 0, list[str]()
    locked, taken = locked or {}, taken or {}
    forms = [
        form_of(stock, options, machine, locked.get(number, ()), taken.get(number, ()))
        for number, stock in enumerate(stocks)
    ]
    stocks = [_with_grain(stock, form, options) for stock, form in zip(stocks, forms, strict=True)]
    for stock, form in zip(stocks, forms, strict=True):
        _must_fit(stock, form)
    for number, (stock, form) in enumerate(zip(stocks, forms, strict=True)):
        share = number / len(stocks)

        def told(
            done: float, count: int, share: float = share, paper: str = stock.paper.name
        ) -> bool:
            return progress(
                share + done / len(stocks), say("{paper}: {count} sheets", paper=paper, count=count)
            )

        fixed = list(locked.get(number, ()))
        parts = _rest(stock.parts, fixed)
        windows = Windows(open=options.in_windows)
        layout = lay_out(
            [windows.closed(part) for part in parts],
            form,
            locked=[replace(p, part=windows.closed(p.part)) for p in fixed],
            progress=told,
        )
        layout = _without_unused(windows.opened(layout))
        bound += layout.bound
        sheets += _sheets(name, stock, layout, options, machine)
        if (
            advise
            and not fixed
            and progress(
                share + 0.99 / len(stocks),
                say("{name}: what would save a sheet", name=stock.paper.name),
            )
        ):
            advice += advice_for(stock, form, layout.sheets, machine, windows)
    progress(1.0, "done")
    return Laid(tuple(sheets), bound, tuple(advice))


def _without_unused(layout: Layout) -> Layout:
    """Without offcuts on which nothing found room."""
    used = sorted({p.sheet for p in layout.placed})
    taken = layout.form.taken
    form = replace(layout.form, taken=tuple(t for i, t in enumerate(taken) if i in used))
    number = {sheet: i for i, sheet in enumerate(used)}
    placed = tuple(replace(p, sheet=number[p.sheet]) for p in layout.placed)
    return replace(layout, form=form, placed=placed)


def _rest(parts: Sequence[Part], fixed: Sequence[Placed]) -> list[Part]:
    """Parts that are not locked already."""
    rest = list(parts)
    for placed in fixed:
        same = next((p for p in rest if p.key == placed.part.key), None)
        if same is not None:
            rest.remove(same)
    return rest


def _with_grain(stock: Stock, form: Format, options: JobOptions) -> Stock:
    """Folded pieces turned by halves alone, as the grain of these very sheets wants. Those that go on a sheet
    against it alone are turned as others are."""
    if not options.with_grain:
        return stock
    # the fibres run along the sheet's own long side, however it lies on the bed; along a roll
    height = 2 * form.width if form.roll else form.height
    paper = stock.paper.model_copy(update={"sheet_width": form.width, "sheet_height": height})

    def laid(wanted: Wanted) -> Wanted:
        work = wanted.piece.work
        lay = best_lay(work, paper) if work and any(f.folds for f in work.folds) else None
        if lay is None:
            return wanted
        first = 90.0 if lay.turned else 0.0
        part = replace(wanted.part, turns=Turns.HALVES, first=first, _made={})
        free = replace(wanted.part, turns=options.turns, first=0.0, _made={})
        return replace(wanted, part=part if form.fits(part) else free)

    return replace(stock, pieces=tuple(map(laid, stock.pieces)))


def _must_fit(stock: Stock, form: Format) -> None:
    for wanted in stock.pieces:
        if not form.fits(wanted.part):
            w, h = wanted.part.size(0.0)
            inner = form.inner
            raise DocumentError(
                say(
                    "{name}: {name2} is {w:.1f} x {h:.1f} mm and fits on no sheet of {name3!r}, of which {inner:.1f} x {inner2:.1f} mm can be reached.",
                    name=wanted.card.name,
                    name2=wanted.name,
                    w=w,
                    h=h,
                    name3=stock.paper.name,
                    inner=inner[0],
                    inner2=inner[1],
                ),
                hint="Take a larger format or a smaller edge, or split the piece.",
            )


def _sheets(
    name: str, stock: Stock, layout: Layout, options: JobOptions, machine: Machine
) -> list[Sheet]:
    wanted = {w.part.key: w for w in stock.pieces}
    found = []
    for number in range(layout.sheets):
        lying = tuple(Lying(wanted[p.part.key], p) for p in layout.placed if p.sheet == number)
        form = _cut_off(layout.form, lying) if layout.form.roll else layout.form
        found.append(
            Sheet(
                name, stock.paper, number + 1, form, lying, machine,
                options.bridges, options.bridge_width,
            )
        )  # fmt: skip
    return found


def _cut_off(form: Format, lying: Sequence[Lying]) -> Format:
    """As much of a roll as is needed, in whole mm; a hole to turn it by has room below the pieces."""
    foot = max((p.placed.y + p.placed.part.size(p.placed.turn)[1] for p in lying), default=0.0)
    if form.holes:
        foot += form.gap + REGISTER_HOLE / 2 + HOLE_IN
    height = min(form.height, math.ceil(foot + form.edge - 1e-6))
    cut = replace(form, height=height)
    if not form.holes:
        return cut
    holes = free_holes(cut, [p.placed.shape for p in lying])
    return form if holes is None else replace(cut, holes=holes)
