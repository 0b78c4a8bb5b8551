"""Whether the closed card goes in its envelope."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from stileblade.card.sizes import STANDARD_SIZES, Envelope, Room, room_in
from stileblade.checks.check import CHECKS, Finding, Mend, Place, Severity, Subject
from stileblade.design.evaluation import Evaluation, PieceOutcome, evaluate
from stileblade.fields import LARGEST
from stileblade.folding.flat import fold_flat
from stileblade.folding.stack import Stack
from stileblade.piece.lying import Around
from stileblade.piece.work import Work
from stileblade.steps.fitting import FitTo
from stileblade.steps.kinds.fit import Fit
from stileblade.words import say


def own_envelope(evaluation: Evaluation) -> tuple[PieceOutcome, Envelope] | None:
    """The envelope that is one of the design's pieces, and its inside measures as it stands after all its
    steps; None where the design makes none."""
    for piece in evaluation.pieces:
        makes = any(o.step.on and o.step.goes_round is Around.ENVELOPE for o in piece.outcomes)
        front = (
            next((p.box for p in piece.work.panels if p.name == "front"), None)
            if makes and piece.work
            else None
        )
        if front is not None:
            inside = Envelope.model_construct(
                name=piece.piece.name, width=front.width, height=front.height
            )
            return piece, inside
    return None


def envelope_of(evaluation: Evaluation) -> Envelope | None:
    """What the card goes in: its own envelope where it has one, else the one that goes with its size."""
    own = own_envelope(evaluation)
    return own[1] if own else evaluation.design.card.size.envelope


def room_of(subject: Subject) -> tuple[Envelope, Room] | None:
    """The design's envelope and the room left in it; None without one."""
    envelope = envelope_of(subject.evaluation)
    work = subject.piece.whole
    if envelope is None or work is None or not work.paper or subject.is_layer:
        return None
    return envelope, room_in(envelope, closed_of(subject, work), bulk_of(subject, work))


def bulk_of(subject: Subject, work: Work) -> float:
    """Thickness of all that lies on top of each other at the thickest place, in mm: of the base with all
    its layers, and with the band round it."""
    stack = _stack_of(subject, work)
    return stack.bulk if stack else fold_flat(work).layers * subject.piece.paper.thickness


def closed_of(subject: Subject, work: Work) -> tuple[float, float]:
    """Width and height of the closed card, in mm: of the base with what stands out of it."""
    stack = _stack_of(subject, work)
    return stack.closed if stack else fold_flat(work).closed


def _stack_of(subject: Subject, work: Work) -> Stack | None:
    """The whole card, of its finished base."""
    stack = subject.evaluation.stack
    return stack if stack and stack.base.work is work else None


@CHECKS.register("envelope")
def envelope(subject: Subject) -> Iterator[Finding]:
    """Room below 0: error. Below the slack: warning."""
    found = room_of(subject)
    work = subject.piece.whole
    if found is None or work is None:
        return
    inside, room = found
    slack = subject.evaluation.design.card.slack
    if room.least >= slack - 1e-9:
        return
    width, height = closed_of(subject, work)
    size = f"{subject.say(width)} x {subject.say(height)}"
    name = inside.name or "The"
    own = own_envelope(subject.evaluation)
    if own:
        mends, hint = _roomier(subject, own[0], slack - room.least), "Make the envelope larger."
    else:
        mends = (
            _smaller(subject, work, inside, slack)
            + _standing_out(subject, slack - room.least)
            + _other_envelope(subject)
        )
        hint = _others_in_words(subject)
    place = Place(outlines=(work.paper,))
    if room.least < 0:
        yield Finding(
            "envelope.over",
            Severity.ERROR,
            say(
                "Closed it is {size}: {least} too large for its own envelope."
                if own
                else "Closed it is {size}: {least} too large for the {name} envelope.",
                size=size,
                least=subject.say(-room.least),
                name=name,
            ),
            subject.name,
            room.least,
            hint=hint,
            place=place,
            mends=mends,
        )
    else:
        yield Finding(
            "envelope.tight",
            Severity.WARNING,
            say(
                "Only {least} of room in its own envelope; {slack} is wished for."
                if own
                else "Only {least} of room in the {name} envelope; {slack} is wished for.",
                least=subject.say(room.least),
                name=name,
                slack=subject.say(slack),
            ),
            subject.name,
            room.least,
            hint=hint,
            place=place,
            mends=mends,
        )


def _roomier(subject: Subject, envelope: PieceOutcome, more: float) -> tuple[Mend, ...]:
    """Make the card's own envelope larger."""
    made = next(o.step for o in envelope.outcomes if o.step.goes_round is Around.ENVELOPE)
    values = made.roomier_by(more)
    title = say("room of {room}", room=subject.say(*values.values()))
    return (Mend(title, made.id, values, step_of=envelope.piece.id),)


