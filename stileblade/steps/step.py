"""What a build step is. One kind, one file in ``steps``."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections import UserDict
from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import TYPE_CHECKING, Any, ClassVar

from pydantic import Field

from stileblade.card.folding import Folding
from stileblade.card.layout import Layout
from stileblade.card.sizes import CardSize
from stileblade.card.stock import Paper
from stileblade.errors import StepError
from stileblade.fields import Values
from stileblade.folding.stack import Stack
from stileblade.geometry.regions.region import Region
from stileblade.outlines.artwork import Artwork, LayerOutlines
from stileblade.piece.lying import Around, Lies
from stileblade.piece.work import Work
from stileblade.registry import Registry
from stileblade.steps.handle import Handle, Moved
from stileblade.tracing import ReadByPart
from stileblade.words import say

if TYPE_CHECKING:
    from stileblade.steps.beginning import Beginning, Begun
    from stileblade.steps.proposing import OnCard, Proposal

STEPS: Registry[type[Step]] = Registry("kind of step")


class Stage(StrEnum):
    """Where in the order of the work a step has its place."""

    OUTLINE = "Outline"
    MIRROR = "Mirror and weld"
    FOLDS = "Folds"
    WINDOWS = "Windows and edges"


class Needs(StrEnum):
    """What a step needs of the work before it."""

    NOTHING = ""
    FIGURE = "figure"
    """A figure that has no panels yet."""
    FOLD = "fold"
    WINDOW = "window"


class StartsWith(StrEnum):
    """What a piece begins with."""

    CARD = "card"
    FIGURE = "figure"
    ARTWORK = "artwork"
    PART = "part"
    PROP = "prop"
    LAYER = "layer"

    @property
    def is_figure(self) -> bool:
        """Whether it has no panels until it is mirrored."""
        return self in (StartsWith.FIGURE, StartsWith.ARTWORK)


class Pieces(UserDict[str, Work], ReadByPart):
    """Finished pieces by their keys."""


@dataclass(frozen=True, eq=False)
class Setting(ReadByPart):
    """What a step may read beside its values and the work so far: the card, the stock, the artworks and
    the other pieces. A step's ``apply`` is given it in a form that records what is read."""

    size: CardSize
    turned: bool
    folding: Folding
    paper: Paper
    shelf: Mapping[str, LayerOutlines]
    pieces: Mapping[str, Work] = field(default_factory=Pieces)
    """The finished pieces that this one may be made from, by their keys."""
    taken: Mapping[str, tuple[int, ...]] = field(default_factory=dict)
    """By the step that parted this piece: the parts that begin other pieces, from 1."""
    lies: Lies = field(default_factory=Lies)
    """On what the piece lies."""
    stack: Stack | None = None
    """The whole card that this piece is made to fit: all pieces that do not go round it or go round
    further in, wherever they stand in the document. None where there is no card yet."""

    @property
    def host(self) -> Work:
        """The piece that this one lies on. StepError where it lies on none."""
        host = self.pieces.get(self.lies.host)
        if host is None or not host.paper:
            raise StepError(
                "It lies on no piece: what it lies on has no paper yet."
                if self.lies.host
                else "It lies on no piece.",
                hint="Say in the list of pieces what it lies on.",
            )
        return host

    @property
    def closed(self) -> tuple[float, float]:
        """Width and height of the closed card as it is held."""
        w, h = self.size.width, self.size.height
        return (h, w) if self.turned else (w, h)

    def layout(self) -> Layout:
        return self.folding.layout(*self.closed, self.paper.thickness)


@dataclass(frozen=True)
class Told:
    """A figure that a step tells about itself: not a value of it, but what comes of its values."""

    name: str
    value: float
    unit: str = "mm"
    note: str = ""


@dataclass(frozen=True)
class SizedOtherwise:
    """A figure that does not get its size from its own values: what they are in fact, in mm, by their fields; and
    the values that the step gets besides, where one of them is typed, so that it counts."""

    values: Mapping[str, float]
    beside: Mapping[str, Any]


@dataclass(frozen=True)
class PartTaken:
    """The piece, the step that parted it, "" for the last, and the part's number, from 1."""

    piece: str
    step: str
    number: int


@dataclass(frozen=True)
class Caption:
    """The value that matters, for the build strip: a word and a figure with its unit."""

    text: str = ""
    value: float | None = None
    unit: str = "mm"


