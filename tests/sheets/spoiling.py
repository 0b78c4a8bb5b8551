"""Files in plotter language spoiled on purpose, by their bytes."""

from __future__ import annotations

import random
import re
from collections.abc import Callable
from itertools import pairwise

import numpy as np
import shapely

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
    if _is_same(parts, found) or _is_same(parts, _turned(found)):
        raise CannotBeSpoiled  # it is the same as before, to 0.3 mm, or may as well be turned by a half
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
    if not (a[0] < b[0] and a[1] < b[1] and a[2] > b[2] and a[3] > b[3]):
        return False
    return bool(
        shapely.contains_properly(
            shapely.make_valid(shapely.polygons(outer)), shapely.points(inner[0])
        )
    )


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


def _added(parts: list[Part], tool: str, stroke: Stroke) -> list[Part]:
    """The stroke done first of all that its tool does; with the tool chosen anew where it does nothing."""
    strokes = strokes_of(parts, tool)
    if strokes:
        return [*parts[: strokes[0]], ("stroke", stroke), *parts[strokes[0] :]]
    return [parts[0], ("command", tool), ("stroke", stroke), *parts[1:]]


def _pieces(parts: list[Part]) -> list[Stroke]:
    """The outermost closed cuts, the largest first."""
    rings = [_stroke(parts, i) for i in strokes_of(parts, "SP1") if closed(_stroke(parts, i))]
    outer = [r for r in rings if not any(_holds(other, r) for other in rings if other is not r)]
    return sorted((r for r in outer if size(r) > 1600), key=size, reverse=True)


def _free_line(parts: list[Part], chance: random.Random, length: int) -> Stroke:
    """A level line within a piece, 2 mm from all that is there."""
    there = shapely.union_all([shapely.linestrings(p) for _, p in parts if not isinstance(p, str)])
    for piece in _pieces(parts):
        left, foot, right, head = _box(piece)
        area = shapely.make_valid(shapely.polygons(piece))
        for _ in range(60):
            x, y = chance.randint(left, right), chance.randint(foot, head)
            line = shapely.linestrings([(x, y), (x + length, y)])
            if shapely.contains(area, line) and shapely.distance(there, line) > 80:
                return [(x, y), (x + length, y)]
    raise CannotBeSpoiled


def slit(parts: list[Part], chance: random.Random) -> list[Part]:
    """A cut of 20 mm inside a piece."""
    return _added(parts, "SP1", _free_line(parts, chance, 800))


def scored_more(parts: list[Part], chance: random.Random) -> list[Part]:
    return _added(parts, "SP3", _free_line(parts, chance, 800))


def drawn_more(parts: list[Part], chance: random.Random) -> list[Part]:
    return _added(parts, "SP2", _free_line(parts, chance, 800))


def edge_slit(parts: list[Part], chance: random.Random) -> list[Part]:
    """A cut from a piece's outline inwards, by 8 mm or more."""
    (x, y), (right, _) = _free_line(parts, chance, 320)
    piece = next(
        p
        for p in _pieces(parts)
        if shapely.contains_xy(shapely.make_valid(shapely.polygons(p)), x, y)
    )
    ray = shapely.linestrings([(right, y), (40_000, y)])
    lines = [shapely.linestrings(p) for _, p in parts if not isinstance(p, str)]
    meets = shapely.get_coordinates(shapely.intersection(ray, shapely.union_all(lines)))
    nearest = meets[np.argmin(meets[:, 0])]
    if shapely.distance(shapely.linestrings(piece), shapely.points(nearest)) > 2:
        raise CannotBeSpoiled  # a window is in the way
    return _added(parts, "SP1", [(round(float(nearest[0])), y), (x, y)])


def _long_score(parts: list[Part]) -> tuple[int, Stroke]:
    for i in strokes_of(parts, "SP3"):
        stroke = _stroke(parts, i)
        if len(stroke) == 2 and np.hypot(*np.subtract(*stroke)) > 1200:
            return i, stroke
    raise CannotBeSpoiled


def _on(a: tuple[int, int], b: tuple[int, int], by: float) -> tuple[int, int]:
    """The place so many units beyond b on the line from a."""
    way = np.subtract(b, a)
    x, y = b + way / np.hypot(*way) * by
    return round(float(x)), round(float(y))


def score_short(parts: list[Part], chance: random.Random) -> list[Part]:
    i, (a, b) = _long_score(parts)
    return [*parts[:i], ("stroke", [a, _on(a, b, -400)]), *parts[i + 1 :]]


