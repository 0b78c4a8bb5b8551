"""From a design to its pieces: each step applied to the work so far.

Pure, and cached. What a step reads beside its values and its input is recorded while it runs
(``stileblade.tracing``); its outcome is used again as long as all of that is the same, so an edit
computes again what depends on it and nothing else. A step that cannot be applied is passed over and
says why.
"""

from __future__ import annotations

import hashlib
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from functools import cached_property

from stileblade.card.stock import Paper
from stileblade.design.cache import OutcomeCache, Recorded
from stileblade.design.document import Design, Piece
from stileblade.errors import GeometryError, StepError
from stileblade.folding.stack import Laid, Stack, stacked
from stileblade.geometry.regions.loops import without_loops
from stileblade.outlines.artwork import Artwork, LayerOutlines, outlines_of
from stileblade.piece.lying import Around, FixedBy
from stileblade.piece.work import Work
from stileblade.spending import OverSpent, for_step
from stileblade.steps.step import Pieces, Setting, Step
from stileblade.tolerance import TOLERANCE
from stileblade.tracing import Observations, ReadByPart, Trace, path_text, traced
from stileblade.unexpected import SORRY, logger
from stileblade.words import say, spoken


@dataclass(frozen=True, eq=False)
class Outcome:
    """A step, the work before and after it, and why it could not be applied, if so."""

    step: Step
    key: str
    before: Work | None
    work: Work | None
    problem: StepError | None


@dataclass(frozen=True, eq=False)
class PieceOutcome:
    piece: Piece
    paper: Paper
    setting: Setting
    outcomes: tuple[Outcome, ...]

    @property
    def work(self) -> Work | None:
        """The finished piece; None where no step has made anything."""
        return self.outcomes[-1].work if self.outcomes else None

    @cached_property
    def whole(self) -> Work | None:
        """The finished piece as it folds: where its last step split it and the rest, a piece of its own, is glued on
        again, as it was before that. Files and sheets have the parts, all else has this."""
        last = next((o for o in reversed(self.outcomes) if o.step.on), None)
        if last is None or last.before is None or last.problem is not None or self.work is None:
            return self.work
        if not last.step.glues_on or not self.setting.taken.get(last.step.id):
            return self.work
        return replace(last.before, parted=self.work.parted, notes=self.work.notes)

    def outcome_of(self, step_id: str) -> Outcome | None:
        return next((o for o in self.outcomes if o.step.id == step_id), None)


@dataclass(frozen=True, eq=False)
class Evaluation:
    design: Design
    pieces: tuple[PieceOutcome, ...]

    @cached_property
    def stack(self) -> Stack | None:
        """The whole card; None while there is no base."""
        laid: list[Laid] = []
        for made in self.pieces:
            laid += _laid(made, first=not laid)
        return stacked(tuple(laid)) if laid else None

    def piece(self, key: str) -> PieceOutcome | None:
        return next((p for p in self.pieces if p.piece.id == key), None)


class Artworks(Mapping[str, LayerOutlines], ReadByPart):
    """A document's artworks, read when first asked for."""

    def __init__(self, artworks: Mapping[str, Artwork]) -> None:
        self._artworks = artworks

    def __getitem__(self, name: str) -> LayerOutlines:
        return outlines_of(self._artworks[name])

    def digest_of(self, name: str) -> bytes:
        """What tells the artwork's outlines from others, found without reading its paths."""
        artwork = self._artworks[name]
        return hashlib.blake2b(f"{artwork.name}\n{artwork.content}".encode()).digest()

    def __contains__(self, name: object) -> bool:
        return name in self._artworks

    def __iter__(self) -> Iterator[str]:
        return iter(self._artworks)

    def __len__(self) -> int:
        return len(self._artworks)


@dataclass(frozen=True, eq=False)
class _Run:
    """One evaluation: of a design, with a cache, up to a step of a piece if that is given."""

    design: Design
    cache: OutcomeCache
    until: tuple[str, str] | None

    @cached_property
    def document(self) -> str:
        """A digest of all that any step can read of the design."""
        shelf = Artworks(self.design.artworks)
        artworks = (key + shelf.digest_of(key).hex() for key in shelf)
        rest = self.design.model_dump_json(
            exclude={"name", "units", "aims", "accepted", "artworks"}
        )
        return _digest(rest, *artworks)


def _digest(*parts: str) -> str:
    h = hashlib.blake2b(digest_size=16)
    for part in parts:
        h.update(part.encode())
        h.update(b"\0")
    return h.hexdigest()


def evaluate(
    design: Design, cache: OutcomeCache | None = None, *, until: tuple[str, str] | None = None
) -> Evaluation:
    """All pieces of the design with the outcome of each of their steps.

    With ``until``, the keys of a piece and a step, that piece is only followed up to the step, and nothing
    after it, unless it is a layer. A piece may be made of what is left of one before it in the list.
    """
    run = _Run(design, cache or OutcomeCache(), until)
    shelf = Artworks(design.artworks)
    found: dict[str, PieceOutcome] = {}
    works = Pieces()
    laid: list[Laid] = []
    around = around_of(design)
    rank, stack = 0, None
    # a piece that goes round the card comes after all that is in it, wherever it stands in the list
    for piece in sorted(design.pieces, key=lambda p: around[p.id].rank):
        if around[piece.id].rank > rank:
            rank, stack = around[piece.id].rank, stacked(tuple(laid)) if laid else None
        setting = replace(design.setting_for(piece, shelf), pieces=Pieces(works), stack=stack)
        made = _piece(run, piece, setting)
        found[piece.id] = made
        laid += _laid(made, first=not laid)
        if made.whole is not None:
            works[piece.id] = made.whole
        if (
            until and piece.id == until[0] and not piece.host
        ):  # nothing before depends on what comes after
            break
    return Evaluation(design, tuple(found[p.id] for p in design.pieces if p.id in found))


