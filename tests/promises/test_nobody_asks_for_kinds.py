"""Outside its own file nobody asks what kind a step is, and the server takes public names alone."""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator
from pathlib import Path

from stileblade.steps.step import STEPS
from stileblade.steps.union import AnyStep

ROOT = Path(__file__).parents[2]
assert AnyStep  # with it all kinds are registered
CLASSES = {cls.__name__ for cls in STEPS}
KINDS = set(STEPS.names())


def sources(*folders: str) -> Iterator[tuple[Path, ast.Module]]:
    for folder in folders:
        for path in sorted((ROOT / folder).rglob("*.py")):
            if "kinds" not in path.parent.parts[-1:] and "migrations" not in path.parts:
                yield path, ast.parse(path.read_text())


def _kinds_asked(tree: ast.Module) -> Iterator[str]:
    for node in ast.walk(tree):
        if isinstance(node, ast.Compare):
            sides = [node.left, *node.comparators]
            named = any(isinstance(s, ast.Attribute) and s.attr == "kind" for s in sides)
            texts = [c.value for s in sides for c in ast.walk(s) if isinstance(c, ast.Constant)]
            if named and KINDS & {t for t in texts if isinstance(t, str)}:
                yield f"line {node.lineno}: {ast.unparse(node)}"
        if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "isinstance":
            names = {n.id for a in node.args[1:] for n in ast.walk(a) if isinstance(n, ast.Name)}
            if names & CLASSES:
                yield f"line {node.lineno}: {ast.unparse(node)}"
        if isinstance(node, ast.MatchClass) and getattr(node.cls, "id", "") in CLASSES:
            yield f"line {node.lineno}: {ast.unparse(node)}"


def test_no_python_outside_a_steps_own_file_compares_kinds() -> None:
    found = [
        f"{path.relative_to(ROOT)}, {asked}"
        for path, tree in sources("stileblade", "server", "demo")
        for asked in _kinds_asked(tree)
    ]
    assert found == []


def test_the_browser_compares_no_kinds() -> None:
    asked = re.compile(r"\.kind\s*[!=]==?\s*'([a-z-]+)'|kind:\s*'([a-z-]+)'")
    found = []
    for path in (ROOT / "web" / "src").rglob("*"):
        if path.suffix not in (".ts", ".vue") or path.name.endswith((".test.ts", ".d.ts")):
            continue
        for match in asked.finditer(path.read_text()):
            if (match.group(1) or match.group(2)) in KINDS:
                found.append(f"{path.name}: {match.group(0)}")
    assert found == []


def test_what_is_asked_is_seen() -> None:
    """The search itself finds what it is for."""
    for text in ('x = step.kind == "window"', 'y = s.kind in ("window", "cut-away")',
                 "z = isinstance(step, Window)"):  # fmt: skip
        assert list(_kinds_asked(ast.parse(text)))


def test_nothing_is_said_to_be_of_a_type_that_it_is_not() -> None:
    """No capability of a step hides behind an ignored type or a cast."""
    found = []
    for path, tree in sources(
        "stileblade/checks", "stileblade/views", "stileblade/design", "server"
    ):
        if "attr-defined" in path.read_text():
            found.append(str(path))
        found += [
            str(path)
            for node in ast.walk(tree)
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "cast"
        ]
    assert found == []


def test_the_server_and_rooms_take_public_names_alone() -> None:
    found = []
    for path, tree in sources("server", "stileblade"):
        for node in ast.walk(tree):
            if isinstance(node, ast.ImportFrom) and str(node.module).startswith("stileblade"):
                private = [
                    a.name for a in node.names if a.name.startswith("_") and a.name != "__version__"
                ]
                found += [f"{path.name}: {name}" for name in private]
    assert found == []
