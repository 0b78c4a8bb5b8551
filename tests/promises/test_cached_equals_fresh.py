"""Whatever was computed before, a design comes out as if nothing had been: every kind of step and
layer, every check, every view, after random edits."""

from __future__ import annotations

import copy
import re
from typing import Any

import pytest
from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from stileblade.checks.check import run_checks
from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design, load_design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.geometry.curves.places import Box
from stileblade.geometry.regions.region import Region
from stileblade.piece.work import Work
from stileblade.steps.step import STEPS
from stileblade.views.bench import view
from stileblade.views.cuts import cuts_of, placed_of
from stileblade.views.picture import Pose, whole_picture
from stileblade.views.report import report
from tests.conftest import TIMES
from tests.promises.edits import Document, edited, loaded
from tests.promises.sampled import KINDS, design_with
from tests.steps.kinds.test_layers import SQUARES
from tests.whole import BLANK, ISO_A6, WINDOW, layer

SHARED = OutcomeCache()
"""As a worker has it: for all designs that come."""


def outcomes(evaluation: Evaluation) -> list[tuple[Any, ...]]:
    """All that steps made, to a millionth of a mm. The last bits of what is remembered by its shape alone depend on
    where it was made first, and the keys of what is made of it with them."""
    return [
        (piece.piece.id, o.step.id, _figures(o.work), str(o.problem))
        for piece in evaluation.pieces
        for o in piece.outcomes
    ]


def _figures(work: Work | None) -> tuple[Any, ...]:
    if work is None:
        return ()
    lying = work.lying
    return (
        _outline(work.paper),
        tuple((p.name, _box(p.box)) for p in work.panels),
        tuple((f.name, f.made, f.direction, _near(f.at), _near(f.double), f.folds) for f in work.folds),
        tuple((w.step, w.panel, w.crosses, _outline(w.outline)) for w in work.windows),
        tuple((name, tuple(_near(s.length) for s in spans)) for name, spans in work.spans.items()),
        tuple((n.code, n.message) for n in work.notes),
        tuple(tuple(map(_outline, p.parts)) for p in work.parted),
        tuple((line.how, line.pen, len(line.ways)) for line in work.lines_on_paper),
        (work.front, work.fronts, work.lies_on, work.edges, _box(work.reference)),
        lying and (lying.panel, lying.at_folds, tuple(map(_near, lying.matrix.ravel().tolist()))),
        work.mirrored and (_outline(work.mirrored.half), _near(work.mirrored.lap)),
    )  # fmt: skip


def _outline(region: Region) -> tuple[Any, ...]:
    return (
        region.pieces,
        len(region.openings),
        region.nodes,
        _near(region.area),
        _box(region.bounds),
    )


def _box(box: Box) -> tuple[float, ...]:
    return tuple(map(_near, box.as_list()))


def _near(value: float) -> float:
    """Rounded; zero is zero on whichever side it lies."""
    return round(value, 6) + 0.0


def seen(evaluation: Evaluation, number: int) -> list[str]:
    """What every view says of the design, with one piece and step in hand."""
    piece = evaluation.pieces[number % len(evaluation.pieces)]
    step = piece.outcomes[number % len(piece.outcomes)].step.id if piece.outcomes else None
    found = [view(evaluation, piece, step, set()).model_dump_json(), repr(report(evaluation))]
    found += [c.model_dump_json() for c in cuts_of(piece)]
    found += [p.model_dump_json() for p in placed_of(piece)]
    found[0] = _KEY.sub('"key":""', found[0])
    if evaluation.pieces[0].work is not None:
        found += [repr(whole_picture(evaluation, pose)) for pose in Pose]
    return [_NUMBER.sub(lambda m: repr(_near(float(m[0]))), text) for text in found]


_KEY = re.compile(r'"key":"[0-9a-f]{32}"')
_NUMBER = re.compile(r"-?\d+\.\d{7,}(e-?\d+)?")


def said(evaluation: Evaluation) -> list[tuple[Any, ...]]:
    return [(f.code, f.severity, f.message, None if f.value is None else _near(f.value), f.hint, [m.title for m in f.mends])
            for f in run_checks(evaluation)]  # fmt: skip


def assert_as_if_fresh(design: Design, number: int = 0, *, views: bool = True) -> None:
    cached, fresh = evaluate(design, SHARED), evaluate(design, OutcomeCache())
    assert outcomes(cached) == outcomes(fresh)
    if views:
        assert said(cached) == said(fresh)
        assert seen(cached, number) == seen(fresh, number)


