"""A whole job laid out: the sheets of each paper, and what would save one."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from stileblade.card.stock import weight_of
from stileblade.errors import DocumentError
from stileblade.formats.plan import INSIDE, REGISTER_HOLE
from stileblade.geometry.measures import rows
from stileblade.machine.machine import Machine
from stileblade.machine.operation import Operation
from stileblade.sheets.job import JobOptions, Stock, Wanted, sheet_size
from stileblade.sheets.layout.pack import Layout, lay_out, quickly
from stileblade.sheets.layout.parts import Format, Part, Placed, Turns
from stileblade.sheets.sheet import Lying, Sheet, hole_places

Progress = Callable[[float, str], bool]
"""Told the share done and what is done; False stops with the best so far."""
_SMALLER = (1.5, 1.0, 0.5)
_LARGER = ((297.0, 420.0), (320.0, 450.0), (304.8, 457.2))


@dataclass(frozen=True, eq=False)
class Laid:
    """All sheets of a job; ``bound`` is how few their areas would need, ``advice`` what saves a sheet."""

    sheets: tuple[Sheet, ...]
    bound: int
    advice: tuple[str, ...]

    @property
    def price(self) -> float:
        """Of all sheets whose paper's price is known."""
        return sum(sheet.paper.price for sheet in self.sheets)

    @property
    def weight(self) -> float:
        """Grams of the cards."""
        return sum(weight_of(sheet.area, sheet.paper) for sheet in self.sheets)


def form_of(stock: Stock, options: JobOptions, machine: Machine) -> Format:
    """The sheets of a paper as the machine takes them. DocumentError where its bed is too small."""
    width, height = sheet_size(stock.paper, stock.keys, options.formats)
    if not _on_bed(width, height, machine) and _on_bed(height, width, machine):
        width, height = height, width
    if not _on_bed(width, height, machine):
        raise DocumentError(
            f"Sheets of {stock.paper.name!r} of {width:g} x {height:g} mm are larger than the bed of {machine.title!r}, {machine.bed_width:g} x {machine.bed_height:g} mm.",
            hint="Choose another format or another machine.",
        )
    own = max(stock.paper.edge, machine.edge)
    edge = own if options.edge_mm is None else options.edge_mm
    form = Format(width, height, edge, options.gap_mm)
    if min(form.inner) <= 0:
        raise DocumentError(f"An edge of {edge:g} mm leaves nothing of {width:g} x {height:g} mm.")
    if any(_inside(w) for w in stock.pieces):
        discs = tuple(rows.disc(x, y, REGISTER_HOLE / 2) for x, y in hole_places(form))
        form = replace(form, everywhere=discs)
    return form


def _on_bed(width: float, height: float, machine: Machine) -> bool:
    return width <= machine.bed_width + 1e-6 and height <= machine.bed_height + 1e-6


def _inside(wanted: Wanted) -> bool:
    return any(line.group == INSIDE for line in wanted.lines[Operation.SCORE])


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
    forms = [form_of(stock, options, machine) for stock in stocks]
    for stock, form in zip(stocks, forms, strict=True):
        _must_fit(stock, form)
    for number, (stock, form) in enumerate(zip(stocks, forms, strict=True)):
        form = replace(form, taken=tuple(tuple(some) for some in (taken or {}).get(number, ())))
        share = number / len(stocks)

        def told(
            done: float, count: int, share: float = share, paper: str = stock.paper.name
        ) -> bool:
            return progress(share + done / len(stocks), f"{paper}: {count} sheets")

        fixed = list((locked or {}).get(number, ()))
        layout = lay_out(_rest(stock.parts, fixed), form, locked=fixed, progress=told)
        bound += layout.bound
        sheets += _sheets(name, stock, layout, options, machine)
        if (
            advise
            and not fixed
            and progress(share + 0.99 / len(stocks), f"{stock.paper.name}: what would save a sheet")
        ):
            advice += advice_for(stock, form, layout.sheets, machine)
    progress(1.0, "done")
    return Laid(tuple(sheets), bound, tuple(advice))


def _rest(parts: Sequence[Part], fixed: Sequence[Placed]) -> list[Part]:
    """Parts that are not locked already."""
    rest = list(parts)
    for placed in fixed:
        same = next((p for p in rest if p.key == placed.part.key), None)
        if same is not None:
            rest.remove(same)
    return rest


def _must_fit(stock: Stock, form: Format) -> None:
    for wanted in stock.pieces:
        if not form.fits(wanted.part):
            w, h = wanted.part.size(0.0)
            inner = form.inner
            raise DocumentError(
                f"{wanted.card.name}: {wanted.name} is {w:.1f} x {h:.1f} mm and fits on no sheet of {stock.paper.name!r}, of which {inner[0]:.1f} x {inner[1]:.1f} mm can be reached.",
                hint="Take a larger format or a smaller edge, or split the piece.",
            )


def _sheets(
    name: str, stock: Stock, layout: Layout, options: JobOptions, machine: Machine
) -> list[Sheet]:
    wanted = {w.part.key: w for w in stock.pieces}
    found = []
    for number in range(layout.sheets):
        lying = tuple(Lying(wanted[p.part.key], p) for p in layout.placed if p.sheet == number)
        found.append(
            Sheet(
                name, stock.paper, number + 1, layout.form, lying, machine,
                options.bridges, options.bridge_width,
            )
        )  # fmt: skip
    return found


def advice_for(stock: Stock, form: Format, sheets: int, machine: Machine) -> list[str]:
    """What would need a sheet less: a smaller gap, other turns, a smaller edge, a larger format."""
    parts = stock.parts
    if sheets < 2:
        return []
    said = []
    paper = stock.paper.name

    def needs(other: Format, turned: Sequence[Part] = parts) -> int:
        return quickly(turned, other)

    for gap in (g for g in _SMALLER if g < form.gap):
        count = needs(replace(form, gap=gap))
        if count < sheets:
            said.append(
                f"{paper}: {sheets_word(count)} instead of {sheets} with a gap of {gap:g} mm."
            )
            break
    limited = [p for p in parts if p.turns in (Turns.HALVES, Turns.NONE)]
    if limited:
        free = [replace(p, turns=Turns.QUARTERS, _made={}) if p in limited else p for p in parts]
        count = needs(form, free)
        if count < sheets:
            said.append(
                f"{paper}: {sheets_word(count)} instead of {sheets} if pieces are turned against the grain, too."
            )
    for width, height in _LARGER:
        larger = width * height > form.width * form.height * 1.2
        if larger and _on_bed(width, height, machine):
            count = needs(replace(form, width=width, height=height))
            if count * width * height < sheets * form.width * form.height * 0.999:
                said.append(
                    f"{paper}: {sheets_word(count)} of {width:g} x {height:g} mm, less paper than {sheets} of {form.width:g} x {form.height:g} mm."
                )
                break
    return said


def sheets_word(count: int) -> str:
    """A number of sheets, as a person says it."""
    return f"{count} sheet" if count == 1 else f"{count} sheets"
