"""The jobs: each turns a wish into the bytes of its answer. They know neither web nor database, and
run in a worker, which keeps what it has computed for the next one."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from pydantic import BaseModel, TypeAdapter

from server.computing import drawings
from server.computing.wishes import (
    AimWish,
    Begin,
    Evaluate,
    Export,
    Joins,
    Kin,
    Looked,
    Offers,
    Picture,
    Refold,
    Wish,
)
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design, load_design, load_figure
from stileblade.design.evaluation import Evaluation, PieceOutcome, evaluate
from stileblade.design.kin.differences import Names
from stileblade.errors import DocumentError
from stileblade.folding.joins import Wish as JoinWish
from stileblade.formats.files import File, as_one, file_name, files_of
from stileblade.views.adding import OfferView, offers_of
from stileblade.views.aims import (
    SLICE_SECONDS,
    FigureView,
    aim_at,
    figures_of,
    kept_again,
    wish_of,
)
from stileblade.views.beginnings import BeginningView, beginnings_of
from stileblade.views.bench import Wanted, as_json, view
from stileblade.views.cards import OtherCard, on_card
from stileblade.views.catalogue import catalogue
from stileblade.views.cuts import CutView, PlacedThing, cuts_of, placed_of
from stileblade.views.findings import standing
from stileblade.views.joins import JoinView, joins_of
from stileblade.views.kin import chosen, offered, taken_over
from stileblade.views.posed import posed_svg
from stileblade.views.searching import HitView, hits
from stileblade.views.summary import summary_of
from stileblade.words import say

CACHE = OutcomeCache(most_bytes=150_000_000)


@dataclass(frozen=True)
class Answer:
    """``name`` where it is a file to be saved."""

    content: bytes
    media_type: str = "application/json"
    name: str = ""


Job = Callable[..., Answer]


def _listed(kind: Any, found: Any) -> Answer:
    return Answer(TypeAdapter(list[kind]).dump_json(found))


def _one(found: BaseModel) -> Answer:
    return Answer(found.model_dump_json().encode())


def _file(file: File) -> Answer:
    return Answer(file.content, file.media_type, file.name)


def _evaluated(wish: Wish, *, until: tuple[str, str] | None = None) -> Evaluation:
    return evaluate(load_design(wish.document), CACHE, until=until)


def _piece(evaluation: Evaluation, name: str) -> PieceOutcome:
    for piece in evaluation.pieces:
        if piece.piece.id == name:
            return piece
    raise DocumentError(say("piece={name!r} is not in the design.", name=name[:40]), where="piece")


def _evaluate(wish: Evaluate) -> Answer:
    # the flat view shows the piece at the step in hand: what comes after it can wait
    until = (wish.piece, wish.step) if wish.step and wish.part is Wanted.FLAT else None
    evaluation = _evaluated(wish, until=until)
    piece = _piece(evaluation, wish.piece)
    return Answer(as_json(view(evaluation, piece, wish.step, set(wish.known), wish.part)))


def _cuts(wish: Looked) -> Answer:
    return _listed(CutView, cuts_of(_piece(_evaluated(wish), wish.piece)))


def _placed(wish: Looked) -> Answer:
    return _listed(PlacedThing, placed_of(_piece(_evaluated(wish), wish.piece)))


def _picture(wish: Picture) -> Answer:
    evaluation = _evaluated(wish)
    piece = _piece(evaluation, wish.piece)
    content = posed_svg(evaluation, piece, wish.angles, wish.eye, wish.up, wish.apart)
    return _file(File(f"{file_name(evaluation.design.name)}-folded.svg", content, "image/svg+xml"))


def _export(wish: Export, date: str) -> Answer:
    evaluation = _evaluated(wish)
    files = files_of(
        evaluation,
        wish.format,
        wish.options,
        piece=_piece(evaluation, wish.piece).piece.id,
        findings=standing(evaluation),
        date=date,
    )
    return _file(as_one(files, evaluation.design.name))


def _refold(wish: Refold) -> Answer:
    design = load_design(wish.document)
    return _listed(
        OtherCard,
        [on_card(design, card, CACHE, along=wish.along, factor=wish.factor) for card in wish.cards],
    )


def _kin_count(wishes: list[Kin]) -> Answer:
    """How many changes there are to take over, for each."""
    return Answer(
        json.dumps([len(chosen(*_kin(w)[:3], Names(w.names), w.how)) for w in wishes]).encode()
    )


def _kin_offer(wish: Kin) -> Answer:
    before, source, target, _ = _kin(wish)
    return _one(offered(before, source, target, Names(wish.names), wish.how, CACHE))


def _kin_take(wish: Kin) -> Answer:
    made, behind, names = taken_over(*_kin(wish), Names(wish.names), wish.how)
    told = {
        "document": made.model_dump(mode="json"),
        "behind": behind.model_dump(mode="json"),
        "names": dict(names.other),
        "back": dict(names.the_other_way().other),
    }
    return Answer(json.dumps(told).encode())


def _kin(wish: Kin) -> tuple[Design, Design, Design, Design]:
    return (
        load_design(wish.before),
        load_design(wish.source),
        load_design(wish.target),
        load_design(wish.behind),
    )


def _offers(wish: Offers) -> Answer:
    return _listed(OfferView, offers_of(load_design(wish.document), wish.panel, CACHE))


def _beginnings(wish: Begin) -> Answer:
    design, figure = load_design(wish.document), load_figure(wish.figure)
    found = beginnings_of(design, figure, wish.margin, fits=wish.fits, cache=CACHE)
    return _listed(BeginningView, found)


def _joins(wish: Joins) -> Answer:
    limits = JoinWish(wish.loss, wish.least_lap, wish.most_lap, wish.most_turn, wish.spans)
    return _listed(JoinView, joins_of(load_design(wish.document), wish.piece, limits, CACHE))


def _figures(wish: Looked) -> Answer:
    return _listed(FigureView, figures_of(_evaluated(wish), wish.piece))


def _aim(wish: AimWish) -> Answer:
    wanted = wish_of(wish.piece, wish.figure, wish.relation, wish.target)
    design = load_design(wish.document)
    return _one(aim_at(design, wanted, CACHE, seconds=SLICE_SECONDS, before=wish.tried))


def _aims(wish: Wish) -> Answer:
    return _one(kept_again(load_design(wish.document), CACHE))


def _summary(text: str) -> Answer:
    return _one(summary_of(text, CACHE))


def _catalogue() -> Answer:
    return _one(catalogue())


def _plain(work_out: Callable[..., Any]) -> Job:
    """A job whose answer is what a function finds, as JSON."""
    return lambda *arguments: Answer(drawings.as_bytes(work_out(*arguments)))


JOBS: dict[str, Job] = {
    "artwork": _plain(drawings.artwork_row),
    "words": _plain(drawings.words_in_faces),
    "near": _plain(drawings.near),
    "moved": _plain(drawings.placed),
    "used": _plain(drawings.used),
    "catalogue": _catalogue,
    "steps": lambda said, unit: _listed(HitView, hits(said, unit)),
    "evaluate": _evaluate,
    "cuts": _cuts,
    "placed": _placed,
    "picture": _picture,
    "export": _export,
    "refold": _refold,
    "beginnings": _beginnings,
    "joins": _joins,
    "offers": _offers,
    "kin-count": _kin_count,
    "kin-offer": _kin_offer,
    "kin-take": _kin_take,
    "figures": _figures,
    "aim": _aim,
    "aims": _aims,
    "summary": _summary,
}