class Step(Values, ABC):
    """One operation of a piece's making.

    ``apply`` takes the work so far (None for the first step) and returns the new; it raises
    StepError with the field at fault where the values cannot be applied.
    """

    stage: ClassVar[Stage]
    title: ClassVar[str]
    words: ClassVar[str] = ""
    """Further words under which it is found."""
    sayings: ClassVar[tuple[str, ...]] = ()
    """What people say when they mean it: found before words alone."""
    takes: ClassVar[tuple[str, ...]] = ()
    """The values that figures in what is said are put in, in that order; "outline" is its figure's size."""
    by_figure: ClassVar[float] = 0.4
    """How readily the name of a figure by itself means this step, where it takes one."""
    changes_size: ClassVar[bool] = False
    """Whether it makes the closed card larger, so that its envelope is looked at while it is
    worked on."""
    needs_before: ClassVar[Needs] = Needs.NOTHING
    """What there must be before it; what is offered says so where it is not there."""
    makes_panels: ClassVar[bool] = False
    """Whether a figure becomes a card of panels by it."""
    starts_with: ClassVar[StartsWith | None] = None
    """What it begins a piece with (and then it stands first); None where it works on one."""
    usual: ClassVar[Mapping[str, Any]] = {}
    """Values other than the defaults with which a person's choice on the shelf is put in."""
    sample_artworks: ClassVar[Mapping[str, Artwork]] = {}
    """What its ``sample`` needs in the document, by key."""
    sample_folding: ClassVar[Folding] = Folding()
    """How the card of its ``sample`` is folded."""
    for_layers: ClassVar[bool] = False
    """Whether it works on pieces that lie on another one alone."""
    lays_piece: ClassVar[bool] = False
    """Whether it lays a piece, however that was made, on the one that it lies on."""
    sample_lies: ClassVar[Lies] = Lies("base")
    """On what the piece of its ``sample`` lies, where it begins with a layer."""
    parts_piece: ClassVar[bool] = False
    """Whether other pieces may begin with what it parts off."""

    id: str = Field("", title="Key", description="The step's key within its piece.", max_length=40)
    on: bool = Field(True, title="On", description="Steps switched off are passed over.")

    @abstractmethod
    def apply(self, work: Work | None, setting: Setting) -> Work:
        """The work after the step. It must depend on nothing but the step's values, the work and what it
        reads of ``setting``, which is recorded: the outcome is used again while that stays the same."""

    def caption(self) -> Caption:
        return Caption()

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        """Handles for the step's values; ``before`` is the work it was given."""
        return []

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        """What came of the step's values, for the pane of the step in hand."""
        return []

    def sized_otherwise(self, before: Work, setting: Setting) -> SizedOtherwise | None:
        """The size that its figure has in fact; None where the figure's own values say it."""
        return None

    def targets(self, before: Work) -> list[str]:
        """What it can be placed on or measured on."""
        return before.targets()

    def offers(self, before: Work) -> dict[str, list[str]]:
        """By field: of its choices those that can be taken as the work stands; all where a field is not
        named."""
        return {"fold": [fold.name for fold in before.folds]}

    def moves(self, before: Work) -> tuple[Moved, Moved] | None:
        """The values that follow what the step places, to the right and down; None where it places
        nothing."""
        return None

    def moved_by(self, before: Work, dx: float, dy: float) -> dict[str, float]:
        """The values with which what it places lies ``dx`` and ``dy`` mm further on; none where it
        cannot be moved."""
        moves = self.moves(before)
        if moves is None:
            return {}
        return {m.field: round(m.after(way), 3) for m, way in zip(moves, (dx, dy), strict=True)}

    def drawn_in_by(self, way: float) -> dict[str, float]:
        """The values with which it makes the closed card ``way`` mm less large; none where it does
        not make it larger by a measure of its own."""
        return {}

    def turned_by(self, angle: float) -> dict[str, float]:
        """The values with which it turns the whole figure by ``angle`` degrees more; none where it
        does not turn it."""
        return {}

    def grown_to(self, margin: float) -> dict[str, float]:
        """The values with which it surrounds the outline by ``margin`` mm, with round corners; none
        where that is not what it does."""
        return {}

    def scaled_by(self, factor: float, setting: Setting) -> dict[str, Any]:
        """The values with which the figure that it makes or places is that many times as large, and as many times as
        far from what it is placed by; none where its size comes of the card or of other steps."""
        return {}

    @property
    def sizes_anew(self) -> bool:
        """Whether it gives the figure a size of its own, whatever size that had before."""
        return False

    def present(self, after: Work) -> dict[str, float]:
        """What measures in mm the figure has at present, by the values that would give it those: another kind of
        fit begins with them."""
        return {}

    @property
    def surrounds_by(self) -> float:
        """The margin in mm by which it surrounds the outline, with round corners."""
        return 0.0

    @property
    def opens(self) -> bool:
        """Whether it may cut openings on purpose, which are windows of the piece then."""
        return False

    @property
    def glues_on(self) -> bool:
        """Whether what it parts off is glued on again, so that the card folds as before."""
        return False

    @property
    def props_up(self) -> str:
        """What of an easel it makes, "display" or "stop"; "" for anything else."""
        return ""

    @classmethod
    def taking(cls, part: PartTaken) -> Step:
        """The step that begins a piece with the part; only of a kind that does so."""
        raise TypeError(f"{cls.title} begins no piece with a part")

    @classmethod
    def proposals(cls, card: OnCard) -> list[Proposal]:
        """What a person would add of it to the card; only of kinds that begin a layer."""
        return []

    @classmethod
    def begun_with(cls, begun: Begun) -> tuple[Step, ...]:
        """The steps that make the figure that a card is begun with; none of kinds that do not."""
        return ()

    @classmethod
    def begun_plain(cls) -> tuple[Step, ...]:
        """The steps that make a card's panels; none of kinds that do not."""
        return ()

    @classmethod
    def beginnings(cls, begun: Begun) -> list[Beginning]:
        """The ways in which it makes a card to begin with; those that are not open to this card and figure
        say why."""
        return []

    @property
    def takes_part(self) -> PartTaken | None:
        """The part of another piece that it begins with; None where it begins otherwise."""
        return None

    def draws_small_parts(self) -> Step | None:
        """A step for what it lies on, that draws its small parts there; None where there is none."""
        return None

    def is_of_layer(self, number: int) -> bool:
        """Whether the piece is made of that layer of an artwork, counted from 0."""
        return False

    def on_panel(self, panel: str, setting: Setting) -> dict[str, Any] | None:
        """The values with which the layer that it begins lies on another panel of the same host; None where there is
        nothing for it."""
        return {}

    def placed_on(self, setting: Setting) -> Work | None:
        """What it is placed on, where that is another piece; None: the work before it."""
        return None

    def windows_larger_by(self, more: float) -> dict[str, float]:
        """The values with which the windows that it takes over are ``more`` mm larger all round; none where it
        takes none over."""
        return {}

    def roomier_by(self, more: float) -> dict[str, float]:
        """The values with which the envelope that it makes is ``more`` mm larger each way; none where it
        makes none."""
        return {}

    @property
    def goes_round(self) -> Around:
        """What it makes that goes round the closed card."""
        return Around.NOTHING

    def outlines(self) -> tuple[str, ...]:
        """Keys of the artworks it reads."""
        found: tuple[str, ...] = ()
        for name in type(self).model_fields:
            reads = getattr(getattr(self, name), "reads", None)
            if callable(reads):
                found += reads()
        return found

    @classmethod
    @abstractmethod
    def sample(cls) -> list[Step]:
        """Steps that end with one of this kind: the picture in the search is made of them."""

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        """The steps of the pieces before the one of ``sample``; the first one's key is "base"."""
        return []

    def needs(self, work: Work | None) -> Work:
        """The work, or an error where there is none yet."""
        if work is None or not work.paper:
            raise StepError(
                "There is nothing to work on yet.", hint="Start with a blank or a figure."
            )
        return work

    def needs_figure(self, work: Work | None) -> Work:
        """The work, or an error where it has panels already."""
        work = self.needs(work)
        if work.panels:
            raise StepError(
                "The piece has its panels and folds already.",
                hint=say(
                    "Move '{title}' before the mirror; a blank takes its size from the card.",
                    title=self.title,
                ),
            )
        return work


def taking_part(part: PartTaken) -> Step:
    """The step that begins a piece with a part of another."""
    kind = next(kind for kind in STEPS if kind.starts_with is StartsWith.PART)
    return kind.taking(part)


def register_step(cls: type[Step]) -> type[Step]:
    STEPS.add(cls.model_fields["kind"].default, cls)
    return cls


def kept_whole(paper: Region, message: str, *, field: str, would_do: float | None = None) -> Region:
    """The paper, or a StepError where nothing is left of it."""
    if not paper:
        raise StepError(message, field=field, would_do=would_do)
    return paper
