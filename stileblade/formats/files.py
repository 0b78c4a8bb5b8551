"""Names of files, and a file for each piece of a card."""

from __future__ import annotations

import re
import unicodedata
from pathlib import Path

from stileblade.design.evaluation import Evaluation
from stileblade.formats.format import formats
from stileblade.formats.plan import plan_of


def file_name(text: str) -> str:
    """A name for a file: letters, digits, - and _ of any script, never a path."""
    plain = unicodedata.normalize("NFC", text)
    return re.sub(r"[^\w-]+", "-", plain).strip("-")[:80] or "piece"


def export(evaluation: Evaluation, kind: str, folder: Path) -> list[Path]:
    """A file for each piece, named after it; a name used twice gets a number. OSError where the
    folder cannot be written to."""
    form = formats()[kind]
    folder.mkdir(parents=True, exist_ok=True)
    written: list[Path] = []
    for piece in evaluation.pieces:
        name, number = file_name(piece.piece.name), 2
        path = folder / f"{name}.{kind}"
        while path in written:
            path, number = folder / f"{name}-{number}.{kind}", number + 1
        path.write_bytes(form.write(plan_of(evaluation, piece)))
        written.append(path)
    return written