def score_long(parts: list[Part], chance: random.Random) -> list[Part]:
    """4 mm beyond both ends."""
    i, (a, b) = _long_score(parts)
    longer = [_on(b, a, 160), _on(a, b, 160)]
    scores = [shapely.linestrings(_stroke(parts, k)) for k in strokes_of(parts, "SP3") if k != i]
    ends = shapely.linestrings([[a, longer[0]], [b, longer[1]]])
    if (
        min(x for p in longer for x in p) < 0
        or shapely.distance(ends, shapely.union_all(scores)).min() < 40
    ):
        raise CannotBeSpoiled  # it runs into the next score, or off the bed
    return [*parts[:i], ("stroke", longer), *parts[i + 1 :]]


def deformed(parts: list[Part], chance: random.Random) -> list[Part]:
    """An outline bulges out by 1 mm in the middle of a straight of it."""
    for i in strokes_of(parts, "SP1"):
        stroke = _stroke(parts, i)
        if not closed(stroke) or size(stroke) < 1600:
            continue
        for k, (a, b) in enumerate(pairwise(stroke)):
            way = np.subtract(b, a)
            if np.hypot(*way) > 1200:
                middle = np.add(a, b) / 2 + np.array([way[1], -way[0]]) / np.hypot(*way) * 40
                bulge = [*stroke[: k + 1], _whole((middle[0], middle[1])), *stroke[k + 1 :]]
                return [*parts[:i], ("stroke", bulge), *parts[i + 1 :]]
    raise CannotBeSpoiled


def all_moved(parts: list[Part], chance: random.Random) -> list[Part]:
    """By 3 mm to the right and 2 upwards."""
    return moved(parts, lambda x, y: (x + 120, y + 80))


def turned(parts: list[Part], chance: random.Random) -> list[Part]:
    """By a half about the middle of all."""
    found = _turned(parts)
    if _is_same(parts, found):
        raise CannotBeSpoiled
    return found


def _turned(parts: list[Part]) -> list[Part]:
    places = np.concatenate([np.array(p) for _, p in parts if not isinstance(p, str)])
    x0, y0 = (places.min(axis=0) + places.max(axis=0)).tolist()
    return moved(parts, lambda x, y: (x0 - x, y0 - y))


def _is_same(parts: list[Part], found: list[Part]) -> bool:
    lines = [np.array(p, float) for _, p in parts if not isinstance(p, str)]
    places = np.concatenate([np.array(p, float) for _, p in found if not isinstance(p, str)])
    return bool(Near(lines).away(places).max() < 12)


def in_inches(parts: list[Part], chance: random.Random) -> list[Part]:
    return moved(parts, lambda x, y: (x * 25.4, y * 25.4))


def in_points(parts: list[Part], chance: random.Random) -> list[Part]:
    return moved(parts, lambda x, y: (x * 72 / 25.4, y * 72 / 25.4))


def small(parts: list[Part], chance: random.Random) -> list[Part]:
    return moved(parts, lambda x, y: (x / 10, y / 10))


def window_open(parts: list[Part], chance: random.Random) -> list[Part]:
    """A closed cut ends 10 mm before its start, on its last straight."""
    for i in strokes_of(parts, "SP1"):
        stroke = _stroke(parts, i)
        if not closed(stroke) or size(stroke) < 1200:
            continue
        end = len(stroke) - 1 - stroke[::-1].index(stroke[0])
        a, b = stroke[end - 1], stroke[end]
        if np.hypot(*np.subtract(b, a)) > 480:
            return [*parts[:i], ("stroke", [*stroke[:end], _on(a, b, -400)]), *parts[i + 1 :]]
    raise CannotBeSpoiled


SPOILED: dict[str, Callable[[list[Part], random.Random], list[Part]]] = {
    "scale": scaled,
    "inches": in_inches,
    "points": in_points,
    "a tenth": small,
    "mirrored": mirrored,
    "moved": all_moved,
    "turned by a half": turned,
    "pass-missing": missing,
    "a short score": score_short,
    "a long score": score_long,
    "a slit": slit,
    "a slit from the edge": edge_slit,
    "a score more": scored_more,
    "a pen line more": drawn_more,
    "score-cut": score_cut,
    "drawn-cut": drawn_cut,
    "order": unordered,
    "open-contour": opened,
    "a gap of 10 mm": window_open,
    "off-shape": deformed,
    "cut-twice": twice,
    "overlap": overlapping,
    "off-bed": off_bed,
    "crumb": crumb,
    "refused": refused,
}
"""Ways to spoil a file."""
CODES = {
    "inches": "scale",
    "points": "scale",
    "a tenth": "scale",
    "turned by a half": "moved",
    "a short score": "pass-missing",
    "a long score": "extra",
    "a slit": "extra",
    "a slit from the edge": "extra",
    "a score more": "extra",
    "a pen line more": "extra",
    "a gap of 10 mm": "open-contour",
}
"""What they are called by the cutter, where that is not their own name."""
