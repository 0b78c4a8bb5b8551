"""The figures measured on a finished piece."""

from __future__ import annotations

from pydantic import BaseModel

from stileblade.card.stock import price_of, weight_of
from stileblade.checks.check import Subject
from stileblade.checks.envelope import bulk_of, closed_of, own_envelope, ranked, room_of
from stileblade.checks.grain import best_lay
from stileblade.checks.hinges import panel_along
from stileblade.checks.least import least_width
from stileblade.checks.openings import left_in
from stileblade.design.evaluation import Evaluation, PieceOutcome
from stileblade.folding.closed import closed_card
from stileblade.folding.flat import fold_flat
from stileblade.folding.hinge import hinge_length
from stileblade.folding.stand import stand_of
from stileblade.geometry.measures.narrow import thin_places
from stileblade.piece.folds import Fold, Made
from stileblade.piece.work import Work
from stileblade.views.pieces import card_weight
from stileblade.views.said import Said
from stileblade.views.sheets import is_base
from stileblade.words import listed, say, spoken


class Reading(BaseModel):
    """One line of the readings: values with their unit ("mm", "g", "mm2", "count"), and the key of the
    figure that can be aimed at, "" for none."""

    name: Said
    values: list[float]
    unit: str
    note: Said = ""
    figure: str = ""


class EnvelopeRow(BaseModel):
    """An envelope with the room in it in mm, in the better orientation; ``chosen``: the design's."""

    name: str
    width: float
    height: float
    room: tuple[float, float]
    takes: bool
    chosen: bool


MOST_ENVELOPES = 4
"""Of those that take the card and are not the design's own."""


def envelopes_of(evaluation: Evaluation, piece: PieceOutcome) -> list[EnvelopeRow]:
    """The envelopes that take the closed card, the tightest first, and the design's own."""
    found = ranked(Subject(evaluation, piece))
    shown = [r for r in found if r.takes][:MOST_ENVELOPES]
    shown += [r for r in found if r.chosen and r not in shown]
    return [
        EnvelopeRow(
            name=r.envelope.name,
            width=r.envelope.width,
            height=r.envelope.height,
            room=(r.room.width, r.room.height),
            takes=r.takes,
            chosen=r.chosen,
        )
        for r in shown
    ]


def readings_of(evaluation: Evaluation, piece: PieceOutcome) -> list[Reading]:
    """One line for each figure; none while there is no paper."""
    work, sheet = piece.whole, piece.work
    if work is None or sheet is None or not sheet.paper:
        return []
    subject = Subject(evaluation, piece)
    box, closed = work.paper.bounds, closed_of(subject, work)
    found = [
        Reading(name="Open", values=[box.width, box.height], unit="mm", figure="open.width"),
    ]
    if not subject.is_layer or work.folds:
        found.append(Reading(name="Closed", values=list(closed), unit="mm", figure="closed.width"))
    found += [_shorter(subject, p.name, p.short) for p in work.panels if p.short]
    found += [_hinge(subject, work, fold) for fold in work.folds if fold.folds]
    if work.mirrored:
        found.append(
            Reading(
                name="Lost to the lap",
                values=[work.mirrored.loss],
                unit="mm2",
                note="of each half",
                figure="loss",
            )
        )
    room = room_of(subject)
    if room:
        own = own_envelope(evaluation) is not None
        note = "in its own envelope" if own else _in_envelope(room[0].name, turned=room[1].turned)
        found.append(
            Reading(
                name="Room",
                values=[room[1].width, room[1].height],
                unit="mm",
                note=note,
                figure="room",
            )
        )
    layers = fold_flat(work).layers
    note = say("{n} layers", n=layers) if layers > 1 else "one layer"
    if is_base(evaluation, piece) and evaluation.stack and evaluation.stack.layers:
        note = "with all that lies on it"
    found.append(
        Reading(name="Bulk", values=[bulk_of(subject, work)], unit="mm", note=note, figure="bulk")
    )
    if not subject.is_layer:
        found += _closed(subject, work)
        found += _standing(work)
    found += _narrowest(piece, sheet)
    found += _grain(piece, sheet)
    found += [
        Reading(name="Pieces", values=[sheet.paper.pieces], unit="count"),
        Reading(
            name="Openings", values=[len(sheet.paper.openings)], unit="count", note=_left(sheet)
        ),
        Reading(name="Area", values=[sheet.paper.area], unit="mm2", figure="area"),
        Reading(
            name="Weight",
            values=[weight_of(sheet.paper.area, piece.paper)],
            unit="g",
            figure="weight",
        ),
    ]
    return found + _whole(evaluation, piece)


