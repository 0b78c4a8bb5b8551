"""Files for a card's pieces: their names, and one for each or all in one."""

from __future__ import annotations

import io
import re
import unicodedata
import zipfile
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.formats.format import formats
from stileblade.formats.options import FileOptions, Which
from stileblade.formats.plan import Plan, beside, plan_of, set_ups
from stileblade.words import say

Findings = Mapping[str, Sequence[str]]
"""By a piece's key: what the checks found that stands."""


@dataclass(frozen=True)
class File:
    """A file's name, its content and its media type."""

    name: str
    content: bytes
    media_type: str


def file_name(text: str) -> str:
    """A name for a file: letters, digits, - and _ of any script, never a path."""
    plain = unicodedata.normalize("NFC", text)
    return re.sub(r"[^\w-]+", "-", plain).strip("-")[:80] or "piece"


def files_of(
    evaluation: Evaluation,
    kind: str,
    options: FileOptions | None = None,
    *,
    piece: str = "",
    findings: Findings | None = None,
    date: str = "",
) -> list[File]:
    """The files of a format, named after design and piece: of the piece with the key ``piece``, or of
    all where that is "" or the options say so. Of several, those without paper are left out, which is said in the
    others' files; ``StilebladeError`` where none has any."""
    form, options = formats()[kind], options or FileOptions()
    wanted = [
        p for p in evaluation.pieces if options.which is not Which.ONE or piece in ("", p.piece.id)
    ]
    made = [p for p in wanted if p.work is not None and p.work.paper]
    left_out = [left_out_text(p) for p in wanted if p not in made]
    wanted = made or wanted
    plans = [
        plan_of(
            evaluation, p, ticked=options.ticks,
            findings=(*(findings or {}).get(p.piece.id, ()), *left_out),
        )
        for p in wanted
    ]  # fmt: skip
    if options.which is Which.BESIDE:
        plans = _by_paper(plans)
    plans = [replace(done, date=date) for plan in plans for done in set_ups(plan, options.inside)]
    found: list[File] = []
    for plan in plans:
        name = _unused(_name(plan, options), [f.name for f in found], form.extension)
        found.append(File(name, form.write(plan, options), form.media_type))
    return found


def left_out_text(piece: PieceOutcome) -> str:
    """That a piece is in no file."""
    return say("{name!r} has no paper, so it is in no file.", name=piece.piece.name)


def _by_paper(plans: Sequence[Plan]) -> list[Plan]:
    """Plans side by side, one for each paper."""
    groups: dict[str, list[Plan]] = {}
    for plan in plans:
        groups.setdefault(plan.paper, []).append(plan)
    return [beside(some) for some in groups.values()]


def _name(plan: Plan, options: FileOptions) -> str:
    piece = "" if options.which is Which.BESIDE else plan.piece
    return file_name("-".join(filter(None, (plan.design, piece, plan.label))))


def _unused(name: str, taken: Sequence[str], extension: str) -> str:
    number, found = 2, f"{name}.{extension}"
    while found in taken:
        number, found = number + 1, f"{name}-{number}.{extension}"
    return found


def named_apart(names: Sequence[str], extension: str) -> list[str]:
    """File names of things, no two alike."""
    found: list[str] = []
    for name in names:
        found.append(_unused(file_name(name), found, extension))
    return found


def as_one(files: Sequence[File], name: str) -> File:
    """The file, or all of several in a ZIP of that name."""
    if len(files) == 1:
        return files[0]
    content = b"".join(zipped((file.name, file.content) for file in files))
    return File(f"{file_name(name)}.zip", content, "application/zip")


def zipped(entries: Iterable[tuple[str, bytes]]) -> Iterator[bytes]:
    """A ZIP of names with contents in parts, each entry compressed when its turn comes: no more than one is held."""
    stream = _Passed()
    with zipfile.ZipFile(stream, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in entries:
            archive.writestr(zipfile.ZipInfo(name), content, zipfile.ZIP_DEFLATED)
            yield stream.taken()
    yield stream.taken()


class _Passed(io.RawIOBase):
    """What is written to it, until it is taken. It cannot be sought in, which a ZIP says in its entries."""

    def __init__(self) -> None:
        self._parts: list[bytes] = []

    def writable(self) -> bool:
        return True

    def write(self, data: Any) -> int:
        self._parts.append(bytes(data))
        return len(data)

    def taken(self) -> bytes:
        parts, self._parts = self._parts, []
        return b"".join(parts)


def save(files: Sequence[File], folder: Path) -> list[Path]:
    """The files in a folder; where there is another file of that name already, with a number. OSError
    where the folder cannot be written to."""
    folder.mkdir(parents=True, exist_ok=True)
    written = []
    for file in files:
        path, number = folder / file.name, 2
        while path.exists() and path.read_bytes() != file.content:
            stem, _, extension = file.name.rpartition(".")
            path, number = folder / f"{stem}-{number}.{extension}", number + 1
        path.write_bytes(file.content)
        written.append(path)
    return written
