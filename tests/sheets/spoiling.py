"""Files in plotter language spoiled on purpose, by their bytes."""

from __future__ import annotations

import random
import re
from collections.abc import Callable

import numpy as np

from stileblade.geometry.measures.nearness import Near

Stroke = list[tuple[int, int]]
Part = tuple[str, str | Stroke]
"""A command that is no motion, or a stroke with the tool down."""


def parts_of(content: bytes) -> list[Part]:
    """A file as commands and strokes."""
    found: list[Part] = []
    for command in content.decode().replace("\n", "").split(";"):
        name, numbers = command[:2], [int(n) for n in re.findall(r"-?\d+", command[2:])]
        places = list(zip(numbers[::2], numbers[1::2], strict=False))
        if name == "PU" and places:
            found.append(("stroke", places))
        elif name == "PD":
            stroke = found[-1][1]
            assert isinstance(stroke, list)
            stroke += places
        elif command and name != "PU":
            found.append(("command", command))
    return found


def written(parts: list[Part]) -> bytes:
    """The file of such parts."""
    said = []
    for _, part in parts:
        if isinstance(part, str):
            said.append(part)
            continue
        said.append(f"PU{part[0][0]},{part[0][1]}")
        said.append("PD" + ",".join(f"{x},{y}" for x, y in part[1:]))
        said.append("PU")
    return (";\n".join(said) + ";\n").encode()


def moved(parts: list[Part], move: Callable[[int, int], tuple[float, float]]) -> list[Part]:
    """All places moved."""
    return [
        (kind, part if isinstance(part, str) else [_whole(move(x, y)) for x, y in part])
        for kind, part in parts
    ]


def _whole(place: tuple[float, float]) -> tuple[int, int]:
    return round(place[0]), round(place[1])


def tool_of(parts: list[Part], number: int) -> str:
    """The command that chose the tool of a part."""
    chosen = [p for _, p in parts[:number] if isinstance(p, str) and p.startswith("SP")]
    return chosen[-1] if chosen else ""


def strokes_of(parts: list[Part], tool: str) -> list[int]:
    """Numbers of the strokes of a tool."""
    return [
        i for i, (kind, _) in enumerate(parts) if kind == "stroke" and tool_of(parts, i) == tool
    ]


def closed(stroke: Stroke) -> bool:
    """Whether it comes round to its start, with an overlap."""
    return len(stroke) > 3 and stroke[0] in stroke[1:]


def size(stroke: Stroke) -> int:
    xs, ys = [x for x, _ in stroke], [y for _, y in stroke]
    return min(max(xs) - min(xs), max(ys) - min(ys))


class CannotBeSpoiled(Exception):
    """The file has nothing that could be spoiled in this way."""


def scaled(parts: list[Part], chance: random.Random) -> list[Part]:
    return moved(parts, lambda x, y: (x * 72 / 96, y * 72 / 96))


def mirrored(parts: list[Part], chance: random.Random) -> list[Part]:
    xs = [x for _, p in parts if not isinstance(p, str) for x, _ in p]
    low, high = min(xs), max(xs)
    found = moved(parts, lambda x, y: (low + high - x, y))
    lines = [np.array(p, float) for _, p in parts if not isinstance(p, str)]
    places = np.concatenate([np.array(p, float) for _, p in found if not isinstance(p, str)])
    if Near(lines).away(places).max() < 12:
        raise CannotBeSpoiled  # it is the same as before, to 0.3 mm
    return found


def missing(parts: list[Part], chance: random.Random) -> list[Part]:
    tools = sorted({tool_of(parts, i) for i, (k, _) in enumerate(parts) if k == "stroke"})
    gone = set(strokes_of(parts, chance.choice(tools)))
    return [p for i, p in enumerate(parts) if i not in gone]


def score_cut(parts: list[Part], chance: random.Random) -> list[Part]:
    return _with_knife(parts, "SP3")


def drawn_cut(parts: list[Part], chance: random.Random) -> list[Part]:
    return _with_knife(parts, "SP2")


def _with_knife(parts: list[Part], tool: str) -> list[Part]:
    if not strokes_of(parts, tool):
        raise CannotBeSpoiled
    return [(kind, "SP1" if part == tool else part) for kind, part in parts]


def unordered(parts: list[Part], chance: random.Random) -> list[Part]:
    """The outermost cut comes first of all cuts."""
    knife = strokes_of(parts, "SP1")
    rings = [(i, parts[i][1]) for i in knife]
    for i, outer in reversed(rings):
        assert isinstance(outer, list)
        if closed(outer) and any(j < i and _holds(outer, inner) for j, inner in rings):
            rest = parts[:i] + parts[i + 1 :]
            first = strokes_of(rest, "SP1")[0]
            return [*rest[:first], parts[i], *rest[first:]]
    raise CannotBeSpoiled


