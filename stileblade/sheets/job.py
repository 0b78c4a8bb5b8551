"""A job: designs and how many cards of each, and how their pieces are to lie on sheets."""

from __future__ import annotations

import json
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Annotated

from pydantic import Field, ValidationError

from stileblade.card.stock import Paper
from stileblade.checks.grain import best_lay
from stileblade.design.document import read_design
from stileblade.design.evaluation import Evaluation, PieceOutcome, evaluate
from stileblade.errors import DocumentError
from stileblade.fields import Values, choice, length, number_of, switch
from stileblade.formats.lines import Lines
from stileblade.formats.options import Inside
from stileblade.formats.plan import INSIDE, MOUNTAIN, VALLEY, plan_of
from stileblade.formats.sides import Side, side_of
from stileblade.geometry.measures import rows
from stileblade.machine.operation import Operation
from stileblade.sheets.layout.parts import Part, Turns
from stileblade.words import say

MOST_PIECES = 2000
_MOST_BYTES = 40_000_000
_MOST_JOB = 1_000_000
_SIZE = Annotated[float, Field(gt=0, le=5000)]
_LENGTH = Annotated[float, Field(ge=0, le=5000)]


class JobOptions(Values):
    """How pieces lie on sheets, and what holds them there."""

    gap_mm: float = length(2, "Gap", "Between two pieces.", least=0, most=100)
    edge_mm: float | None = Field(
        None,
        title="Edge",
        description="Of each side, that stays free; none given: what paper and machine say.",
        ge=0,
        le=200,
        json_schema_extra={"unit": "mm"},
    )
    formats: dict[str, tuple[_SIZE, _LENGTH]] = Field(
        {},
        title="Formats",
        description="Width and height of a paper's sheets, by its key; a roll has the height 0.",
        max_length=200,
    )
    inside_up: tuple[str, ...] = Field(
        (),
        title="Inside up",
        description="Keys of the papers whose pieces lie on their sheets inside up.",
        max_length=200,
    )
    turns: Turns = choice(
        Turns.QUARTERS, "Turned", "How pieces may be turned to fit.",
        free="by any twelfth", quarters="by quarters", halves="by halves", none="not at all",
    )  # fmt: skip
    with_grain: bool = switch(
        True,
        "Folds along the grain",
        "Folded pieces are turned by halves, as their paper's grain wants.",
    )
    inside: Inside = choice(
        Inside.ALL,
        "Scores from the inside",
        "In a second set-up, with holes to turn the sheet by.",
        meant="those that their steps say",
        all="valleys, and those that their steps say",
        same="none: all from the side that lies up",
    )
    in_windows: bool = switch(
        True,
        "Pieces in windows",
        "Small pieces may lie in the windows of others.",
    )
    bridges: int = number_of(
        0,
        "Holding bridges",
        "On each outer cut, so that pieces stay in their sheet.",
        least=0,
        most=12,
    )
    bridge_width: float = length(
        0.4, "Bridge width", "What is left uncut at each.", least=0.1, most=5
    )


class CardsWanted(Values):
    """How many cards of a design are made, and which of its pieces."""

    count: int = Field(1, ge=1, le=2000, title="Cards")
    spares: int = Field(
        0, ge=0, le=2000, title="Spares", description="Cards that are made besides."
    )
    spare_share: float = Field(
        0,
        ge=0,
        le=1,
        title="Share of spares",
        description="Of the cards, made besides; rounded up to whole cards.",
    )
    pieces: tuple[Annotated[str, Field(max_length=60)], ...] = Field(
        (),
        max_length=200,
        title="Pieces",
        description="Keys of the pieces that are made; none given: all of them.",
    )

    @property
    def total(self) -> int:
        """Cards in all, with spares."""
        return self.count + self.spares + math.ceil(self.count * self.spare_share - 1e-9)


class JobDesign(CardsWanted):
    """A design of a job: its file, and how many cards of it."""

    file: str = Field(max_length=500)


class JobFile(JobOptions):
    """A job as a file."""

    name: str = Field("job", max_length=120)
    designs: tuple[JobDesign, ...] = Field(min_length=1, max_length=200)


@dataclass(frozen=True, eq=False)
class Card:
    """A design of a job: its key and name, what it evaluates to, how many are made, and which pieces (all where
    none is named)."""

    key: str
    name: str
    evaluation: Evaluation
    count: int
    pieces: tuple[str, ...] = ()


@dataclass(frozen=True, eq=False)
class Wanted:
    """A piece of a card: its lines with its box at 0, 0, its shape as a part, and how many."""

    card: Card
    piece: PieceOutcome
    lines: Lines
    part: Part
    count: int

    @property
    def name(self) -> str:
        return self.piece.piece.name

    @property
    def paper(self) -> Paper:
        return self.piece.paper

    @property
    def outside_only(self) -> bool:
        """Whether something is done to it that can be done from its outside alone."""
        return any(
            side_of(op, line) is Side.OUTSIDE for op, some in self.lines.items() for line in some
        )

    @property
    def inside_only(self) -> bool:
        return any(
            side_of(op, line) is Side.INSIDE for op, some in self.lines.items() for line in some
        )

    def beneath(self, *, flipped: bool) -> bool:
        """Whether something is to be done to the side that lies on the bed."""
        return self.outside_only if flipped else self.inside_only


