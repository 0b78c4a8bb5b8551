"""G-code: G0 to G3, G17, G20, G21, G90, G91, M6 with T, M3 and M5 or Z for the lift, F, M2 and M30."""

from __future__ import annotations

import math
import re

import numpy as np

from stileblade.cutter.sent import Sent, Stroke, register_language, round_arc, without_rests
from stileblade.geometry.curves.segments import Floats
from stileblade.machine.machine import Lifting, Machine
from stileblade.words import say

_WORD = re.compile(r"([A-Za-z])[ \t]*+([+-]?(?>\d++\.?\d*+|\.\d++))")
_NOTE = re.compile(r"\([^()]*+\)|;[^\n]*+")
_MOST_MM = 100_000.0
_KNOWN, _PLACES = "NTFSPXYZIJR", "XYZIJR"
"""Letters that stand once in a block, and those of them that are places."""
_DEPTH = 0.05
"""mm: a tool that is set down so much deeper or less deep cuts into the bed, or not through."""
_ROUND = 0.05
"""mm: an arc's two ends may be so differently far from its centre."""


def _is_gcode(head: bytes) -> bool:
    text = _NOTE.sub(" ", head.decode("latin-1"))
    return bool(re.match(r"[\s%]*+(?:[NO]\d++\s*+)?+[GMTFS]\s?\d", text, re.IGNORECASE))


