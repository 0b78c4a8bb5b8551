"""Files of a job: one for each sheet and set-up or each pass, and what each sheet is meant to become."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from lxml import etree

from stileblade.formats.files import File, file_name
from stileblade.formats.format import formats
from stileblade.formats.lines import nothing, rounds_of
from stileblade.formats.options import FileOptions, Page
from stileblade.formats.plan import Plan
from stileblade.machine.operation import ORDER, WORDS, Operation
from stileblade.meant.sheet import MeantSheet
from stileblade.sheets.advice import sheets_word
from stileblade.sheets.laying import Laid
from stileblade.sheets.sheet import Sheet, path_of
from stileblade.words import say


@dataclass(frozen=True, eq=False)
class SheetFiles:
    """A sheet's files for the machine and, for each, what it is meant to become."""

    sheet: Sheet
    files: tuple[File, ...]
    wanted: tuple[MeantSheet, ...]

    @property
    def meant(self) -> tuple[File, ...]:
        """What is kept beside the files, to hold them against."""
        return tuple(
            File(
                f"{file.name.rpartition('.')[0]}.sheet.json",
                wanted.model_dump_json(indent=1).encode(),
                "application/json",
            )
            for file, wanted in zip(self.files, self.wanted, strict=True)
        )


def files_of_sheets(
    laid: Laid,
    kind: str,
    options: FileOptions | None = None,
    *,
    each_pass: bool = False,
    first: int = 1,
) -> list[SheetFiles]:
    """Files of a format for all sheets, numbered from ``first``; names say job, sheet, paper and pass."""
    form, options = formats()[kind], options or FileOptions(page=Page.OWN)
    found = []
    for number, sheet in enumerate(laid.sheets, first):
        files, wanted = [], []
        for plan in sheet.plans:
            whole = sheet.meant(inside=plan.inside, runs=plan.cut_runs if form.runs else 1)
            for part, name, done in _parts(plan, each_pass=each_pass):
                label = "-".join(filter(None, ("inside" if plan.inside else "", name)))
                stem = f"{sheet.job}-sheet-{number}-{sheet.paper.name}-{label}"
                stem = file_name(stem)
                files.append(
                    File(f"{stem}.{form.extension}", form.write(part, options), form.media_type)
                )
                said = whole.model_copy(update={"number": number})
                if done is not None:
                    lines = {done: path_of(part.lines[done])}
                    said = said.model_copy(update={"pieces": (), "others": lines})
                wanted.append(said)
        found.append(SheetFiles(sheet, tuple(files), tuple(wanted)))
    return found


def _parts(plan: Plan, *, each_pass: bool) -> Iterator[tuple[Plan, str, Operation | None]]:
    """The plan as it is, or a plan for each pass with its operation."""
    if not each_pass:
        yield plan, "all", None
        return
    for operation, round_ in rounds_of(plan.lines):
        some = [line for line in plan.lines[operation] if line.round == round_]
        if some:
            lines = nothing()
            lines[operation] = some
            number = ORDER[operation] + 1
            later = f"-{round_ + 1}" if round_ else ""
            yield replace(plan, lines=lines), f"{number}-{operation}{later}", operation


def contents_page(name: str, laid: Laid, files: Sequence[SheetFiles]) -> File:
    """A page that says what is in a ZIP: sheets, their pieces and files."""
    root = etree.Element("html", lang="en")
    head = etree.SubElement(root, "head")
    etree.SubElement(head, "meta", charset="utf-8")
    etree.SubElement(head, "title").text = name
    etree.SubElement(head, "style").text = (
        "body{font:14px/1.5 sans-serif;max-width:46em;margin:2em auto;color:#1d2433}"
        "td,th{text-align:left;padding:2px 12px 2px 0;vertical-align:top}"
    )
    body = etree.SubElement(root, "body")
    etree.SubElement(body, "h1").text = name
    said = say(
        "{sheets_word}, {weight:.1f} g of cards.",
        sheets_word=sheets_word(len(laid.sheets)),
        weight=laid.weight,
    )
    etree.SubElement(body, "p").text = said
    for number, made in enumerate(files, 1):
        sheet = made.sheet
        title = say(
            "Sheet {number}: {name}, {width:g} x {height:g} mm, {use:.0f} % used",
            number=number,
            name=sheet.paper.name,
            width=sheet.form.width,
            height=sheet.form.height,
            use=100 * sheet.use,
        )
        etree.SubElement(body, "h2").text = title
        table = etree.SubElement(body, "table")
        counted: dict[tuple[str, str], int] = {}
        for lying in sheet.lying:
            key = lying.wanted.card.name, lying.wanted.name
            counted[key] = counted.get(key, 0) + 1
        for (design, piece), count in counted.items():
            _row(table, (f"{count} ×", design, piece))
        done = [WORDS[op] for op in Operation if any(p.lines[op] for p in sheet.plans)]
        etree.SubElement(body, "p").text = say("Passes: {list}.", list=", ".join(map(say, done)))
        listing = etree.SubElement(body, "ul")
        for file in made.files:
            etree.SubElement(listing, "li").text = file.name
    content = etree.tostring(root, method="html", encoding="utf-8", doctype="<!doctype html>")
    return File("contents.html", bytes(content), "text/html")


def _row(table: etree._Element, cells: Sequence[str]) -> None:
    row = etree.SubElement(table, "tr")
    for cell in cells:
        etree.SubElement(row, "td").text = cell