@dataclass(frozen=True, eq=False)
class Stock:
    """All pieces of a paper. ``keys`` are those by which designs know it."""

    paper: Paper
    keys: tuple[str, ...]
    pieces: tuple[Wanted, ...]

    @property
    def parts(self) -> list[Part]:
        """Each as often as it is wanted."""
        return [w.part for w in self.pieces for _ in range(w.count)]


def read_job(path: Path) -> tuple[JobFile, list[Card]]:
    """A job's file with its designs, whose files are relative to it. DocumentError says what is wrong."""
    text = _read(path, _MOST_JOB)
    try:
        job = JobFile.model_validate(json.loads(text))
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(p) for p in first["loc"]) or "the job"
        raise DocumentError(f"{path.name}: {where}: {first['msg']}.") from error
    except (ValueError, RecursionError) as error:
        raise DocumentError(
            say("{name}: is no JSON ({what}).", name=path.name, what=str(error)[:80])
        ) from error
    cards = []
    for number, wanted in enumerate(job.designs):
        file = path.parent / wanted.file
        try:
            design = read_design(_read(file, _MOST_BYTES))
        except DocumentError as error:
            said = (
                error.message if wanted.file in error.message else f"{wanted.file}: {error.message}"
            )
            raise DocumentError(said, hint=error.hint) from error
        cards.append(Card(f"{number}", design.name, evaluate(design), wanted.total, wanted.pieces))
    return job, cards


def _read(path: Path, most: int) -> bytes:
    try:
        if path.stat().st_size > most:
            raise DocumentError(
                say("{path}: larger than {most} MB.", path=path, most=most // 1_000_000)
            )
        return path.read_bytes()
    except OSError as error:
        raise DocumentError(f"{path}: {error.strerror or error}.") from error


def stocks_of(cards: Sequence[Card], options: JobOptions) -> list[Stock]:
    """The pieces of all cards by paper. Designs of one job that have the same paper share it, whatever
    key they have it by. DocumentError where there is no piece, or too many."""
    groups: dict[Paper, list[Wanted]] = {}
    keys: dict[Paper, list[str]] = {}
    for card in cards:
        for piece in card.evaluation.pieces:
            if piece.work is None or not piece.work.paper:
                continue
            if card.pieces and piece.piece.id not in card.pieces:
                continue
            same = piece.paper.model_copy(update={"id": ""})
            groups.setdefault(same, []).append(_wanted(card, piece, options))
            known = keys.setdefault(same, [])
            if piece.paper.id not in known:
                known.append(piece.paper.id)
    total = sum(w.count for some in groups.values() for w in some)
    if not total:
        raise DocumentError(
            "There is no piece of paper in this job.", hint="Give its designs a blank or a figure."
        )
    if total > MOST_PIECES:
        raise DocumentError(
            say(
                "The job has {total:,} pieces; at most {most_pieces:,} are laid out at once.",
                total=total,
                most_pieces=MOST_PIECES,
            ),
            hint="Make it in several jobs.",
        )
    return [
        Stock(paper.model_copy(update={"id": keys[paper][0]}), tuple(keys[paper]), tuple(some))
        for paper, some in groups.items()
    ]


def _wanted(card: Card, piece: PieceOutcome, options: JobOptions) -> Wanted:
    work = piece.work
    assert work is not None
    plan = plan_of(card.evaluation, piece)
    box = work.paper.bounds
    shape = rows.moved(rows.shape_of(work.paper), -box.left, -box.head)
    turns, first = options.turns, 0.0
    if options.with_grain and any(f.folds for f in work.folds):
        lay = best_lay(work, piece.paper)
        if lay is not None:
            turns, first = Turns.HALVES, 90.0 if lay.turned else 0.0
    flipped = not {piece.paper.id, piece.paper.name}.isdisjoint(options.inside_up)
    part = Part(f"{card.key}.{piece.piece.id}", shape, turns, first, flipped)
    lines = {
        op: [replace(line, group=side_group(line.group, options.inside)) for line in some]
        if op is Operation.SCORE
        else some
        for op, some in plan.lines.items()
    }
    return Wanted(card, piece, lines, part, card.count)


def side_group(group: str, inside: Inside) -> str:
    """The group of a score line in a job: what is to be scored from the inside is of that group alone."""
    if inside is Inside.ALL and group == VALLEY:
        return INSIDE
    return MOUNTAIN if inside is Inside.SAME and group == INSIDE else group


def sheet_size(
    paper: Paper, keys: Sequence[str], formats: Mapping[str, tuple[float, float]]
) -> tuple[float, float]:
    """The size of a paper's sheets: that of the job by one of its keys or its name, else as it is bought.
    The height is 0 where it comes from a roll."""
    for key in (*keys, paper.name):
        if key in formats:
            return formats[key]
    return paper.sheet_width, paper.sheet_height
