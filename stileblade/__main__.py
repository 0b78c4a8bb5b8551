"""The core from the command line: schema, evaluate, check, export.

JSON goes to standard output, errors to standard error with exit status 2.
"""

from __future__ import annotations

import argparse
import json
import re
import sys
import unicodedata
from pathlib import Path
from typing import Any

from stileblade.build.document import Design, read_design
from stileblade.build.evaluation import Evaluation, evaluate
from stileblade.checks.check import Severity, run_checks
from stileblade.errors import DocumentError, StilebladeError
from stileblade.formats.plan import formats, plan_of
from stileblade.report import finding_data, report
from stileblade.schema import schema

LARGEST_FILE = 40_000_000


def load(path: Path) -> Design:
    """The design in a file."""
    try:
        if path.stat().st_size > LARGEST_FILE:
            raise DocumentError(f"{path}: larger than {LARGEST_FILE // 1_000_000} MB.")
        text = path.read_bytes()
    except OSError as error:
        raise DocumentError(f"{path}: {error.strerror or error}.") from error
    return read_design(text)


def file_name(text: str) -> str:
    """A name for a file: letters, digits, - and _ of any script, never a path."""
    plain = unicodedata.normalize("NFC", text)
    return re.sub(r"[^\w-]+", "-", plain).strip("-")[:80] or "piece"


def export(evaluation: Evaluation, kind: str, folder: Path) -> list[Path]:
    """A file for each piece, named after it; a name used twice gets a number."""
    writer = formats()[kind]
    folder.mkdir(parents=True, exist_ok=True)
    written: list[Path] = []
    for piece in evaluation.pieces:
        name, number = file_name(piece.piece.name), 2
        path = folder / f"{name}.{kind}"
        while path in written:
            path, number = folder / f"{name}-{number}.{kind}", number + 1
        path.write_bytes(writer(plan_of(evaluation, piece)))
        written.append(path)
    return written


def _print(data: Any) -> None:
    print(json.dumps(data, indent=1, ensure_ascii=False))


def main(arguments: list[str] | None = None) -> int:
    parser = argparse.ArgumentParser(prog="python -m stileblade", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True)
    commands.add_parser("schema", help="the JSON Schema of design documents")
    for name, text in (
        ("evaluate", "sizes, outlines, folds and findings"),
        ("check", "the findings; exit status 1 if one is an error"),
        ("export", "files to cut from"),
    ):
        command = commands.add_parser(name, help=text)
        command.add_argument("file", type=Path)
        if name == "export":
            command.add_argument("--format", required=True, choices=formats().names())
            command.add_argument("--out", required=True, type=Path)
    chosen = parser.parse_args(arguments)
    try:
        if chosen.command == "schema":
            _print(schema())
            return 0
        evaluation = evaluate(load(chosen.file))
        if chosen.command == "evaluate":
            _print(report(evaluation))
        elif chosen.command == "check":
            findings = run_checks(evaluation)
            _print([finding_data(f) for f in findings])
            return int(any(f.severity is Severity.ERROR for f in findings))
        else:
            try:
                _print([str(p) for p in export(evaluation, chosen.format, chosen.out)])
            except OSError as error:
                raise DocumentError(f"{error.filename}: {error.strerror}.") from error
    except StilebladeError as error:
        print(f"{error.code}: {error}", file=sys.stderr)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main())