@given(edited(), st.integers(0, 50))
@settings(max_examples=60 * TIMES, phases=[Phase.generate])
def test_after_random_edits(documents: list[Document], number: int) -> None:
    """Six edits of sixty cards; what follows from each edit is looked at once for every card."""
    designs = [d for d in (loaded(document, load_design) for document in documents) if d]
    for design in designs:
        assert_as_if_fresh(design, views=False)
    if designs:
        assert_as_if_fresh(designs[-1], number)


CHANGES: dict[str, Any] = {
    "another width": lambda d: d["card"]["size"].update(width=77.0),
    "another height": lambda d: d["card"]["size"].update(height=91.0),
    "turned": lambda d: d["card"].update(turned=True),
    "another way": lambda d: d["card"]["folding"].update(kind="top-fold"),
    "another thickness": lambda d: d["papers"][0].update(thickness=0.7),
    "a window in the base": lambda d: d["pieces"][0]["steps"].append(
        {**WINDOW, "outline": {"kind": "circle", "diameter": 21}, "dx": 3, "id": "new"}),
    "a corner softened": lambda d: d["pieces"][0]["steps"].append({"kind": "soften", "id": "new"}),
    "a mat on it": lambda d: d["pieces"].append(
        layer("mat", {"kind": "mat"}, fixing="pads", panel="front")),
    "on the inside": lambda d: d["pieces"][-1].update(side="inside"),
    "on the back": lambda d: d["pieces"][-1].update(panel="back"),
    "an artwork drawn anew": lambda d: [
        layer_.update(path="M0 0H31V17H0Z") for a in d["artworks"].values() for layer_ in a["layers"]],
}  # fmt: skip


@pytest.mark.parametrize("kind", KINDS)
def test_every_step_follows_everything_around_it(kind: str) -> None:
    """Whatever of its surroundings is changed, a step whose outcome was kept is as if it had not been."""
    design = design_with(STEPS[kind])
    evaluate(design, SHARED)
    for change in CHANGES.values():
        document = copy.deepcopy(design.model_dump(mode="json"))
        change(document)
        changed = loaded(document, load_design)
        if changed is not None:
            assert_as_if_fresh(changed, views=False)
            evaluate(design, SHARED)


@pytest.mark.parametrize(
    ("start", "before", "after"),
    [
        ({"kind": "strip", "edge": "foot"}, [(105, 20)], [(32.5, 20), (32.5, 20)]),
        ({"kind": "insert"}, 29_664.0, 28_785.717),
    ],
)
def test_a_window_that_may_cross_the_edge_reaches_what_lies_behind(
    start: dict[str, Any], before: Any, after: Any
) -> None:
    """A window of 40 x 20 whose foot is the panel's. Closed over, a strip of 20 along the foot is whole;
    once it may cross the edge it is a notch, and (105 - 40) / 2 = 32.5 stay on either side."""
    cache = OutcomeCache()
    for crosses, expected in ((False, before), (True, after)):
        window = {
            "kind": "window", "id": "w", "at": "foot", "dy": -10, "crosses": crosses,
            "outline": {"kind": "rectangle", "width": 40, "height": 20},
        }  # fmt: skip
        pieces = [{"id": "base", "steps": [BLANK, window]}, layer("s", start, side="inside")]
        work = (
            evaluate(load_design({"card": {"size": ISO_A6}, "pieces": pieces}), cache)
            .pieces[1]
            .work
        )
        assert work is not None
        if isinstance(expected, float):
            assert work.paper.area == pytest.approx(expected, abs=0.001)
        else:
            sizes = [(p.bounds.width, p.bounds.height) for p in work.paper.parts()]
            assert sizes == [pytest.approx(size) for size in expected]


def test_the_fold_follows_the_way_of_the_card() -> None:
    """A mirror towards wherever the card folds: its trace has the way of folding in it."""
    cache = OutcomeCache()
    steps = [{"kind": "figure", "outline": {"kind": "circle", "diameter": 60}}, {"kind": "mirror"}]
    for way, size in (("side-fold", (117, 60)), ("top-fold", (60, 117))):
        data = {
            "card": {"folding": {"kind": way}},
            "pieces": [{"steps": steps}],
            "artworks": SQUARES,
        }
        work = evaluate(load_design(data), cache).pieces[0].work
        assert work is not None
        assert (work.paper.bounds.width, work.paper.bounds.height) == pytest.approx(size)
