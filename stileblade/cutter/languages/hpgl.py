"""Plotter language, 40 units a mm: IN SP VS PU PD PA PR AA, parted by ";" or line ends."""

from __future__ import annotations

import math
import re

import numpy as np

from stileblade.cutter.sent import Sent, Stroke, register_language, round_arc, without_rests
from stileblade.geometry.curves.segments import Floats
from stileblade.machine.machine import Machine
from stileblade.words import say

UNITS = 40.0
_COMMAND = re.compile(r"([A-Za-z]{2})([^A-Za-z;]*+)")
_NUMBER = re.compile(r"[+-]?(?>\d++\.?\d*+|\.\d++)")
_SEPARATOR = re.compile(r"[\s,\x00\x03]++")
_BETWEEN = re.compile(r"[\s;\x00\x1b]*+")
_ESCAPE = re.compile(r"\x1b(?:%-?\d*+[A-Za-z]|\.[A-Za-z@()](?:[\d;]*+:)?|E)")
"""What turns a device to this language, before its first command."""
_BEGINNING = re.compile(
    r"(?:[\s;]|\x1b(?:%-?\d*+[A-Za-z]|\.[A-Z@()](?:[\d;]*+:)?|E))*+(?:IN|SP|PU|PD|PA|PR|VS)[\s;0-9+-]",
    re.IGNORECASE,
)
_MOST_MM = 100_000.0


def _is_plotter(head: bytes) -> bool:
    return bool(_BEGINNING.match(f"{head.decode('latin-1')};"))


class _Plotter:
    def __init__(self, content: bytes, machine: Machine) -> None:
        self.content, self.machine = _ESCAPE.sub("", content.decode("latin-1")), machine
        self.sent = Sent("hpgl")
        self.reset()

    def reset(self) -> None:
        self.at = np.zeros(2)
        self.down = self.relative = False
        self.tool, self.speed = 0, 0.0
        self.run: list[Floats] = []

    def read(self) -> Sent:
        at, content, self.line = 0, self.content, 1
        while True:
            between = _BETWEEN.match(content, at)
            end = between.end() if between else at
            self.line += content.count("\n", at, end)
            if end >= len(content):
                break
            match = _COMMAND.match(content, end)
            if match is None:
                bad = content[end : end + 12]
                self.sent.refuse(say("{bad!r} is no command.", bad=bad), self.at, self.line)
                at = content.find(";", end)
                if at < 0:
                    break
                continue
            self.command(match[1].upper(), match[2])
            self.line += match[2].count("\n")
            at = match.end()
        if self.down:
            self.sent.refuse("The file ends with the tool down.", self.at)
        self.lift()
        return self.sent

    def command(self, name: str, rest: str) -> None:
        unread = _SEPARATOR.sub("", _NUMBER.sub("", rest))
        if unread:
            self.sent.refuse(
                say("{name}: {unread!r} is not understood.", name=name, unread=unread[:20]),
                self.at,
                self.line,
            )
            return
        numbers = [float(n) for n in _NUMBER.findall(rest)]
        if any(abs(n) > _MOST_MM * UNITS for n in numbers):
            self.sent.refuse(
                say("{name}: a number is beyond all beds.", name=name), self.at, self.line
            )
            return
        if name == "IN":
            self.lift()
            self.reset()
        elif name == "SP":
            self.select(int(numbers[0]) if numbers else 0)
        elif name == "VS":
            self.lift(again=True)
            self.speed = (numbers[0] if numbers else 0.0) * 10
            if self.speed <= 0:
                self.sent.refuse("VS: a speed of nothing.", self.at, self.line)
        elif name in ("PA", "PR"):
            self.relative = name == "PR"
            self.moves(numbers)
        elif name == "PU":
            self.lift()
            self.moves(numbers)
        elif name == "PD":
            self.lower()
            self.moves(numbers)
        elif name == "AA":
            self.arc(numbers)
        else:
            self.sent.refuse(
                say("{name!r} is no command that it knows.", name=name), self.at, self.line
            )

    def select(self, tool: int) -> None:
        if self.down and len(self.run) > 1:
            self.sent.refuse("The tool is changed while it is down.", self.at, self.line)
        self.lift()
        self.tool, self.speed = tool, 0.0
        if tool and self.machine.tool(tool) is None:
            self.sent.refuse(say("There is no tool {tool}.", tool=tool), self.at, self.line)

    def lower(self) -> None:
        if not self.down:
            self.down, self.run = True, [self.at]

    def lift(self, *, again: bool = False) -> None:
        was = self.down
        if was and self.run and not (again and len(self.run) == 1):
            tool = self.machine.tool(self.tool)
            if tool is None:
                self.sent.refuse("It cuts before a tool is chosen.", self.run[0], self.line)
            speed = self.speed or (tool.speed if tool else 1.0)
            places = without_rests(self.run)
            self.sent.add(Stroke(self.tool, speed, places, line=self.line))
        self.run, self.down = [], False
        if was and again:
            self.lower()

    def moves(self, numbers: list[float]) -> None:
        if len(numbers) % 2:
            self.sent.refuse("A place has no second figure.", self.at, self.line)
        places = np.array(numbers[: len(numbers) // 2 * 2], float).reshape(-1, 2) / UNITS
        if not len(places):
            return
        if self.relative:
            places = self.at + np.cumsum(places, axis=0)
        if self.down:
            self.run += list(places)
        else:
            self.sent.travel(places, self.machine, self.line)
        self.at = places[-1]

    def arc(self, numbers: list[float]) -> None:
        if len(numbers) < 3:
            self.sent.refuse("AA: an arc has a centre and an angle.", self.at, self.line)
            return
        centre = np.array(numbers[:2]) / UNITS
        turn = math.radians(max(-3600.0, min(3600.0, numbers[2])))
        places = round_arc(centre, self.at, turn)
        if self.down:
            self.run += list(places)
        self.at = places[-1]


@register_language("hpgl", title="plotter language", sniffs=_is_plotter)
def read_hpgl(content: bytes, machine: Machine) -> Sent:
    """The strokes of a file in plotter language."""
    return _Plotter(content, machine).read()
