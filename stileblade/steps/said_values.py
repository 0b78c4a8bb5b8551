"""The values of a step that are said with it: "round window 60", "rounded corners 2.5 mm"."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from typing import Any, Protocol

from pydantic import ValidationError

from stileblade.errors import MeasureError, StepError
from stileblade.outlines.figure import FIGURES, Figure, outline_of
from stileblade.outlines.figures.straight import Rectangle
from stileblade.steps.saying import stem, stems
from stileblade.steps.step import Step
from stileblade.units import Unit, format_length, parse_length
from stileblade.words import called, decimal, say, within

LONGEST = 120
"""Characters: what is longer is cut off."""
_FIGURE = re.compile(
    r"(?<![\w.,])(?P<number>\d{1,6}+(?: \d{1,4}/\d{1,4}|/\d{1,4}|[.,]\d{1,4}+)?+) ?"
    r"(?P<unit>mm|cm|inches|inch|in(?! (?:the|a|an|its|each|front|back|middle|centre)\b)|\"|degrees|degree|deg|°|grad|zoll)?+"
)
_DEGREES = frozenset(("degrees", "degree", "deg", "°", "grad"))
_INCHES = frozenset(("zoll",))


class Said(Protocol):
    """What is known of how a step is called."""

    @property
    def step(self) -> type[Step]: ...
    @property
    def own(self) -> frozenset[str]:
        """Words that by themselves say the step."""

    @property
    def title(self) -> frozenset[str]: ...
    @property
    def choices(self) -> Mapping[str, Mapping[str, frozenset[str]]]:
        """By field and value, the stems of its label."""


def figure_words(figure: type[Figure]) -> str:
    """All that a figure is called."""
    more = called("figures", figure.model_fields["kind"].default)
    return " ".join((say(figure.title), figure.title, figure.words, *more))


def values_of(
    entry: Said, words: frozenset[str], text: str, unit: Unit
) -> tuple[dict[str, Any], tuple[str, ...]]:
    """What was said of the step's values; nothing where that cannot be."""
    kind, told = entry.step, list[str]()
    values: dict[str, Any] = {}
    rest = words - entry.title
    for name, labels in entry.choices.items():
        for value, label in labels.items():
            telling = label - entry.title
            said = (bool(telling) and telling <= rest) or stem(value) in rest
            if said and value != kind.model_fields[name].default:
                values[name] = value
    numbers = list(_numbers(text, unit))
    for name in kind.takes:
        if name == "outline":
            figure = _figure(entry, words) or _of_two_measures(numbers)
            sized = _sized(figure or kind.model_fields["outline"].default, numbers)
            if figure or sized != kind.model_fields["outline"].default:
                values["outline"] = sized.model_dump(mode="json")
                told.append(_figure_in_words(sized, unit))
        elif (number := _taken(numbers, _unit_of(kind, name))) is not None:
            values[name] = number
    made = _made(kind, values)
    told += [_in_words(made, name, unit) for name in values if name != "outline"]
    return values, tuple(told)


def _made(kind: type[Step], values: dict[str, Any]) -> Step:
    """The step with the values, of which those that it cannot have are taken out."""
    named = {"kind": kind.model_fields["kind"].default}
    try:
        return kind.model_validate({**named, **values})
    except ValidationError as error:
        for wrong in error.errors():
            values.pop(str(wrong["loc"][0]) if wrong["loc"] else "", None)
    try:
        return kind.model_validate({**named, **values})
    except ValidationError:
        values.clear()
        return kind.model_validate(named)


def _numbers(text: str, unit: Unit) -> Iterator[tuple[float, str]]:
    """The figures in what was said: mm and "mm", degrees and "deg", or as it is and "" for one without
    a unit."""
    for match in _FIGURE.finditer(text[:LONGEST].lower()):
        number, said = match["number"], match["unit"] or ""
        try:
            if said in _DEGREES:
                yield float(number.replace(",", ".")), "deg"
            else:
                said = "in" if said in _INCHES else said
                yield parse_length(f"{number}{said}", unit), "mm" if said else ""
        except (MeasureError, ValueError):
            continue


def _taken(numbers: list[tuple[float, str]], wanted: str) -> float | None:
    """The first figure that a value of that unit can take, taken out of the list."""
    for place, (number, unit) in enumerate(numbers):
        if unit in (wanted, "") and (wanted != "count" or number == round(number)):
            del numbers[place]
            return int(number) if wanted == "count" else round(number, 4)
    return None


def _unit_of(kind: type[Step], name: str) -> str:
    extra = kind.model_fields[name].json_schema_extra
    return str(extra.get("unit", "count")) if isinstance(extra, dict) else "count"


def _figure(entry: Said, words: frozenset[str]) -> Figure | None:
    """The figure that is named beside the step."""
    best, found = 0.0, None
    rest = words - entry.title
    for figure in FIGURES:
        if figure().reads():
            continue
        title, more = frozenset(stems(say(figure.title))), frozenset(stems(figure_words(figure)))
        weight = 2.0 * len(title & rest) / len(title) + 0.5 * len(more & (rest - entry.own))
        if weight > best:
            best, found = weight, figure()
    return found


def _of_two_measures(numbers: list[tuple[float, str]]) -> Figure | None:
    """Where no figure is named, two measures are those of a rectangle."""
    return Rectangle() if sum(unit in ("mm", "") for _, unit in numbers) > 1 else None


def _sized(figure: Figure, numbers: list[tuple[float, str]]) -> Figure:
    """The figure with the sizes that were said."""
    try:
        names = figure.sizes(outline_of(figure, {}).bounds)
    except StepError:
        return figure
    wanted = [n for n in (names.across, names.down, names.both) if n]
    values: dict[str, float] = {}
    for name in wanted:
        if (number := _taken(numbers, "mm")) is not None:
            values[name] = number
    if names.across in values and names.down and names.down not in values:
        own = figure.model_dump()
        values[names.down] = round(own[names.down] * values[names.across] / own[names.across], 2)
    try:
        sized = type(figure).model_validate({**figure.model_dump(), **values})
        outline_of(sized, {})
    except (ValidationError, StepError):
        return figure
    return sized


def _figure_in_words(figure: Figure, unit: Unit) -> str:
    box = outline_of(figure, {}).bounds
    if abs(box.width - box.height) < 1e-6:
        return f"{within(figure.title)} {format_length(box.width, unit)}"
    wide = format_length(box.width, unit, with_unit=False)
    return f"{within(figure.title)} {wide} × {format_length(box.height, unit)}"


def _in_words(step: Step, name: str, unit: Unit) -> str:
    info, value = type(step).model_fields[name], getattr(step, name)
    extra = info.json_schema_extra
    labels = extra.get("labels") if isinstance(extra, dict) else None
    if isinstance(labels, dict):
        return say(str(labels.get(str(value), value)))
    title = within(str(info.title or name))
    wanted = _unit_of(type(step), name)
    if wanted == "mm":
        return f"{title} {format_length(value, unit)}"
    return f"{title} {decimal(f'{value:g}')}{'°' if wanted == 'deg' else ''}"
