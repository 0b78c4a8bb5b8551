"""The folded card in any pose as a picture of its own."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from lxml import etree

from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.errors import StilebladeError
from stileblade.views.folded import FoldedPicture, layers_on, picture_of
from stileblade.views.sheets import card_of

_NS = "http://www.w3.org/2000/svg"
_INK = "#33424f"
_LEAST = 1e-6


def seen_through(light: float) -> dict[str, str]:
    """Attributes of what lets a share of light through."""
    return {"fill-opacity": f"{1 - light:.2f}"} if light else {}


def posed_svg(
    evaluation: Evaluation,
    piece: PieceOutcome,
    angles: Sequence[float],
    eye: Sequence[float],
    up: Sequence[float],
    apart: float = 0.0,
) -> bytes:
    """An SVG on a transparent ground, folds at ``angles`` in degrees, seen from the direction ``eye``
    with ``up`` upwards. StilebladeError where nothing can be seen so."""
    piece = card_of(evaluation, piece)
    work = piece.work
    if work is None or not work.paper:
        raise StilebladeError(
            "There is no paper to be seen yet.",
            hint="Start with a blank or a figure.",
            code="empty",
        )
    if len(angles) != len(work.folds):
        raise StilebladeError(
            f"{len(angles)} angles are given for {len(work.folds)} folds.",
            hint="Look at the card again, and save the picture then.",
            code="angles",
        )
    towards, upwards = np.array(eye, float), np.array(up, float)
    if min(np.linalg.norm(towards), np.linalg.norm(np.cross(upwards, towards))) < _LEAST:
        raise StilebladeError(
            "The eye looks along what is up.", hint="Turn the card a little.", code="eye"
        )
    towards /= np.linalg.norm(towards)
    layers = layers_on(evaluation, piece, apart)
    picture = picture_of(work, piece.paper, angles, eye=towards, up=upwards, layers=layers)
    return svg_of(picture, evaluation.design.name)


def svg_of(picture: FoldedPicture, title: str) -> bytes:
    """A picture as an SVG on a transparent ground."""
    left, head, width, height = picture.box
    margin = max(width, height) * 0.02
    root = etree.Element(
        f"{{{_NS}}}svg",
        {
            "viewBox": f"{left - margin:.2f} {head - margin:.2f} "
            f"{width + 2 * margin:.2f} {height + 2 * margin:.2f}",
            "width": f"{width + 2 * margin:.2f}mm",
            "height": f"{height + 2 * margin:.2f}mm",
        },
        nsmap={None: _NS},  # type: ignore[dict-item]
    )
    etree.SubElement(root, f"{{{_NS}}}title").text = title
    style = {"stroke": _INK, "stroke-width": "0.25", "stroke-linejoin": "round"}
    group = etree.SubElement(root, f"{{{_NS}}}g", {"fill-rule": "evenodd", **style})
    for shape in picture.shapes:
        ink = {"fill": shape.fill, **seen_through(shape.light)}
        if shape.what == "line":
            ink = {"fill": "none", "stroke": shape.fill}
        elif shape.what == "print":
            ink["stroke"] = "none"
        etree.SubElement(group, f"{{{_NS}}}path", {"d": shape.path, **ink})
    return bytes(etree.tostring(root, xml_declaration=True, encoding="utf-8"))
