"""Shapes and designs that many tests use."""

from __future__ import annotations

import multiprocessing
import os
from collections.abc import Callable
from typing import Any

import pytest
from hypothesis import HealthCheck, settings

from server.computing.pool import PRELOAD
from stileblade.design.document import Design, load_design
from stileblade.design.evaluation import Evaluation, evaluate

TIMES = int(os.environ.get("STILEBLADE_TIMES", "1"))
"""How many times the examples of random tests are tried, with a seed that is another each time where it
is more than once: ``make hunt``."""
settings.register_profile(
    "stileblade",
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large],
    derandomize=TIMES == 1,
    database=None,
)
settings.load_profile("stileblade")

# whichever test parts a process first: it has what the server's has
multiprocessing.get_context("forkserver").set_forkserver_preload(PRELOAD)

A2 = {
    "name": "A2",
    "width": 107.95,
    "height": 139.7,
    "envelope": {"name": "A2", "width": 111.125, "height": 146.05},
}


def design_of(
    *steps: dict[str, Any], way: str = "side-fold", folding: dict[str, Any] | None = None,
    thickness: float = 0.3, **card: Any,
) -> Design:  # fmt: skip
    """An A2 side fold of 0.3 mm stock, large sheets, with these steps; ``card`` overrides."""
    return load_design(
        {
            "card": {"size": A2, "folding": {"kind": way, **(folding or {})}, **card},
            "papers": [{"thickness": thickness, "sheet_width": 320, "sheet_height": 450}],
            "pieces": [{"steps": [dict(s) for s in steps]}],
        }
    )


@pytest.fixture
def no_hurry(monkeypatch: pytest.MonkeyPatch) -> None:
    """Aims are solved within their evaluations, however slow the machine is meanwhile."""
    monkeypatch.setattr("stileblade.aims.trial.clock", lambda: 0.0)


@pytest.fixture
def evaluated() -> Callable[..., Evaluation]:
    def run(*steps: dict[str, Any], **card: Any) -> Evaluation:
        return evaluate(design_of(*steps, **card))

    return run