def around_of(design: Design) -> dict[str, Around]:
    """By piece: what it is, or is part of, that goes round the card. A liner is part of its envelope."""
    found: dict[str, Around] = {}
    for piece in design.pieces:
        taken = (s.takes_part.piece for s in piece.steps if s.on and s.takes_part)
        parts = [found.get(key, Around.NOTHING) for key in (piece.host, *taken)]
        own = next((s.goes_round for s in piece.steps if s.on), Around.NOTHING)
        found[piece.id] = max(own, *parts, key=lambda a: a.rank)
    return found


def _laid(made: PieceOutcome, *, first: bool) -> list[Laid]:
    """The piece for the stack, if it is of the card: the first of them is its base."""
    piece, work = made.piece, made.whole
    if work is None or not work.paper or (not first and work.lying is None):
        return []
    height = piece.pad if piece.fixing is FixedBy.PADS else 0.0
    begins = next((o.step.goes_round for o in made.outcomes if o.step.on), Around.NOTHING)
    return [
        Laid(
            piece.id,
            piece.host,
            work,
            made.paper.thickness,
            height,
            piece.side,
            piece.order,
            begins,
        )
    ]


def _piece(run: _Run, piece: Piece, setting: Setting) -> PieceOutcome:
    work: Work | None = None
    # what could not be done, and notes, are kept as they were said
    key = spoken()
    now = Observations(setting)
    outcomes = []
    for step in piece.steps:
        before, problem, after_key = work, None, key
        if step.on:
            values = _digest(step.model_dump_json(exclude={"on"}), key)
            kept = run.cache.get(values, now) or _computed(run, values, step, work, setting)
            result_key, result = kept
            if isinstance(result, StepError):
                problem = result
            else:
                after_key, work = result_key, result
        outcomes.append(Outcome(step, after_key, before, work, problem))
        key = after_key
        if (piece.id, step.id) == run.until:
            break
    return PieceOutcome(piece, setting.paper, setting, tuple(outcomes))


def _computed(
    run: _Run, values: str, step: Step, work: Work | None, setting: Setting
) -> tuple[str, Work | StepError]:
    """The step's outcome and its key, kept with what the step has read. ``values`` tells the step's own
    values and its input."""
    # what it will read is not known yet: where it ends its worker, this very design does
    attempt = _digest(values, run.document)
    refused = run.cache.refusal(attempt)
    if refused is not None:
        return attempt, too_much(refused)
    trace = Trace()
    result, lasting = _tried(step, attempt, work, traced(setting, trace))
    facts = trace.facts
    key = _digest(values, *(path_text(path) + digest.hex() for path, digest in facts))
    if lasting:
        run.cache.put(values, Recorded(key, facts), result)
    return key, result


def _tried(
    step: Step, attempt: str, work: Work | None, setting: Setting
) -> tuple[Work | StepError, bool]:
    """What the step makes, and whether it would again."""
    try:
        with for_step(attempt):
            return _apply(step, work, setting), True
    except OverSpent as over:
        if over.own:
            return too_much("time"), True
        return (
            StepError(
                "The steps before it have taken all the time that there is.",
                hint="Mend those first; this one is looked at then.",
            ),
            False,
        )
    except MemoryError:
        return too_much("memory"), True


def too_much(what: str) -> StepError:
    """Of a step that takes more ``what`` than is given to one."""
    return StepError(
        say("It takes too much {what} to compute, and was given up.", what=what),
        hint="Take fewer copies, larger distances or a simpler outline, or switch it off.",
    )


def _apply(step: Step, work: Work | None, setting: Setting) -> Work | StepError:
    if step.starts_with and work is not None:
        return StepError(
            say("A piece has one start; '{title}' comes after another.", title=step.title),
            hint="Take one of the two away, or use 'Weld on'.",
        )
    try:
        made = step.apply(work, setting)
        if work is None or made.paper is not work.paper:
            made = _sound(made)
        if work is not None and work.paper and not made.paper:
            return StepError(
                "It leaves nothing of the piece.", hint="Change its values, or switch it off."
            )
        return made if _within_reach(made) else _too_large(made)
    except StepError as error:
        return error
    except GeometryError as error:
        return StepError(error.message, hint=error.hint)
    except MemoryError:
        raise
    except Exception:  # the rest of the card is computed all the same
        logger.exception("the step %s could not be computed", step.title)
        return StepError(
            "It could not be computed.",
            hint=say("{sorry} Change its values, or switch it off.", sorry=SORRY),
        )


def _sound(work: Work) -> Work:
    """The work with a paper that crosses itself nowhere."""
    paper = without_loops(work.paper)
    return work if paper is work.paper else replace(work, paper=paper)


def _within_reach(work: Work) -> bool:
    return all(abs(side) <= TOLERANCE.reach for side in work.paper.bounds.as_list())


def _too_large(work: Work) -> StepError:
    box = work.paper.bounds
    return StepError(
        "The piece becomes {} x {}: no outline may reach beyond {}.",
        box.width,
        box.height,
        TOLERANCE.reach,
        hint="Make it smaller, or move it nearer.",
    )
