"""What came loose, and when, from what was run alone."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stileblade.cutter.play import Played, Run
from stileblade.cutter.sent import Fault, Found
from stileblade.geometry.curves.segments import Bools, Floats, Ints
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures import loosening
from stileblade.geometry.measures.faces import (
    TEARS,
    Face,
    Faces,
    crossing,
    enclosed,
    faces_of,
    runs_along,
)
from stileblade.geometry.measures.nearness import Near
from stileblade.words import say

_AGAIN = 2.4
"""mm: closed cuts run on over their starts by less."""
_OPEN = 2.0
"""mm: an outline whose ends are further from each other is not meant to be one."""
_FIBRE = 0.02
_MOST_TOLD = 100
"""Outlines over each other that are told one by one."""
_SINCE = 0.5
"""Seconds: a cut is older than the same stretch's own time, which is known so well."""


@dataclass(frozen=True, eq=False)
class Loose:
    """A piece that no paper joins to the sheet any more."""

    face: Face
    at_s: float

    @property
    def area_mm2(self) -> float:
        return loosening.area_of(self.face)

    @property
    def bounds_mm(self) -> list[float]:
        return loosening.box_of(self.face).as_list()

    @property
    def contours(self) -> int:
        return loosening.rings_in(self.face)


@dataclass(frozen=True)
class Joined:
    """An outline that did not close: its gap, where, and what it goes round."""

    gap_mm: float
    at: tuple[float, float]
    bounds_mm: tuple[float, float, float, float]


@dataclass(frozen=True, eq=False)
class Outcome:
    """What a file made of a sheet."""

    played: Played
    faces: Faces
    loose: tuple[Loose, ...]
    joined: tuple[Joined, ...]
    faults: tuple[Found, ...]


def outcome_of(played: Played, *, runs: int = 1) -> Outcome:
    """What came loose of a sheet, what stayed joined, and what was done in a wrong order; each cut is to
    be run along so many times."""
    # a prick parts no paper
    cuts = [run for run in played.runs if run.cuts and len(run.places) > 1]
    if not cuts:
        return Outcome(
            played,
            Faces((), np.zeros((0, 2, 2)), np.zeros((0, 2))),
            (),
            (),
            played.faults,
        )
    lines = [run.places for run in cuts]
    faces = faces_of(lines)
    along = runs_along(faces.edges, lines)
    times = _times(faces, cuts, along)
    at = loosening.loose_at(faces.faces, faces.edges, times)
    loose = tuple(Loose(f, float(t)) for f, t in zip(faces.faces, at, strict=True))
    over = _overlapping(cuts)
    # what lies over another piece is worked on when that is loose already
    order = [] if over else _order(played, loose, faces, times)
    faults = [*played.faults, *order, *_cut_again(cuts, faces, along, runs), *over]
    joined = _joined(cuts)
    faults += [
        Found(
            Fault.OPEN_CONTOUR,
            say("An outline is open by {gap_mm:.2f} mm and stays joined.", gap_mm=j.gap_mm),
            j.at,
        )
        for j in joined
        if not _closes(j, faces)
    ]
    return Outcome(played, faces, loose, tuple(joined), tuple(faults))


def _times(faces: Faces, cuts: list[Run], runs: tuple[Ints, Ints, Floats]) -> Floats:
    """When each noded edge was cut first (m,): where several lines run along it, by the earliest."""
    times = np.full(len(faces.edges), np.inf)
    spot, line, along = runs
    ends = [np.concatenate([[0.0], np.cumsum(norms(np.diff(run.places, axis=0)))]) for run in cuts]
    when = np.zeros(len(spot))
    for number in np.unique(line):
        of = line == number
        when[of] = np.interp(along[of], ends[number], cuts[number].times)
    np.minimum.at(times, spot, when)
    times[~np.isfinite(times)] = 0.0
    return times


def _order(played: Played, loose: tuple[Loose, ...], faces: Faces, times: Floats) -> list[Found]:
    """What is still done in a piece when it is loose already."""
    whole = [(piece.face, piece.at_s) for piece in loose]
    several = loosening.together(faces.faces)
    at = loosening.loose_at(several, faces.edges, times)
    whole += list(zip(several, (float(t) for t in at), strict=True))
    if not whole:
        return []
    places = np.concatenate([_middles(run.places) for run in played.runs])
    when = np.concatenate([(run.times[1:] + run.times[:-1]) / 2 for run in played.runs])
    number = np.repeat(np.arange(len(played.runs)), [len(r.places) - 1 for r in played.runs])
    size = np.concatenate([norms(np.diff(run.places, axis=0)) for run in played.runs])
    found: list[Found] = []
    told: set[int] = set()
    for face, t in sorted(whole, key=lambda f: f[1]):
        box = loosening.box_of(face)
        later = np.flatnonzero(
            (when > t + 1e-6) & (places[:, 0] > box.left) & (places[:, 0] < box.right)
            & (places[:, 1] > box.head) & (places[:, 1] < box.foot)
        )  # fmt: skip
        if not len(later):
            continue
        later = later[loosening.inside(loosening.filled(face), places[later])]
        later = later[~_again(places[later], when[later], faces, times)]
        for k in np.unique(number[later]):
            of = later[number[later] == k]
            if k in told or size[of].sum() < _FIBRE:
                continue
            told.add(int(k))
            first = of[np.argmin(when[of])]
            what = played.runs[k].tool.name
            found.append(
                Found(
                    Fault.ORDER,
                    say(
                        "A piece of {area_of:,.0f} mm² is loose after {t:.1f} s, and the {what} still works in it after {when:.1f} s.",
                        area_of=loosening.area_of(loosening.filled(face)),
                        t=t,
                        what=what,
                        when=when[first],
                    ),
                    (float(places[first, 0]), float(places[first, 1])),
                    float(when[first]),
                )
            )
    return found


