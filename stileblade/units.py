"""Lengths as people type them, and as they read them.

Grammar (white space is free between tokens; units ``mm``, ``cm``, ``in``, ``"``, ``inch``,
``inches``; a decimal comma is taken for a point)::

    sum      = product (("+" | "-") product)*
    product  = factor (("*" | "x" | "/") factor)*
    factor   = ["+" | "-"] (number [unit] | "(" sum ")" [unit])
    number   = decimal | whole "/" whole | whole " " whole "/" whole

A unit belongs to the number or bracket before it, whole and fraction together. Numbers
without a unit are plain among themselves; added to a length, or left over at the end, they
are lengths in the field's present unit. 1 in = 25.4 mm exactly.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from enum import StrEnum

from stileblade.errors import MeasureError
from stileblade.words import decimal, say

MM_PER_IN = 25.4


class Unit(StrEnum):
    MM = "mm"
    IN = "in"


_UNITS = {"mm": 1.0, "cm": 10.0, "in": 25.4, '"': 25.4, "inch": 25.4, "inches": 25.4}
_TOKEN = re.compile(
    r"\s*+(?:(?P<mixed>\d++[ \t]++\d++/\d++)|(?P<fraction>\d+/\d+)|(?P<number>\d+(?:[.,]\d*)?|[.,]\d+)"
    r"|(?P<unit>[A-Za-z]+|\")|(?P<sign>[-+*/()×−]))"
)
LONGEST_TEXT = 120
_DEEPEST = 20


@dataclass(frozen=True, slots=True)
class _Value:
    amount: float
    is_length: bool


class _Parser:
    def __init__(self, text: str, unit: Unit) -> None:
        self.text, self.unit = text, unit
        self.tokens: list[tuple[str, str, int]] = []
        at = 0
        text = text.rstrip()
        while at < len(text):
            match = _TOKEN.match(text, at)
            if not match or match.end() == at:
                raise self.error(say("{what!r} is not understood", what=text[at:].strip()[:12]), at)
            kind = match.lastgroup or ""
            value = match.group(kind)
            at = match.end()
            if kind == "unit" and value.lower() == "x":
                kind, value = "sign", "*"
            value = {"×": "*", "−": "-"}.get(value, value)
            self.tokens.append((kind, value, match.start(match.lastgroup or 0)))
        self.at = 0
        self.depth = 0

    def error(self, what: str, at: int | None = None) -> MeasureError:
        text = repr(self.text.strip())
        place = "" if at is None else say(" (at character {at})", at=at + 1)
        said = f"{what}." if what.startswith(text) else f"{text}: {what}{place}."
        return MeasureError(
            said,
            hint="Type a length such as 108, 4.25in, 5 1/8 in or 10 1/4in / 2.",
        )

    def peek(self) -> tuple[str, str, int]:
        return self.tokens[self.at] if self.at < len(self.tokens) else ("end", "", len(self.text))

    def take_sign(self, signs: str) -> str:
        kind, value, _ = self.peek()
        if kind == "sign" and value in signs:
            self.at += 1
            return value
        return ""

    def parse(self) -> float:
        if not self.tokens:
            raise self.error("there is no length here")
        value = self.length(self.sum())
        kind, text, at = self.peek()
        if kind != "end":
            raise self.error(say("{what!r} was not expected", what=text), at)
        if not math.isfinite(value):
            raise self.error("that is too large")
        return value

    def length(self, value: _Value) -> float:
        if value.is_length:
            return value.amount
        return value.amount * (MM_PER_IN if self.unit is Unit.IN else 1.0)

    def sum(self) -> _Value:
        value = self.product()
        while sign := self.take_sign("+-"):
            other = self.product()
            mixed = value.is_length or other.is_length
            a = self.length(value) if mixed else value.amount
            b = self.length(other) if mixed else other.amount
            value = _Value(a + b if sign == "+" else a - b, mixed)
        return value

    def product(self) -> _Value:
        value = self.factor()
        while True:
            at = self.peek()[2]
            sign = self.take_sign("*/")
            if not sign:
                return value
            other = self.factor()
            if sign == "*":
                if value.is_length and other.is_length:
                    raise self.error("two lengths multiplied are an area", at)
                value = _Value(value.amount * other.amount, value.is_length or other.is_length)
            else:
                if other.is_length:
                    raise self.error("divide by a plain number, not by a length", at)
                if other.amount == 0:
                    raise self.error("nothing can be divided by zero", at)
                value = _Value(value.amount / other.amount, value.is_length)

    def factor(self) -> _Value:
        if sign := self.take_sign("+-"):
            value = self.deeper(self.factor)
            return _Value(-value.amount if sign == "-" else value.amount, value.is_length)
        if self.take_sign("("):
            value = self.deeper(self.sum)
            if not self.take_sign(")"):
                raise self.error("a bracket is not closed", self.peek()[2])
            return self.with_unit(value)
        kind, text, at = self.peek()
        if kind not in ("mixed", "fraction", "number"):
            raise self.error(
                "a number is missing" if kind == "end" else say("{what!r} is no number", what=text),
                at,
            )
        self.at += 1
        return self.with_unit(_Value(self.number(kind, text, at), False))

    def deeper(self, rule: object) -> _Value:
        self.depth += 1
        if self.depth > _DEEPEST:
            raise self.error("too many brackets")
        value: _Value = rule()  # type: ignore[operator]
        self.depth -= 1
        return value

    def number(self, kind: str, text: str, at: int) -> float:
        if kind == "number":
            return float(text.replace(",", "."))
        whole, _, part = text.rpartition(" ") if kind == "mixed" else ("0", "", text)
        above, below = part.strip().split("/")
        if int(below) == 0:
            raise self.error("nothing can be divided by zero", at)
        return int(whole) + int(above) / int(below)

    def with_unit(self, value: _Value) -> _Value:
        kind, text, at = self.peek()
        if kind != "unit":
            return value
        size = _UNITS.get(text.lower())
        if size is None:
            raise self.error(say("{what!r} is no unit; use mm, cm or in", what=text), at)
        if value.is_length:
            raise self.error("that has a unit already", at)
        self.at += 1
        return _Value(value.amount * size, True)


def parse_length(text: str, unit: Unit = Unit.MM) -> float:
    """The length in mm that ``text`` means where ``unit`` is shown. ``MeasureError`` if none."""
    if len(text) > LONGEST_TEXT:
        raise MeasureError(
            say(
                "text of {n} characters: a length has at most {longest_text}.",
                n=len(text),
                longest_text=LONGEST_TEXT,
            ),
            hint="Type a length such as 108 or 5 1/8 in.",
        )
    return _Parser(text, unit).parse()


def format_length(value: float, unit: Unit = Unit.MM, *, with_unit: bool = True) -> str:
    """A length in mm for reading: at most 2 decimals in mm, 3 in inches, zeros left off."""
    amount, digits = (value, 2) if unit is Unit.MM else (value / MM_PER_IN, 3)
    # a half in the last place is a half although binary has it a little smaller
    amount += math.copysign(1e-9, amount)
    text = f"{amount:.{digits}f}".rstrip("0").rstrip(".")
    text = "0" if text in ("-0", "") else decimal(text)
    return f"{text} {unit}" if with_unit else text


def format_area(value: float, unit: Unit = Unit.MM) -> str:
    """An area in mm^2 for reading: in square mm, or in square inches where inches are shown."""
    if unit is Unit.MM:
        amount, digits, sign = value, 1 if abs(value) >= 10 else 2, "mm²"
    else:
        amount, digits, sign = value / MM_PER_IN**2, 3, "in²"
    text = f"{amount:.{digits}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return f"{'0' if text == '-0' else decimal(text)} {sign}"


def to_sixteenths(value: float) -> tuple[str, float]:
    """The nearest 1/16 in as text ("4 1/4"), and how far off it is, in mm (signed)."""
    count = round(value / MM_PER_IN * 16)
    whole, part = divmod(abs(count), 16)
    sign = "-" if count < 0 else ""
    if part == 0:
        text = f"{sign}{whole}"
    else:
        common = math.gcd(part, 16)
        fraction = f"{part // common}/{16 // common}"
        text = f"{sign}{whole} {fraction}" if whole else f"{sign}{fraction}"
    return text, count / 16 * MM_PER_IN - value
