"""Designs of the demo, spoiled: each is refused by its schema or evaluated and checked, with a problem in words where it
cannot be; no job fails of itself, and none takes longer than it may."""

from __future__ import annotations

import json
import random
import tempfile
import time
from collections import Counter
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from pydantic import ValidationError

from server.computing.jobs import Answer
from server.computing.pool import Pool
from server.computing.wishes import Evaluate
from server.computing.worker import Limits
from stileblade.errors import StilebladeError
from tests.conftest import TIMES

DESIGNS = sorted((Path(__file__).resolve().parents[2] / "demo" / "designs").glob("*.json"))
LIMITS = Limits(seconds=6.0, memory=1_000_000_000)
MOST_WALL = 90.0
ODD: tuple[Any, ...] = (
    0, -1, 1, 0.001, -0.0, 1e-9, 1e9, 1e308, -1e308, 2**63, True, False, None, "", "base", "nan", "\u0000", "é" * 300,
    [], {}, [[]], "fold", "front", "inside", 3.5, 148, 90, 180, 360.0001,
)  # fmt: skip


@pytest.fixture(scope="module")
def pool() -> Iterator[Pool]:
    made = Pool(quick=1, slow=1, limits=LIMITS)
    made.start()
    yield made
    made.end()


def places(data: Any) -> Iterator[tuple[Any, Any]]:
    """Each object or list in the document with each of its keys."""
    items = data.items() if isinstance(data, dict) else enumerate(data)
    for key, value in list(items):
        yield data, key
        if isinstance(value, dict | list) and key != "artworks":
            yield from places(value)


def spoiled(document: Any, chance: random.Random) -> Any:
    """Values made odd or another's, keys left out, parts of lists doubled, swapped and put elsewhere."""
    data = json.loads(json.dumps(document))
    for _ in range(chance.choice([1, 1, 1, 2, 4])):
        found = list(places(data))
        owner, key = chance.choice(found)
        other, that = chance.choice(found)
        how = chance.randrange(8)
        if how < 3:
            owner[key] = chance.choice(ODD)
        elif how < 5:
            owner[key] = json.loads(json.dumps(other[that]))
        elif how == 5:
            del owner[key]
        elif isinstance(owner, list):
            chance.choice([owner.reverse, lambda o=owner: o.extend(o[:3])])()
        elif isinstance(owner[key], int | float):
            owner[key] = owner[key] * chance.choice([-1, 0.5, 2, 10, 1000])
        if not isinstance(data, dict):
            return data
    return data


def test_a_spoiled_document_is_refused_or_answered(pool: Pool) -> None:
    chance = random.Random(f"documents {time.time() if TIMES > 1 else ''}")
    documents = [json.loads(path.read_text()) for path in DESIGNS]
    ends: Counter[str] = Counter()
    for _ in range(300 * TIMES):
        data = spoiled(chance.choice(documents), chance)
        text = json.dumps(data)
        try:
            wish = Evaluate.model_validate({"document": data, "piece": "base"})
        except (ValidationError, StilebladeError):
            ends["refused"] += 1
            continue
        began = time.monotonic()
        answer = pool.run("evaluate", wish, person="hostile")
        taken = time.monotonic() - began
        told = "answered" if isinstance(answer, Answer) else f"problem {answer.status}"
        ends[told] += 1
        if told not in ("answered", "problem 422") or taken > MOST_WALL or unexpected(answer):
            kept = Path(tempfile.gettempdir()) / f"spoiled-document-{chance.getrandbits(32)}.json"
            kept.write_text(text)
            pytest.fail(f"{kept}: {told} after {taken:.1f} s")
    assert ends["answered"] > 20
    assert ends["refused"] + ends["problem 422"] > 20


def unexpected(answer: Any) -> bool:
    """Whether something in it failed of itself: such a thing is caught, logged and told."""
    return isinstance(answer, Answer) and b"could not be computed" in answer.content
