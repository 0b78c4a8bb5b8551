"""How large a figure is made: shared by the steps that fit one."""

from __future__ import annotations

from enum import StrEnum
from typing import Any

from stileblade.errors import StepError
from stileblade.fields import length
from stileblade.geometry.curves.places import Box


class FitTo(StrEnum):
    READ = "as-read"
    WIDTH = "width"
    HEIGHT = "height"
    BOTH = "both"
    PANEL = "panel"


def fitted_length(title: str, description: str, to: FitTo) -> Any:
    """A measure that the figure gets, where it is fitted ``to`` that or to both."""
    when = {"to": [to, FitTo.BOTH]}
    return length(100, title, description, above=0, when=when)


def fitted_margin(description: str = "Left free on all sides of the closed card.") -> Any:
    """What stays free where the figure is fitted to the closed card."""
    return length(6, "Margin", description, least=0, when={"to": [FitTo.PANEL]})


def factors(
    box: Box,
    to: FitTo,
    *,
    width: float,
    height: float,
    closed: tuple[float, float],
    margin: float,
    proportions: bool,
) -> tuple[float, float]:
    """The factors (x, y) by which ``box`` is scaled. ``closed`` is the closed card's size, of
    which ``margin`` is left free on all sides. StepError where nothing would be left of it."""
    if to is FitTo.READ:
        return 1.0, 1.0
    if to is FitTo.WIDTH:
        s = width / box.width
        return s, s if proportions else 1.0
    if to is FitTo.HEIGHT:
        s = height / box.height
        return s if proportions else 1.0, s
    w, h = width, height
    if to is FitTo.PANEL:
        w, h = (m - 2 * margin for m in closed)
        if min(w, h) <= 0:
            raise StepError(
                "A margin of {} on both sides leaves nothing of {}.",
                margin,
                min(closed),
                hint="Make the margin smaller.",
                field="margin",
                would_do=min(closed) / 10,
            )
    sx, sy = w / box.width, h / box.height
    return (min(sx, sy),) * 2 if proportions else (sx, sy)


def scaled_fit(to: FitTo, width: float, height: float, factor: float) -> dict[str, float]:
    """The measures of a fit that many times as large; none where the figure gets its size otherwise."""
    measures = {FitTo.WIDTH: ("width",), FitTo.HEIGHT: ("height",), FitTo.BOTH: ("width", "height")}
    values = {"width": width, "height": height}
    return {name: values[name] * factor for name in measures.get(to, ())}


def present_fit(box: Box) -> dict[str, float]:
    """The measures of a figure by the values of a fit that would give it those."""
    return {"width": round(box.width, 3), "height": round(box.height, 3)}
