"""The cards of the harbour museum's shop: one table, a line for each step, which is why its function is
as long as it is."""

from __future__ import annotations

from demo.drawings import IN, artwork, design, outline, roofs, shelf
from demo.layers import with_layers
from stileblade.design.document import Design, Piece
from stileblade.units import Unit


def designs() -> dict[str, Design]:
    """The whole cards by the names of their files."""
    return {name: with_layers(name, made) for name, made in bases().items()}


def bases() -> dict[str, Design]:
    """The cards' bases by the names of their files."""
    whale = artwork("whale", "Whale")
    lighthouse = artwork("lighthouse", "Lighthouse")
    boat = outline("boat", "whole", "Boat")
    mainsail = outline("boat", "mainsail")
    hut = outline("hut", "hut", "Hut front")
    shell = artwork("shell", "Shell")
    sky = roofs(4)
    strips = design(
        "Tide strips", "DL", "kelp",
        [
            {"kind": "blank"},
            {"kind": "slot-ladder", "target": "front", "count": 7, "first": 52, "change": 0,
             "height": 12, "between": 7, "dy": -28, "cut": "flaps", "hinge": "left"},
            {"kind": "split", "runs": "level", "target": "card", "edge": "far", "distance": 52,
             "strip": 3},
        ],
    )  # fmt: skip
    rest = Piece.model_validate(
        {"id": "piece-2", "name": "Lower strip", "paper": "kelp",
         "steps": [{"kind": "part", "step": "s3", "number": 2}]}
    )  # fmt: skip
    strips = strips.model_copy(update={"pieces": [*strips.pieces, rest]})
    easel = design(
        "Tide tables to stand", "ISO A6", "sand",
        [{"kind": "blank"},
         {"kind": "border-line", "target": "back", "how": "prick", "spacing": 6, "margin": 8}],
        way="easel",
    )  # fmt: skip
    props = [
        Piece.model_validate({"id": key, "name": name, "paper": "sand", "steps": [{"kind": kind}]})
        for key, name, kind in (("piece-2", "Display panel", "easel-display"),
                                ("piece-3", "Stop", "easel-stop"))
    ]  # fmt: skip
    easel = easel.model_copy(update={"pieces": [*easel.pieces, *props]})
    return {
        "24-bow-wave": design(
            "Bow wave", "ISO A6", "harbour",
            [
                {"kind": "blank"},
                {"kind": "v-fold", "width": 64, "angle": 40, "along": -18},
                {"kind": "v-fold", "width": 40, "angle": 40, "along": 14},
                {"kind": "forward-step", "width": 18, "less": 12, "more": 12, "along": 52},
            ],
        ),
        "25-tide-easel": easel,
        "01-whale-with-porthole": design(
            "Whale with porthole", "A7", "harbour",
            [
                {"kind": "artwork", "ref": whale[0], "layers": [0], "to": "width", "width": 137,
                 "printed": False},
                {"kind": "slice", "keep": "above", "edge": "far", "distance": 1.6},
                {"kind": "mirror", "towards": "above", "lap": 8},
                {"kind": "window", "outline": {"kind": "circle", "diameter": 22},
                 "target": "front", "dx": -22, "dy": 6},
            ],
            way="top-fold", turned=True, drawn=(whale,),
        ),
        "02-lighthouse": design(
            "Lighthouse", "DL", "brick",
            [
                {"kind": "artwork", "ref": lighthouse[0], "layers": [0], "filled": False,
                 "to": "height", "height": 178},
                {"kind": "fill", "which": "below", "below": 6},
                {"kind": "mirror", "towards": "left", "lap": 12},
            ],
            drawn=(lighthouse,),
        ),
        "03-tide-tables": design(
            "Tide tables", "ISO A6", "sand",
            [
                {"kind": "blank"},
                {"kind": "window", "target": "front", "at": "centre", "by": "centre", "dy": -18,
                 "outline": {"kind": "arch", "width": 62, "height": 78, "rise": 31}},
                {"kind": "crease", "made": "score", "setback": 1},
            ],
        ),
        "04-sailing-boat": design(
            "Sailing boat", "A7", "chalk",
            [
                {"kind": "blank"},
                {"kind": "weld", "target": "front", "at": "foot-right", "by": "foot",
                 "dx": -0.25 * IN, "dy": -0.5 * IN, "outline": shelf(boat[0], height=4.5 * IN)},
                {"kind": "window", "target": "front", "at": "head-left", "by": "head-left",
                 "dx": 0.5 * IN, "dy": 0.5 * IN,
                 "outline": {"kind": "circle", "diameter": 1.25 * IN}},
            ],
            units=Unit.IN, drawn=(boat,),
        ),
        "05-beach-hut": design(
            "Beach hut", "A2", "harbour",
            [
                {"kind": "figure", "outline": shelf(hut[0])},
                {"kind": "fit", "to": "panel", "margin": 0.125 * IN},
                {"kind": "flip", "swap": "left-right"},
                {"kind": "mirror", "towards": "left", "lap": 0.55 * IN},
                {"kind": "window", "target": "front", "at": "foot", "by": "foot", "dx": 6,
                 "dy": -0.5 * IN,
                 "outline": {"kind": "rectangle", "width": 1.125 * IN, "height": 2.25 * IN,
                             "radius": 0.125 * IN}},
                {"kind": "crease", "made": "perforate", "cut": 2, "leave": 1},
            ],
            units=Unit.IN, drawn=(hut,),
        ),
        "06-shell": design(
            "Shell", "150 mm square", "sand",
            [
                {"kind": "artwork", "ref": shell[0], "to": "width", "width": 119, "printed": False},
                {"kind": "turn", "angle": 180},
                {"kind": "grow", "margin": 2.5, "join": "round"},
                {"kind": "mirror", "towards": "below", "lap": 10},
                {"kind": "weld", "target": "front", "at": "head", "by": "centre", "dy": 20, "drop": True,
                 "outline": {"kind": "scalloped-circle", "diameter": 60, "scallops": 14}},
                {"kind": "fill", "which": "below", "below": 10},
            ],
            way="top-fold", drawn=(shell,),
        ),
        "07-harbour-wall": design(
            "Harbour wall", "ISO A6", "kelp",
            [
                {"kind": "blank"},
                {"kind": "cut-away", "target": "card", "at": "head", "by": "head", "dy": -30,
                 "outline": {"kind": "wave-top", "width": 300, "height": 42, "waves": 6}, "turn": 180},
                {"kind": "window", "target": "front", "dy": 18,
                 "outline": {"kind": "circle", "diameter": 46}},
                {"kind": "weld", "target": "front", "at": "centre", "by": "centre", "dy": 18,
                 "outline": shelf(mainsail[0], height=52)},
            ],
            turned=True, drawn=(mainsail,),
        ),
        "08-beach-huts": design(
            "Row of beach huts", "ISO A7", "sand",
            [
                {"kind": "blank"},
                {"kind": "cut-away", "target": "card", "at": "head", "by": "head", "dy": -1,
                 "outline": shelf(sky[0], width=296)},
                *(
                    {"kind": "window", "target": panel, "at": "foot", "by": "foot", "dy": -10,
                     "outline": {"kind": "rectangle", "width": 22, "height": 38, "radius": 2}}
                    for panel in ("back", "panel 2", "panel 3", "front")
                ),
                {"kind": "fold-line", "purpose": "texture", "target": "front", "runs": "level",
                 "edge": "near", "distance": 36, "lines": 4, "pitch": 3},
            ],
            way="accordion", folding={"count": 4}, drawn=(sky,),
        ),
        "09-tide-gatefold": design(
            "Tide tables, gatefold", "ISO A6", "kelp",
            [
                {"kind": "blank"},
                {"kind": "cut-away", "target": "left door", "at": "left", "by": "centre",
                 "outline": {"kind": "circle", "diameter": 26}},
                {"kind": "cut-away", "target": "right door", "at": "right", "by": "centre",
                 "outline": {"kind": "circle", "diameter": 26}},
                {"kind": "fold-line", "purpose": "tear", "made": "perforate", "target": "back",
                 "runs": "level", "edge": "far", "distance": 34, "cut": 1.5, "leave": 1},
            ],
            way="gatefold",
        ),
        "10-whale-hardly-joined": design(
            "Whale, hardly joined", "A7", "harbour",
            [
                {"kind": "artwork", "ref": whale[0], "layers": [0], "to": "width", "width": 137,
                 "printed": False},
                {"kind": "slice", "keep": "above", "edge": "far", "distance": 1.6},
                {"kind": "turn", "angle": 4},
                {"kind": "drawn-layers", "layers": [1, 2, 3, 4]},
                {"kind": "mirror", "towards": "above", "lap": 3},
            ],
            way="top-fold", turned=True, drawn=(whale,),
        ),
        "11-wave-with-flap": design(
            "Wave with a flap", "ISO A6", "harbour",
            [
                {"kind": "blank"},
                {"kind": "shaped-edge", "target": "back", "side": "left", "motif": "wave",
                 "depth": 9, "pitch": 30},
                {"kind": "shaped-edge", "target": "flap", "side": "right", "motif": "wave",
                 "depth": 9, "pitch": 30},
                {"kind": "soften", "radius": 1.5, "which": "both"},
            ],
            way="side-fold-flap", folding={"flap": 48},
        ),
        "12-french-fold": design(
            "Shell, French fold", "A2", "chalk",
            [
                {"kind": "blank"},
                {"kind": "window", "target": "front", "dy": -0.5 * IN,
                 "outline": {"kind": "scalloped-circle", "diameter": 2.5 * IN, "scallops": 12}},
            ],
            way="french-fold", units=Unit.IN, envelope="ISO A6",
        ),
        "14-porthole": design(
            "Porthole with a grille", "150 mm square", "harbour",
            [
                {"kind": "blank"},
                {"kind": "window", "target": "back",
                 "outline": {"kind": "circle", "diameter": 84}},
                {"kind": "grille", "bar": 4, "gap": 14, "pattern": "both"},
                {"kind": "soften", "radius": 6, "which": "outer"},
            ],
            way="gatefold", folding={"gap": 0.5},
        ),
        "15-lantern": design(
            "Lantern", "DL", "brick",
            [
                {"kind": "blank"},
                {"kind": "slot-ladder", "count": 9, "first": 26, "change": 4, "height": 7,
                 "between": 7, "stem": 5, "dy": 8},
                {"kind": "shaped-edge", "side": "head", "target": "front", "motif": "scallop",
                 "depth": 5, "pitch": 14},
            ],
        ),
        "16-tides-stencil": design(
            "Tides, cut as a stencil", "A6 (US)", "kelp",
            [
                {"kind": "blank"},
                {"kind": "stencil", "outline": {"kind": "word", "text": "TIDES", "size": 22},
                 "dy": 30, "bridge": 1.6},
                {"kind": "stencil", "outline": {"kind": "ring", "diameter": 70, "opening": 52},
                 "dy": -28, "bridges": 4, "placed_by": "own", "first": 45},
                {"kind": "shaped-edge", "side": "right", "motif": "wave", "depth": 5, "pitch": 18,
                 "ends": "full", "plain": 8},
                {"kind": "soften", "radius": 5, "which": "picked",
                 "picks": [[0, 0], [1, 0], [0, 1], [1, 1]]},
            ],
        ),
        "17-stitched": design(
            "Stitched sail", "5 in square", "sand",
            [
                {"kind": "blank"},
                {"kind": "window", "target": "front", "dy": -8, "outline": shelf(mainsail[0], height=64)},
                {"kind": "border-line", "along": "windows", "margin": 3, "how": "stitch",
                 "stitch": 3, "between": 2},
                {"kind": "border-line", "along": "outline", "margin": 6, "how": "draw"},
                {"kind": "drawn-figure", "dy": 44,
                 "outline": {"kind": "word", "text": "Ahoy", "size": 12}},
            ],
            drawn=(mainsail,),
        ),
        "18-shell-edge": design(
            "Shell edge", "150 mm square", "sand",
            [
                {"kind": "blank"},
                {"kind": "stencil-edge", "target": "front", "side": "foot", "surround": 3,
                 "turn": 180, "back": 62, "outline": shelf(shell[0])},
                {"kind": "border-line", "along": "outline", "target": "front", "margin": 5,
                 "how": "stitch", "stitch": 4, "between": 2.5},
            ],
            way="top-fold", drawn=(shell,),
        ),
        "19-sail-overhang": design(
            "Sail over the edge", "ISO A6", "chalk",
            [
                {"kind": "blank"},
                {"kind": "overhang", "target": "front", "side": "right", "out": 5, "along": 12,
                 "outline": shelf(boat[0], height=96)},
                {"kind": "window", "target": "front", "dx": -26, "dy": -46,
                 "outline": {"kind": "circle", "diameter": 26}},
                {"kind": "seen-through", "onto": "back", "margin": 5, "how": "draw"},
            ],
            drawn=(boat,),
        ),
        "20-locked-gatefold": design(
            "Locker, closed by a tab", "ISO A6", "harbour",
            [
                {"kind": "blank"},
                {"kind": "lock", "target": "left door", "side": "left", "width": 28, "depth": 15,
                 "at": 6},
                {"kind": "lettering", "text": "Ship's locker", "target": "back", "height": 9,
                 "face": "script"},
                {"kind": "window", "target": "right door", "at": "head", "by": "head", "dy": 12,
                 "outline": {"kind": "circle", "diameter": 24}, "also": "ends"},
            ],
            way="gatefold",
        ),
        "21-standing-lighthouse": design(
            "Lighthouse that stands up", "ISO A7", "brick",
            [
                {"kind": "blank"},
                {"kind": "standing-figure", "outline": shelf(lighthouse[0], height=70), "over": 33},
            ],
            way="top-fold", turned=True, drawn=(lighthouse,), envelope="ISO A6",
        ),
        "22-harbour-steps": design(
            "Harbour steps", "A7", "sand",
            [
                {"kind": "blank"},
                {"kind": "forward-step", "width": 30, "less": 44, "more": 22, "along": -40},
                {"kind": "forward-step", "width": 30, "less": 34, "more": 34},
                {"kind": "forward-step", "width": 30, "less": 22, "more": 44, "along": 40},
            ],
            way="top-fold", turned=True,
        ),
        "23-tide-strips": strips,
        "13-life-ring": design(
            "Life ring", "5 in square", "brick",
            [
                {"kind": "figure", "outline": {"kind": "ring", "diameter": 118, "opening": 52}},
                {"kind": "slice", "keep": "above", "by": "run", "run": 30},
                {"kind": "mirror", "towards": "left", "lap": 0},
                {"kind": "tab", "length": 30, "reach": 9},
            ],
        ),
    }  # fmt: skip
