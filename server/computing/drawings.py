"""Jobs on drawings and laid sheets: what is found out of their outlines for the shelf and for pieces moved by hand. They know
neither web nor database."""

from __future__ import annotations

import json
from typing import Any

from pydantic import BaseModel

from server.computing.wishes import Number
from stileblade.errors import DocumentError
from stileblade.fields import Values
from stileblade.geometry.measures.distances import rings_of, thin
from stileblade.geometry.paths.pathdata import path_data
from stileblade.geometry.regions.fill import fill
from stileblade.outlines.artwork import Artwork, outlines_of
from stileblade.outlines.drawing import Drawing
from stileblade.outlines.text.shipped import KINDS, Face, shipped
from stileblade.sheets.kept import KeptJob, KeptPiece
from stileblade.sheets.moving import (
    Nearness,
    measured,
    nearness,
    placed_anew,
    sheet_of,
    used_paths,
)
from stileblade.views.places import Bounds, box_of, ring_path
from stileblade.words import say

CAPITALS = 20.0
"""mm: how high they are in a picture of a word."""


class WordPicture(BaseModel):
    """islands: whether there are counters, which drop out where the word is cut as a window."""

    font: str
    title: str
    path: str
    box: Bounds
    missing: str
    islands: bool


class Move(Values):
    """A piece of a laid sheet, by its number there, and where it shall lie; ``about_middle`` keeps its middle where it was,
    whatever its place says."""

    sheet: Number
    index: Number
    to: Number
    piece: KeptPiece
    about_middle: bool = False


def artwork_row(drawing: Drawing | Artwork) -> dict[str, Any]:
    """What the shelf keeps of a drawing: its key, its outlines as they were read, its measures in mm and a small picture.
    StepError where its outlines cannot be read."""
    artwork = drawing.artwork() if isinstance(drawing, Drawing) else drawing
    outlines = outlines_of(artwork)
    box = outlines.union().bounds
    tolerance = max(box.width, box.height) / 400
    layers = [
        {
            "name": layer.name,
            "colour": layer.colour,
            "path": ring_path(rings_of(thin(region, tolerance)), 2) if region else "",
            "contours": len(region.shell),
            "openings": len(region.openings),
            "nodes": region.nodes,
        }
        for layer, region in zip(artwork.layers, outlines.layers, strict=True)
    ]
    return {
        "key": artwork.key,
        "name": artwork.name,
        "data": artwork.model_dump(mode="json"),
        "width": box.width,
        "height": box.height,
        "picture": {"box": box.as_list(), "layers": layers},
    }


def words_in_faces(text: str) -> list[dict[str, Any]]:
    """A word in each of the shipped fonts."""
    found = []
    for face in Face:
        line = shipped(face).set_line(" ".join(text.split()), CAPITALS / shipped(face).cap_height)
        region = fill(line.contours)
        picture = WordPicture(
            font=face,
            title=KINDS[face].title,
            path=path_data(region, 2),
            box=box_of(region.bounds),
            missing="".join(dict.fromkeys(line.missing.strip())),
            islands=region.pieces > 0 and len(region.openings) > 0,
        )
        found.append(picture.model_dump(mode="json"))
    return found


def near(layout: KeptJob, move: Move) -> Nearness:
    """How a piece would lie elsewhere."""
    without = move.index if move.sheet == move.to else -1
    return nearness(layout, move.to, _lying(layout, move), without=without)


def placed(layout: KeptJob, move: Move) -> KeptJob:
    """The layout with a piece put elsewhere, or locked; DocumentError where it may not lie there."""
    return placed_anew(layout, move.sheet, move.index, move.to, _lying(layout, move))


def used(layout: KeptJob, sheet: int) -> list[str]:
    """What of a sheet is used, as path data."""
    return used_paths(layout, sheet)


def _lying(layout: KeptJob, move: Move) -> KeptPiece:
    on = sheet_of(layout, move.sheet)
    if move.index >= len(on.pieces):
        raise DocumentError(
            say(
                "There is no piece {index} on sheet {sheet}.",
                index=move.index + 1,
                sheet=move.sheet + 1,
            )
        )
    was = measured(layout, on.pieces[move.index])
    return measured(layout, move.piece, about=was if move.about_middle else None)


def as_bytes(found: Any) -> bytes:
    """Plain data or a model as JSON."""
    if isinstance(found, BaseModel):
        return found.model_dump_json().encode()
    return json.dumps(found).encode()
