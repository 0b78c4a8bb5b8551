"""SVG path data, read and written. Arcs stay arcs, curves curves.

Reading follows SVG 2, chapter 9: up to an error, which is an exception here, with its place.
"""

from __future__ import annotations

import re
from itertools import groupby
from operator import itemgetter

import numpy as np

from stileblade.errors import ReadingError
from stileblade.geometry.curves.segments import Floats, Segments, concatenate, lines
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.paths.pens import Arc, draw
from stileblade.geometry.regions.fill import FillRule, fill
from stileblade.geometry.regions.region import Region
from stileblade.words import say

_COMMAND = re.compile(r"([MmZzLlHhVvCcSsQqTtAa])([^MmZzLlHhVvCcSsQqTtAa]*)")
# possessive throughout: foreign text is read once, and never parted in another way
_DIGITS = r"[+-]?(?>\d++(?:\.\d*+)?|\.\d++)(?:[eE][+-]?\d++)?+"
_NUMBER = re.compile(_DIGITS)
_ARC = re.compile(
    rf"[\s,]*+({_DIGITS})" * 3 + r"[\s,]*+([01])[\s,]*+([01])" + rf"[\s,]*+({_DIGITS})" * 2
)
_BLANK = " \t\r\n,"
_IN_RUNS = "LlHhVvCcSsQqTt"
_ARGUMENTS = {"M": 2, "L": 2, "H": 1, "V": 1, "C": 6, "S": 4, "Q": 4, "T": 2, "A": 7, "Z": 0}
MOST_SEGMENTS = 300_000
FARTHEST = 1e7


