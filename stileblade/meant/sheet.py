"""A sheet as it was meant: which pieces lie where, and their lines.

Places are in mm from the sheet's head left, y downwards, as in the flat view. The file is made when a
sheet is laid out, and goes with what is sent to the machine.
"""

from __future__ import annotations

import json
from dataclasses import dataclass, field, replace
from pathlib import Path

import numpy as np
from pydantic import Field, ValidationError

from stileblade.errors import DocumentError, ReadingError
from stileblade.fields import Values
from stileblade.geometry.curves.flatten import subdivide
from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures.nearness import Near
from stileblade.geometry.paths.pathdata import read_path
from stileblade.machine.operation import Operation
from stileblade.words import say

MOST_BYTES = 40_000_000
_BRIDGE = 2.0
"""mm: what is left uncut at most at a bridge whose place is not known."""
_ROUNDING = 0.15


class MeantPiece(Values):
    """A piece on the sheet: its design's and its own name; its lines as path data, by operation."""

    design: str
    piece: str
    x_mm: float = 0
    y_mm: float = 0
    turn_deg: float = 0
    flipped: bool = False
    held: bool = False
    """Whether holding bridges keep it in its sheet."""
    bridges: tuple[tuple[float, float], ...] = Field((), max_length=2000)
    """The middles of its holding bridges on the sheet; sheets from before 2026-12 do not say them."""
    bridge_width: float = 0
    lines: dict[Operation, str]


class MeantSheet(Values):
    """What a sheet is to become."""

    job: str = ""
    number: int = 1
    paper: str = ""
    format_mm: tuple[float, float]
    pieces: tuple[MeantPiece, ...] = Field(max_length=20_000)
    others: dict[Operation, str] = {}
    """Lines of no piece, such as register holes."""
    runs: int = Field(1, ge=1, le=99)
    """How many times the file runs along each cut."""
    registered: bool = False
    """Whether it is worked on in another set-up, too, so that it has to lie in the same place."""


@dataclass(frozen=True, eq=False)
class MeantLine:
    """A line in the machine's frame: places (n, 2), y upwards; ``piece`` is its number, -1 for none."""

    operation: Operation
    piece: int
    places: Floats
    closed: bool
    bridges: Floats = field(default_factory=lambda: np.zeros((0, 2)))
    """The middles (k, 2) of the holding bridges that are left uncut on it."""
    bridge_width: float = 0.0
    bridges_anywhere: bool = False
    """Whether it has bridges, and its sheet does not say where."""

    def moved(self, matrix: Floats) -> MeantLine:
        places, bridges = (p @ matrix[:, :2].T + matrix[:, 2] for p in (self.places, self.bridges))
        return replace(self, places=places, bridges=bridges)

    def is_bridge(self, places: Floats) -> bool:
        """Whether places (n, 2) that are not cut are all within one holding bridge."""
        if self.bridges_anywhere:
            return float(norms(places - places[0]).max()) <= _BRIDGE
        if not len(self.bridges):
            return False
        away = norms(places[None] - self.bridges[:, None]).max(axis=1)
        return bool(away.min() <= self.bridge_width / 2 + _ROUNDING)

    def leaves_open(self, place: Floats, gap_mm: float) -> bool:
        """Whether a gap about a place (1, 2) is a holding bridge."""
        known = self.bridge_width + 2 * _ROUNDING
        return gap_mm <= (_BRIDGE if self.bridges_anywhere else known) and self.is_bridge(place)


def read_meant(path: Path) -> MeantSheet:
    """The sheet of a file: one that was written with the sheets, or an entry of what ``sheets`` printed,
    which names it. DocumentError says what is wrong."""
    data = _json(path)
    named = data.get("meant")
    if "format_mm" in data and isinstance(named, str):
        for place in (Path(named), path.parent / named, path.parent / Path(named).name):
            if place.is_file():
                data = _json(place)
                break
        else:
            raise DocumentError(
                say(
                    "{name}: the sheet's own file {named!r} is not there.",
                    name=path.name,
                    named=named[:80],
                )
            )
    return _validated(data, path.name)


def sheet_of_text(text: str | bytes, name: str) -> MeantSheet:
    """The sheet that a file's text is, for sheets' own files alone; ``name`` is the file's. DocumentError says what is
    wrong."""
    return _validated(_parsed(text, name), name)


def _validated(data: dict[str, object], name: str) -> MeantSheet:
    try:
        return MeantSheet.model_validate(data)
    except ValidationError as error:
        first = error.errors()[0]
        place = ".".join(str(p) for p in first["loc"]) or "sheet"
        raise DocumentError(
            f"{name}: {place}: {first['msg']}.",
            hint="Take the file that ends in .sheet.json, as it was saved with the sheets.",
        ) from error


def _json(path: Path) -> dict[str, object]:
    try:
        if path.stat().st_size > MOST_BYTES:
            raise DocumentError(
                say(
                    "{name}: larger than {most_bytes} MB.",
                    name=path.name,
                    most_bytes=MOST_BYTES // 1_000_000,
                )
            )
        return _parsed(path.read_bytes(), path.name)
    except OSError as error:
        raise DocumentError(f"{path}: {error.strerror or error}.") from error


def _parsed(text: str | bytes, name: str) -> dict[str, object]:
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise DocumentError(
            say("{name}: is no JSON ({what}).", name=name, what=str(error)[:80])
        ) from error
    if not isinstance(data, dict):
        raise DocumentError(say("{name}: a sheet is an object.", name=name))
    return data


def meant_lines(sheet: MeantSheet) -> list[MeantLine]:
    """All lines of the sheet."""
    found: list[MeantLine] = []
    height = sheet.format_mm[1]
    every: list[tuple[int, dict[Operation, str], MeantPiece | None]] = [
        *((number, piece.lines, piece) for number, piece in enumerate(sheet.pieces)),
        (-1, sheet.others, None),
    ]
    for number, lines, piece in every:
        for operation, text in lines.items():
            try:
                drawing = read_path(text)
            except ReadingError as error:
                raise DocumentError(
                    say(
                        "The sheet's {operation} lines are broken: {error}",
                        operation=operation,
                        error=error,
                    )
                ) from error
            for contour, closed in (
                *((c, True) for c in drawing.contours), *((c, False) for c in drawing.open),
            ):  # fmt: skip
                line = MeantLine(operation, number, _flat(contour, height), closed)
                if piece is not None and piece.held and operation is Operation.CUT_OUTER:
                    line = _bridged(line, piece, height)
                found.append(line)
    return found


def _bridged(line: MeantLine, piece: MeantPiece, height: float) -> MeantLine:
    """The outline with those of its piece's bridges that lie on it."""
    if not piece.bridges:
        return replace(line, bridges_anywhere=True)
    places = np.array(piece.bridges) * [1.0, -1.0] + [0.0, height]
    own = Near([line.places]).away(places) <= _ROUNDING
    return replace(line, bridges=places[own], bridge_width=piece.bridge_width)


def _flat(segments: Segments, height: float) -> Floats:
    index, t = subdivide(segments)
    places = np.concatenate([segments.points_at(index, t), segments.end[-1:]])
    return np.stack([places[:, 0], height - places[:, 1]], axis=1)
