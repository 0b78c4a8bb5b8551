"""What can be built: steps and figures with their forms and pictures, sizes, ways."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import lru_cache
from typing import Any

from pydantic import BaseModel

from server.designs.folded_of import folded
from server.designs.shown import FoldedPicture, PictureView
from server.designs.views_of import small_picture
from stileblade.build.document import Card, Design, Piece
from stileblade.build.evaluation import evaluate
from stileblade.build.step import STEPS, Stage, Step
from stileblade.build.steps.figure import StartFigure
from stileblade.build.work import Work
from stileblade.card.sizes import STANDARD_SIZES, CardSize
from stileblade.card.ways import WAYS, Folding, Way
from stileblade.folding.picture import closing_pictures
from stileblade.outlines.artwork import Artwork
from stileblade.outlines.figure import FIGURES


class StepKind(BaseModel):
    kind: str
    title: str
    stage: str
    words: str
    description: str
    starts: bool
    form: dict[str, Any]
    before: PictureView | None
    after: PictureView | None


class FigureKind(BaseModel):
    kind: str
    title: str
    words: str
    form: dict[str, Any]
    picture: PictureView | None


class WayKind(BaseModel):
    """pictures show it being folded, from open to closed, all in one frame."""

    kind: str
    title: str
    description: str
    pictures: list[FoldedPicture]


class Catalogue(BaseModel):
    stages: list[str]
    steps: list[StepKind]
    figures: list[FigureKind]
    sizes: list[CardSize]
    ways: list[WayKind]
    folding: dict[str, Any]


def _works(
    steps: list[Step],
    artworks: Mapping[str, Artwork] | None = None,
    folding: Folding | None = None,
    before: Sequence[list[Step]] = (),
) -> list[Work | None]:
    card = Card(
        size=next(s for s in STANDARD_SIZES if s.name == "ISO A6"), folding=folding or Folding()
    )
    pieces = [
        Piece.model_validate(
            {
                "id": f"piece-{n}" if n else "base",
                "steps": [s.model_dump(exclude={"id"}) for s in made],
            }
        )
        for n, made in enumerate([*before, steps])
    ]
    design = Design(card=card, artworks=dict(artworks or {}), pieces=pieces)
    return [o.work for o in evaluate(design).pieces[-1].outcomes]


def _step(kind: str) -> StepKind:
    cls = STEPS[kind]
    works = _works(cls.sample(), cls.sample_artworks, cls.sample_folding, cls.sample_pieces())
    before = works[-2] if len(works) > 1 else None
    return StepKind(
        kind=kind,
        title=cls.title,
        stage=cls.stage,
        words=cls.words,
        description=" ".join((cls.__doc__ or "").split()),
        starts=cls.starts,
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
    return WayKind(
        kind=way.kind,
        title=way.title,
        description=way.description,
        pictures=[folded(p) for p in closing_pictures(piece.work, piece.paper, 6)],
    )


@lru_cache(maxsize=1)
def catalogue() -> Catalogue:
    order = {str(stage): i for i, stage in enumerate(Stage)}
    return Catalogue(
        stages=[str(s) for s in Stage],
        steps=sorted((_step(k) for k in STEPS.names()), key=lambda s: (order[s.stage], s.title)),
        figures=[_figure(kind) for kind in FIGURES.names()],
        sizes=list(STANDARD_SIZES),
        ways=[_way(w) for w in WAYS],
        folding=Folding.model_json_schema(),
    )
