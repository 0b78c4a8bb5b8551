"""The demo's papers and drawings, read as a person's files are read, and cards made of them."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from stileblade.card.folding import Folding
from stileblade.card.sizes import STANDARD_SIZES
from stileblade.card.stock import Grain, Paper
from stileblade.design.document import Card, Design, Piece
from stileblade.outlines.artwork import Artwork, Layer
from stileblade.outlines.drawing import told_name
from stileblade.outlines.reading.child import read_bounded
from stileblade.units import Unit

HERE = Path(__file__).resolve().parent


def paper(id: str, name: str, outside: str, inside: str, **more: Any) -> Paper:
    """A stock as the shop buys it, in large sheets."""
    values = {"id": id, "name": name, "outside": outside, "inside": inside}
    return Paper.model_validate({**values, "sheet_width": 320, "sheet_height": 450, **more})


PAPERS = {
    "harbour": paper("harbour", "Harbour blue", "#a9c4cc", "#f4efe2"),
    "chalk": paper("chalk", "Chalk white", "#faf7ef", "#faf7ef", thickness=0.27, weight=220),
    "sand": paper("sand", "Sand", "#e6d5b0", "#f4ead2", weight=250),
    "brick": paper("brick", "Brick", "#c46f4e", "#f2e3d8", thickness=0.32, weight=270),
    "kelp": paper(
        "kelp", "Kelp green", "#7f9a7a", "#eef0e2", thickness=0.25, weight=200, grain=Grain.SHORT
    ),
}
IN = 25.4


def artwork(file: str, title: str) -> tuple[str, Artwork]:
    """A demo drawing with all its layers, and the key that the shelf gives it."""
    found = read_bounded((HERE / "outlines" / f"{file}.svg").read_bytes())
    layers = [
        Layer(
            name=layer["name"],
            colour=layer["colour"],
            path="".join(found["shapes"][n]["path"] for n in layer["shapes"]),
        )
        for layer in found["layers"]
    ]
    made = Artwork(name=title, scale=found["sizes"][0]["scale"], layers=layers)
    return made.key, made


def outline(file: str, name: str, title: str = "") -> tuple[str, Artwork]:
    """The named shape of a demo drawing as an outline by itself."""
    found = read_bounded((HERE / "outlines" / f"{file}.svg").read_bytes())
    shape = next(s for s in found["shapes"] if s["name"] == told_name(name))
    title = title or name.capitalize()
    number = found["shapes"].index(shape)
    colour = next(la["colour"] for la in found["layers"] if number in la["shapes"])
    layer = Layer(name=title, colour=colour, path=shape["path"])
    made = Artwork(name=title, scale=found["sizes"][0]["scale"], layers=[layer])
    return made.key, made


def design(
    name: str,
    size: str,
    paper: str,
    steps: list[dict[str, Any]],
    *,
    way: str = "side-fold",
    folding: dict[str, Any] | None = None,
    turned: bool = False,
    units: Unit = Unit.MM,
    drawn: tuple[tuple[str, Artwork], ...] = (),
    envelope: str = "",
) -> Design:
    """``envelope`` names the card size whose envelope it goes in, where that is not its own."""
    sizes = {s.name: s for s in STANDARD_SIZES}
    if envelope:
        sizes[size] = sizes[size].model_copy(update={"envelope": sizes[envelope].envelope})
    return Design(
        name=name,
        units=units,
        card=Card(
            size=sizes[size],
            turned=turned,
            folding=Folding.model_validate({"kind": way, **(folding or {})}),
        ),
        papers=[PAPERS[paper]],
        artworks=dict(drawn),
        pieces=[Piece.model_validate({"paper": paper, "steps": steps})],
    )


def roofs(count: int) -> tuple[str, Artwork]:
    """What is cut away above a row of gables, 100 wide and 40 high each."""
    gables = "".join(f"L{100 * i + 50} 4L{100 * i + 100} 40" for i in range(count))
    path = f"M0 0V40{gables}V0Z"
    layer = Layer(name="Sky", colour="#a9c4cc", path=path)
    made = Artwork(name="Sky above the roofs", scale=1, layers=[layer])
    return made.key, made


def shelf(key: str, **values: float) -> dict[str, Any]:
    return {"kind": "drawn", "ref": key, **values}
