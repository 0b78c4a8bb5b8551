"""Moving the tool: when it is where, and the way that its tip really takes.

Times are in seconds from the start: travel, lift, tool changes and the strokes at their speeds.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from stileblade.cutter.sent import Fault, Found, Sent, Stroke
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.vectors import norms
from stileblade.machine.machine import Machine, Tool
from stileblade.words import say

_BEYOND = 0.02
"""mm beyond the bed that no machine feels."""
_REST = 0.003
"""mm: a tip that moves by less rests."""
_TURN = np.radians(0.5)


@dataclass(frozen=True, eq=False)
class Run:
    """A stroke as it was run: places (n, 2) of the tip, when it was at each (n,); ``begun`` when the way
    to it was, or the change to its tool."""

    stroke: Stroke
    tool: Tool
    places: Floats
    times: Floats
    begun: float

    @property
    def cuts(self) -> bool:
        """Whether it parts paper."""
        return self.tool.cuts

    @cached_property
    def length(self) -> float:
        return float(norms(np.diff(self.places, axis=0)).sum())


@dataclass(frozen=True)
class PassRun:
    """All that was done with a tool in one go, the change to it included."""

    tool: str
    length_mm: float
    lifts: int
    time_s: float


@dataclass(frozen=True, eq=False)
class Played:
    """What was run in all, and what the machine objects to."""

    runs: tuple[Run, ...]
    faults: tuple[Found, ...]
    machine: Machine

    @property
    def time_s(self) -> float:
        return float(self.runs[-1].times[-1]) if self.runs else 0.0

    @cached_property
    def passes(self) -> tuple[PassRun, ...]:
        """In their order; a tool that comes twice is twice in it."""
        found: list[PassRun] = []
        first = 0
        for i in range(1, len(self.runs) + 1):
            if i < len(self.runs) and self.runs[i].tool is self.runs[first].tool:
                continue
            part = self.runs[first:i]
            found.append(
                PassRun(
                    part[0].tool.name, sum(run.length for run in part), len(part),
                    float(part[-1].times[-1]) - part[0].begun,
                )
            )  # fmt: skip
            first = i
        return tuple(found)


def play(sent: Sent, machine: Machine) -> Played:
    """The strokes run one after the other on a machine. What has no tool is run by none."""
    at, now, tool = np.zeros(2), 0.0, 0
    heading = np.array([1.0, 0.0])
    runs: list[Run] = []
    for stroke in sent.strokes:
        held = machine.tool(stroke.tool)
        if held is None:
            continue
        begun = now
        if held.number != tool:
            now += machine.change_s if tool else 0.0
            tool, heading = held.number, np.array([1.0, 0.0])
        now += float(norms((stroke.places[0] - at)[None])[0]) / machine.travel + machine.lift_s
        places = stroke.places
        size = norms(np.diff(places, axis=0))
        times = now + np.concatenate([[0.0], np.cumsum(size)]) / stroke.speed
        if held.trail and len(places) > 1:
            places, times, heading = trailed(places, times, held.trail, heading)
        runs.append(Run(stroke, held, places, times, begun))
        at, now = stroke.places[-1], float(times[-1])
    return Played(tuple(runs), (*sent.refused, *_off_bed(sent, machine)), machine)


def _off_bed(sent: Sent, machine: Machine) -> list[Found]:
    """The first place that lies beyond the bed, of lines before ways with the tool up."""
    for stroke in sent.strokes:
        p = stroke.places
        out = np.maximum(-p, p - [machine.bed_width, machine.bed_height]).max(axis=1)
        if out.max() > _BEYOND:
            k = int(np.argmax(out > _BEYOND))
            said = say(
                "A line runs {by:.2f} mm beyond the bed of {bed_width:g} x {bed_height:g} mm.",
                by=out.max(),
                bed_width=machine.bed_width,
                bed_height=machine.bed_height,
            )
            return [Found(Fault.OFF_BED, said, (float(p[k, 0]), float(p[k, 1])))]
    return [sent.travels_off] if sent.travels_off else []


def trailed(
    axis: Floats, times: Floats, trail: float, heading: Floats
) -> tuple[Floats, Floats, Floats]:
    """Where the tip goes that lies ``trail`` behind an axis, and how it points in the end: it is drawn
    along, and turns into the direction of motion as a tractrix does (tan of half the angle falls by
    e^(-s / trail))."""
    found, when = [axis[0] - trail * heading], [times[0]]
    angle = float(np.arctan2(heading[1], heading[0]))
    for a, b, t0, t1 in zip(axis[:-1], axis[1:], times[:-1], times[1:], strict=True):
        way = b - a
        size = float(np.hypot(*way))
        if size == 0:
            continue
        towards = float(np.arctan2(way[1], way[0]))
        off = (angle - towards + np.pi) % (2 * np.pi) - np.pi
        # finely where it turns, not at all where it runs straight behind
        steps = 1 if abs(off) < _TURN else int(np.clip(np.ceil(size / trail * 12), 1, 120))
        reach = np.minimum(size, trail * 12) if steps > 1 else size
        for s in np.append(reach * np.arange(1, steps + 1) / steps, size if reach < size else []):
            turned = 2 * np.arctan(np.tan(off / 2) * np.exp(-s / trail))
            angle = towards + turned
            axis_at = a + way * (s / size)
            found.append(axis_at - trail * np.array([np.cos(angle), np.sin(angle)]))
            when.append(t0 + (t1 - t0) * s / size)
    tip, at = _without_rests(np.array(found), np.array(when))
    return tip, at, np.array([np.cos(angle), np.sin(angle)])


def _without_rests(tip: Floats, times: Floats) -> tuple[Floats, Floats]:
    """Without the places at which a tip that is swivelled hardly moves: thousands of them lie in a hair's breadth, and
    all that is found out about lines costs by their number. The first and the last stay."""
    kept, x, y = [0], float(tip[0, 0]), float(tip[0, 1])
    for k, (a, b) in enumerate(tip.tolist()):
        if abs(a - x) > _REST or abs(b - y) > _REST:
            kept.append(k)
            x, y = a, b
    if kept[-1] != len(tip) - 1:
        kept.append(len(tip) - 1)
    return tip[kept], times[kept]
