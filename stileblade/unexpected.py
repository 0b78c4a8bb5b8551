"""What fails unexpectedly, or takes too much: a mistake of the program's own is logged with its
traceback and becomes a word to the person; the rest of the card is computed all the same."""

from __future__ import annotations

import logging
from collections.abc import Callable
from typing import TypeVar

from stileblade.spending import OverSpent, for_look

T = TypeVar("T")
logger = logging.getLogger("stileblade")

SORRY = "That is a mistake of the program's own, and has been written down."
NOTHING_LOST = (
    "That is a mistake of the program's own, and has been written down. Nothing was lost."
)
TOO_MUCH = "It takes more time or memory than is given to one thing."


class Attempts:
    """Tries one thing after the other, and keeps the names of those that failed unexpectedly, each
    with why."""

    def __init__(self, *, quiet: bool = False) -> None:
        """``quiet``: nothing is logged, where failing is no mistake."""
        self.quiet = quiet
        self.failed: dict[str, str] = {}

    def __call__(self, what: str, make: Callable[[], T], otherwise: T) -> T:
        """What ``make`` gives, or ``otherwise`` where it fails. OverSpent where nothing is left for
        anything else either."""
        try:
            with for_look():
                return make()
        except OverSpent as over:
            if over.whole:
                raise
            self.failed[what] = TOO_MUCH
        except MemoryError:
            self.failed[what] = TOO_MUCH
        except Exception:  # whatever it is, the rest is shown
            if not self.quiet:
                logger.exception("%s could not be computed", what)
            self.failed[what] = SORRY
        return otherwise
