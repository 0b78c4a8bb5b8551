"""What a person may choose about a file; each format reads what concerns it."""

from __future__ import annotations

from enum import StrEnum

from stileblade.fields import Values, choice, switch


class Which(StrEnum):
    ONE = "one"
    EACH = "each"
    BESIDE = "beside"


class Inside(StrEnum):
    MEANT = "meant"
    ALL = "all"
    SAME = "same"


class Curves(StrEnum):
    ARCS = "arcs"
    SPLINES = "splines"


class Page(StrEnum):
    A4 = "a4"
    LETTER = "letter"
    A3 = "a3"
    OWN = "own"


class MachineName(StrEnum):
    PLOTTER = "plotter"
    FLATBED = "flatbed"


class FileOptions(Values):
    """The choices of a person who saves files. A field whose ``when`` names a format counts for that."""

    which: Which = choice(
        Which.ONE,
        "Pieces",
        "Which of the card's pieces.",
        one="this piece",
        each="all, a file each",
        beside="all, beside each other by paper",
    )
    inside: Inside = choice(
        Inside.MEANT,
        "Scores from the inside",
        "In a second file, for the sheet turned over about its long middle; three holes show that it lies right.",
        meant="those meant so in a second file",
        all="valleys too, in a second file",
        same="all in one file",
    )
    ticks: bool = switch(
        False, "Ticks for scoring", "Short strokes on the waste, in line with each crease."
    )
    curves: Curves = choice(
        Curves.ARCS,
        "Curves",
        "Arcs make each outline one closed line, within 0.005 mm; splines keep curves as they are.",
        arcs="as arcs, each outline one line",
        splines="as splines",
        when={"format": ["dxf"]},
    )
    page: Page = choice(
        Page.A4,
        "Page",
        "Larger pieces are laid over several pages, with an overlap of 10 mm and marks.",
        a4="A4",
        letter="letter",
        a3="A3",
        own="as large as the piece",
        when={"format": ["pdf"]},
    )
    words: bool = switch(
        True,
        "Names and key",
        "Design, piece, date, paper and a key to the lines below the piece.",
        when={"format": ["pdf"]},
    )
    both_sides: bool = switch(
        False,
        "Inside on a second page",
        "It lies back to back with the first when printed on both sides.",
        when={"format": ["pdf"]},
    )
    machine: MachineName = choice(
        MachineName.PLOTTER,
        "Machine",
        "Its tools, speeds and overlap are in the file.",
        plotter="plotter",
        flatbed="flat bed",
        when={"format": ["hpgl", "gcode"]},
    )


def options_of(kind: str) -> list[str]:
    """Names of the choices that count for a format."""

    def counts(extra: object) -> bool:
        when = extra.get("when") if isinstance(extra, dict) else None
        return not isinstance(when, dict) or kind in when.get("format", [kind])

    return [n for n, info in FileOptions.model_fields.items() if counts(info.json_schema_extra)]
