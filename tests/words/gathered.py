"""All that the application says, gathered from its sources: ``python -m tests.words.gathered`` (``make words``)
writes it to stileblade/words/en.json, to be read as a whole, and to be put into other languages."""

from __future__ import annotations

import ast
import html
import json
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from stileblade.views.catalogue import catalogue

ROOT = Path(__file__).parents[2]
ENGLISH = ROOT / "stileblade" / "words" / "en.json"
_SAID_ON_SCREENS = re.compile(r"(?<![\w.])\$?t\(\s*'((?:[^'\\]|\\.)*)'")
_SENTENCE = re.compile(r"[A-Z{'][^<>]* [^<>]*[.?]")
_NOT_SHOWN = re.compile(
    # the command line, who looks after a server, files to be cut, and what programs say to each other
    r"__main__|server/config/(backups|data|management|settings|documents|apps|demo|security)|migrations"
    r"|stileblade/words|formats/(svg|pens|dxf|pages|pdf|plan|files)|registry|card/folding|views/posed"
    r"|outlines/reading/(kinds|child)_|sheets/layout"
)
_OF_PROGRAMS = frozenset(
    ("RuntimeError", "ValueError", "KeyError", "TypeError", "AssertionError", "Field")
)
_SHOWN_BY = frozenset(
    (
        "Proposal",
        "Quota",
        "NewPiece",
        "Caption",
        "Told",
        "Note",
        "Finding",
        "Mend",
        "Reading",
        "Measured",
        "problem",
    )
)
"""Whose arguments are shown: texts among them, that is all but codes and keys."""
_TEXT = re.compile(r"[A-Z][a-z' ]*[a-z].*|[A-Za-z{].* .+")


def of_screens() -> list[str]:
    """English texts of the browser's sources, in their order."""
    found: dict[str, None] = {}
    for path in sorted((ROOT / "web" / "src").rglob("*")):
        if path.suffix not in (".vue", ".ts") or path.name.endswith((".test.ts", ".d.ts")):
            continue
        for match in _SAID_ON_SCREENS.finditer(path.read_text("utf-8")):
            found.setdefault(html.unescape(re.sub(r"\\(.)", r"\1", match[1])))
    return list(found)


def of_core() -> list[str]:
    """English texts of the core and the server: those that are said, those of forms and of what can be built,
    and sentences."""
    found = dict.fromkeys(_of_catalogue())
    for path in sorted([*(ROOT / "stileblade").rglob("*.py"), *(ROOT / "server").rglob("*.py")]):
        if _NOT_SHOWN.search(str(path.relative_to(ROOT))):
            continue
        for text in _in_module(ast.parse(path.read_text("utf-8"))):
            found.setdefault(text)
    return list(found)


def _of_catalogue() -> Iterator[str]:
    all_ = catalogue()
    yield from all_.stages
    for kind in (*all_.steps, *all_.figures, *all_.ways, *all_.formats):
        yield kind.title
        for name in ("description", "about"):
            if text := getattr(kind, name, ""):
                yield text
        yield from _of_form(getattr(kind, "form", None))
    yield from _of_form(all_.folding)
    yield from _of_form(all_.file_options)


def _of_form(schema: Any) -> Iterator[str]:
    """Titles, descriptions and labels of fields; those of whole models are not shown."""
    if isinstance(schema, list):
        for each in schema:
            yield from _of_form(each)
    if not isinstance(schema, dict):
        return
    for name, field in schema.get("properties", {}).items():
        if name in ("kind", "id", "on", "ref"):
            continue
        for key in ("title", "description", "empty"):
            if text := field.get(key):
                yield " ".join(text.split())
        yield from map(str, field.get("labels", {}).values())
    for value in schema.values():
        yield from _of_form(value)


def _in_module(tree: ast.Module) -> Iterator[str]:
    parents = {child: node for node in ast.walk(tree) for child in ast.iter_child_nodes(node)}
    for node in ast.walk(tree):
        if not isinstance(node, ast.Constant) or not isinstance(node.value, str):
            continue
        above = parents[node]
        if (
            (isinstance(above, ast.Call) and _called(above) == "say" and above.args[:1] == [node])
            or (_SENTENCE.fullmatch(node.value) and _is_shown(node, parents))
            or (_TEXT.fullmatch(node.value) and _called_with(node, parents) in _SHOWN_BY)
        ):
            yield node.value


def _called_with(node: ast.AST, parents: dict[ast.AST, ast.AST]) -> str:
    """The name of the call that it is an argument of, by itself or as one of two."""
    above = parents[node]
    while isinstance(above, ast.IfExp | ast.keyword):
        above = parents[above]
    return _called(above) if isinstance(above, ast.Call) else ""


def _called(call: ast.Call) -> str:
    return call.func.id if isinstance(call.func, ast.Name) else getattr(call.func, "attr", "")


def _is_shown(node: ast.AST, parents: dict[ast.AST, ast.AST]) -> bool:
    """Neither a docstring, nor a part of another text, nor an error of a programmer's or in a form."""
    while not isinstance(node, ast.stmt):
        node = parents[node]
        if isinstance(node, ast.JoinedStr) or (
            isinstance(node, ast.Call) and _called(node) in _OF_PROGRAMS
        ):
            return False
    return not isinstance(node, ast.Expr) or not isinstance(node.value, ast.Constant)


def gathered() -> dict[str, list[str]]:
    return {"screens": of_screens(), "core": of_core()}


if __name__ == "__main__":
    ENGLISH.write_text(json.dumps(gathered(), ensure_ascii=False, indent=1) + "\n", "utf-8")
