"""Computed style: the cascade's declarations with inheritance, as numbers and colours."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache

import tinycss2.color3

from stileblade.geometry.regions.fill import FillRule
from stileblade.outlines.reading.svg.measures import length, lengths

_URL = re.compile(r"url\(\s*['\"]?#([^'\")\s]{1,200})['\"]?\s*\)\s*(.*)", re.S)


@dataclass(frozen=True)
class Paint:
    """A colour as #rrggbb, or a reference with what stands in for it."""

    colour: str = ""
    ref: str = ""
    alpha: float = 1.0


NO_PAINT = Paint(alpha=0.0)
BLACK = Paint("#000000")


@dataclass(frozen=True)
class Style:
    """Inherited and own properties of an element; lengths in user units."""

    fill: Paint = BLACK
    stroke: Paint = NO_PAINT
    rule: FillRule = "nonzero"
    clip_rule: FillRule = "nonzero"
    fill_alpha: float = 1.0
    stroke_alpha: float = 1.0
    width: float = 1.0
    join: str = "miter"
    cap: str = "butt"
    mitre_limit: float = 4.0
    dashes: tuple[float, ...] = ()
    phase: float = 0.0
    visible: bool = True
    colour: Paint = BLACK
    family: str = ""
    size: float = 16.0
    anchor: str = "start"
    spacing: float = 0.0
    markers: bool = False
    alpha: float = 1.0
    """Of the element with all that it is in."""
    # not inherited
    shown: bool = True
    clip: str = ""
    masked: bool = False
    filtered: bool = False
    overflow: str = ""
    transform: str = ""
    fixed_stroke: bool = False


def styled(outer: Style, given: Mapping[str, str], diagonal: float) -> Style:
    """The style of an element with declarations ``given`` inside one of style ``outer``.

    ``diagonal`` is what percentages of widths of strokes are parts of.
    """
    return _styled(outer, tuple(given.items()), diagonal)


@lru_cache(maxsize=2000)
def _styled(outer: Style, declared: tuple[tuple[str, str], ...], diagonal: float) -> Style:
    """Drawings repeat a few sets of declarations over and over. As long as SVG has properties: a line or
    two for each."""
    given = dict(declared)
    size = _font_size(given, outer.size)
    changes: dict[str, object] = {
        "size": size,
        "shown": given.get("display", "").strip() != "none"
        and share_of(given.get("opacity"), 1.0) > 0,
        "alpha": outer.alpha * share_of(given.get("opacity"), 1.0),
        "clip": _url(given.get("clip-path", "")),
        "masked": bool(_url(given.get("mask", ""))),
        "filtered": bool(_url(given.get("filter", ""))),
        "overflow": given.get("overflow", "").strip(),
        "transform": given.get("transform", ""),
        "fixed_stroke": given.get("vector-effect", "").strip() == "non-scaling-stroke",
    }
    colour = paint_of(given.get("color"), outer.colour, outer.colour)
    changes["colour"] = colour
    for name, key in (("fill", "fill"), ("stroke", "stroke")):
        if key in given:
            changes[name] = paint_of(given[key], getattr(outer, name), colour)
    for name, key in (("rule", "fill-rule"), ("clip_rule", "clip-rule")):
        if given.get(key, "").strip() in ("nonzero", "evenodd"):
            changes[name] = given[key].strip()
    for name, key in (("fill_alpha", "fill-opacity"), ("stroke_alpha", "stroke-opacity")):
        if key in given:
            changes[name] = share_of(given[key], getattr(outer, name))
    for name, key, known in (
        ("join", "stroke-linejoin", ("miter", "round", "bevel", "miter-clip", "arcs")),
        ("cap", "stroke-linecap", ("butt", "round", "square")),
        ("anchor", "text-anchor", ("start", "middle", "end")),
    ):
        if given.get(key, "").strip() in known:
            changes[name] = given[key].strip()
    if "stroke-width" in given:
        changes["width"] = max(length(given["stroke-width"], diagonal, outer.width, em=size), 0.0)
    if "stroke-miterlimit" in given:
        limit = length(given["stroke-miterlimit"], 1, outer.mitre_limit)
        changes["mitre_limit"] = limit if limit >= 1 else outer.mitre_limit
    if given.get("stroke-dasharray", "inherit").strip() != "inherit":
        dashes = lengths(given["stroke-dasharray"], diagonal, size)
        changes["dashes"] = tuple(dashes) if dashes and min(dashes) >= 0 and sum(dashes) > 0 else ()
    if "stroke-dashoffset" in given:
        changes["phase"] = length(given["stroke-dashoffset"], diagonal, outer.phase, em=size)
    visibility = given.get("visibility", "inherit").strip()
    if visibility != "inherit":
        changes["visible"] = visibility not in ("hidden", "collapse")
    if given.get("letter-spacing", "").strip():
        changes["spacing"] = length(given["letter-spacing"], size, 0.0, em=size)
    family = given.get("font-family") or given.get("font", "")
    if family.strip() not in ("", "inherit"):
        changes["family"] = family.strip()[:200]
    marked = [
        given[k] for k in ("marker", "marker-start", "marker-mid", "marker-end") if k in given
    ]
    if marked:
        changes["markers"] = any(_url(m) for m in marked)
    return replace(outer, **changes)  # type: ignore[arg-type]


def _font_size(given: Mapping[str, str], outer: float) -> float:
    text = given.get("font-size")
    if text is None and "font" in given:
        match = re.search(r"(?<![\d.])([\d.]++(?:px|pt|mm|cm|in|em|%))", given["font"][:200])
        text = match.group(1) if match else None
    size = length(text, outer, outer, em=outer)
    return size if size > 0 else outer


def share_of(text: str | None, default: float) -> float:
    if text is None:
        return default
    return min(max(length(text, 1.0, default), 0.0), 1.0)


def _url(text: str) -> str:
    match = _URL.match(text.strip()) if "url" in text else None
    return match.group(1) if match else ""


def paint_of(text: str | None, outer: Paint, current: Paint) -> Paint:
    text = (text or "").strip()
    if not text or text == "inherit":
        return outer
    if text in ("none", "transparent"):
        return NO_PAINT
    if match := _URL.match(text):
        rest = match.group(2).strip()
        stand_in = paint_of(rest, NO_PAINT, current) if rest else NO_PAINT
        return Paint(stand_in.colour, match.group(1), stand_in.alpha)
    text = re.split(r"(?<!\s)\s++icc-color", text)[0]
    if text.lower() == "currentcolor":
        return current
    return _colour(text) or outer


@lru_cache(maxsize=2000)
def _colour(text: str) -> Paint | None:
    colour = tinycss2.color3.parse_color(text)
    if colour is None or isinstance(colour, str):
        return None
    return Paint(hex_of(colour.red, colour.green, colour.blue), "", colour.alpha)


def hex_of(red: float, green: float, blue: float) -> str:
    return "#" + "".join(f"{round(min(max(v, 0), 1) * 255):02x}" for v in (red, green, blue))