def _whole(evaluation: Evaluation, piece: PieceOutcome) -> list[Reading]:
    """The card with all that lies on it, where something does."""
    stack = evaluation.stack
    if stack is None or len(stack.pieces) < 2 or not is_base(evaluation, piece):
        return []
    weight, posted = card_weight(evaluation), card_weight(evaluation, posted=True)
    found = [Reading(name="Weight of the whole card", values=[weight], unit="g",
                     note=say("{n} layers on it", n=len(stack.layers)))]  # fmt: skip
    if posted > weight + 1e-9:
        found.append(Reading(name="Weight in its envelope", values=[posted], unit="g"))
    price = sum(price_of(p.work.paper.area, p.paper) for p in evaluation.pieces if p.work)
    if price:
        note = "of all its pieces, by their share of a sheet"
        found.append(Reading(name="Paper costs", values=[price], unit="money", note=note))
    return found


def _shorter(subject: Subject, panel: str, short: float) -> Reading:
    return Reading(
        name=say("{panel} is shorter by", panel=panel if spoken() != "en" else panel.capitalize()),
        values=[short],
        unit="mm",
        note="so that it lies flat inside",
    )


def _hinge(subject: Subject, work: Work, fold: Fold) -> Reading:
    spans = work.spans[fold.name]
    note = say("one span | {n} spans", n=len(spans)) if spans else say("no span")
    if len(spans) > 1:
        note += ": " + listed([subject.say(s.length) for s in spans[:4]])
    if spans:
        share = sum(s.length for s in spans) / max(panel_along(work, fold), 1e-9)
        note += say(", along {share:.0%} of the panel", share=share)
    if fold.made is Made.PERFORATE:
        note += say(", after perforation")
    name = (
        "Hinge" if sum(f.folds for f in work.folds) == 1 else say("Hinge, {fold}", fold=fold.name)
    )
    return Reading(
        name=name,
        values=[hinge_length(spans, fold)],
        unit="mm",
        note=note,
        figure=f"hinge:{fold.name}",
    )


def _closed(subject: Subject, work: Work) -> list[Reading]:
    closed = closed_card(work)
    found = []
    if closed.reveal_area > 0.5:
        found.append(
            Reading(
                name="Reveal",
                figure="reveal",
                values=[closed.reveal_by],
                unit="mm",
                note=say(
                    "{reveal_area} of the back seen round the front",
                    reveal_area=subject.area(closed.reveal_area),
                ),
            )
        )
    if closed.out_area > 0.5:
        found.append(
            Reading(
                name="Stands out",
                figure="out",
                values=[closed.out_by],
                unit="mm",
                note=say(
                    "{out_area} of the front beyond the back",
                    out_area=subject.area(closed.out_area),
                ),
            )
        )
    return found


def _standing(work: Work) -> list[Reading]:
    stand = stand_of(work)
    if stand is None:
        return []
    found = [
        Reading(
            name=say("Foot, {panel}", panel=foot.panel),
            figure="foot",
            values=[foot.touching],
            unit="mm",
            note="touches the table" if foot.steady else "touches the table: rocks",
        )
        for foot in stand.feet[:4]
    ]
    note = "from the centre of mass to the edge of the feet" if not stand.tips else "it falls over"
    found.append(
        Reading(name="Stands safe by", values=[stand.safe], unit="mm", note=note, figure="stands")
    )
    return found


def _narrowest(piece: PieceOutcome, work: Work) -> list[Reading]:
    wanted = least_width(piece.paper)
    thin = thin_places(work.paper, wanted)
    if not thin:
        return [Reading(name="Narrowest paper", values=[wanted], unit="mm", note="or more")]
    return [Reading(name="Narrowest paper", values=[thin[0].width], unit="mm")]


def _grain(piece: PieceOutcome, work: Work) -> list[Reading]:
    lay = best_lay(work, piece.paper)
    if lay is None or not any(f.folds for f in work.folds):
        return []
    folds = sum(f.folds and f.axis is not None for f in work.folds)
    note = say("laid upright on its sheet")
    if lay.turned:
        note = say("laid across on its sheet")
    if not lay.fits:
        note = "the sheet is too small for it"
    return [
        Reading(
            name="Folds with the grain", values=[folds - len(lay.across)], unit="count", note=note
        )
    ]


def _in_envelope(name: str, *, turned: bool) -> str:
    if not name:
        return say("in its own envelope, turned") if turned else say("in its own envelope")
    if turned:
        return say("in the {name} envelope, turned", name=name)
    return say("in the {name} envelope", name=name)


def _left(work: Work) -> str:
    left = len(left_in(work))
    return (
        say("{left} not cut on purpose", left=left)
        if left
        else "all cut on purpose"
        if work.windows
        else ""
    )
