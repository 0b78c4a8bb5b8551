"""The server's one evaluator: the core's, with a cache that all requests share."""

from __future__ import annotations

from stileblade.build.cache import OutcomeCache
from stileblade.build.document import Design
from stileblade.build.evaluation import Evaluation, evaluate

CACHE = OutcomeCache()


def evaluated(design: Design, *, until: tuple[str, str] | None = None) -> Evaluation:
    return evaluate(design, CACHE, until=until)
