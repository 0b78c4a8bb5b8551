"""Jobs of the demo's designs, laid out."""

from __future__ import annotations

import random
from functools import lru_cache
from pathlib import Path

from stileblade.design.document import read_design
from stileblade.design.evaluation import Evaluation, evaluate
from stileblade.machine.machine import Machine
from stileblade.machine.shipped import FLATBED
from stileblade.sheets.job import Card, JobOptions, stocks_of
from stileblade.sheets.laying import Laid, lay_job

DESIGNS = sorted((Path(__file__).parents[2] / "demo" / "designs").glob("*.json"))


@lru_cache(maxsize=40)
def evaluated(path: Path) -> Evaluation:
    return evaluate(read_design(path.read_bytes()))


def card(path: Path, count: int = 1, key: str = "0") -> Card:
    evaluation = evaluated(path)
    return Card(key, evaluation.design.name, evaluation, count)


def laid(cards: list[Card], options: JobOptions | None = None, machine: Machine = FLATBED) -> Laid:
    options = options or JobOptions()
    return lay_job("job", stocks_of(cards, options), options, machine, advise=False)


def random_job(seed: int, machine: Machine = FLATBED) -> Laid:
    """One to three designs of the demo, one or two cards of each."""
    chance = random.Random(seed)
    chosen = chance.sample(DESIGNS, chance.randint(1, 3))
    cards = [card(path, chance.randint(1, 2), str(i)) for i, path in enumerate(chosen)]
    return laid(cards, JobOptions(gap_mm=chance.choice([1, 2, 3])), machine)
