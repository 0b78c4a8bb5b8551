"""SVG path data, read and written. Arcs stay arcs, curves curves.

Reading follows SVG 2, chapter 9: up to an error, which is an exception here, with its place.
"""

from __future__ import annotations

import re
from itertools import chain

import numpy as np

from stileblade.errors import ReadingError
from stileblade.geometry.drawing import Drawing
from stileblade.geometry.fill import FillRule, fill
from stileblade.geometry.pens import Arc, draw
from stileblade.geometry.region import Region
from stileblade.geometry.segments import Floats, Segments, concatenate, lines

_COMMAND = re.compile(r"([MmZzLlHhVvCcSsQqTtAa])([^MmZzLlHhVvCcSsQqTtAa]*)")
_NUMBER = re.compile(r"[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?")
_ARC = re.compile(
    r"[\s,]*([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)" * 3
    + r"[\s,]*([01])[\s,]*([01])"
    + r"[\s,]*([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)" * 2
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
        self.letter = ""
        self.waiting: list[tuple[str, int]] = []
        """Commands of ``letter`` that are not drawn yet: their numbers, and where they stand."""

    def read(self) -> Drawing:
        if "_" in self.text:  # which Python's own numbers would take
            raise self.error("'_' is not understood", self.text.index("_"))
        at, seen_move = 0, False
        for match in _COMMAND.finditer(self.text):
            if match.start() != at and self.text[at : match.start()].strip(_BLANK):
                self.draw_waiting()
                raise self.error("no command", at)
            at = match.end()
            letter, rest = match.groups()
            if not seen_move and letter not in "Mm":
                raise self.error("it must start with a move (M)", match.start())
            seen_move = True
            if letter != self.letter or letter not in _IN_RUNS:
                self.draw_waiting()
                self.letter = letter
            self.waiting.append((rest, match.start()))
        self.draw_waiting()
        if self.text[at:].strip(_BLANK):
            raise self.error("no command", at)
        self.drawing.finish()
        return self.drawing

    def draw_waiting(self) -> None:
        """Draws the commands of one letter that have been read, all together where they are written
        plainly: path data is mostly long runs of short commands."""
        waiting, self.waiting = self.waiting, []
        if not waiting:
            return
        letter = self.letter
        size = _ARGUMENTS[letter.upper()]
        if len(waiting) > 1:
            minus = "-" if self.exponents else " -"  # as in 1-2
            rows = [rest.replace(",", " ").replace("-", minus).split() for rest, _ in waiting]
            if set(map(len, rows)) == {size}:
                try:
                    numbers = list(map(float, chain.from_iterable(rows)))
                except ValueError:  # written without spaces in other ways, as in .5.5
                    numbers = []
                if numbers and min(numbers) >= -FARTHEST and max(numbers) <= FARTHEST:
                    self.count(len(rows))
                    self.run(letter, size, numbers)
                    return
        for rest, at in waiting:
            numbers = self.arguments(letter, size, rest, at)
            self.count(len(numbers) // size if size else 1)
            if size:
                self.run(letter, size, numbers)
            else:
                self.drawing.close()
                self.handle = ("", 0.0, 0.0)

    def count(self, segments: int) -> None:
        self.total += segments
        if self.total > MOST_SEGMENTS:
            raise ReadingError(
                f"The path has more than {MOST_SEGMENTS} segments.",
                hint="Simplify the drawing before reading it.",
            )

    def error(self, what: str, at: int) -> ReadingError:
        near = self.text[at : at + 16].strip()
        return ReadingError(f"Path data at character {at + 1} ({near!r}): {what}.")

    def arguments(self, letter: str, size: int, rest: str, at: int) -> list[float]:
        """All numbers of a command, ``size`` to a row."""
        if letter in "Aa":
            numbers: list[float] = []
            end = 0
            while match := _ARC.match(rest, end):
                numbers += map(float, match.groups())
                end = match.end()
            if rest[end:].strip(_BLANK) or not numbers:
                raise self.error("an arc has seven numbers, two of them flags 0 or 1", at)
        else:
            numbers = self.numbers(rest, at)
            if size == 0:
                if numbers:
                    raise self.error("a close has no numbers", at)
                return numbers
            if not numbers or len(numbers) % size:
                raise self.error(f"{letter} takes {size} numbers at a time", at)
        if not sum(map(abs, numbers)) <= FARTHEST:  # seldom; and then not all of them together
            for n in numbers:
                if not abs(n) <= FARTHEST:
                    raise self.error("a number is too large", at)
        return numbers

    def numbers(self, text: str, at: int) -> list[float]:
        try:
            return list(map(float, text.replace(",", " ").split()))
        except ValueError:  # written without spaces, as in 1-2 or .5.5
            pass
        if _NUMBER.sub("", text).strip(_BLANK):
            raise self.error("a number is not understood", at)
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
