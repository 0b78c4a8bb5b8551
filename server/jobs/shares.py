"""Whose run is next: each person has a share of the places, and those who wait take turns."""

from __future__ import annotations

from collections import Counter, OrderedDict, deque


class Shares:
    """Runs by their numbers, waiting or with a place. One person has all places but one at most, so that somebody else's
    small run begins at once beside any number of heavy ones. Not safe between threads by itself."""

    def __init__(self, places: int) -> None:
        self.places = places
        self._waiting: OrderedDict[int, deque[int]] = OrderedDict()
        self._owners: dict[int, int] = {}
        self._have: Counter[int] = Counter()

    def wait(self, number: int, owner: int) -> None:
        self._waiting.setdefault(owner, deque()).append(number)

    def next(self) -> int | None:
        """The run that gets a place now, if there is one: of the person whose turn it is."""
        if self._have.total() >= self.places:
            return None
        most = max(1, self.places - 1)
        for owner, numbers in self._waiting.items():
            if self._have[owner] < most:
                number = numbers.popleft()
                if numbers:
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
