"""The values of a design that may be changed to reach a figure."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from pydantic import BaseModel
from pydantic.fields import FieldInfo

from stileblade.design.changes import Change
from stileblade.design.document import Design
from stileblade.fields import LARGEST
from stileblade.words import say, within

_PLACES = ("dx", "dy", "turn", "along", "offset")
"""Where something is, and not how large it is: tried last."""
SIZE = "size."
"""Begins the fields of the card's size."""
_UNITS = ("mm", "deg", "count")


@dataclass(frozen=True)
class Variable:
    """A number of a step or, with ``step`` "", of the card's folding: its field ("outline.width" for one
    of its figure), its name, its value and bounds, and whether it is a whole number."""

    step: str
    field: str
    title: str
    unit: str
    value: float
    low: float
    high: float
    whole: bool

    @property
    def is_place(self) -> bool:
        return self.field.rsplit(".", 1)[-1] in _PLACES

    def change(self, design: Design, piece: str, value: float) -> Change:
        """The change that sets it."""
        number: float = round(value) if self.whole else value
        if self.field.startswith(SIZE):
            name = self.field.removeprefix(SIZE)
            return Change(
                op="size", piece=piece, step="", values={name: number, "name": "Own size"}
            )
        if not self.step:
            return Change(op="fold", piece=piece, step="", values={self.field: number})
        head, _, inner = self.field.partition(".")
        if not inner:
            return Change(op="set", piece=piece, step=self.step, values={head: number})
        own = next(p for p in design.pieces if p.id == piece)
        step = next(s for s in own.steps if s.id == self.step)
        nested = getattr(step, head).model_dump(mode="json")
        values = {head: {**nested, inner: number}}
        return Change(op="set", piece=piece, step=self.step, values=values)


def variables_of(design: Design, piece: str) -> list[Variable]:
    """All numbers of a piece's steps that count as things stand, and those of the card's folding."""
    own = next((p for p in design.pieces if p.id == piece), None)
    if own is None:
        return []
    found: list[Variable] = []
    for number, step in enumerate(own.steps, 1):
        if step.on:
            found += _numbers(
                step, step.id, say("step {number}, {title}: ", number=number, title=step.title)
            )
    found += _numbers(design.card.folding, "", "the card: ")
    size, turned = design.card.size, design.card.turned
    for name, word in (("width", "wide"), ("height", "high")):
        shown = {"wide": "high", "high": "wide"}[word] if turned else word
        value = getattr(size, name)
        found.append(
            Variable(
                "",
                f"{SIZE}{name}",
                say("the card: {shown}", shown=shown),
                "mm",
                value,
                10.0,
                LARGEST,
                False,
            )
        )
    return sorted(found, key=lambda v: v.is_place)


def variable_of(design: Design, piece: str, step: str, field: str) -> Variable | None:
    return next(
        (v for v in variables_of(design, piece) if (v.step, v.field) == (step, field)), None
    )


def _numbers(values: BaseModel, step: str, title: str, prefix: str = "") -> list[Variable]:
    found: list[Variable] = []
    for name, info in type(values).model_fields.items():
        value = getattr(values, name)
        extra: dict[str, Any] = (
            info.json_schema_extra if isinstance(info.json_schema_extra, dict) else {}
        )
        if not _counts(extra.get("when", {}), values):
            continue
        if isinstance(value, BaseModel) and extra.get("control") == "outline" and not prefix:
            found += _numbers(value, step, f"{title}{within(str(info.title))}, ", f"{name}.")
        elif extra.get("unit") in _UNITS and isinstance(value, int | float):
            low, high = _bounds(info)
            if prefix and value == 0:
                continue  # it follows another measure of the figure
            found.append(
                Variable(
                    step, f"{prefix}{name}", f"{title}{within(str(info.title))}", str(extra["unit"]),
                    float(value), low, high, isinstance(value, int) and extra["unit"] == "count",
                )
            )  # fmt: skip
    return found


def _counts(when: dict[str, list[str]], values: BaseModel) -> bool:
    for name, wanted in when.items():
        value = str(getattr(values, name, ""))
        if value not in wanted and not ("*" in wanted and value):
            return False
    return True


def _bounds(info: FieldInfo) -> tuple[float, float]:
    low, high = -LARGEST, LARGEST
    for limit in info.metadata:
        for name in ("ge", "gt"):
            if getattr(limit, name, None) is not None:
                low = float(getattr(limit, name)) + (1e-3 if name == "gt" else 0.0)
        if getattr(limit, "le", None) is not None:
            high = float(limit.le)
    return low, high