def _again(places: Floats, when: Floats, faces: Faces, times: Floats) -> Bools:
    """Which places lie on a cut that was there before: running over it again parts nothing."""
    if not len(places):
        return np.zeros(0, bool)
    cuts = Near(list(faces.edges))
    return np.asarray((cuts.away(places) < _FIBRE) & (times[cuts.which(places)] < when - _SINCE))


def _middles(places: Floats) -> Floats:
    return (places[1:] + places[:-1]) / 2


def _cut_again(
    cuts: list[Run], faces: Faces, ran: tuple[Ints, Ints, Floats], runs: int
) -> list[Found]:
    """Lines along which other lines, or the same one, were cut so many times already, beyond an overlap."""
    spot, line, along = ran
    size = norms(faces.edges[:, 1] - faces.edges[:, 0])
    length = np.array([run.length for run in cuts])
    found = []
    told: set[int] = set()
    order = np.lexsort((along, line, spot))
    spot, line, along = spot[order], line[order], along[order]
    same = spot[1:] == spot[:-1]
    again = line[1:] != line[:-1]
    # the same line comes by a second time, not the next stretch of it at a corner
    again |= np.abs(along[1:] - along[:-1]) > np.maximum(3 * size[spot[1:]], 0.5)
    # how many times an edge was cut before the second row of each pair
    before = np.concatenate([[0], np.cumsum(same & again)])
    start = np.maximum.accumulate(np.where(same, 0, np.arange(1, len(spot))))
    pairs = np.flatnonzero(same & again & (before[1:] - before[start] >= runs))
    total: dict[tuple[int, int], list[int]] = {}
    for k in pairs:
        total.setdefault((int(line[k]), int(line[k + 1])), []).append(int(k))
    for (first, second), rows in total.items():
        where, run = _longest(spot[rows], along[np.array(rows) + 1], size)
        if run > min(_AGAIN, 0.6 * min(length[first], length[second])) and second not in told:
            told.add(second)
            middle = faces.edges[where[len(where) // 2]].mean(axis=0)
            at_s = float(cuts[second].times[0])
            said = say(
                "{run:.1f} mm are cut {runs}.",
                run=run,
                runs="twice" if runs == 1 else say("more than {runs} times", runs=runs),
            )
            found.append(Found(Fault.CUT_TWICE, said, (float(middle[0]), float(middle[1])), at_s))
    return found


def _longest(spots: Ints, along: Floats, size: Floats) -> tuple[Ints, float]:
    """The longest stretch without a gap of edges that a line runs along, and its length in mm: at sharp corners a line
    comes near itself for a moment, and those moments are not added up."""
    order = np.argsort(along, kind="stable")
    spots, along = spots[order], along[order]
    stretch = np.cumsum(np.concatenate([[0], np.diff(along) > size[spots[:-1]] + 0.5]))
    lengths = [float(size[np.unique(spots[stretch == n])].sum()) for n in range(stretch[-1] + 1)]
    best = int(np.argmax(lengths))
    return spots[stretch == best], lengths[best]


def _overlapping(cuts: list[Run]) -> list[Found]:
    """Closed outlines that cross."""
    closed = [run for run in cuts if _gap(run) < TEARS and len(run.places) > 3]
    # a line that is run again is told by itself
    rings = list({run.places.tobytes(): run for run in reversed(closed)}.values())[::-1]
    if len(rings) < 2:
        return []
    shapes = [enclosed(run.places) for run in rings]
    boxes = np.array([[*r.places.min(axis=0), *r.places.max(axis=0)] for r in rings])
    found: list[Found] = []
    for i in range(len(rings) - 1):
        rest = boxes[i + 1 :]
        near = (rest[:, :2] < boxes[i, 2:]).all(axis=1) & (rest[:, 2:] > boxes[i, :2]).all(axis=1)
        for j in np.flatnonzero(near) + i + 1:
            place = crossing(shapes[i], shapes[j])
            if place is not None and len(found) < _MOST_TOLD:
                at = float(place[0]), float(place[1])
                said = "Two outlines lie over each other."
                found.append(Found(Fault.OVERLAP, said, at, float(rings[j].times[0])))
        if len(found) == _MOST_TOLD:
            break
    return found


def _gap(run: Run) -> float:
    """How far a line's end is from its own beginning, where it comes by."""
    ahead = run.places[: max(2, len(run.places) // 2)]
    a, b = ahead[:-1], ahead[1:]
    way = b - a
    size2 = np.maximum((way * way).sum(axis=1), 1e-18)
    share = np.clip(((run.places[-1] - a) * way).sum(axis=1) / size2, 0, 1)
    near = norms(a + way * share[:, None] - run.places[-1])
    along = norms(np.diff(ahead, axis=0)).cumsum()
    # where it begins, as far as it may run over that
    return float(near[: 1 + int((along <= min(_AGAIN, 0.34 * run.length)).sum())].min())


def _joined(cuts: list[Run]) -> list[Joined]:
    """Outlines that nearly close."""
    found = []
    for run in cuts:
        gap = _gap(run)
        if TEARS < gap <= _OPEN and run.length > 4 * gap + _OPEN:
            low, high = run.places.min(axis=0), run.places.max(axis=0)
            if min(high - low) > gap:
                at = (run.places[0] + run.places[-1]) / 2
                box = (float(low[0]), float(low[1]), float(high[0]), float(high[1]))
                found.append(Joined(gap, (float(at[0]), float(at[1])), box))
    return found


def _closes(joined: Joined, faces: Faces) -> bool:
    """Whether another cut closes the gap after all."""
    return not len(faces.ends) or float(norms(faces.ends - joined.at).min()) > joined.gap_mm
