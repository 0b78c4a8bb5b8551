"""A tab and the slit that it goes in, to hold a card closed."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from stileblade.card.folding import Folding
from stileblade.errors import StepError
from stileblade.fields import length, offset, special
from stileblade.geometry.curves.places import Side
from stileblade.geometry.curves.segments import Segments, lines
from stileblade.geometry.curves.transforms import after, rotation, translation
from stileblade.geometry.paths.pathdata import region_from_path
from stileblade.geometry.regions.along import length_of, within
from stileblade.geometry.regions.region import Region
from stileblade.geometry.regions.set_operations import union
from stileblade.piece.carrying import carried
from stileblade.piece.lines import DrawnLine, How
from stileblade.piece.sides import must_be_open, side_field
from stileblade.piece.work import Work
from stileblade.steps.handle import BoxHandle, Handle, Moved
from stileblade.steps.step import Caption, Needs, Setting, Stage, Step, Told, register_step
from stileblade.words import say


@register_step
class Lock(Step):
    """A rounded tab on an open edge, and a slit in the panel that it comes to lie on: pushed
    through, it holds a gatefold or a flap closed. The slit lies where the closed card has it."""

    needs_before = Needs.FOLD
    stage = Stage.WINDOWS
    title = "Tab and slit"
    words = "lock close hold gatefold flap fasten tuck"
    sayings = (
        "lock",
        "keep it closed",
        "tuck",
        "closure",
        "latch",
        "tab that holds the flap",
        "fastener",
        "slot for the flap",
        "hold the gate closed",
    )
    takes = ("width", "depth")
    sample_folding = Folding(kind="gatefold")
    changes_size = True
    kind: Literal["lock"] = "lock"
    target: str = special("front", "Tab on", "The panel with the tab.", control="target")
    side: Side = side_field(Side.RIGHT, "The open edge with the tab.")
    onto: str = special(
        "",
        "Slit in",
        "The panel with the slit; empty means the one that the tab comes to lie on.",
        control="target",
        empty="where the tab comes to lie",
    )
    width: float = length(24, "Tab", "How wide the tab is.", above=1, most=400)
    depth: float = length(14, "Reaches out", "How far it stands out.", above=1, most=200)
    at: float = length(
        5, "Slit at", "How far from the edge the tab is when it enters the slit.", least=0, most=200
    )
    along: float = offset(0, "Along the edge", "From the edge's middle; down or right is positive.")
    clearance: float = length(
        0,
        "Clearance",
        "How much longer than the tab the slit is; 0 is by the stock.",
        least=0,
        most=50,
    )

    def slack(self, setting: Setting) -> float:
        """How much longer the slit is: 1 mm, or four times the stock where that is more."""
        return self.clearance or max(1.0, 4 * setting.paper.thickness)

    def _width_at(self, out: float) -> float:
        """The tab's width at a distance from the edge; its corners are rounded by ``_radius``."""
        r = self._radius
        into = max(0.0, out - (self.depth - r))
        return self.width - 2 * (r - max(r * r - into * into, 0.0) ** 0.5)

    @property
    def _radius(self) -> float:
        return min(self.depth, self.width / 2) * 0.6

    def _map(self, work: Work, out: float) -> tuple[float, float]:
        """x and y of the edge's middle, moved along, so far outwards."""
        box = work.box_of(self.target)
        across = self.side.at(box) + self.side.outwards * out
        middle = self.side.middle(box) + self.along
        return (across, middle) if self.side.upright else (middle, across)

    def tab(self, work: Work) -> Region:
        """The tab's outline, a little of it on the panel."""
        w, d, r = self.width / 2, self.depth, self._radius
        path = f"M{-w!r} 1V{r - d!r}A{r!r} {r!r} 0 0 1 {r - w!r} {-d!r}H{w - r!r}"
        path += f"A{r!r} {r!r} 0 0 1 {w!r} {r - d!r}V1Z"
        turn = {Side.HEAD: 0, Side.RIGHT: 90, Side.FOOT: 180, Side.LEFT: 270}[self.side]
        x, y = self._map(work, 0.0)
        return region_from_path(path).transformed(after(translation(x, y), rotation(turn)))

    def slit(self, work: Work, setting: Setting, onto: str) -> Segments:
        """A straight cut, on the panel that the tab comes to lie on."""
        x, y = self._map(work, self.at)
        half = (self._width_at(self.at) + self.slack(setting)) / 2
        ends = (
            [(x, y - half), (x, y + half)] if self.side.upright else [(x - half, y), (x + half, y)]
        )
        return lines(ends[:1], ends[1:]).transformed(carried(work, self._panel(work), onto))

    def _panel(self, work: Work) -> str:
        """The panel of the tab by its own name, where the target names it otherwise."""
        box = work.box_of(self.target)
        return next((p.name for p in work.panels if p.box == box), self.target)

    def _slit_on(self, paper: Region, work: Work, setting: Setting) -> Segments:
        """The slit on the uppermost panel whose paper has all of it."""
        names = [n for n in (*work.fronts, work.front, *(p.name for p in work.panels)) if n]
        for onto in dict.fromkeys([self.onto] if self.onto else names):
            if onto == self._panel(work):
                continue
            slit = self.slit(work, setting, onto)
            ways = within(paper, slit, closed=False)
            if sum(length_of(way) for way, _ in ways) > length_of(slit) - 0.01:
                return slit
        where = repr(self.onto) if self.onto else "any panel"
        raise StepError(
            say(
                "Closed, the tab does not come to lie on {where}, with all of its slit on paper.",
                where=where,
            ),
            hint="A tab holds a door or a flap: choose its panel and edge, or move it along.",
            field="onto" if self.onto else "target",
        )

    def apply(self, work: Work | None, setting: Setting) -> Work:
        work = self.needs(work)
        must_be_open(work, work.box_of(self.target), self.side)
        if self.at > self.depth - 1:
            raise StepError(
                "Entering the slit {} from the edge, the tab of {} does not reach through it.",
                self.at,
                self.depth,
                hint="Let the tab reach out farther, or the slit be nearer.",
                field="at",
                would_do=round(self.depth / 3, 1),
            )
        paper = union(work.paper, self.tab(work))
        if paper.pieces > work.paper.pieces:
            raise StepError("There is no paper at that place of the edge.", field="along",
                            would_do=0.0)  # fmt: skip
        slit = self._slit_on(paper, work, setting)
        cut = DrawnLine(self.id, How.CUT, ((slit, False),))
        return replace(work, paper=paper, lines=(*work.lines, cut))

    def tells(self, before: Work | None, after: Work, setting: Setting) -> list[Told]:
        return [
            Told("Slit", self._width_at(self.at) + self.slack(setting)),
            Told("Clearance", self.slack(setting)),
            Told("Through the slit", self.depth - self.at),
        ]

    def handles(self, before: Work | None, setting: Setting) -> list[Handle]:
        if before is None:
            return []
        tab = self.tab(before)
        return [BoxHandle(*self.moves(before), tab.bounds, tab, word="tab")]

    def moves(self, before: Work) -> tuple[Moved, Moved]:
        out = Moved("depth", self.depth, float(self.side.outwards), least=1.1)
        along = Moved("along", self.along)
        return (out, along) if self.side.upright else (along, out)

    def caption(self) -> Caption:
        return Caption("tab", self.width)

    @classmethod
    def sample(cls) -> list[Step]:
        from stileblade.steps.kinds.blank import Blank

        return [Blank(), cls(target="left door", side=Side.LEFT, width=40, depth=20, at=8)]