class _Reader:
    def __init__(self, text: str) -> None:
        self.text = text
        self.drawing = Drawing()
        self.handle: tuple[str, float, float] = ("", 0.0, 0.0)
        self.exponents = "e" in text or "E" in text
        self.total = 0
        self.commands: list[tuple[str, str]] = []
        self.head = self.drawn = 0
        """Where the first command stands, and how many commands have been drawn."""

    def read(self) -> Drawing:
        if "_" in self.text:  # which Python's own numbers would take
            raise self.error("'_' is not understood", self.text.index("_"))
        self.commands = _COMMAND.findall(self.text)  # one follows straight on the other
        first = _COMMAND.search(self.text)
        self.head = first.start() if first else len(self.text)
        if self.text[: self.head].strip(_BLANK):
            raise self.error("no command", 0)
        if self.commands and self.commands[0][0] not in "Mm":
            raise self.error("it must start with a move (M)", self.head)
        for letter, same in groupby(self.commands, itemgetter(0)):
            self.draw(letter, [rest for _, rest in same])
        self.drawing.finish()
        return self.drawing

    def draw(self, letter: str, rests: list[str]) -> None:
        """Draws commands of one letter, all together where they are written plainly: path data is
        mostly long runs of short commands."""
        size = _ARGUMENTS[letter.upper()]
        if letter in _IN_RUNS:
            numbers = self.plain_numbers(rests, size)
            if numbers:
                self.count(len(numbers) // size)
                self.run(letter, size, numbers)
                self.drawn += len(rests)
                return
        for rest in rests:
            if size:
                numbers = self.arguments(letter, size, rest)
                self.count(len(numbers) // size)
                self.run(letter, size, numbers)
            else:
                if rest.strip(_BLANK):
                    raise self.wrong("a close has no numbers")
                self.count(1)
                self.drawing.close()
                self.handle = ("", 0.0, 0.0)
            self.drawn += 1

    def plain_numbers(self, rests: list[str], size: int) -> list[float]:
        """The numbers of commands with ``size`` each; none where that is not how they are written."""
        text = " ; ".join(rests).replace(",", " ")
        if not self.exponents:
            text = text.replace("-", " -")  # as in 1-2
        words, many = text.split(), len(rests)
        if many > 1:
            if len(words) != many * (size + 1) - 1 or set(words[size :: size + 1]) != {";"}:
                return []
            del words[size :: size + 1]
        elif len(words) % size:
            return []
        try:
            numbers = list(map(float, words))
        except ValueError:  # written without spaces in other ways, as in .5.5
            return []
        far = numbers and (min(numbers) < -FARTHEST or max(numbers) > FARTHEST)
        return [] if far else numbers

    def count(self, segments: int) -> None:
        self.total += segments
        if self.total > MOST_SEGMENTS:
            raise ReadingError(
                say(
                    "The path has more than {most_segments:,} segments.",
                    most_segments=MOST_SEGMENTS,
                ),
                hint="Simplify the drawing before reading it.",
                code="reading.limits",
            )

    def error(self, what: str, at: int) -> ReadingError:
        near = self.text[at : at + 16].strip()
        return ReadingError(
            say("Path data at character {at} ({near!r}): {what}.", at=at + 1, near=near, what=what)
        )

    def wrong(self, what: str) -> ReadingError:
        """Of the command that is to be drawn next."""
        before = self.commands[: self.drawn]
        return self.error(what, self.head + sum(len(rest) + 1 for _, rest in before))

    def arguments(self, letter: str, size: int, rest: str) -> list[float]:
        """All numbers of a command, ``size`` to a row."""
        if letter in "Aa":
            numbers: list[float] = []
            end = 0
            while match := _ARC.match(rest, end):
                numbers += map(float, match.groups())
                end = match.end()
            if rest[end:].strip(_BLANK) or not numbers:
                raise self.wrong("an arc has seven numbers, two of them flags 0 or 1")
        else:
            numbers = self.numbers(rest)
            if not numbers or len(numbers) % size:
                raise self.wrong(
                    say("{letter} takes {size} numbers at a time", letter=letter, size=size)
                )
        if not sum(map(abs, numbers)) <= FARTHEST:  # seldom; and then not all of them together
            for n in numbers:
                if not abs(n) <= FARTHEST:
                    raise self.wrong("a number is too large")
        return numbers

    def numbers(self, text: str) -> list[float]:
        try:
            return list(map(float, text.replace(",", " ").split()))
        except ValueError:  # written without spaces, as in 1-2 or .5.5
            pass
        if _NUMBER.sub("", text).strip(_BLANK):
            raise self.wrong("a number is not understood")
        return list(map(float, _NUMBER.findall(text)))

    def run(self, letter: str, size: int, numbers: list[float]) -> None:
        """Draws rows of ``size`` numbers; the last handle is kept for what may mirror it."""
        d, upper = self.drawing, letter.upper()
        relative = letter != upper
        if upper == "C":
            self.handle = ("C", *d.cubics(numbers, relative=relative))
            return
        if upper == "L":
            d.lines(numbers, relative=relative)
            self.handle = ("", 0.0, 0.0)
            return
        ox = oy = 0.0
        for i in range(0, len(numbers), size):
            a = numbers[i : i + size]
            if relative:
                ox, oy = d.x, d.y
            handle = ("", 0.0, 0.0)
            if upper == "M" and i:
                d.line(ox + a[0], oy + a[1])
            elif upper == "M":
                d.move(ox + a[0], oy + a[1])
            elif upper == "H":
                d.line(ox + a[0], d.y)
            elif upper == "V":
                d.line(d.x, oy + a[0])
            elif upper == "S":
                first = self.reflected("C")
                handle = ("C", ox + a[0], oy + a[1])
                d.cubic(*first, handle[1], handle[2], ox + a[2], oy + a[3])
            elif upper == "Q":
                handle = ("Q", ox + a[0], oy + a[1])
                d.quad(handle[1], handle[2], ox + a[2], oy + a[3])
            elif upper == "T":
                handle = ("Q", *self.reflected("Q"))
                d.quad(handle[1], handle[2], ox + a[0], oy + a[1])
            else:
                d.arc(a[0], a[1], a[2], a[3] == 1, a[4] == 1, ox + a[5], oy + a[6])
            self.handle = handle

    def reflected(self, of: str) -> tuple[float, float]:
        """The last curve's handle mirrored at the present point, or that point itself."""
        d = self.drawing
        kind, x, y = self.handle
        return (2 * d.x - x, 2 * d.y - y) if kind == of else (d.x, d.y)


def read_path(text: str) -> Drawing:
    """Contours of path data. ``ReadingError`` says where it is wrong."""
    return _Reader(text).read()


def read_path_to_error(text: str) -> tuple[Drawing, ReadingError | None]:
    """Contours of path data up to its first error, as painting takes them, and that error."""
    reader = _Reader(text)
    try:
        return reader.read(), None
    except ReadingError as error:
        reader.drawing.finish()
        return reader.drawing, error


def region_from_path(text: str, rule: FillRule = "nonzero") -> Region:
    """What the path paints; open contours are closed by a line, as painting does."""
    drawing = read_path(text)
    return fill([*drawing.contours, *(closed(c) for c in drawing.open)], rule)


def closed(contour: Segments) -> Segments:
    """An open contour with the line from its end to its start, if they differ."""
    a, b = contour.end[-1:], contour.start[:1]
    return contour if (a == b).all() else concatenate([contour, lines(a, b)])


class PathPen:
    """Writes path data with ``decimals`` places, or all digits where ``decimals`` is None."""

    def __init__(self, decimals: int | None) -> None:
        self.parts: list[str] = []
        self.decimals = decimals

    def numbers(self, values: Floats) -> list[float]:
        if self.decimals is None:
            return [float(v) for v in values.ravel()]
        return (np.round(values.ravel(), self.decimals) + 0.0).tolist()

    def write(self, letter: str, size: int, values: Floats) -> None:
        numbers = self.numbers(values)
        one = "%.9g" if self.decimals is not None else "%.17g"
        row = letter + " ".join([one] * size)
        self.parts.append(row * (len(numbers) // size) % tuple(numbers))

    def move_to(self, point: Floats) -> None:
        self.write("M", 2, point)

    def lines_to(self, points: Floats) -> None:
        self.write("L", 2, points)

    def quads_to(self, points: Floats) -> None:
        self.write("Q", 4, points)

    def cubics_to(self, points: Floats) -> None:
        self.write("C", 6, points)

    def arc_to(self, arc: Arc) -> None:
        for part in arc.split(0.9 * np.pi):
            rx, ry, turn = part.axes()
            sweep = int(part.clockwise)
            self.write("A", 7, np.array([rx, ry, turn, 0, sweep, *part.end]))

    def close(self) -> None:
        self.parts.append("Z")

    @property
    def text(self) -> str:
        return "".join(self.parts)


def path_data(region: Region, decimals: int | None = 4) -> str:
    """The region as path data: shells clockwise as seen, openings against them."""
    pen = PathPen(decimals)
    draw(region, pen)
    return pen.text
