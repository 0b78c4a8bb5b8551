"""Pieces added to a design: keys, papers and places in the stack are found here."""

from __future__ import annotations

from itertools import count
from typing import Any, Literal

from pydantic import BaseModel

from stileblade.card.stock import Paper
from stileblade.design.changes import Change
from stileblade.design.document import Design, Piece, load_design
from stileblade.design.evaluation import Evaluation
from stileblade.piece.lying import Facing
from stileblade.steps.proposing import NewPiece, OnCard, Proposal
from stileblade.steps.step import STEPS
from stileblade.words import say


def on_card(evaluation: Evaluation, panel: str = "") -> OnCard | None:
    """What pieces can be added to; None while the base has no paper."""
    base, design = evaluation.pieces[0], evaluation.design
    work = base.work
    if work is None or not work.paper:
        return None
    artwork = design.artworks.get(work.artwork.ref) if work.artwork else None
    lying: dict[Facing, int] = {}
    for piece in design.layers_on(base.piece.id):
        lying[piece.side] = max(lying.get(piece.side, 0), piece.order + 1)
    return OnCard(work, panel or work.front, artwork, lying)


def proposals(card: OnCard) -> list[Proposal]:
    """All that kinds of layers propose for the card; what makes a whole card of it comes first while nothing lies on
    it."""
    found = [proposal for kind in STEPS for proposal in kind.proposals(card)]
    return found if card.lying else sorted(found, key=lambda p: not p.of_whole_card)


def with_added(design: Design, proposal: Proposal) -> tuple[Design, list[str]]:
    """The design with the pieces, and their keys. DocumentError where the document has no room for them."""
    data = design.model_dump(mode="json")
    base = data["pieces"][0]
    base["steps"] += [{**s.model_dump(mode="json"), "id": ""} for s in proposal.base]
    keys: list[str] = []
    taken = {p["id"] for p in data["pieces"]}
    for new in proposal.pieces:
        key = next(k for n in count(2) if (k := f"piece-{n}") not in taken)
        taken.add(key)
        keys.append(key)
        data["pieces"].append(_piece(new, key, keys, data, base))
    return load_design(data), keys


def changes_adding(design: Design, proposal: Proposal) -> tuple[Change, ...]:
    """What adds the proposal's papers, steps of the base and pieces to the design, or to one that has gone on."""
    made, keys = with_added(design, proposal)
    base, papers = made.pieces[0], {p.id for p in design.papers}
    steps = base.steps[len(design.pieces[0].steps) :]
    return (
        *(_change("stock", p.id, p) for p in made.papers if p.id not in papers),
        *(_change("add", base.id, s) for s in steps),
        *(_change("layer", p.id, p) for p in made.pieces if p.id in keys),
    )


def _change(op: Literal["stock", "add", "layer"], piece: str, values: BaseModel) -> Change:
    return Change(op=op, piece=piece, step="", values=values.model_dump(mode="json"))


def _piece(
    new: NewPiece, key: str, keys: list[str], data: dict[str, Any], base: dict[str, Any]
) -> dict[str, Any]:
    steps = [{**s.model_dump(mode="json"), "id": ""} for s in new.steps]
    if new.of:
        steps[0]["of"] = keys[new.of - 1]
    names = {p["name"] for p in data["pieces"]}
    name = own = say(new.name)[:54]
    if name in names:
        name = next(n for i in count(2) if (n := f"{own} {i}") not in names)
    return Piece.model_validate(
        {
            "id": key,
            "name": name,
            "paper": _paper(new, data, base["paper"]),
            "host": keys[new.on - 1] if new.on else base["id"],
            "panel": new.panel,
            "side": new.side,
            "order": new.order,
            "fixing": new.fixing,
            "steps": steps,
        }
    ).model_dump(mode="json")


THIN, THIN_WEIGHT = 0.15, 120
"""mm and g/m^2 of a paper to write on and to fold envelopes of."""
SEE_THROUGH, SEE_THROUGH_WEIGHT = 0.1, 100


def _unused_name(stem: str, data: dict[str, Any]) -> str:
    """The paper's name, with a number where there is another one of it. It is not named after the paper that it is
    like: that one's name may be its colour."""
    names = {p["name"] for p in data["papers"]}
    if stem not in names:
        return stem
    return next(n for i in count(2) if (n := f"{stem[:55]} {i}") not in names)


def _paper(new: NewPiece, data: dict[str, Any], own: str) -> str:
    """The key of the design's paper of that colour, which is added where there is none."""
    if not new.colour:
        return own
    own_weight = next(p["weight"] for p in data["papers"] if p["id"] == own)
    weight = THIN_WEIGHT if new.thin else SEE_THROUGH_WEIGHT if new.light else own_weight
    for paper in data["papers"]:
        if (paper["outside"], paper["light"], paper["weight"]) == (new.colour, new.light, weight):
            return str(paper["id"])
    ids = {p["id"] for p in data["papers"]}
    key = next(k for n in count(2) if (k := f"paper-{n}") not in ids)
    like = next(p for p in data["papers"] if p["id"] == own)
    stem = (
        say("Light paper")
        if new.thin
        else say("See-through paper")
        if new.light
        else say("Card stock")
    )
    made = {**like, "id": key, "name": _unused_name(stem, data), "outside": new.colour,
            "inside": new.colour, "light": new.light, "weight": weight}  # fmt: skip
    if new.thin or new.light:
        made["thickness"] = THIN if new.thin else SEE_THROUGH
    data["papers"].append(Paper.model_validate(made).model_dump(mode="json"))
    return key
