"""What the documents name is there: modules and functions, files, targets of make, pictures."""

from __future__ import annotations

import importlib
import re
from pathlib import Path

import pytest

from demo.rooms import PICTURE, picture

ROOT = Path(__file__).parents[1]
PAGES = [ROOT / "README.md", *sorted((ROOT / "docs").rglob("*.md"))]
_CODE = re.compile(r"`([^`\n]+)`")
_NAME = re.compile(r"(stileblade|server)(\.\w+)+")
_FILE = re.compile(r"(stileblade|server|web|tests|demo|docs|bench)/[\w./-]+")
_LINK = re.compile(r"\]\(([^)#\s]+)\)")
_TARGET = re.compile(r"^make ([a-z0-9-]+)", re.MULTILINE)


def there(name: str) -> bool:
    """Whether a dotted name is a module, or something that one has."""
    parts = name.split(".")
    for cut in range(len(parts), 0, -1):
        try:
            found: object = importlib.import_module(".".join(parts[:cut]))
        except ModuleNotFoundError:
            continue
        try:
            for part in parts[cut:]:
                found = getattr(found, part)
        except AttributeError:
            return False
        return True
    return False


@pytest.mark.parametrize("page", PAGES, ids=lambda p: p.name)
def test_what_a_page_names_is_there(page: Path) -> None:
    text = page.read_text()
    code = _CODE.findall(text)
    names = [c for c in code if _NAME.fullmatch(c)]
    assert [n for n in names if not there(n)] == []
    files = [c for c in code if _FILE.fullmatch(c)]
    assert [f for f in files if not (ROOT / f).exists()] == []
    links = [link for link in _LINK.findall(text) if "://" not in link]
    assert [link for link in links if not (page.parent / link).exists()] == []
    targets = re.findall(r"^([a-z0-9-]+):", (ROOT / "Makefile").read_text(), re.MULTILINE)
    said = [t for c in [*code, *re.findall(r"```.*?```", text, re.S)] for t in _TARGET.findall(c)]
    assert [t for t in said if t not in targets] == []


@pytest.mark.parametrize("page", sorted((ROOT / "docs" / "decisions").glob("*.md")), ids=str)
def test_a_decision_says_what_was_rejected_and_when(page: Path) -> None:
    text = page.read_text()
    parts = ["**Context.**", "**Decision.**", "**Rejected.**", "**Consequences.**"]
    places = [text.find(part) for part in parts]
    assert -1 not in places
    assert places == sorted(places)
    assert re.search(r"^2026-\d\d-\d\d", text, re.MULTILINE)


def test_the_picture_of_the_rooms_is_drawn_from_the_present_imports() -> None:
    assert PICTURE.read_text() == picture(), "make rooms draws it anew"


def test_every_picture_is_shown_somewhere() -> None:
    shown = "\n".join(page.read_text() for page in PAGES)
    pictures = [p.name for p in (ROOT / "docs" / "screenshots").glob("*.png")]
    assert [name for name in pictures if f"screenshots/{name}" not in shown] == []
    assert len(pictures) < 20
