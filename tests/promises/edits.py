"""Random cards and random edits of them, made from the schemas of what is registered."""

from __future__ import annotations

import copy
from typing import Any

from hypothesis import strategies as st

from stileblade.card.ways import WAYS
from stileblade.steps.step import STEPS, StartsWith
from tests.promises.values import BY_KIND, Values, starts, steps, values_of
from tests.steps.kinds.test_layers import SQUARES

LAYERS = [cls for cls in STEPS if cls.starts_with is StartsWith.LAYER]
LAYER_VALUES = {
    str(cls.model_fields["kind"].default): values_of(cls.model_json_schema()) for cls in LAYERS
}
ON_LAYERS = [values_of(cls.model_json_schema()) for cls in STEPS if cls.for_layers]
SIZES = [(105.0, 148.0), (107.95, 139.7), (150.0, 150.0), (90.0, 120.0)]
Document = dict[str, Any]
Edit = tuple[str, int, int, Any]
_places = st.fixed_dictionaries(
    {
        "panel": st.sampled_from(["", "", "front", "back", "left door"]),
        "side": st.sampled_from(["outside", "inside", "around"]),
        "order": st.integers(-2, 5),
        "fixing": st.sampled_from(["glue", "pads", "tucked"]),
    }
)
_values = {**BY_KIND, **LAYER_VALUES}
_edits = st.one_of(
    st.tuples(st.just("values"), st.integers(0, 9), st.integers(0, 9), st.randoms()),
    st.tuples(st.just("switch"), st.integers(0, 9), st.integers(0, 9), st.none()),
    st.tuples(st.just("move"), st.integers(0, 9), st.integers(0, 9), st.none()),
    st.tuples(st.just("place"), st.integers(0, 9), st.just(0), _places),
    st.tuples(st.just("size"), st.just(0), st.just(0), st.sampled_from(SIZES)),
    st.tuples(st.just("way"), st.just(0), st.just(0), st.sampled_from(WAYS.names())),
    st.tuples(st.just("paper"), st.just(0), st.just(0), st.sampled_from([0.2, 0.3, 0.6])),
    st.tuples(st.just("order"), st.integers(0, 9), st.just(0), st.none()),
    st.tuples(st.just("step"), st.integers(0, 9), st.just(0), steps),
)


@st.composite
def cards(draw: st.DrawFn, most: int = 4) -> Document:
    """A base of up to four steps with up to ``most`` layers, on each other or on the base."""
    base = [draw(starts), *draw(st.lists(steps, max_size=3))]
    pieces: list[dict[str, Any]] = [{"id": "base", "name": "Base", "steps": base}]
    for number in range(draw(st.integers(1, most))):
        start = draw(st.sampled_from(sorted(LAYER_VALUES)).flatmap(LAYER_VALUES.__getitem__))
        more = draw(st.one_of(st.just([]), st.one_of(ON_LAYERS).map(lambda v: [v])))
        host = draw(st.sampled_from(["base", "base", *(p["id"] for p in pieces)]))
        pieces.append({"id": f"p{number}", "name": f"Piece {number}", "host": host,
                       "steps": [start, *more], **draw(_places)})  # fmt: skip
    for piece in pieces:
        piece["steps"] = [{**s, "id": f"s{n}"} for n, s in enumerate(piece["steps"], 1)]
    width, height = draw(st.sampled_from(SIZES))
    return {
        "card": {
            "size": {"name": "own", "width": width, "height": height},
            "folding": {"kind": draw(st.sampled_from(WAYS.names()))},
        },
        "papers": [{"thickness": 0.3, "sheet_width": 320, "sheet_height": 450}],
        "pieces": pieces,
        "artworks": SQUARES,
    }


@st.composite
def edited(draw: st.DrawFn, *, most: int = 6) -> list[Document]:
    """A card, and what it becomes by one edit after the other."""
    found = [draw(cards())]
    for _ in range(most):
        what, at, step, value = draw(_edits)
        document = copy.deepcopy(found[-1])
        pieces = document["pieces"]
        piece = pieces[at % len(pieces)]
        made = piece["steps"]
        number = step % len(made)
        if what == "values":
            fresh = draw(_values.get(made[number]["kind"], st.just({})))
            made[number] = {**made[number], **fresh, "id": made[number]["id"]}
        elif what == "switch":
            made[number]["on"] = not made[number].get("on", True)
        elif what == "move" and len(made) > 1:
            made.insert(step % (len(made) - 1), made.pop(number))
        elif what == "place" and piece["id"] != "base":
            piece.update(value)
        elif what == "size":
            document["card"]["size"] |= {"width": value[0], "height": value[1]}
        elif what == "way":
            document["card"]["folding"] = {"kind": value}
        elif what == "paper":
            document["papers"][0]["thickness"] = value
        elif what == "order" and len(pieces) > 2:
            pieces.insert(1, pieces.pop(1 + at % (len(pieces) - 1)))
        elif what == "step":
            made.append({**value, "id": f"n{len(found)}"})
        found.append(document)
    return found


def loaded(document: Document, load: Any) -> Any | None:
    """The design, or None where an edit made a document that is refused."""
    from stileblade.errors import DocumentError

    try:
        return load(document)
    except DocumentError:
        return None


__all__ = ["Document", "Values", "cards", "edited", "loaded"]
