"""Writes docs/rooms.svg: the rooms of core, server and browser, each with the rooms that it knows,
read from the imports themselves."""

from __future__ import annotations

import ast
import re
import textwrap
import tomllib
from dataclasses import dataclass
from pathlib import Path
from xml.sax.saxutils import escape

import grimp

ROOT = Path(__file__).resolve().parents[1]
PICTURE = ROOT / "docs" / "rooms.svg"
WIDTH, LINE, PAD, GAP, LEFT = 1120, 15, 10, 12, 110
SOURCES = ROOT / "web" / "src"
_DOOR = re.compile(r"(?:from |import\()'@/(features/\w+|shared|app)")


@dataclass(frozen=True)
class Room:
    name: str
    about: str
    knows: tuple[str, ...]


def python_rooms(package: str, order: list[list[str]]) -> list[list[Room]]:
    """The rooms of a package in rows, the topmost row first, as its layers are written down."""
    graph = grimp.build_graph("stileblade", "server")
    rows = []
    for names in order:
        row = []
        for name in names:
            whole = f"{package}.{name}"
            own = {whole, *graph.find_descendants(whole)}
            found = {m for o in own for m in graph.find_modules_directly_imported_by(o)} - own
            knows = sorted({m.split(".")[1] for m in found if m.count(".")})
            path = ROOT.joinpath(*whole.split("."))
            about = ast.get_docstring(ast.parse((path / "__init__.py").read_text())) or ""
            row.append(Room(name, _first(about), tuple(knows)))
        rows.append(row)
    return rows


def layers(package: str) -> list[list[str]]:
    """The rows of the contract that orders a package, those of them that are folders."""
    contracts = tomllib.loads((ROOT / "pyproject.toml").read_text())["tool"]["importlinter"]
    written = next(
        c["layers"]
        for c in contracts["contracts"]
        if c["type"] == "layers" and c["layers"][0].startswith(f"{package}.")
    )
    rows: list[list[str]] = []
    seen: set[str] = set()
    for row in written:
        names = [name.strip().split(".")[1] for name in row.split("|")]
        new = [n for n in names if n not in seen and (ROOT / package / n).is_dir()]
        seen.update(new)
        rows += [new] if new else []
    return rows


def browser_rooms() -> list[list[Room]]:
    """Pages, the features that they are made of, and what all share."""
    rows: dict[int, list[Room]] = {0: [], 1: [], 2: []}
    for folder in [SOURCES / "app", *sorted((SOURCES / "features").iterdir()), SOURCES / "shared"]:
        files = [p for p in folder.rglob("*") if p.suffix in (".ts", ".vue")]
        own = folder.relative_to(SOURCES).as_posix()
        found = {m for p in files for m in _DOOR.findall(p.read_text())} - {own}
        knows = tuple(sorted(name.rpartition("/")[2] for name in found))
        row = {"app": 0, "shared": 2}.get(own, 1)
        rows[row].append(Room(folder.name, "", knows))
    return list(rows.values())


def _first(text: str) -> str:
    return re.split(r"(?<=\.)\s", " ".join(text.split()))[0].split("; see")[0].rstrip(".")


def _box(room: Room, x: float, y: float, width: float, height: float) -> str:
    letters = int(width / 6.1)
    about = textwrap.wrap(room.about, letters)[:2]
    knows = (
        textwrap.wrap("knows " + ", ".join(room.knows), letters) if room.knows else ["knows none"]
    )
    lines = [("name", room.name), *(("about", t) for t in about), *(("knows", t) for t in knows)]
    text = "".join(
        f'<text class="{kind}" x="{x + PAD}" y="{y + PAD + 11 + LINE * i}">{escape(said)}</text>'
        for i, (kind, said) in enumerate(lines)
    )
    frame = f'<rect x="{x}" y="{y}" width="{width}" height="{height}" rx="4"/>'
    return frame + text


def picture() -> str:
    """The picture, as SVG."""
    parts, y = [], 14.0
    for title, rows, height in (
        ("browser", browser_rooms(), 58),
        ("server", python_rooms("server", layers("server")), 62),
        ("core", python_rooms("stileblade", layers("stileblade")), 76),
    ):
        parts.append(f'<text class="title" x="{PAD}" y="{y + 22}">{title}</text>')
        for row in rows:
            per_row = min(len(row), 4)
            width = (WIDTH - LEFT - GAP * per_row) / per_row
            for i, room in enumerate(row):
                across, down = i % per_row, i // per_row
                parts.append(
                    _box(
                        room,
                        LEFT + across * (width + GAP),
                        y + down * (height + GAP),
                        width,
                        height,
                    )
                )
            y += (height + GAP) * -(-len(row) // per_row)
        y += 2 * GAP
    style = (
        "rect{fill:#f6f8f7;stroke:#8fa3a0}text{font:12px sans-serif;fill:#22302f}"
        ".name{font-weight:bold}.knows{fill:#5b6d6a}.title{font-size:16px;font-weight:bold}"
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{WIDTH}" height="{y:g}" '
        f'viewBox="0 0 {WIDTH} {y:g}"><style>{style}</style>'
        f'<rect width="{WIDTH}" height="{y:g}" style="fill:#fff;stroke:none"/>'
        + "\n".join(parts)
        + "</svg>\n"
    )


if __name__ == "__main__":
    PICTURE.write_text(picture())
