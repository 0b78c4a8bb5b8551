"""Random cards with up to twelve layers, on every way of folding: all is computed, nothing fails."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from stileblade.card.ways import WAYS
from stileblade.checks.check import run_checks
from stileblade.design.document import load_design
from stileblade.design.evaluation import evaluate
from stileblade.errors import StilebladeError
from stileblade.formats.files import files_of
from stileblade.formats.options import FileOptions, Which
from stileblade.steps.step import STEPS, StartsWith
from stileblade.views.bench import view
from stileblade.views.picture import Pose, whole_picture
from tests.conftest import TIMES
from tests.promises.values import Values, values_of
from tests.steps.kinds.test_layers import SQUARES

LAYERS = [cls for cls in STEPS if cls.starts_with is StartsWith.LAYER]
_steps = st.one_of([values_of(cls.model_json_schema()) for cls in LAYERS])
_pieces = st.lists(
    st.fixed_dictionaries(
        {
            "start": _steps,
            "on": st.one_of(st.just(0), st.integers(0, 12)),
            "panel": st.sampled_from(["", "", "", "front", "back", "left door", "gone"]),
            "side": st.sampled_from(["outside", "inside", "outside", "inside", "around"]),
            "order": st.integers(-2, 5),
            "fixing": st.sampled_from(["glue", "pads", "tucked"]),
            "more": st.one_of(
                st.just([]),
                st.one_of([values_of(c.model_json_schema()) for c in STEPS if c.for_layers]).map(
                    lambda values: [values]
                ),
            ),
        }
    ),
    min_size=1,
    max_size=12,
)
BASES: list[list[Values]] = [
    [{"kind": "blank"}, {"kind": "window", "id": "s2", "outline": {"kind": "circle", "diameter": 30}}],
    [{"kind": "artwork", "ref": "a", "to": "panel", "margin": 6, "surround": 4}, {"kind": "mirror"}],
    [{"kind": "blank"}, {"kind": "shaped-edge", "side": "foot", "target": "front"}],
]  # fmt: skip


def document(base: list[Values], made: list[dict[str, Any]], way: str) -> dict[str, Any]:
    pieces: list[dict[str, Any]] = [{"id": "base", "steps": base}]
    for number, piece in enumerate(made):
        host = pieces[min(piece["on"], number)]["id"]
        steps = [piece["start"], *piece["more"]]
        rest = {k: piece[k] for k in ("panel", "side", "order", "fixing")}
        pieces.append(
            {"id": f"p{number}", "name": f"p{number}", "host": host, "steps": steps, **rest}
        )
    return {"card": {"folding": {"kind": way}}, "pieces": pieces, "artworks": SQUARES}


@pytest.mark.parametrize("way", [w.kind for w in WAYS])
def test_random_layers_are_computed_checked_folded_and_exported(way: str) -> None:
    applied = 0

    @given(st.sampled_from(BASES), _pieces)
    @settings(
        max_examples=6 * TIMES, phases=[Phase.generate]
    )  # a card of twelve shrinks for minutes
    def check(base: list[Values], made: list[dict[str, Any]]) -> None:
        nonlocal applied
        evaluation = evaluate(load_design(document(base, made, way)))
        problems = [o.problem for p in evaluation.pieces for o in p.outcomes if o.problem]
        assert not [p for p in problems if "could not be computed" in p.message]
        assert not [f for f in run_checks(evaluation) if f.code == "not-computed"]
        applied += len(evaluation.stack.layers) if evaluation.stack else 0
        if evaluation.pieces[0].work is None:
            return
        for piece in evaluation.pieces:
            seen = view(evaluation, piece, None, set())
            assert seen.rest is not None
            assert not [f for f in seen.rest.findings if f.code == "not-computed"]
        for pose in Pose:
            assert whole_picture(evaluation, pose).shapes
        options = FileOptions(which=Which.EACH)
        made = [p for p in evaluation.pieces if p.work and p.work.paper]
        if not made:
            with pytest.raises(StilebladeError, match="has no paper"):
                files_of(evaluation, "svg", options)
            return
        # pieces without paper keep the others from nothing, and are named in their files
        files = [f for f in files_of(evaluation, "svg", options) if "-inside" not in f.name]
        assert len(files) == len(made)
        named = all(b"so it is in no file" in f.content for f in files)
        assert named or len(made) == len(evaluation.pieces)

    check()
    assert applied > 2


@pytest.mark.parametrize("cls", LAYERS, ids=lambda cls: str(cls.title))
def test_every_layer_lies_on_something_with_random_values(cls: Any) -> None:
    applied = 0

    @given(values_of(cls.model_json_schema()), st.sampled_from(BASES))
    @settings(max_examples=10 * TIMES)
    def check(values: Values, base: list[Values]) -> None:
        nonlocal applied
        pieces: list[dict[str, Any]] = [{"id": "base", "steps": base}]
        pieces.append(
            {"id": "e", "host": "base", "side": "around", "steps": [{"kind": "envelope"}]}
        )
        host = "e" if cls.model_fields["kind"].default == "liner" else "base"
        pieces.append(
            {"id": "p", "name": "p", "host": host, "side": cls.sample_lies.side, "steps": [values]}
        )
        made = evaluate(load_design({"pieces": pieces, "artworks": SQUARES})).pieces[-1]
        problem = made.outcomes[0].problem
        assert problem is None or "could not be computed" not in problem.message
        if made.work is not None:
            applied += 1
            assert made.work.lying is not None
            assert made.work.paper

    check()
    assert applied
