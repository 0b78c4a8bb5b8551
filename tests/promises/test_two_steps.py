"""Two steps, drawn at random, on every way of folding: what comes out is held against the exported file,
computed here from its own polylines by other means than the application's.

More of them by STILEBLADE_TIMES, as in ``make hunt``.
"""

from __future__ import annotations

import io
import os
import random
from typing import Any

import ezdxf
import pytest
import shapely
from ezdxf import path as dxf_path

from stileblade.card.ways import WAYS
from stileblade.checks.check import Severity, run_checks
from stileblade.design.evaluation import evaluate
from stileblade.folding.flat import fold_flat
from stileblade.formats.format import formats
from stileblade.formats.plan import plan_of
from stileblade.piece.work import Work
from tests.conftest import design_of

TIMES = int(os.environ.get("STILEBLADE_TIMES", "1"))
PAIRS = 6
BLANK = {"kind": "blank"}
ADDS = {"weld"}
"""Steps that may put paper where no panel is."""
AFLOAT = {"pieces.apart", "slit.loose", "fold.loose", "parts.lost"}


def figure(rng: random.Random) -> dict[str, Any]:
    size = rng.uniform(8, 60)
    return rng.choice(
        [
            {"kind": "circle", "diameter": size},
            {"kind": "rectangle", "width": size, "height": rng.uniform(8, 60)},
            {"kind": "heart", "width": size},
            {"kind": "ellipse", "width": size, "height": rng.uniform(8, 60)},
        ]
    )


def placed(rng: random.Random, kind: str, target: str) -> dict[str, Any]:
    return {
        "kind": kind, "target": target, "outline": figure(rng), "turn": rng.choice([0, 0, 30, 90]),
        "at": rng.choice(["centre", "head", "left", "right", "foot-right"]),
        "dx": rng.uniform(-20, 20), "dy": rng.uniform(-20, 20),
    }  # fmt: skip


def step(rng: random.Random, work: Work, before: list[dict[str, Any]]) -> dict[str, Any]:
    target = rng.choice([p.name for p in work.panels])
    kinds = ["window", "cut-away", "weld", "shaped-edge", "slice", "soften", "border-line"]
    if any(s["kind"] == "window" for s in before):
        kinds += ["grille"] * 3
    kind = rng.choice(kinds)
    if kind == "window":
        return placed(rng, kind, target) | {"crosses": rng.random() < 0.5}
    if kind in ("cut-away", "weld"):
        return placed(rng, kind, target)
    if kind == "shaped-edge":
        return {"kind": kind, "target": rng.choice([target, "card"]), "depth": rng.uniform(2, 8),
                "side": rng.choice(["left", "right", "head", "foot"]), "pitch": rng.uniform(8, 40),
                "motif": rng.choice(["wave", "scallop", "zigzag", "battlement"])}  # fmt: skip
    if kind == "slice":
        return {"kind": kind, "keep": rng.choice(["above", "left"]), "target": "card", "edge": "far",
                "distance": rng.uniform(1, 20)}  # fmt: skip
    if kind == "grille":
        return {"kind": kind, "bar": rng.uniform(1, 4), "gap": rng.uniform(3, 12),
                "angle": rng.choice([0, 30, 90]), "pattern": rng.choice(["one", "both", "wheel"])}  # fmt: skip
    if kind == "soften":
        return {"kind": kind, "radius": rng.uniform(0.5, 8)}
    return {"kind": kind, "margin": rng.uniform(2, 10), "target": target}


def from_the_file(work_plan: Any) -> shapely.Geometry:
    """The paper, from the closed polylines of the DXF file, y downwards again."""
    content = formats()["dxf"].write(work_plan).decode()
    space = ezdxf.read(io.StringIO(content)).modelspace()  # type: ignore[attr-defined]
    rings: dict[str, list[Any]] = {"CUT_OUTER": [], "CUT_INNER": []}
    for entity in space:
        if entity.dxf.layer in rings:
            assert entity.dxftype() == "LWPOLYLINE"
            assert entity.closed
            points = [
                (p.x, work_plan.height - p.y) for p in dxf_path.make_path(entity).flattening(0.001)
            ]
            rings[entity.dxf.layer].append(shapely.make_valid(shapely.polygons(points)))
    outer, inner = (shapely.union_all(rings[name]) for name in ("CUT_OUTER", "CUT_INNER"))
    return shapely.difference(outer, inner)


@pytest.mark.parametrize("way", WAYS.names())
def test_two_steps_come_out_as_the_file_says(way: str) -> None:
    rng = random.Random(f"{way} {TIMES}")
    applied = 0
    for _ in range(PAIRS * TIMES):
        start = evaluate(design_of(BLANK, way=way)).pieces[0].work
        assert start is not None
        steps: list[dict[str, Any]] = []
        for number in range(2):
            steps.append(step(rng, start, steps) | {"id": f"r{number}"})
        design = design_of(BLANK, *steps, way=way)
        evaluation = evaluate(design)
        piece = evaluation.pieces[0]
        work = piece.work
        assert work is not None
        applied += sum(o.problem is None for o in piece.outcomes[1:])
        if not work.paper:
            continue
        said = {f.code for f in run_checks(evaluation)}
        shape = from_the_file(plan_of(evaluation, piece))
        box = work.paper.bounds
        # the area in the file is the application's, to the arcs' tolerance along the outline
        room = 0.006 * shapely.length(shape) + 0.01
        assert shapely.area(shape) == pytest.approx(work.paper.area, abs=room), (way, steps)
        # no paper off the panels unasked
        panels = shapely.union_all([shapely.box(*p.box.as_list()) for p in work.panels])
        moved = shapely.transform(shape, lambda p, b=box: p + [b.left, b.head])
        adds = any(o.step.kind in ADDS for o in piece.outcomes if o.problem is None)  # type: ignore[attr-defined]
        if not adds:
            off = shapely.area(shapely.difference(moved, shapely.buffer(panels, 0.01)))
            assert off < 0.05, (way, steps)
        # nothing afloat without a finding
        parts = [p for p in shapely.get_parts(shape) if shapely.area(p) > 0.05]
        assert len(parts) == 1 or said & AFLOAT, (way, steps, len(parts))
        # whatever is in several parts when it is cut at its folds hangs on them, or that is said
        loose = [f for f in fold_flat(work).faces if f.loose]
        assert not loose or said & AFLOAT, (way, steps)
    assert applied > PAIRS * TIMES * 0.8


@pytest.mark.parametrize("way", WAYS.names())
def test_an_untouched_way_of_folding_has_no_finding(way: str) -> None:
    """But for the envelope of four layers of 0.3, whose room of 1.975 is under the slack of 2."""
    found = run_checks(evaluate(design_of(BLANK, way=way)))
    codes = {f.code for f in found if f.severity is not Severity.NOTE}
    assert codes <= {"envelope.tight"}
