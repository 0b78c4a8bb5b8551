"""What would save a sheet of a job."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from stileblade.machine.machine import Machine
from stileblade.sheets.job import Stock
from stileblade.sheets.layout.pack import quickly
from stileblade.sheets.layout.parts import Format, Part, Turns
from stileblade.sheets.windows import Windows
from stileblade.words import say

_SMALLER = (1.5, 1.0, 0.5)
_LARGER = ((297.0, 420.0), (320.0, 450.0), (304.8, 457.2))


def advice_for(
    stock: Stock, form: Format, sheets: int, machine: Machine, windows: Windows
) -> list[str]:
    """What would need a sheet less: a smaller gap, other turns, pieces in windows, a larger format."""
    parts = [windows.closed(part) for part in stock.parts]
    paper = stock.paper.name
    said = []
    if form.holes and not any(w.beneath(flipped=not w.part.flipped) for w in stock.pieces):
        said.append(
            say(
                "{paper}: no second set-up with its pieces {inside_up}.",
                paper=paper,
                inside_up=INSIDE_UP[not _over(stock)],
            )
        )
    if sheets < 2 or form.roll:
        return said

    def needs(other: Format, turned: Sequence[Part] = parts) -> int:
        return quickly(turned, other)

    def instead(count: int) -> dict[str, object]:
        return {"paper": paper, "count": sheets_word(count), "sheets": sheets}

    for gap in (g for g in _SMALLER if g < form.gap):
        count = needs(replace(form, gap=gap))
        if count < sheets:
            said.append(
                say(
                    "{paper}: {count} instead of {sheets} with a gap of {gap:g} mm.",
                    gap=gap,
                    **instead(count),
                )
            )
            break
    limited = [p for p in parts if p.turns in (Turns.HALVES, Turns.NONE)]
    if limited:
        free = [replace(p, turns=Turns.QUARTERS, _made={}) if p in limited else p for p in parts]
        count = needs(form, free)
        if count < sheets:
            said.append(
                say(
                    "{paper}: {count} instead of {sheets} if pieces are turned against the grain, too.",
                    **instead(count),
                )
            )
    if not windows.open:
        count = needs(form, stock.parts)
        if count < sheets:
            said.append(
                say(
                    "{paper}: {count} instead of {sheets} if pieces lie in the windows of others, too.",
                    **instead(count),
                )
            )
    for width, height in _LARGER:
        larger = width * height > form.width * form.height * 1.2
        if larger and machine.has_room(width, height):
            count = needs(replace(form, width=width, height=height))
            if count * width * height < sheets * form.width * form.height * 0.999:
                said.append(
                    say(
                        "{paper}: {count} of {width:g} x {height:g} mm, less paper than {sheets} of {width2:g} x {height2:g} mm.",
                        width=width,
                        height=height,
                        width2=form.width,
                        height2=form.height,
                        **instead(count),
                    )
                )
                break
    return said


INSIDE_UP = {True: "inside up", False: "outside up"}


def _over(stock: Stock) -> bool:
    """Whether its pieces lie inside up."""
    return any(w.part.flipped for w in stock.pieces)


def sheets_word(count: int) -> str:
    """A number of sheets, as a person says it."""
    return say("{n} sheet | {n} sheets", n=count)
