"""From a design to its pieces: each step applied to the work so far.

Pure, and cached by content: the key of an outcome is a hash of the step's values, the key
of its input and of all else that it reads, so an edit computes again what depends on it
and nothing else. A step that cannot be applied is passed over and says why.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from stileblade.card.stock import Paper
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design, Piece
from stileblade.errors import GeometryError, StepError
from stileblade.folding.stack import Laid, Stack, stacked
from stileblade.geometry.regions.loops import without_loops
from stileblade.geometry.regions.region import Region
from stileblade.outlines.artwork import Artwork, LayerOutlines, outlines_of
from stileblade.piece.lying import FixedBy
from stileblade.piece.work import Work
from stileblade.spending import OverSpent, for_step
from stileblade.steps.step import Setting, Step
from stileblade.tolerance import TOLERANCE
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


class Artworks(Mapping[str, LayerOutlines]):
    """A document's artworks, read when first asked for."""

    def __init__(self, artworks: Mapping[str, Artwork]) -> None:
        self._artworks = artworks

    def __getitem__(self, name: str) -> LayerOutlines:
        return outlines_of(self._artworks[name])

    def __contains__(self, name: object) -> bool:
        return name in self._artworks

    def __iter__(self) -> Iterator[str]:
        return iter(self._artworks)

    def __len__(self) -> int:
        return len(self._artworks)


def _digest(*parts: str) -> str:
    h = hashlib.blake2b(digest_size=16)
    for part in parts:
        h.update(part.encode())
        h.update(b"\0")
    return h.hexdigest()


def _reads(step: Step, design: Design, setting: Setting, keys: Mapping[str, str]) -> str:
    """All that the step reads beside its values and its input, as text for the key; ``keys`` are
    those of the pieces before."""
    found = []
    if step.reads_piece:
        found.append(keys.get(step.reads_piece, f"no {step.reads_piece}"))
    if step.parts_piece:
        found.append(json.dumps(setting.taken.get(step.id, ())))
    if step.reads_card:
        size = design.card.size
        found.append(
            json.dumps([size.width, size.height, design.card.turned, setting.paper.thickness])
            + design.card.folding.model_dump_json()
        )
    if setting.lies.host:
        found += _of_host(step, setting)
    if step.reads_stack:
        found.append(_of_stack(setting.stack, keys))
    for name in step.outlines():
        artwork = design.artworks.get(name)
        found.append(artwork.content if artwork else f"no {name}")
    return "\n".join(found)


def evaluate(
    design: Design, cache: OutcomeCache | None = None, *, until: tuple[str, str] | None = None
) -> Evaluation:
    """All pieces of the design with the outcome of each of their steps.

    With ``until``, the keys of a piece and a step, that piece is only followed up to the step, and nothing
    after it, unless it is a layer. A piece may be made of what is left of one before it in the list.
    """
    cache = cache or OutcomeCache()
    shelf = Artworks(design.artworks)
    found: list[PieceOutcome] = []
    works: dict[str, Work] = {}
    keys: dict[str, str] = {}
    laid: list[Laid] = []
    for piece in design.pieces:
        setting = design.setting_for(piece, shelf)
        stack = stacked(tuple(laid)) if laid and piece.host else None
        setting = replace(setting, pieces=dict(works), stack=stack)
        made = _piece(design, piece, setting, cache, keys, until)
        found.append(made)
        laid += _laid(made, first=not laid)
        if made.work is not None:
            works[piece.id] = made.work
            keys[piece.id] = made.outcomes[-1].key
        if (
            until and piece.id == until[0] and not piece.host
        ):  # nothing before depends on what comes after
            break
    return Evaluation(design, tuple(found))


def _laid(made: PieceOutcome, *, first: bool) -> list[Laid]:
    """The piece for the stack, if it is of the card: the first of them is its base."""
    piece, work = made.piece, made.work
    if work is None or not work.paper or (not first and work.lying is None):
        return []
    height = piece.pad if piece.fixing is FixedBy.PADS else 0.0
    begins = next((o.step.goes_round for o in made.outcomes if o.step.on), "")
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


def _of_host(step: Step, setting: Setting) -> list[str]:
    """What the step reads of what its piece lies on."""
    try:
        facts = step.reads_of_host(setting)
    except StepError as problem:
        facts = (problem.message,)
    if facts is None:
        return []
    return [setting.lies.panel, setting.lies.side.value, *map(_as_text, facts)]


def _as_text(fact: object) -> str:
    if isinstance(fact, Region):
        segments = fact.segments
        arrays = (segments.kind, segments.coef, segments.span, fact.rings, fact.shell)
        return hashlib.blake2b(b"".join(a.tobytes() for a in arrays), digest_size=16).hexdigest()
    return fact.tobytes().hex() if isinstance(fact, np.ndarray) else repr(fact)


def _of_stack(stack: Stack | None, keys: Mapping[str, str]) -> str:
    """All that the closed card so far depends on."""
    pieces = stack.pieces if stack else ()
    return repr([(keys[p.key], p.host, p.thickness, p.height, p.side, p.order) for p in pieces])


def _piece(
    design: Design,
    piece: Piece,
    setting: Setting,
    cache: OutcomeCache,
    keys: Mapping[str, str],
    until: tuple[str, str] | None,
) -> PieceOutcome:
    work: Work | None = None
    # what could not be done, and notes, are kept as they were said
    key = spoken()
    outcomes = []
    for step in piece.steps:
        before, problem, step_key = work, None, key
        if step.on:
            values = step.model_dump_json(exclude={"on"})
            step_key = _digest(values, key, _reads(step, design, setting, keys))
            kept = cache.get(step_key)
            if kept is None:
                kept, lasting = _tried(step, step_key, work, setting)
                if lasting:
                    cache.put(step_key, kept)
            if isinstance(kept, StepError):
                problem, step_key = kept, key
            else:
                work = kept
        outcomes.append(Outcome(step, step_key, before, work, problem))
        key = step_key
        if (piece.id, step.id) == until:
            break
    return PieceOutcome(piece, setting.paper, setting, tuple(outcomes))


def _tried(
    step: Step, key: str, work: Work | None, setting: Setting
) -> tuple[Work | StepError, bool]:
    """What the step makes, and whether it would again."""
    try:
        with for_step(key):
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
