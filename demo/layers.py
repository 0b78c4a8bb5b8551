"""The layers of the harbour museum's cards: what lies on their bases, in which paper."""

from __future__ import annotations

from typing import Any

from demo.drawings import PAPERS, paper
from stileblade.card.stock import Paper
from stileblade.design.document import Acceptance, Design, Piece

MORE = {
    p.id: p
    for p in (
        paper("vellum", "Vellum", "#dcebee", "#dcebee", thickness=0.1, weight=100, light=0.6),
        paper("ivory", "Ivory", "#f8f3e4", "#f8f3e4", thickness=0.16, weight=120),
        paper("navy", "Navy", "#2f3d54", "#3a4a64"),
        paper("mist", "Sea mist", "#cfdcdc", "#e4ecec"),
        paper("ochre", "Ochre", "#c9a15a", "#efe3c6"),
        paper("rust", "Rust", "#a5573c", "#e8cfc2"),
        paper("slate", "Slate", "#5d7078", "#d5dcdf"),
        paper(
            "waves",
            "Slate, fine",
            "#5d7078",
            "#8fa3aa",
            thickness=0.12,
            weight=90,
            pattern="checks",
            pattern_colour="#7f9aa6",
            pitch=5,
            pattern_turn=45,
        ),
    )
}


def _layer(key: str, name: str, of: str, *steps: dict[str, Any], **more: Any) -> dict[str, Any]:
    return {"id": key, "name": name, "paper": of, "host": "base", "steps": list(steps), **more}


def _inside(key: str, name: str, of: str, *steps: dict[str, Any], **more: Any) -> dict[str, Any]:
    return _layer(key, name, of, *steps, **{"side": "inside", **more})


_INSERT = _inside("insert", "Insert", "ivory", {"kind": "insert"})


def _mats(of: list[str], *margins: float, **more: Any) -> list[dict[str, Any]]:
    return [
        _layer(f"mat-{n}", f"Mat {n + 1}", of[n], {"kind": "mat", "margin": m}, order=n, **more)
        for n, m in enumerate(margins)
    ]


def _word(
    text: str, size: float, colours: tuple[str, str, str], lies: dict[str, Any], **more: Any
) -> list[dict[str, Any]]:
    """A word with borders of 2 and of 5 mm: ``lies`` says on which panel and side, ``more`` where there."""
    word = {"kind": "overlay", "outline": {"kind": "word", "text": text, "size": size}, **more}
    inner = {"kind": "overlay", "of": "word", "borders": 2}
    outer = {"kind": "overlay", "of": "word", "borders": 5}
    return [
        _layer("word", "Word", colours[0], word, order=12, **lies),
        _layer("border-2", "Border of 2", colours[1], inner, order=11, **lies),
        _layer("border-5", "Border of 5", colours[2], outer, order=10, **lies),
    ]


def _artwork(names: list[tuple[str, str, tuple[int, ...]]], **more: Any) -> list[dict[str, Any]]:
    return [
        _layer(
            f"layer-{n}", name, of, {"kind": "layers", "layers": list(layers), **more}, order=20 + n
        )
        for n, (name, of, layers) in enumerate(names)
    ]


