"""Every regular expression reads foreign text in linear time: the list is taken from the source
itself, so that a new one is tried by itself."""

from __future__ import annotations

import ast
import importlib
import itertools
import re
from collections import deque
from collections.abc import Iterator
from pathlib import Path
from time import process_time

import pytest

ROOT = Path(__file__).resolve().parents[2]
FILES = [*(ROOT / "stileblade").rglob("*.py"), *(ROOT / "server").rglob("*.py")]
LONG = 10_000
MOST_SECONDS = 0.25
"""Of processor time: a linear one takes a few thousandths, one that takes the square a second and more."""
LETTERS = [
    "9",
    " ",
    "a",
    "E",
    "-",
    ".",
    ",",
    ":",
    ";",
    "(",
    "#",
    "/",
    "_",
    "\n",
    "A",
    "M",
    "url(#",
    "%",
]
PAIRS = [
    "9 ",
    "9.",
    "9e",
    "a ",
    "a:",
    "a;",
    " ;",
    " ,",
    "a-",
    "-.",
    "a(",
    " (",
    "a)",
    "9,",
    "a:a;",
    "0 0 ",
]
HEADS = ["", "a(", "M0 0A", "a:", "url(#", "url('#a')", "9"]
TAILS = ["", "!", "x"]


def calls(path: Path) -> Iterator[tuple[str, ast.expr]]:
    """The module's calls of ``re``: the function's name and the pattern."""
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
            of = node.func.value
            if isinstance(of, ast.Name) and of.id == "re" and node.args:
                yield node.func.attr, node.args[0]


def uses(path: Path, name: str) -> set[str]:
    """How the module uses a pattern of its own."""
    found = set()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
            of = node.func.value
            if isinstance(of, ast.Name) and of.id == name:
                found.add(node.func.attr)
    return found


def patterns() -> Iterator[tuple[str, tuple[re.Pattern[str], set[str]]]]:
    for path in FILES:
        name = ".".join(path.relative_to(ROOT).with_suffix("").parts)
        found = list(calls(path))
        for how, pattern in found:
            if how in ("compile", "escape"):
                continue
            assert isinstance(pattern, ast.Constant), f"{name}: re.{how} of a pattern that is made"
            yield f"{name}: {pattern.value}", (re.compile(str(pattern.value)), {how})
        if any(how == "compile" for how, _ in found):
            held = {
                key: value
                for key, value in vars(importlib.import_module(name)).items()
                if isinstance(value, re.Pattern)
            }
            assert len(held) == sum(how == "compile" for how, _ in found), f"{name}: one is hidden"
            for key, value in held.items():
                yield f"{name}.{key}", (value, uses(path, key))


ALL = dict(patterns())


def test_the_list_is_whole() -> None:
    assert "stileblade.geometry.paths.pathdata._ARC" in ALL
    assert len(ALL) >= 15
    assert all(how for _, how in ALL.values())


@pytest.mark.parametrize("name", sorted(ALL))
def test_it_takes_no_longer_than_the_text(name: str) -> None:
    pattern, how = ALL[name]
    for head, unit, tail in itertools.product(HEADS, [*LETTERS, *PAIRS], TAILS):
        text = head + unit * (LONG // len(unit)) + tail
        for use in how:
            # the least of three: a machine that is shared stops now and then, a pattern does each time
            took = MOST_SECONDS
            for _ in range(3):
                if took >= MOST_SECONDS:
                    took = min(took, seconds(pattern, use, text))
            assert took < MOST_SECONDS, (head, unit, tail, use)


def seconds(pattern: re.Pattern[str], use: str, text: str) -> float:
    """Processor time that one use of the pattern takes."""
    before = process_time()
    if use == "sub":
        pattern.sub("", text)
    elif use == "finditer":
        # none is kept: what is measured is not the tidying of memory
        deque(pattern.finditer(text), maxlen=0)
    else:
        getattr(pattern, use)(text)
    return process_time() - before
