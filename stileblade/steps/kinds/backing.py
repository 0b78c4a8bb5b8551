"""Start: a backing behind windows."""

from __future__ import annotations

from enum import StrEnum
from typing import Any, Literal

from stileblade.errors import StepError
from stileblade.fields import choice, length, special
from stileblade.geometry.curves.transforms import translation
from stileblade.geometry.measures.distances import lies_inside
from stileblade.geometry.regions.fill import filled
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import (
    difference,
    intersection,
    rectangle,
    union_all,
)
from stileblade.piece.lying import Facing, Lies, Lying
from stileblade.piece.work import Work
from stileblade.steps.ground import Ground, ground_of, grown, inverse, smaller_by
from stileblade.steps.proposing import NewPiece, OnCard, Proposal
from stileblade.steps.step import Caption, Setting, Stage, StartsWith, Step, Told, register_step
from stileblade.words import say


class As(StrEnum):
    EACH = "each"
    ONE = "one"


@register_step
class Backing(Step):
    """A sheet behind a window, larger than it by what is glued; it ends before the folds and edges of its
    panel. Its outside is seen through the window."""

    stage = Stage.OUTLINE
    title = "Backing"
    words = "layer start window behind glaze vellum acetate pane inside"
    sayings = (
        "behind the window",
        "vellum in the window",
        "acetate behind",
        "glaze the opening",
        "cover the hole from behind",
    )
    takes = ("glue_margin",)
    starts_with = StartsWith.LAYER
    sample_lies = Lies("base", "", Facing.INSIDE)
    kind: Literal["backing"] = "backing"
    window: str = special(
        "", "Window", "Which of the panel's windows; empty means all.", control="window",
        empty="all windows of the panel",
    )  # fmt: skip
    together: As = choice(
        As.EACH, "Several windows", "How many windows share a sheet.",
        each="as far as their sheets meet", one="one sheet covers all",
    )  # fmt: skip
    glue_margin: float = length(
        6, "Glue margin", "By which it is larger than the window.", least=0, most=100
    )
    clear: float = length(1, "Kept clear by", "Of the panel's folds and edges.", least=0, most=50)

    def _windows(self, ground: Ground) -> list[Region]:
        """Outlines of the windows that it covers, with what was left standing in them."""
        if not self.window:
            found = [filled(part) for part in ground.openings.parts()] if ground.openings else []
            if found:
                return found
            raise StepError(
                "There is no window in the panel that it lies on.",
                hint="Cut one first, or say in the list of pieces that it lies on another panel.",
                field="window",
            )
        return [filled(w.outline) for w in ground.host.windows_of(self.window)]

    def apply(self, work: Work | None, setting: Setting) -> Work:
        ground = ground_of(setting)
        windows = self._windows(ground)
        covered = union_all([grown(w, self.glue_margin) for w in windows])
        if self.together is As.ONE:
            covered = rectangle(covered.bounds)
        # most windows are far from the edges: these need not be drawn in for them
        far = lies_inside(covered, ground.whole, self.clear)
        whole = covered if far else intersection(covered, smaller_by(ground.whole, self.clear))
        sheet = ground.cut(whole, self.clear)
        if not sheet:
            raise StepError(
                "Nothing of it lies on its panel.",
                hint="Keep less clear of folds and edges.",
                field="clear",
                would_do=0.0,
            )
        box = ground.box
        matrix = translation(box.left, box.head)
        paper = sheet.transformed(inverse(matrix))
        return Work(
            paper,
            reference=paper.bounds,
            lying=Lying(matrix, ground.panel, covers=True),
        )

    def on_panel(self, panel: str, setting: Setting) -> dict[str, Any] | None:
        windows = [w for w in setting.host.windows if w.panel == panel]
        return {"window": ""} if windows else None

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        ground = ground_of(setting)
        box = ground.box
        sheet = after.paper.transformed(translation(box.left, box.head))
        glued = difference(sheet, union_all(self._windows(ground)))
        return [
            Told("Wide", after.paper.bounds.width),
            Told("High", after.paper.bounds.height),
            Told("Glue face", glued.area, "mm2"),
        ]

    def caption(self) -> Caption:
        return Caption("glue", self.glue_margin)

    @classmethod
    def proposals(cls, card: OnCard) -> list[Proposal]:
        order, inside = card.next_order(Facing.INSIDE), Facing.INSIDE
        if not card.windows:
            return []
        each = [
            NewPiece(say("Backing {n}", n=n) if len(card.windows) > 1 else "Backing", (cls(window=key),),
                     card.panel, inside, order, colour="#dcebee", light=0.6)
            for n, key in enumerate(card.windows, 1)
        ]  # fmt: skip
        found = [Proposal("A backing", "Vellum behind the window", tuple(each))]
        if len(each) > 1:
            one = NewPiece("Backing", (cls(together=As.ONE),), card.panel, inside, order,
                           colour="#dcebee", light=0.6)  # fmt: skip
            found = [
                Proposal("A backing for each window", "Vellum, 6 mm larger", tuple(each)),
                Proposal("One backing for all", "A sheet behind all windows", (one,)),
            ]
        return found

    @classmethod
    def sample(cls) -> list[Step]:
        return [cls(glue_margin=8)]

    @classmethod
    def sample_pieces(cls) -> list[list[Step]]:
        from stileblade.outlines.figures.shaped import Arch
        from stileblade.steps.kinds.blank import Blank
        from stileblade.steps.kinds.window import Window

        return [[Blank(), Window(outline=Arch(width=44, height=70, rise=22))]]
