"""Whose run is next: each person has a share of the places, and those who wait take turns."""

from __future__ import annotations

from collections import Counter, OrderedDict
from dataclasses import dataclass

MOST_PASSED = 3
"""By so many cheaper runs of the same person a run is overtaken at most."""


@dataclass
class _Waiting:
    number: int
    cost: float
    passed: int = 0


class Shares:
    """Runs by their numbers, waiting or with a place. One person has all places but one at most, so that somebody else's
    small run begins at once beside any number of heavy ones; of one's own runs the one begins that seems to cost least.
    Not safe between threads by itself."""

    def __init__(self, places: int) -> None:
        self.places = places
        self._waiting: OrderedDict[int, list[_Waiting]] = OrderedDict()
        self._owners: dict[int, int] = {}
        self._have: Counter[int] = Counter()

    def wait(self, number: int, owner: int, cost: float = 0.0) -> None:
        """``cost`` is what the run is thought to take, in seconds."""
        self._waiting.setdefault(owner, []).append(_Waiting(number, cost))

    def next(self) -> int | None:
        """The run that gets a place now, if there is one: of the person whose turn it is."""
        if self._have.total() >= self.places:
            return None
        most = max(1, self.places - 1)
        for owner, waiting in self._waiting.items():
            if self._have[owner] < most:
                number = _taken(waiting)
                if waiting:
                    self._waiting.move_to_end(owner)
                else:
                    del self._waiting[owner]
                self._owners[number] = owner
                self._have[owner] += 1
                return number
        return None

    def done(self, number: int) -> None:
        """The run gives its place back."""
        owner = self._owners.pop(number)
        self._have[owner] -= 1
        if not self._have[owner]:
            del self._have[owner]


def _taken(waiting: list[_Waiting]) -> int:
    """Takes the cheapest run out of those that wait, or the first that was overtaken too often."""
    late = [i for i, one in enumerate(waiting) if one.passed >= MOST_PASSED]
    k = late[0] if late else min(range(len(waiting)), key=lambda i: waiting[i].cost)
    for one in waiting[:k]:
        one.passed += 1
    return waiting.pop(k).number