LAYERS: dict[str, list[dict[str, Any]]] = {
    "01-whale-with-porthole": [
        *_artwork(
            [("Belly", "mist", (1,)), ("Grooves and flipper", "slate", (2, 3)), ("Eye", "navy", (4,))],
            beneath="margin", small_parts="left_out",
        ),
        _inside("backing", "Porthole glass", "vellum", {"kind": "backing", "glue_margin": 5}),
        {**_INSERT, "order": 1},
    ],
    "03-tide-tables": [
        *_mats(["kelp", "ivory", "slate"], 3, 5, 7),
        _layer("anchor", "Ladder of tides", "ivory",
               {"kind": "overlay", "outline": {"kind": "rectangle", "width": 58, "height": 30, "radius": 3},
                "at": "foot", "by": "foot", "dy": -14},
               {"kind": "slot-ladder", "target": "figure", "count": 4, "first": 40, "change": 0, "height": 2,
                "between": 4}, order=5, fixing="pads"),
        _inside("backing", "Vellum", "vellum", {"kind": "backing"}),
        {**_INSERT, "order": 1},
        _inside("inner", "Mat inside", "mist", {"kind": "mat", "margin": 9}, panel="back", order=2),
        *_word("TIDES", 14, ("navy", "ivory", "ochre"), {"side": "inside", "panel": "back"}, dy=-40),
        {"id": "band", "name": "Band", "paper": "ochre", "host": "base", "side": "around",
         "steps": [{"kind": "band", "wide": 26}]},
    ],
    "08-beach-huts": [
        _layer(f"mat-{n}", f"Hut {n + 1}", of, {"kind": "mat", "margin": 3, "window_margin": 1.5},
               panel=panel)
        for n, (panel, of) in enumerate(
            zip(("back", "panel 2", "panel 3", "front"), ("rust", "mist", "ochre", "slate"), strict=True))
    ],
    "04-sailing-boat": [
        *_word("Ahoy", 15, ("navy", "ivory", "mist"), {"fixing": "pads", "pad": 0.5}, at="foot-left", by="foot-left", dx=9, dy=-14),
        _inside("backing", "Sun", "ochre", {"kind": "backing", "glue_margin": 5}),
        {**_INSERT, "order": 1},
    ],
    "11-wave-with-flap": [
        _inside("strip", "Foam", "ivory", {"kind": "strip", "edge": "right", "reveal": 3, "deep": 26},
                panel="flap"),
        _inside("strip-2", "Foam behind", "mist", {"kind": "strip", "edge": "left", "reveal": 3, "deep": 26},
                panel="back"),
        _layer("shell", "Sun", "ochre",
               {"kind": "overlay", "outline": {"kind": "circle", "diameter": 34}, "dx": -22, "dy": -44},
               fixing="pads"),
    ],
    "06-shell": [
        *_mats(["rust"], 5),
        {"id": "envelope", "name": "Envelope", "paper": "mist", "host": "base", "side": "around",
         "steps": [{"kind": "envelope", "flap": "rounded"}]},
        {"id": "liner", "name": "Liner", "paper": "waves", "host": "envelope", "side": "inside",
         "steps": [{"kind": "liner"}]},
    ],
    "09-tide-gatefold": [
        *(_layer(f"mat-{n}", f"{door.capitalize()}", "ivory", {"kind": "mat", "margin": 4, "windows": "closed"},
                 panel=door) for n, door in enumerate(("left door", "right door"))),
        _inside("table", "Tide table", "ivory", {"kind": "mat", "margin": 6}, panel="back"),
        {"id": "band", "name": "Band", "paper": "ochre", "host": "base", "side": "around",
         "steps": [{"kind": "band", "wide": 34}]},
    ],
    "02-lighthouse": [
        *_artwork([("Bands", "ivory", (1,)), ("Gallery and lamp", "navy", (2,)), ("Rock", "slate", (3,))], beneath="margin"),
        {**_INSERT, "order": 0},
    ],
    "25-tide-easel": [
        _layer("mat-0", "Mat", "ivory", {"kind": "mat", "margin": 5}, panel="front half"),
        _layer("figure", "Full moon", "ochre",
               {"kind": "overlay", "outline": {"kind": "circle", "diameter": 66}, "at": "head", "by": "foot",
                "dy": 26, "may_stand_out": True},
               {"kind": "at-folds", "way": "half"}, panel="front half", order=2, fixing="pads", pad=1),
    ],
    "12-french-fold": [
        *_mats(["mist", "ivory"], 4, 7),
        _inside("backing", "Backing", "vellum", {"kind": "backing"}, panel="front"),
        _layer("boat", "Ring", "navy",
               {"kind": "overlay", "outline": {"kind": "ring", "diameter": 58, "opening": 44},
                "at": "foot", "by": "foot", "dy": -8, "may_cover": True}, order=4, fixing="pads", pad=1),
    ],
}  # fmt: skip


ACCEPTED: dict[str, list[tuple[str, str, str, str, str]]] = {
    "01-whale-with-porthole": [
        ("hinge.short", "base", "", "warning", "24 mm hold so light a card"),
        ("openings.mirrored", "base", "s3", "note", "light falls through beside the tail"),
        ("narrow.paper", "layer-1", "", "warning", "glued all over, nothing pulls at it"),
        ("narrow.paper", "layer-2", "", "warning", "glued all over, nothing pulls at it"),
        ("crumbs", "layer-2", "", "note", "the glint in the eye"),
    ],
    "02-lighthouse": [
        ("hinge.short", "base", "", "warning", "the tower is no wider at its foot"),
        ("openings.large", "base", "", "note", "windows of the lighthouse"),
        ("layers.parts", "layer-0", "", "note", "two bands"),
        ("layers.parts", "layer-1", "", "note", "gallery, lamp and roof"),
    ],
    "03-tide-tables": [("layers.parts", "word", "", "note", "five letters")],
    "06-shell": [
        ("mirror.reversed", "base", "s4", "note", "a shell looks the same both ways"),
        ("grain.across", "envelope", "", "note", "folded once"),
    ],
    "12-french-fold": [
        ("grain.across", "base", "", "note", "a French fold always crosses it once")
    ],
    "13-life-ring": [("openings.large", "base", "", "note", "the ring's own")],
    "18-shell-edge": [("foot.rocks", "base", "", "warning", "sent lying, not stood up")],
}
"""What of the findings the shop leaves as it is: code, piece, step, severity and the reason. Of two cards, the boat
too large for its envelope and the whale hardly joined, nothing is accepted: they show what findings look like."""


def with_layers(name: str, made: Design) -> Design:
    """The design with what lies on it, and the papers of that."""
    pieces = [Piece.model_validate(p) for p in LAYERS.get(name, [])]
    known = {p.id for p in made.papers}
    wanted = dict.fromkeys(p.paper for p in pieces if p.paper not in known)
    papers: list[Paper] = [{**PAPERS, **MORE}[key] for key in wanted]
    return made.model_copy(
        update={
            "pieces": [*made.pieces, *pieces],
            "papers": [*made.papers, *papers],
            "accepted": [
                Acceptance.model_validate(dict(zip(Acceptance.model_fields, values, strict=True)))
                for values in ACCEPTED.get(name, [])
            ],
        }
    )
