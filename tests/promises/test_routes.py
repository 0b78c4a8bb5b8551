"""Random documents over everything that is computed of one: an answer or words, never a failure."""

from __future__ import annotations

import json
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from server.computing import wishes
from server.computing.jobs import Answer
from server.computing.worker import Order, perform
from stileblade.card.ways import WAYS
from stileblade.formats.format import formats
from stileblade.spending import Allowance
from tests.conftest import TIMES, design_of
from tests.promises.values import Values, starts, steps


def orders(document: dict[str, Any]) -> list[Order]:
    """One of each job."""
    here = {"document": document, "piece": "base"}
    step = document["pieces"][0]["steps"][-1]["id"]
    return [
        Order("summary", (json.dumps(document),)),
        Order("evaluate", (wishes.Evaluate(**here, step=step),)),
        Order("cuts", (wishes.Looked(**here),)),
        Order("placed", (wishes.Looked(**here),)),
        Order("figures", (wishes.Looked(**here),)),
        Order("joins", (wishes.Joins(**here, loss=50),)),
        Order("picture", (wishes.Picture(**here, angles=[90.0], eye=(1, 1, 1)),)),
        Order("refold", (wishes.Refold(document=document, cards=[{}]),)),
        Order("aim", (wishes.AimWish(**here, figure="closed.width", target=90),)),
        *(Order("export", (wishes.Export(**here, format=f), "")) for f in formats().names()),
    ]


@given(starts, st.lists(steps, max_size=3), st.sampled_from(WAYS.names()))
@settings(max_examples=12 * TIMES)
def test_no_job_fails(start: Values, more: list[Values], way: str) -> None:
    document = design_of(start, *more, way=way).model_dump(mode="json")
    for order in orders(document):
        result, _ = perform(order, Allowance(20))
        if not isinstance(result, Answer):
            assert result.status == 422, (order.job, document)
            assert result.message.endswith((".", "…")), (order.job, result)