def _holds(outer: Stroke, inner: str | Stroke) -> bool:
    assert isinstance(inner, list)
    a = _box(outer)
    b = _box(inner)
    return a[0] < b[0] and a[1] < b[1] and a[2] > b[2] and a[3] > b[3]


def _box(stroke: Stroke) -> tuple[int, int, int, int]:
    xs, ys = [x for x, _ in stroke], [y for _, y in stroke]
    return min(xs), min(ys), max(xs), max(ys)


def opened(parts: list[Part], chance: random.Random) -> list[Part]:
    """A closed cut ends 0.2 mm before its start, on its last straight."""
    knife = strokes_of(parts, "SP1")
    chance.shuffle(knife)
    for i in knife:
        stroke = parts[i][1]
        assert isinstance(stroke, list)
        if not closed(stroke) or size(stroke) < 200:
            continue
        end = len(stroke) - 1 - stroke[::-1].index(stroke[0])
        (ax, ay), (bx, by) = stroke[end - 1], stroke[end]
        run = ((bx - ax) ** 2 + (by - ay) ** 2) ** 0.5
        if run < 40:
            continue
        short = 1 - 8 / run
        cut = [*stroke[:end], (round(ax + (bx - ax) * short), round(ay + (by - ay) * short))]
        return [*parts[:i], ("stroke", cut), *parts[i + 1 :]]
    raise CannotBeSpoiled


def twice(parts: list[Part], chance: random.Random) -> list[Part]:
    knife = [i for i in strokes_of(parts, "SP1") if size(_stroke(parts, i)) > 400]
    if not knife:
        raise CannotBeSpoiled
    i = knife[-1]
    return [*parts[: i + 1], parts[i], *parts[i + 1 :]]


def _stroke(parts: list[Part], i: int) -> Stroke:
    stroke = parts[i][1]
    assert isinstance(stroke, list)
    return stroke


def overlapping(parts: list[Part], chance: random.Random) -> list[Part]:
    """A piece with all that is in it is moved by half of its width onto another."""
    rings = [i for i in strokes_of(parts, "SP1") if closed(_stroke(parts, i))]
    outer = [
        i for i in rings
        if not any(_holds(_stroke(parts, j), parts[i][1]) for j in rings if j != i)
        and size(_stroke(parts, i)) > 400
    ]  # fmt: skip
    if len(outer) < 2:
        raise CannotBeSpoiled
    a, b = outer[0], outer[-1]
    box, other = _box(_stroke(parts, a)), _box(_stroke(parts, b))
    dx = other[2] - (box[0] + box[2]) // 2 + 37
    dy = (other[1] + other[3]) // 2 - (box[1] + box[3]) // 2
    dx, dy = max(dx, 80 - box[0]), max(dy, 80 - box[1])
    return [
        (k, [(x + dx, y + dy) for x, y in p])
        if not isinstance(p, str) and (i == a or _holds(_stroke(parts, a), p))
        else (k, p)
        for i, (k, p) in enumerate(parts)
    ]


def off_bed(parts: list[Part], chance: random.Random) -> list[Part]:
    knife = strokes_of(parts, "SP1")
    i = chance.choice(knife)
    gone = [(x - 20_000, y) for x, y in _stroke(parts, i)]
    return [*parts[:i], ("stroke", gone), *parts[i + 1 :]]


def crumb(parts: list[Part], chance: random.Random) -> list[Part]:
    """A triangle of 1.5 mm in the sheet's corner, which nothing reaches."""
    first = strokes_of(parts, "SP1")[0]
    small = [(40, 40), (100, 40), (70, 90), (40, 40)]
    return [*parts[:first], ("stroke", small), *parts[first:]]


def refused(parts: list[Part], chance: random.Random) -> list[Part]:
    at = chance.randrange(1, len(parts))
    return [*parts[:at], ("command", "QX17"), *parts[at:]]


SPOILED: dict[str, Callable[[list[Part], random.Random], list[Part]]] = {
    "scale": scaled,
    "mirrored": mirrored,
    "pass-missing": missing,
    "score-cut": score_cut,
    "drawn-cut": drawn_cut,
    "order": unordered,
    "open-contour": opened,
    "cut-twice": twice,
    "overlap": overlapping,
    "off-bed": off_bed,
    "crumb": crumb,
    "refused": refused,
}
