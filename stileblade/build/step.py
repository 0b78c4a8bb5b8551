"""What a build step is. One kind, one file in ``steps``."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from stileblade.build.work import Work
from stileblade.card.sizes import CardSize
from stileblade.card.stock import Paper
from stileblade.card.ways import Folding, Layout
from stileblade.errors import StepError
from stileblade.fields import Values
from stileblade.geometry.region import Region
from stileblade.outlines.artwork import Artwork, LayerOutlines
from stileblade.registry import Registry

STEPS: Registry[type[Step]] = Registry("kind of step")


class Stage(StrEnum):
    """Where in the order of the work a step has its place."""

    OUTLINE = "Outline"
    MIRROR = "Mirror and weld"
    FOLDS = "Folds"
    WINDOWS = "Windows and edges"


@dataclass(frozen=True)
class Setting:
    """What a step may read beside its values: the card, the stock, the artworks."""

    size: CardSize
    turned: bool
    folding: Folding
    paper: Paper
    shelf: Mapping[str, LayerOutlines]
    pieces: Mapping[str, Work] = field(default_factory=dict)
    """The finished pieces before this one, by their keys."""

    @property
    def closed(self) -> tuple[float, float]:
        """Width and height of the closed card as it is held."""
        w, h = self.size.width, self.size.height
        return (h, w) if self.turned else (w, h)

    def layout(self) -> Layout:
        return self.folding.layout(*self.closed, self.paper.thickness)


Share = Annotated[float, Field(ge=-10, le=11)]
"""A place by its share of a box, by which picks are kept."""


@dataclass(frozen=True, eq=False)
class Candidate:
    """Something that can be picked: its outline, the share of the reference box by which a pick
    names it, whether the step takes it, and the figure that tells it from others, by itself its
    area."""

    outline: Region
    share: tuple[float, float]
    taken: bool
    figure: tuple[float, str] | None = None

    @property
    def told(self) -> tuple[float, str]:
        return self.figure or (self.outline.area, "mm2")


@dataclass(frozen=True)
class Told:
    """A figure that a step tells about itself: not a value of it, but what comes of its values."""

    name: str
    value: float
    unit: str = "mm"
    note: str = ""


@dataclass(frozen=True)
class Sizing:
    """How the thing in a box is sized: about the place ``fixed``, its width by the values
    ``across``, its height by ``down``, or both in proportion by ``both``; each is a name, with
    "outline." before a figure's own, and its present value in mm."""

    fixed: tuple[float, float]
    across: tuple[tuple[str, float], ...] = ()
    down: tuple[tuple[str, float], ...] = ()
    both: tuple[tuple[str, float], ...] = ()


@dataclass(frozen=True)
class Handle:
    """Something to drag or pick on the flat view, and how its place makes a value.

    "line": a line of ``axis`` at ``at``; the value of ``field`` is (place - origin) * factor.
    "box": an outline in ``box``; moving it by (dx, dy) adds dx * factor to ``field`` and
    dy * factor_y to ``field_y``.
    "around": a place in ``box`` that moves round ``centre``; its angle about it, clockwise, 0 to
    the right, is the value of ``field``, which may be the nth of a list, as "angles.3".
    "pick": ``candidates``; the value of ``field`` is the list of the shares of those taken, which
    count where the choice ``picked_by`` is "picked".
    """

    shape: Literal["line", "box", "around", "pick"]
    field: str
    value: float = 0.0
    axis: str = ""
    at: float = 0.0
    origin: float = 0.0
    factor: float = 1.0
    least: float | None = None
    field_y: str = ""
    value_y: float = 0.0
    factor_y: float = 1.0
    least_y: float | None = None
    box: tuple[float, float, float, float] = (0.0, 0.0, 0.0, 0.0)
    outline: Region | None = None
    candidates: tuple[Candidate, ...] = ()
    picked_by: str = ""
    word: str = ""
    centre: tuple[float, float] = (0.0, 0.0)
    sizing: Sizing | None = None
    turn: float | None = None
    """The value of the step's ``turn``, where turning the thing about its centre sets it."""


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
    changes_size: ClassVar[bool] = False
    """Whether it makes the closed card larger, so that its envelope is looked at while it is
    worked on."""
    starts: ClassVar[bool] = False
    """Whether it begins a piece (and then stands first)."""
    sample_artworks: ClassVar[Mapping[str, Artwork]] = {}
    """What its ``sample`` needs in the document, by key."""
    sample_folding: ClassVar[Folding] = Folding()
    """How the card of its ``sample`` is folded."""
    reads_card: ClassVar[bool] = False
    """Whether its outcome depends on the card's size and way of folding."""

    id: str = Field("", title="Key", description="The step's key within its piece.", max_length=40)
    on: bool = Field(True, title="On", description="Steps switched off are passed over.")

    @abstractmethod
    def apply(self, work: Work | None, setting: Setting) -> Work:
        """The work after the step."""

    def caption(self) -> Caption:
        return Caption()

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        """Handles for the step's values; ``before`` is the work it was given."""
        return []

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        """What came of the step's values, for the pane of the step in hand."""
        return []

    @property
    def reads_piece(self) -> str:
        """The key of another piece whose finished work it reads; "" where none."""
        return ""

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
                hint=f"Move '{self.title}' before the mirror; a blank takes its size from the card.",
            )
        return work


def register_step(cls: type[Step]) -> type[Step]:
    STEPS.add(cls.model_fields["kind"].default, cls)
    return cls


def kept_whole(paper: Region, message: str, *, field: str, would_do: float | None = None) -> Region:
    """The paper, or a StepError where nothing is left of it."""
    if not paper:
        raise StepError(message, field=field, would_do=would_do)
    return paper
