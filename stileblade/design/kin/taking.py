"""Differences taken over into another member of the family."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import count
from typing import Any

from pydantic import BaseModel

from stileblade.design.document import Card, Design, load_design
from stileblade.design.kin.differences import Difference, How, Json, Names, What, as_json
from stileblade.design.kin.here import is_length, ratio_of, scaled_length
from stileblade.design.refold import refold


def with_differences(
    target: Design,
    source: Design,
    found: Sequence[tuple[Difference, How]],
    names: Names,
    *,
    fixed: bool = False,
) -> tuple[Design, Names]:
    """The target with what was found in the source, and the names with those of what was added. ``fixed``:
    that gets the keys that the names say already. DocumentError where it would be no design."""
    ratio = ratio_of(source, target)
    taken = _Taken(as_json(target), source, names, fixed=fixed)
    card: Json = {}
    for one, how in found:
        if how is How.LEFT:
            continue
        after = one.after
        if how is How.SCALED and is_length(one):
            after = scaled_length(float(after), ratio)
        elif how is How.SCALED and one.what in (What.STEP, What.PIECE):
            after = _all_scaled(source, one, ratio)
        if one.what is What.CARD:
            _put(card, one.path, after)
        else:
            taken.take(one, after)
    made = load_design(taken.data)
    if card:  # folded another way, steps are placed anew
        own = as_json(made.card)
        folding = {**own["folding"], **card.pop("folding", {})}
        made = refold(made, Card.model_validate({**own, **card, "folding": folding})).design
    return made, Names(taken.named)


def _put(data: Json, path: str, value: Any) -> None:
    *way, last = path.split(".")
    for name in way:
        data = data.setdefault(name, {})
    data[last] = value


class _Taken:
    """A document's data that takes one difference after the other."""

    def __init__(self, data: Json, source: Design, names: Names, *, fixed: bool) -> None:
        self.data, self.source, self.fixed = data, source, fixed
        self.named = dict(names.other)

    @property
    def names(self) -> Names:
        return Names(self.named)

    @property
    def pieces(self) -> dict[str, Json]:
        return {p["id"]: p for p in self.data["pieces"]}

    def take(self, one: Difference, after: Any) -> None:
        if one.what is What.PAPER:
            self._paper(one, after)
        elif one.what is What.PIECE:
            self._add_piece(one, after)
        elif (piece := self.pieces.get(self.names.piece(one.piece))) is not None:
            if one.what is What.PIECE_GONE:
                self.data["pieces"].remove(piece)
            elif one.what is What.ORDER:
                piece["steps"] = self._ordered(one, after, piece["steps"])
            elif one.what is What.STEP:
                self._add_step(one, after, piece["steps"])
            elif one.step:
                self._change_step(one, after, piece["steps"])
            else:
                _put(piece, one.path, self.names.piece(after) if one.path == "host" else after)
                self._bring_paper(piece)

    def _ordered(self, one: Difference, after: list[str], steps: list[Json]) -> list[Json]:
        wanted = [self.names.step(one.piece, s) for s in after]
        among = [s for s in steps if s["id"] in wanted]
        moved = iter(sorted(among, key=lambda s: wanted.index(s["id"])))
        return [next(moved) if s["id"] in wanted else s for s in steps]

    def _change_step(self, one: Difference, after: Any, steps: list[Json]) -> None:
        key = self.names.step(one.piece, one.step)
        step = next((s for s in steps if s["id"] == key), None)
        if step is None:
            return
        if one.what is What.STEP_GONE:
            steps.remove(step)
            return
        _put(step, one.path, after)
        self._bring_artworks(step)

    def _paper(self, one: Difference, after: Any) -> None:
        papers: list[Json] = self.data["papers"]
        paper = next((p for p in papers if p["id"] == one.piece), None)
        if paper is not None and one.path:
            _put(paper, one.path, after)
        elif paper is None and not one.path:
            papers.append(after)

    def _add_step(self, one: Difference, after: Json, steps: list[Json]) -> None:
        key = self._key(f"{one.piece}/{one.step}", one.step, {s["id"] for s in steps}, "s")
        behind = self.names.step(one.piece, one.behind)
        at = next((n + 1 for n, s in enumerate(steps) if s["id"] == behind), 0)
        steps.insert(at if one.behind else 0, {**after, "id": key})
        self._bring_artworks(after)

    def _add_piece(self, one: Difference, after: Json) -> None:
        pieces: list[Json] = self.data["pieces"]
        key = self._key(one.piece, one.piece, set(self.pieces), "piece-")
        behind, host = self.names.piece(one.behind), self.names.piece(after["host"])
        at = next((n + 1 for n, p in enumerate(pieces) if p["id"] == behind), len(pieces))
        made = {**after, "id": key, "host": host if host in self.pieces else ""}
        pieces.insert(at, made)
        self._bring_paper(made)
        for step in made["steps"]:
            self._bring_artworks(step)

    def _key(self, place: str, wished: str, taken: set[str], prefix: str) -> str:
        key = self.named.get(place, "") if self.fixed else ""
        if not key or key in taken:
            key = wished
        if key in taken:
            key = next(k for n in count(1) if (k := f"{prefix}{n}") not in taken)
        self.named[place] = key
        return key

    def _bring_paper(self, piece: Json) -> None:
        """A piece's paper comes with it."""
        if piece["paper"] not in {p["id"] for p in self.data["papers"]}:
            papers = [as_json(p) for p in self.source.papers if p.id == piece["paper"]]
            self.data["papers"] += papers

    def _bring_artworks(self, step: Json) -> None:
        """So do the artworks that a step names."""
        own = self.data["artworks"]
        for key in _texts(step):
            if key in self.source.artworks and key not in own:
                own[key] = as_json(self.source.artworks[key])


def _texts(values: Any) -> Iterator[str]:
    if isinstance(values, str):
        yield values
    for value in values.values() if isinstance(values, dict) else ():
        yield from _texts(value)


def _all_scaled(source: Design, one: Difference, ratio: float) -> Json:
    """A step or piece of the source with all its lengths scaled."""
    piece = next(p for p in source.pieces if p.id == one.piece)
    if one.what is What.STEP:
        return _lengths_scaled(next(s for s in piece.steps if s.id == one.step), ratio)
    return {**as_json(piece), "steps": [_lengths_scaled(s, ratio) for s in piece.steps]}


def _lengths_scaled(model: BaseModel, ratio: float) -> Json:
    data = as_json(model)
    for name, info in type(model).model_fields.items():
        value, extra = getattr(model, name), info.json_schema_extra
        if isinstance(value, BaseModel):
            data[name] = _lengths_scaled(value, ratio)
        elif isinstance(extra, dict) and extra.get("unit") == "mm":
            data[name] = scaled_length(float(value), ratio)
    return data
