"""What fails unexpectedly: a mistake of the program's own. It is logged with its traceback and
becomes a word to the person; the rest of the card is computed all the same."""

from __future__ import annotations

import logging
from collections.abc import Callable
from typing import TypeVar

T = TypeVar("T")
logger = logging.getLogger("stileblade")

SORRY = "That is a mistake of the program's own, and has been written down."


class Attempts:
    """Tries one thing after the other, and keeps the names of those that failed unexpectedly."""

    def __init__(self) -> None:
        self.failed: list[str] = []

    def __call__(self, what: str, make: Callable[[], T], otherwise: T) -> T:
        """What ``make`` gives, or ``otherwise`` where it fails."""
        try:
            return make()
        except Exception:  # whatever it is, the rest is shown
            logger.exception("%s could not be computed", what)
            self.failed.append(what)
            return otherwise
