"""Whatever is asked for, the answer comes within the allowance, in few bytes, with the rest of the
card; and the next person is served."""

from __future__ import annotations

import json
import time
from collections.abc import Iterator
from pathlib import Path

import pytest

from server.computing.jobs import Answer
from server.computing.pool import Pool
from server.computing.wishes import Evaluate
from server.computing.worker import Limits
from stileblade.views.bench import MOST_BYTES
from tests.attack.documents import BLANK, DOCUMENTS, Document, _of

LIMITS = Limits(seconds=6.0, memory=1_000_000_000)
MOST_WALL = 90.0
"""Seconds, three times what the limits let a job take when all of the machine is its own."""


@pytest.fixture(scope="module")
def pool() -> Iterator[Pool]:
    made = Pool(quick=1, slow=1, limits=LIMITS)
    made.start()
    yield made
    made.end()


def evaluated(pool: Pool, document: Document, person: str) -> Answer:
    answer = pool.run("evaluate", Evaluate(document=document, piece="base"), person=person)
    assert isinstance(answer, Answer), answer
    return answer


def peaks(pool: Pool) -> list[int]:
    """The most memory that each of its workers has had, in bytes."""
    found = []
    for worker in pool._workers:
        said = Path(f"/proc/{worker.process.pid}/status").read_text()
        found += [int(li.split()[1]) * 1024 for li in said.splitlines() if li.startswith("VmHWM")]
    return found


@pytest.mark.parametrize("name", DOCUMENTS)
def test_a_document_is_answered(pool: Pool, name: str) -> None:
    document = DOCUMENTS[name]()
    began = time.monotonic()
    answer = evaluated(pool, document, "hostile")
    assert time.monotonic() - began < MOST_WALL
    assert len(answer.content) <= MOST_BYTES
    seen = json.loads(answer.content)
    assert len(seen["rest"]["strip"]) == len(document["pieces"][0]["steps"])
    assert max(peaks(pool)) < LIMITS.memory + 300_000_000
    # once more: what took too much is known, and not tried again
    again = time.monotonic()
    evaluated(pool, document, "hostile")
    assert time.monotonic() - again < MOST_WALL / 2
    other = time.monotonic()
    evaluated(pool, _of(BLANK), "somebody else")
    assert time.monotonic() - other < 5