def _standing_out(subject: Subject, short: float) -> tuple[Mend, ...]:
    """Let what stands out of the card do so by less, where that is enough."""
    found = []
    for outcome in subject.piece.outcomes:
        step = outcome.step
        if not step.on or outcome.problem is not None:
            continue
        values = step.drawn_in_by(short)
        if values and min(values.values()) > 1 and _takes(subject, step.id, values):
            (wished,) = values.values()
            found.append(
                Mend(
                    say("let it stand out by {wished}", wished=subject.say(wished)), step.id, values
                )
            )
    return tuple(found)


def _takes(subject: Subject, step: str, values: dict[str, float]) -> bool:
    """Whether the card goes in its envelope with its slack, with values set on a step."""
    design, own = subject.evaluation.design, subject.piece.piece
    steps = [s.model_copy(update=values) if s.id == step else s for s in own.steps]
    pieces = [p.model_copy(update={"steps": steps}) if p.id == own.id else p for p in design.pieces]
    changed = evaluate(design.model_copy(update={"pieces": pieces}))
    piece = next(p for p in changed.pieces if p.piece.id == own.id)
    found = room_of(Subject(changed, piece))
    return found is not None and found[1].least >= design.card.slack - 1e-9


@dataclass(frozen=True)
class Ranked:
    """An envelope with the room in it, and whether it takes the card with the slack wished for."""

    envelope: Envelope
    room: Room
    takes: bool
    chosen: bool


def ranked(subject: Subject) -> list[Ranked]:
    """The design's envelope and all standard ones: those that take the card with its slack first, the
    tightest of them at the head; then the others, the nearest to taking it first. A card with an envelope
    made to measure has that one alone."""
    work, card = subject.piece.whole, subject.evaluation.design.card
    if work is None or not work.paper:
        return []
    closed, bulk = closed_of(subject, work), bulk_of(subject, work)
    own, made = envelope_of(subject.evaluation), own_envelope(subject.evaluation)
    known = [s.envelope for s in STANDARD_SIZES if s.envelope is not None and not made]
    if own is not None and not any(_same(own, e) for e in known):
        known.append(own)
    found = []
    for envelope in known:
        room = room_in(envelope, closed, bulk)
        found.append(
            Ranked(
                envelope,
                room,
                room.least >= card.slack - 1e-9,
                own is not None and _same(envelope, own),
            )
        )
    return sorted(
        found,
        key=lambda r: (not r.takes, r.room.width + r.room.height if r.takes else -r.room.least),
    )


def _same(first: Envelope, second: Envelope) -> bool:
    """Whether two envelopes have the same measures."""
    return max(abs(first.width - second.width), abs(first.height - second.height)) < 1e-6


def _others_in_words(subject: Subject) -> str:
    takes = [r.envelope.name for r in ranked(subject) if r.takes]
    if not takes:
        return "No standard envelope takes it."
    if len(takes) == 1:
        return say("Envelope {name} would take it.", name=takes[0])
    return say(
        "Envelope {name} would take it, then {others}.", name=takes[0], others=", ".join(takes[1:3])
    )


def _other_envelope(subject: Subject) -> tuple[Mend, ...]:
    """The tightest envelope that takes the card."""
    takes = next((r.envelope for r in ranked(subject) if r.takes), None)
    if takes is None:
        return ()
    values = {"envelope": takes.model_dump(mode="json")}
    return (Mend(say("envelope {name}", name=takes.name), size=values),)


def _smaller(subject: Subject, work: Work, inside: Envelope, slack: float) -> tuple[Mend, ...]:
    """Scale the figure, before it is mirrored if it is, so that the card goes in with its slack."""
    outline = subject.outline
    if work.mirrored is not None:
        figure, before = work.mirrored.figure.bounds, work.mirrored.step
    elif outline is not None and outline[0].work is not None:
        figure, before = outline[0].work.paper.bounds, outline[1]
    else:
        return ()
    width, height = fold_flat(work).closed
    spare = slack + bulk_of(subject, work)
    share = max(
        min((inside.width - spare) / width, (inside.height - spare) / height),
        min((inside.width - spare) / height, (inside.height - spare) / width),
    )
    if not 0 < share < 1:
        return ()
    wide = int(figure.width * share * 10) / 10
    if not 0 < wide <= LARGEST:
        return ()
    step = Fit(to=FitTo.WIDTH, width=wide)
    return (Mend(say("fit to {wide} wide", wide=subject.say(wide)), add=step, before=before),)
