"""A font: its glyphs as contours, and how a run of text is set in it.

Glyph outlines come from fontTools, advances, kerning and ligatures from HarfBuzz. Fonts
that were split by subset are one font of several files: each character is taken from the
first that has it.
"""

from __future__ import annotations

import io
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import uharfbuzz as hb
from fontTools.pens.basePen import BasePen
from fontTools.ttLib import TTFont

from stileblade.errors import GeometryError, ReadingError
from stileblade.geometry.curves.segments import Floats, Segments, transformed_all
from stileblade.geometry.curves.transforms import after, scaling, translation
from stileblade.geometry.paths.drawing import Drawing
from stileblade.geometry.regions.fill import Painted, fill_all
from stileblade.words import say

MOST_BYTES = 12_000_000
_WORKING_EM = 200.0
"""mm: the size at which the parts of a letter are united."""
_BROKEN = ReadingError(
    "This is no font that can be read.", hint="Choose a TTF, OTF, WOFF or WOFF2 file."
)


@dataclass(frozen=True)
class SetText:
    """contours in mm, the first letter's origin at (0, 0) on the base line; how far it runs on;
    characters that the font has not."""

    contours: list[Segments]
    advance: float
    missing: str


class Font:
    """One font of one or more files. ``ReadingError`` for what is no font."""

    def __init__(self, files: list[bytes]) -> None:
        self.files = [_File(content) for content in files]

    @property
    def name(self) -> str:
        return self.files[0].name

    @property
    def cap_height(self) -> float:
        """Height of the letter H, in parts of the font's size."""
        return self.files[0].cap_height

    def set_line(self, text: str, size: float, *, spacing: float = 0.0) -> SetText:
        """One line, the font's size (its em) being ``size`` mm, with ``spacing`` mm more
        between letters."""
        contours: list[Segments] = []
        matrices: list[Floats] = []
        x, missing = 0.0, ""
        for file, run in self._runs(text):
            if file is None:
                missing += run
                continue
            shaped = file.shaped(run, kerned=spacing == 0)
            file.unite({glyph for glyph, *_ in shaped})
            scale = size / file.em
            for glyph, dx, dy, advance in shaped:
                matrix = after(translation(x + dx * scale, -dy * scale), scaling(scale, scale))
                contours += file.glyph(glyph)
                matrices += [matrix] * (len(contours) - len(matrices))
                x += advance * scale + spacing
        contours = transformed_all(contours, matrices)
        return SetText(contours, x - (spacing if contours else 0.0), missing)

    def _runs(self, text: str) -> list[tuple[_File | None, str]]:
        found: list[tuple[_File | None, str]] = []
        for letter in text:
            file = next((f for f in self.files if f.has(letter)), None)
            if found and found[-1][0] is file:
                found[-1] = (file, found[-1][1] + letter)
            else:
                found.append((file, letter))
        return found


