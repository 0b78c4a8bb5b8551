"""The server's one evaluator: the core's, with a cache that all requests share."""

from __future__ import annotations

from stileblade.design.cache import OutcomeCache
from stileblade.design.document import Design
from stileblade.design.evaluation import Evaluation, evaluate

CACHE = OutcomeCache()


def evaluated(design: Design, *, until: tuple[str, str] | None = None) -> Evaluation:
    return evaluate(design, CACHE, until=until)