class _Controller:
    def __init__(self, machine: Machine) -> None:
        self.machine, self.sent = machine, Sent("gcode")
        self.by_height = machine.lifting is Lifting.HEIGHT
        self.at = np.zeros(3)
        self.at[2] = machine.up
        self.scale, self.relative, self.motion = 1.0, False, 0
        self.on = self.ended = False
        self.tool = self.next = 0
        self.feed = 0.0
        self.run: list[Floats] = []
        self.line = 0

    @property
    def down(self) -> bool:
        """Whether the tool is in the paper, which lies at height 0: a machine lowers it by its own means alone."""
        return bool(self.at[2] <= 0) if self.by_height else self.on

    def block(self, text: str) -> None:
        rest = _WORD.sub("", text).strip()
        if rest:
            self.sent.refuse(say("{rest!r} is not understood.", rest=rest[:20]), self.at, self.line)
            return
        words = [(a.upper(), float(n)) for a, n in _WORD.findall(text)]
        if any(abs(n) > _MOST_MM for a, n in words if a in _PLACES):
            self.sent.refuse("A number is beyond all beds.", self.at, self.line)
            return
        single = [a for a, _ in words if a not in "GM"]
        odd = next((a for a in single if a not in _KNOWN or single.count(a) > 1), "")
        if odd:
            self.sent.refuse(say("{unknown!r} is not understood.", unknown=odd), self.at, self.line)
            return
        values = {a: n for a, n in words if a not in "GM"}
        self.codes(words, values)
        if "F" in values:
            self.feed = values["F"] * self.scale / 60
        if any(a in values for a in "XYZ") or ("I" in values or "J" in values):
            self.move(values)

    def codes(self, words: list[tuple[str, float]], values: dict[str, float]) -> None:
        if "T" in values:
            self.next = int(values["T"])
        for letter, number in words:
            if letter == "G":
                self.general(number)
            elif letter == "M":
                self.other(number)

    def general(self, number: float) -> None:
        if number in (0, 1, 2, 3):
            self.motion = int(number)
        elif number in (20, 21):
            self.scale = 25.4 if number == 20 else 1.0
        elif number in (90, 91):
            self.relative = number == 91
        elif number not in (4, 17, 40, 49, 54, 80, 94):
            self.sent.refuse(
                say("G{number:g} is no code that it knows.", number=number), self.at, self.line
            )

    def other(self, number: float) -> None:
        if number == 6:
            if self.down:
                self.sent.refuse("The tool is changed while it is down.", self.at, self.line)
            self.lift()
            self.tool = self.next
            if self.machine.tool(self.tool) is None:
                self.sent.refuse(
                    say("There is no tool {tool}.", tool=self.tool), self.at, self.line
                )
        elif number in (3, 4):
            self.on = True
            if self.down:
                self.lower()
        elif number == 5:
            self.on = False
            if not self.down:
                self.lift()
        elif number in (2, 30):
            self.ended = True
        elif number not in (0, 1):
            self.sent.refuse(
                say("M{number:g} is no code that it knows.", number=number), self.at, self.line
            )

    def lower(self) -> None:
        if not self.run:
            self.run = [self.at[:2].copy()]

    def lift(self) -> None:
        places = without_rests(self.run)
        if len(places):
            self.chosen()
            self.sent.add(Stroke(self.tool, max(self.feed, 1e-3), places, line=self.line))
        self.run = []

    def chosen(self) -> None:
        if not self.tool:
            self.sent.refuse("It cuts before a tool is chosen.", self.at, self.line)

    def move(self, values: dict[str, float]) -> None:
        if "Z" in values and not self.by_height:
            said = "This machine lifts by M5 and lowers by M3: it has no height Z."
            self.sent.refuse(said, self.at, self.line)
        to = self.at.copy()
        for i, axis in enumerate("XYZ"):
            if axis in values:
                value = values[axis] * self.scale
                to[i] = to[i] + value if self.relative else value
        was, flat = self.down, bool((to[:2] != self.at[:2]).any())
        centre = "I" in values or "J" in values
        if was and (flat or centre):
            self.cut(to, values)
        elif flat:
            if self.by_height and self.on and self.motion:
                said = "This machine lowers by the height Z: M3 does not set its tool down."
                self.sent.refuse(said, self.at, self.line)
            self.sent.travel(to[None, :2], self.machine, self.line)
        self.at = to
        if self.down and not was:
            self.lower()
        elif was and not self.down:
            self.lift()

    def cut(self, to: Floats, values: dict[str, float]) -> None:
        if self.by_height and abs(self.at[2] - self.machine.down) > _DEPTH:
            self.sent.refuse(
                say(
                    "It cuts at Z {height:g}; this machine sets its tool down at {down:g}.",
                    height=self.at[2],
                    down=self.machine.down,
                ),
                self.at,
                self.line,
            )
        if self.motion == 0:
            self.sent.refuse("It travels with the tool down.", self.at, self.line)
        if not self.feed:
            self.sent.refuse("It cuts before a speed is given.", self.at, self.line)
        self.chosen()
        self.lower()
        if self.motion in (2, 3):
            self.run += self.arc(to, values)
        else:
            self.run.append(to[:2].copy())

    def arc(self, to: Floats, values: dict[str, float]) -> list[Floats]:
        clockwise = self.motion == 2
        start, end = self.at[:2], to[:2]
        if "R" in values and not ("I" in values or "J" in values):
            centre = _centre(start, end, values["R"] * self.scale, clockwise=clockwise)
            if centre is None:
                self.sent.refuse("An arc's radius does not reach its end.", start, self.line)
                return [end.copy()]
        else:
            centre = start + np.array([values.get("I", 0.0), values.get("J", 0.0)]) * self.scale
        a, b = start - centre, end - centre
        radius = float(np.hypot(*a))
        if abs(radius - float(np.hypot(*b))) > _ROUND:
            self.sent.refuse("An arc's end is not on its circle.", start, self.line)
            return [end.copy()]
        turn = math.atan2(b[1], b[0]) - math.atan2(a[1], a[0])
        if clockwise and turn >= -1e-9:
            turn -= 2 * math.pi
        if not clockwise and turn <= 1e-9:
            turn += 2 * math.pi
        places = round_arc(centre, start, turn, grows=float(np.hypot(*b)) - radius)
        places[-1] = end
        return list(places)


def _centre(start: Floats, end: Floats, radius: float, *, clockwise: bool) -> Floats | None:
    chord = end - start
    size = float(np.hypot(*chord))
    if size == 0 or abs(radius) < size / 2 - _ROUND:
        return None
    height = math.sqrt(max(radius**2 - size**2 / 4, 0.0))
    side = -1.0 if clockwise == (radius > 0) else 1.0
    return np.asarray((start + end) / 2 + side * height * np.array([-chord[1], chord[0]]) / size)


@register_language("gcode", title="G-code", sniffs=_is_gcode)
def read_gcode(content: bytes, machine: Machine) -> Sent:
    """The strokes of a file in G-code."""
    controller = _Controller(machine)
    for number, line in enumerate(content.decode("latin-1").splitlines(), 1):
        text = _NOTE.sub(" ", line).replace("%", " ").strip()
        if not text:
            continue
        controller.line = number
        if controller.ended:
            break
        controller.block(text)
    if controller.down:
        controller.sent.refuse("The file ends with the tool down.", controller.at)
    controller.lift()
    return controller.sent
