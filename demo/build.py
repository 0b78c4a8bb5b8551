"""Writes demo/designs/*.json and demo/shelf/*.json where they are not what they should be: the outlines
of demo/outlines read as a person's files are read, the steps made of the same classes that the
bench uses."""

from __future__ import annotations

import json

from demo.cards import designs
from demo.drawings import HERE, artwork

SHELF = {
    "anchor": ("Anchor", ["harbour", "lines"]),
    "boat": ("Sailing boat", ["harbour", "sea"]),
    "hut": ("Beach hut", ["beach"]),
    "lighthouse": ("Lighthouse", ["harbour"]),
    "shell": ("Shell", ["beach"]),
    "tides": ("Tide board", ["harbour", "text"]),
    "whale": ("Whale", ["sea", "animals"]),
}


def files() -> dict[str, str]:
    """What belongs in the two folders, by path."""
    found = {
        f"designs/{name}.json": made.model_dump_json(indent=1) + "\n"
        for name, made in designs().items()
    }
    for file, (title, tags) in SHELF.items():
        _, drawing = artwork(file, title)
        kept = {"artwork": drawing.model_dump(), "tags": tags, "source": f"{file}.svg"}
        found[f"shelf/{file}.json"] = json.dumps(kept, indent=1) + "\n"
    return found


def main() -> None:
    wanted = files()
    for name in ("designs", "shelf"):
        (HERE / name).mkdir(exist_ok=True)
        for path in (HERE / name).glob("*.json"):
            if f"{name}/{path.name}" not in wanted:
                path.unlink()
    for name, text in wanted.items():
        path = HERE / name
        if not path.exists() or path.read_text() != text:
            path.write_text(text)


if __name__ == "__main__":
    main()
