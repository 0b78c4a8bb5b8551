"""Whether all lines that were meant are there, done by the tool that was meant."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from stileblade.cutter.play import Run
from stileblade.cutter.sent import Fault, Found
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures.nearness import Near, spaced
from stileblade.machine.machine import Machine
from stileblade.machine.operation import WORDS, Operation
from stileblade.meant.register import NEAR
from stileblade.meant.sheet import MeantLine
from stileblade.words import say

_THERE = 0.7
"""A line of which less is there is missing."""
_CUT = {Operation.SCORE: Fault.SCORE_CUT, Operation.DRAW: Fault.DRAWN_CUT}
_SAYS = {Fault.SCORE_CUT: "to be scored", Fault.DRAWN_CUT: "to be drawn"}


def line_faults(
    runs: Sequence[Run], meant: Sequence[MeantLine], machine: Machine, runs_each: int = 1
) -> list[Found]:
    """Operations that are missing in whole or in part, cuts that are run along fewer than ``runs_each``
    times, and lines that are cut instead."""
    of_tool: dict[int, list[Floats]] = {}
    for run in runs:
        of_tool.setdefault(run.tool.number, []).append(run.places)
    knives = Near([run.places for run in runs if run.cuts])
    near = {number: Near(lines) for number, lines in of_tool.items()}
    cut_anyway = Near([line.places for line in meant if line.operation.parts])
    found: list[Found] = []
    for operation in Operation:
        lines = [line for line in meant if line.operation is operation]
        if not lines:
            continue
        right = near.get(machine.tool_for(operation).number)
        missing, cut = [], []
        for line in lines:
            places = spaced(line.places, 0.7)
            share = 0.0 if right is None else float((right.away(places) < NEAR).mean())
            if operation in _CUT and _is_cut(places, knives, cut_anyway):
                cut.append(line)
            elif share < _THERE:
                missing.append(line)
        if cut:
            code = _CUT[operation]
            said = say(
                "Cut through: {lines} {says}.",
                lines=_lines(len(cut), len(lines)),
                says=_SAYS[code],
            )
            found.append(Found(code, said, _middle(cut[0])))
        if missing:
            word = WORDS[operation]
            what = say(
                "{word} missing: {lines}.",
                word=say(word),
                lines=_lines(len(missing), len(lines)),
            )
            found.append(Found(Fault.PASS_MISSING, what[0].upper() + what[1:], _middle(missing[0])))
    if runs_each > 1 and not found:
        found += _too_seldom(runs, [m for m in meant if m.operation.parts], runs_each)
    return found


def _too_seldom(runs: Sequence[Run], cuts: Sequence[MeantLine], wanted: int) -> list[Found]:
    """Cuts along which knives ran fewer times than they were to."""
    ran = [spaced(run.places, 0.7) for run in runs if run.cuts]
    if not ran or not cuts:
        return []
    places = np.concatenate(ran)
    # each place stands for its share of the way that it is on
    share = np.concatenate([np.full(len(some), _length(some) / len(some)) for some in ran])
    near = Near([line.places for line in cuts])
    owner, close = near.which(places), near.away(places) < NEAR
    found = []
    for number, line in enumerate(cuts):
        times = float(share[close & (owner == number)].sum()) / max(_length(line.places), 1e-9)
        if times < wanted - 0.4:
            found.append((line, round(times)))
    if not found:
        return []
    line, times = found[0]
    said = say(
        "Cuts run along {times} of {wanted} times: {lines}.",
        lines=_lines(len(found), len(cuts)),
        times=max(times, 1),
        wanted=wanted,
    )
    return [Found(Fault.PASS_MISSING, said, _middle(line))]


def _length(places: Floats) -> float:
    return float(norms(np.diff(places, axis=0)).sum())


def _is_cut(places: Floats, knives: Near, meant: Near) -> bool:
    """Whether knives run along a line where none was to."""
    there = (knives.away(places) < NEAR) & (meant.away(places) > NEAR)
    free = meant.away(places) > NEAR
    return bool(free.sum() and there.sum() > _THERE * free.sum())


def _lines(some: int, all_: int) -> str:
    if some == all_:
        return say("the line | all {n} lines", n=some)
    return say("{some} of {all} lines", some=some, all=all_)


def _middle(line: MeantLine) -> tuple[float, float]:
    place = spaced(line.places, 1.0)
    x, y = place[len(place) // 2]
    return float(x), float(y)


def corner_faults(runs: Sequence[Run], meant: Sequence[MeantLine]) -> list[Found]:
    """Corners that a trailing tool rounded since its trail was not made up for."""
    trails = [run.tool.trail for run in runs if run.cuts and run.tool.trail]
    if not trails:
        return []
    knives = Near([run.places for run in runs if run.cuts])
    corners = [_corners(line.places) for line in meant if line.operation.parts and line.closed]
    places = (
        np.concatenate([c for c in corners if len(c)])
        if any(map(len, corners))
        else np.zeros((0, 2))
    )
    if not len(places):
        return []
    away = knives.away(places)
    worst = int(np.argmax(away))
    if away[worst] < _ROUNDED:
        return []
    x, y = places[worst]
    said = say(
        "{n} corners are rounded, by up to {by:.2f} mm: the blade's trail of {trail:g} mm is not made up for.",
        n=int((away > _ROUNDED).sum()),
        by=away[worst],
        trail=max(trails),
    )
    return [Found(Fault.TRAIL, said, (float(x), float(y)))]


_ROUNDED = 0.04
_SHARP = np.radians(30)


def _corners(places: Floats) -> Floats:
    """Sharp corners of a closed polyline."""
    way = np.diff(places, axis=0)
    angle = np.arctan2(way[:, 1], way[:, 0])
    turn = np.abs((angle - np.roll(angle, 1) + np.pi) % (2 * np.pi) - np.pi)
    return np.asarray(places[:-1][turn > _SHARP])
