"""What can be built: steps and figures with their forms and pictures, sizes, ways."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import lru_cache
from typing import Any, Literal

from pydantic import BaseModel

from stileblade.card.folding import Folding
from stileblade.card.sizes import STANDARD_SIZES, CardSize
from stileblade.card.ways import WAYS, Way
from stileblade.design.document import Card, Design, Piece
from stileblade.design.evaluation import evaluate
from stileblade.folding.space import half_open, sequence
from stileblade.formats.format import formats
from stileblade.formats.options import FileOptions
from stileblade.outlines.artwork import Artwork
from stileblade.outlines.figure import FIGURES
from stileblade.piece.lying import Lies
from stileblade.piece.work import Work
from stileblade.steps.kinds.figure import StartFigure
from stileblade.steps.step import STEPS, Stage, StartsWith, Step
from stileblade.views.folded import FoldedPicture, closing_pictures
from stileblade.views.said import Said, SaidForm
from stileblade.views.strip import PictureView, small_picture
from stileblade.words import LANGUAGES, speaking, spoken

WAY_STAGES = 5
"""Pictures to each stage of a way's folding."""


class StepKind(BaseModel):
    kind: str
    title: Said
    stage: Said
    words: str
    description: Said
    starts_with: Literal["", "card", "figure", "artwork", "part", "prop", "layer"]
    needs: Literal["", "figure", "fold", "window"]
    """What there must be before it: a figure without panels, a fold, a window."""
    makes_panels: bool
    for_layers: bool
    lays_piece: bool
    """Whether it is offered for pieces that lie on others alone."""
    usual: dict[str, Any]
    form: SaidForm
    before: PictureView | None
    after: PictureView | None


class FigureKind(BaseModel):
    kind: str
    given_by: Literal["measures", "artwork", "word"]
    title: Said
    words: str
    form: SaidForm
    picture: PictureView | None


class WayKind(BaseModel):
    """pictures show it being folded, from open to closed, all in one frame; the one of the number ``rest``
    tells it apart from the others."""

    kind: str
    title: Said
    description: Said
    pictures: list[FoldedPicture]
    rest: int


class FormatKind(BaseModel):
    """A file format by its ending."""

    extension: str
    title: Said
    about: Said


class Catalogue(BaseModel):
    stages: list[Said]
    steps: list[StepKind]
    figures: list[FigureKind]
    sizes: list[CardSize]
    ways: list[WayKind]
    folding: SaidForm
    formats: list[FormatKind]
    file_options: SaidForm


def _works(
    steps: list[Step],
    artworks: Mapping[str, Artwork] | None = None,
    folding: Folding | None = None,
    before: Sequence[list[Step]] = (),
    lies: Lies | None = None,
) -> list[Work | None]:
    card = Card(
        size=next(s for s in STANDARD_SIZES if s.name == "ISO A6"), folding=folding or Folding()
    )
    design = Design(
        card=card,
        artworks=dict(artworks or {}),
        pieces=sample_of([*before, steps], lies or Lies("base")),
    )
    return [o.work for o in evaluate(design).pieces[-1].outcomes]


def sample_of(pieces: Sequence[list[Step]], lies: Lies) -> list[Piece]:
    """Pieces of the steps, the first one's key "base"; a layer lies on it, the last one as ``lies`` says."""
    found = []
    for n, steps in enumerate(pieces):
        data: dict[str, Any] = {"id": f"piece-{n}" if n else "base"}
        if any(s.starts_with is StartsWith.LAYER or s.lays_piece for s in steps):
            on = lies if n == len(pieces) - 1 else Lies("base")
            data |= {"host": on.host, "panel": on.panel, "side": on.side}
        made = [s.model_dump(exclude={"id"}) for s in steps]
        found.append(Piece.model_validate({**data, "steps": made}))
    return found


def _step(kind: str) -> StepKind:
    cls = STEPS[kind]
    works = _works(
        cls.sample(), cls.sample_artworks, cls.sample_folding, cls.sample_pieces(), cls.sample_lies
    )
    before = works[-2] if len(works) > 1 else None
    return StepKind(
        kind=kind,
        title=cls.title,
        stage=cls.stage,
        words=cls.words,
        description=" ".join((cls.__doc__ or "").split()),
        starts_with=cls.starts_with.value if cls.starts_with else "",
        needs=cls.needs_before.value,
        makes_panels=cls.makes_panels,
        for_layers=cls.for_layers,
        lays_piece=cls.lays_piece,
        usual=dict(cls.usual),
        form=cls.model_json_schema(),
        before=small_picture(before) if before else None,
        after=small_picture(works[-1]) if works[-1] else None,
    )


def _figure(kind: str) -> FigureKind:
    cls = FIGURES[kind]
    figure = cls()
    work = None if figure.reads() else _works([StartFigure(outline=figure)])[0]
    return FigureKind(
        kind=kind,
        given_by=cls.given_by.value,
        title=cls.title,
        words=cls.words,
        form=cls.model_json_schema(),
        picture=small_picture(work) if work else None,
    )


def _way(way: Way) -> WayKind:
    card = Card(
        size=next(s for s in STANDARD_SIZES if s.name == "ISO A6"), folding=Folding(kind=way.kind)
    )
    design = Design(card=card, pieces=[Piece.model_validate({"steps": [{"kind": "blank"}]})])
    piece = evaluate(design).pieces[0]
    assert piece.work is not None
    half = sequence(piece.work).index(half_open(piece.work))
    return WayKind(
        kind=way.kind,
        title=way.title,
        description=way.description,
        pictures=closing_pictures(piece.work, piece.paper, WAY_STAGES),
        rest=round(half * WAY_STAGES * way.shown_at),
    )


def catalogue() -> Catalogue:
    """All that can be built, in the language that is spoken."""
    return _said(spoken())


@lru_cache(maxsize=len(LANGUAGES))
def _said(language: str) -> Catalogue:
    with speaking("en"):
        english = _catalogue()
    with speaking(language):
        return Catalogue.model_validate(english.model_dump())


@lru_cache(maxsize=1)
def _catalogue() -> Catalogue:
    order = {str(stage): i for i, stage in enumerate(Stage)}
    return Catalogue(
        stages=[str(s) for s in Stage],
        steps=sorted((_step(k) for k in STEPS.names()), key=lambda s: (order[s.stage], s.title)),
        figures=[_figure(kind) for kind in FIGURES.names()],
        sizes=list(STANDARD_SIZES),
        ways=[_way(w) for w in WAYS],
        folding=Folding.model_json_schema(),
        formats=[
            FormatKind(extension=f.extension, title=f.title, about=f.about) for f in formats()
        ],
        file_options=FileOptions.model_json_schema(),
    )
