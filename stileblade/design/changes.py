"""Changes to a design, as a mend or a proposal makes them: plain data, applied in one place."""

from __future__ import annotations

from itertools import count
from typing import Any, Literal

from pydantic import BaseModel

from stileblade.design.document import Design, load_design


class Change(BaseModel):
    """A change to the document: values set on a step, a step put in before another (at the end
    where ``step`` is ""), values set on the card's folding, on its size or, where ``step`` names one, on
    a paper, or a further piece of the same paper, ``values`` with its name and steps, or values of how a piece lies; or a whole piece
    (``layer``) or paper (``stock``) that the design gets, unless it has one of that key."""

    op: Literal["set", "add", "fold", "size", "paper", "piece", "lay", "layer", "stock"]
    piece: str
    step: str
    values: dict[str, Any]


def with_changes(design: Design, changes: list[Change]) -> Design:
    """The design with all of the changes. DocumentError where a value is out of bounds."""
    data = design.model_dump(mode="json")
    for change in changes:
        pieces = {piece["id"]: piece for piece in data["pieces"]}
        if change.op == "fold":
            data["card"]["folding"].update(change.values)
            continue
        if change.op == "size":
            data["card"]["size"].update(change.values)
            continue
        if change.op == "paper":
            data["papers"] = [
                {**p, **change.values} if p["id"] == change.step else p for p in data["papers"]
            ]
            continue
        if change.op in ("layer", "stock"):
            some = data["pieces" if change.op == "layer" else "papers"]
            if change.values["id"] not in [one["id"] for one in some]:
                some.append(change.values)
            continue
        if change.op == "lay":
            pieces[change.piece].update(change.values)
            continue
        if change.op == "piece":
            number = next(n for n in count(len(pieces) + 1) if f"piece-{n}" not in pieces)
            made = {**pieces[change.piece], "host": "", **change.values, "id": f"piece-{number}"}
            data["pieces"].append(made)
            continue
        steps = pieces[change.piece]["steps"]
        at = next((i for i, s in enumerate(steps) if s["id"] == change.step), len(steps))
        if change.op == "add":
            steps.insert(at, {"id": "", **change.values})
        elif at < len(steps):
            steps[at] = {**steps[at], **change.values}
    return load_design(data)
