"""Labels, tags and panels with a shaped edge."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from stileblade.fields import length, number_of
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.regions.region import Region
from stileblade.outlines.artwork import LayerOutlines
from stileblade.outlines.figure import Figure, painted, register_figure, require


@register_figure
class ScallopedRectangle(Figure):
    """A rectangle with scallops along all four sides, a whole number on each."""

    title = "Scalloped rectangle"
    words = "stamp doily frame"
    kind: Literal["scalloped-rectangle"] = "scalloped-rectangle"
    width: float = length(70, "Width", "Over the scallops' tops.", above=0)
    height: float = length(50, "Height", "Over the scallops' tops.", above=0)
    pitch: float = length(7, "Pitch", "Wished width of a scallop; adjusted to fit.", above=0.5)
    depth: float = length(2.5, "Depth", "From the notches out to the tops.", above=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        d = self.depth
        w, h = self.width - 2 * d, self.height - 2 * d
        least = min(self.width, self.height)
        require(
            min(w, h) > 0,
            "Scallops {} deep leave nothing of a side of {}.",
            d,
            least,
            field="depth",
            would_do=least / 8,
        )
        drawing = Drawing()
        drawing.move(d, d)
        for dx, dy, side in ((1, 0, w), (0, 1, h), (-1, 0, w), (0, -1, h)):
            n = max(1, round(side / self.pitch))
            half = side / n / 2
            radius = (half * half + d * d) / (2 * d)
            x, y = drawing.x, drawing.y
            for k in range(1, n + 1):
                to = side * k / n
                drawing.arc(radius, radius, 0, d > half, True, x + dx * to, y + dy * to)
        drawing.close()
        return painted(drawing)


@register_figure
class Tag(Figure):
    """A tag: shoulders at the head and a hole for the string."""

    title = "Tag"
    words = "label gift string hole luggage"
    kind: Literal["tag"] = "tag"
    width: float = length(50, "Width", "From left to right.", above=0)
    height: float = length(90, "Height", "From head to foot.", above=0)
    shoulder: float = length(14, "Shoulder", "How much is cut off each upper corner.", above=0)
    hole: float = length(5, "Hole", "Diameter; 0 leaves it out.", least=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        w, h, s = self.width, self.height, self.shoulder
        require(
            s < min(w / 2, h),
            "Shoulders of {} do not fit on a tag {} wide.",
            s,
            w,
            field="shoulder",
            would_do=min(w / 2, h) / 2,
        )
        require(
            self.hole < min(w - 2 * s, h) + s,
            "A hole of {} does not fit between the shoulders.",
            self.hole,
            field="hole",
            would_do=s / 2,
        )
        drawing = Drawing()
        drawing.move(s, 0)
        for x, y in ((w - s, 0), (w, s), (w, h), (0, h), (0, s)):
            drawing.line(x, y)
        drawing.close()
        if self.hole > 0:
            drawing.ellipse(w / 2, s, self.hole / 2, self.hole / 2)
            drawing.contours[1] = drawing.contours[1].reversed()
        return painted(drawing)


@register_figure
class BracketLabel(Figure):
    """A label whose ends are drawn like brackets."""

    title = "Bracket label"
    words = "plaque nameplate frame"
    kind: Literal["bracket"] = "bracket"
    width: float = length(80, "Width", "From tip to tip.", above=0)
    height: float = length(46, "Height", "From head to foot.", above=0)
    depth: float = length(8, "Depth", "How far the ends reach in and out.", above=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        w, h, d = self.width, self.height, self.depth
        require(
            2 * d < min(w, h),
            "Ends {} deep do not fit on a label of {} x {}.",
            *(d, w, h),
            field="depth",
            would_do=min(w, h) / 4,
        )
        drawing = Drawing()
        drawing.move(2 * d, 0)
        drawing.line(w - 2 * d, 0)
        drawing.arc(d, d, 0, False, False, w - d, d)
        drawing.cubic(w - d, h / 2 - d / 2, w - d / 2, h / 2 - d / 4, w, h / 2)
        drawing.cubic(w - d / 2, h / 2 + d / 4, w - d, h / 2 + d / 2, w - d, h - d)
        drawing.arc(d, d, 0, False, False, w - 2 * d, h)
        drawing.line(2 * d, h)
        drawing.arc(d, d, 0, False, False, d, h - d)
        drawing.cubic(d, h / 2 + d / 2, d / 2, h / 2 + d / 4, 0, h / 2)
        drawing.cubic(d / 2, h / 2 - d / 4, d, h / 2 - d / 2, d, d)
        drawing.arc(d, d, 0, False, False, 2 * d, 0)
        drawing.close()
        return painted(drawing)


@register_figure
class Arch(Figure):
    """A panel with an arched head."""

    title = "Arch"
    words = "window door round head"
    kind: Literal["arch"] = "arch"
    width: float = length(50, "Width", "From left to right.", above=0)
    height: float = length(80, "Height", "From the arch's top to the foot.", above=0)
    rise: float = length(25, "Rise", "Height of the arch above the straight sides.", above=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        w, h, r = self.width, self.height, self.rise
        require(
            r <= h,
            "An arch rising {} is higher than the panel of {}.",
            r,
            h,
            field="rise",
            would_do=h / 2,
        )
        drawing = Drawing()
        drawing.move(0, r)
        if r <= w / 2:
            radius = (w * w / 4 + r * r) / (2 * r)
            drawing.arc(radius, radius, 0, False, True, w, r)
        else:
            drawing.arc(w / 2, r, 0, False, True, w, r)
        drawing.line(w, h)
        drawing.line(0, h)
        drawing.close()
        return painted(drawing)


@register_figure
class WaveTop(Figure):
    """A panel whose head is a wave, whole waves from side to side."""

    title = "Wave-topped panel"
    words = "sea water swell"
    kind: Literal["wave-top"] = "wave-top"
    width: float = length(100, "Width", "From left to right.", above=0)
    height: float = length(60, "Height", "From the crests to the foot.", above=0)
    waves: int = number_of(3, "Waves", "How many whole waves.", least=1, most=60)
    depth: float = length(8, "Depth", "From crest to trough.", above=0)

    def outline(self, shelf: Mapping[str, LayerOutlines]) -> Region:
        w, h, d = self.width, self.height, self.depth
        require(d < h, "Waves {} deep leave nothing of {}.", d, h, field="depth", would_do=h / 4)
        half = w / self.waves / 2
        handle = half * 0.3642  # the handle length that comes nearest to a sine
        drawing = Drawing()
        drawing.move(0, d)
        for k in range(2 * self.waves):
            y0, y1 = (d, 0.0) if k % 2 == 0 else (0.0, d)
            x0, x1 = half * k, half * (k + 1)
            drawing.cubic(x0 + handle, y0, x1 - handle, y1, x1, y1)
        drawing.line(w, h)
        drawing.line(0, h)
        drawing.close()
        return painted(drawing)
