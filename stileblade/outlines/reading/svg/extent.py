"""The contours of an element as they lie, painted or not: what its box is of."""

from __future__ import annotations

from collections.abc import Mapping

from lxml import etree

from stileblade.geometry.curves.segments import Floats, Segments
from stileblade.geometry.curves.transforms import after, translation
from stileblade.geometry.paths.pathdata import read_path_to_error
from stileblade.outlines.reading.svg import measures
from stileblade.outlines.reading.svg.place import Place
from stileblade.outlines.reading.svg.xml import link_of, local_name


def collect(
    element: etree._Element,
    place: Place,
    ids: Mapping[str, etree._Element],
    matrix: Floats,
    found: list[Segments],
    depth: int,
) -> None:
    """Puts the contours of an element, and of all that is in it, into ``found``."""
    name = local_name(element)
    if depth > 32 or len(found) > 5000:
        return
    if name in ("g", "a", "switch"):
        for child in element:
            own = measures.transform(child.get("transform")) if local_name(child) else None
            if own is not None:
                inner = after(matrix, own)
                collect(child, place, ids, inner, found, depth + 1)
    elif name == "use":
        target = ids.get(link_of(element))
        if target is not None:
            x = measures.length(element.get("x"), place.width, 0)
            y = measures.length(element.get("y"), place.height, 0)
            own = measures.transform(target.get("transform"))
            inner = after(matrix, translation(x, y))
            if own is not None:
                inner = after(inner, own)
            collect(target, place, ids, inner, found, depth + 1)
    elif name:
        drawing = (
            read_path_to_error(element.get("d", ""))[0]
            if name == "path"
            else measures.shape(element, name, place.width, place.height)
        )
        if drawing is not None:
            found += [c.transformed(matrix) for c in (*drawing.contours, *drawing.open)]