class _File:
    def __init__(self, content: bytes) -> None:
        if len(content) > MOST_BYTES:
            raise ReadingError(
                say("The font has {size:.1f} MB; at most 12 MB are read.", size=len(content) / 1e6)
            )
        try:
            self.font = TTFont(io.BytesIO(content), lazy=True, fontNumber=0)
            self.cmap: dict[int, str] = self.font.getBestCmap() or {}
            self.em = float(self.font["head"].unitsPerEm)
        except Exception as error:  # in a broken font the parser runs into anything
            raise _BROKEN from error
        if not self.cmap or not 16 <= self.em <= 16384:
            raise ReadingError("The font has no letters.", hint="Choose another font.")
        self._content = content
        self._contours: dict[str, list[Segments]] = {}

    # what takes long is done when letters of this file are set: many texts need one file of two

    @cached_property
    def _unpacked(self) -> tuple[Any, Any]:
        """The glyphs as fontTools has them, and the font as HarfBuzz does."""
        font, content = self.font, self._content
        try:
            if content[:4] in (b"wOFF", b"wOF2"):
                plain = TTFont(io.BytesIO(content), fontNumber=0, recalcBBoxes=False)
                plain.flavor = None
                out = io.BytesIO()
                plain.save(out, reorderTables=False)
                content = out.getvalue()
                font = TTFont(io.BytesIO(content), lazy=True)
            return font.getGlyphSet(), hb.Font(hb.Face(content))
        except Exception as error:  # as above
            raise _BROKEN from error

    @cached_property
    def name(self) -> str:
        return str(self.font["name"].getBestFullName() or "") if "name" in self.font else ""

    @cached_property
    def cap_height(self) -> float:
        known = (
            float(getattr(self.font["OS/2"], "sCapHeight", 0) or 0) if "OS/2" in self.font else 0
        )
        if known <= 0 and self.has("H"):
            ys = [y for c in self.glyph(self.cmap[ord("H")]) for y in c.start[:, 1]]
            known = -min(ys, default=0.0)
        return (known or 0.7 * self.em) / self.em

    def has(self, letter: str) -> bool:
        return ord(letter) in self.cmap

    def shaped(self, text: str, *, kerned: bool) -> list[tuple[str, float, float, float]]:
        """Per glyph: its name, shift right and up, and advance, in font units."""
        buffer = hb.Buffer()
        buffer.add_str(text)
        buffer.guess_segment_properties()
        # spread letters are set one by one: ligatures would keep theirs together
        hb.shape(self._unpacked[1], buffer, {"kern": True, "liga": kerned, "clig": kerned})
        order = self.font.getGlyphOrder()
        return [
            (order[i.codepoint], p.x_offset, p.y_offset, p.x_advance)
            for i, p in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True)
        ]

    def glyph(self, name: str) -> list[Segments]:
        """The glyph's closed contours in font units, y downwards, none of which cross."""
        self.unite({name})
        return self._contours[name]

    def unite(self, names: set[str]) -> None:
        """Parts of letters that were drawn across each other made one, for all of a line
        together: done once, it need not be done for each line that they stand in."""
        new = sorted(names - self._contours.keys())
        drawn = [self._drawn(name) for name in new]
        to_work = scaling(_WORKING_EM / self.em, _WORKING_EM / self.em)
        back = scaling(self.em / _WORKING_EM, self.em / _WORKING_EM)
        paintings = [Painted([c.transformed(to_work) for c in contours]) for contours in drawn]
        try:
            for name, region in zip(new, fill_all(paintings), strict=True):
                self._contours[name] = [c.segments.transformed(back) for c in region.contours]
        except GeometryError:  # they stay as they were drawn
            self._contours.update(zip(new, drawn, strict=True))

    def _drawn(self, name: str) -> list[Segments]:
        glyphs, _ = self._unpacked
        pen = _DrawingPen(glyphs)
        try:
            glyphs[name].draw(pen)
        except Exception as error:  # as above
            raise ReadingError(
                say("The font's glyph {name!r} is broken.", name=name[:40])
            ) from error
        pen.drawing.finish()
        return pen.drawing.contours


class _DrawingPen(BasePen):  # type: ignore[misc]
    """fontTools' pen protocol into a Drawing, y turned downwards; every contour is closed."""

    def __init__(self, glyphs: Any) -> None:
        super().__init__(glyphs)
        self.drawing = Drawing()

    def _moveTo(self, point: tuple[float, float]) -> None:  # noqa: N802
        self.drawing.move(point[0], -point[1])

    def _lineTo(self, point: tuple[float, float]) -> None:  # noqa: N802
        self.drawing.line(point[0], -point[1])

    def _curveToOne(self, a: Any, b: Any, point: Any) -> None:  # noqa: N802
        self.drawing.cubic(a[0], -a[1], b[0], -b[1], point[0], -point[1])

    def _qCurveToOne(self, control: Any, point: Any) -> None:  # noqa: N802
        self.drawing.quad(control[0], -control[1], point[0], -point[1])

    def _closePath(self) -> None:  # noqa: N802
        self.drawing.close()

    def _endPath(self) -> None:  # noqa: N802
        self.drawing.close()
