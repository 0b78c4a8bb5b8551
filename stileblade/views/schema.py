"""The JSON Schema of design documents and of all kinds of steps and figures."""

from __future__ import annotations

from typing import Any

from stileblade.design.document import Design
from stileblade.outlines.figure import FIGURES
from stileblade.steps.step import STEPS


def schema() -> dict[str, Any]:
    """document: the whole; steps and figures: each kind by name, with title and stage."""
    return {
        "document": Design.model_json_schema(),
        "steps": {
            name: {
                "title": STEPS[name].title,
                "stage": str(STEPS[name].stage),
                "schema": STEPS[name].model_json_schema(),
            }
            for name in STEPS.names()
        },
        "figures": {
            name: {"title": FIGURES[name].title, "schema": FIGURES[name].model_json_schema()}
            for name in FIGURES.names()
        },
    }
