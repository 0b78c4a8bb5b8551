"""The demo's files are what its cards make: building them changes nothing."""

from __future__ import annotations

import pytest

from demo.build import files
from demo.drawings import HERE
from stileblade.checks.check import run_checks
from stileblade.design.document import read_design
from stileblade.design.evaluation import evaluate

SHOWING_FINDINGS = {"04-sailing-boat", "10-whale-hardly-joined"}
DESIGNS = sorted(p.stem for p in (HERE / "designs").iterdir())


def test_built_again_nothing_changes() -> None:
    wanted = files()
    kept = {
        f"{p.parent.name}/{p.name}": p for f in ("designs", "shelf") for p in (HERE / f).iterdir()
    }
    assert kept.keys() == wanted.keys()
    changed = [name for name, text in wanted.items() if kept[name].read_text() != text]
    assert changed == []


@pytest.mark.parametrize("name", DESIGNS)
def test_every_card_passes_but_for_two_that_show_findings(name: str) -> None:
    """Nor is anything accepted that no check says."""
    design = read_design((HERE / "designs" / f"{name}.json").read_text())
    found = run_checks(evaluate(design))
    opened = {f.code for f in found if not f.accepted}
    assert bool(opened) == (name in SHOWING_FINDINGS), opened
    assert sum(1 for f in found if f.accepted) == len(design.accepted)
