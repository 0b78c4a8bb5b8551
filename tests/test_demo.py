"""The demo's files are what its cards make: building them changes nothing."""

from __future__ import annotations

from demo.build import files
from demo.drawings import HERE


def test_built_again_nothing_changes() -> None:
    wanted = files()
    kept = {
        f"{p.parent.name}/{p.name}": p for f in ("designs", "shelf") for p in (HERE / f).iterdir()
    }
    assert kept.keys() == wanted.keys()
    changed = [name for name, text in wanted.items() if kept[name].read_text() != text]
    assert changed == []
