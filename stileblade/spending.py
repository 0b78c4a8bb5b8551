"""What computing may cost, in seconds of processor time: for a job as a whole, for each step, check
and picture by itself, so that one of them that takes too much leaves time for the others.

Nothing is limited where nobody has set an ``allowance``. It is kept by a timer of the process that
counts its own processor time (ITIMER_PROF), and so holds for the main thread of a process that does
one job at a time. ``OverSpent`` comes out of whatever is being computed; it is no ``Exception``, so
that nothing that mends a failure on its way takes it for one.
"""

from __future__ import annotations

import signal
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from time import process_time
from types import FrameType

_LEAST = 0.02
_FOR_ANSWER = 0.1


class OverSpent(BaseException):
    """A share of the allowance is used up. ``whole``: all of it. ``own``: by the step itself, not by
    those before it."""

    def __init__(self, *, whole: bool = False, own: bool = True) -> None:
        super().__init__("over the allowance")
        self.whole, self.own = whole, own


class Left(BaseException):
    """Nobody waits any more for what is being computed. It comes between two steps, checks or pictures, so that
    nothing that is remembered is half done."""


class Allowance:
    """``seconds`` for a job; of these shares for a ``step``, for all ``steps`` together, and for a
    ``look``: a check or picture. ``at`` hears the key of each step before it is computed, ``over`` of each that
    took too much, and of what: "time" or "memory"."""

    def __init__(
        self,
        seconds: float = 10.0,
        *,
        step: float = 0.4,
        steps: float = 0.65,
        look: float = 0.15,
        at: Callable[[str], None] = lambda key: None,
        over: Callable[[str, str], None] = lambda key, what: None,
    ) -> None:
        self.seconds, self.step = seconds, step * seconds
        self.steps, self.look = steps * seconds, look * seconds
        self.at, self.over = at, over
        self.spent_on_steps = 0.0
        self.wanted = True
        """Whether somebody waits for it; from the next step, check or picture on."""
        self.no_room = False
        """Whether there was no memory for something."""
        self.for_answer = _FOR_ANSWER * seconds
        """Seconds kept for putting the answer together."""
        self._ends: list[float] = []
        """Of each share, the widest first: the time of this process at which it is used up."""
        self._once_more = True

    @property
    def left(self) -> float:
        return self._ends[0] - process_time()

    @contextmanager
    def job(self) -> Iterator[None]:
        """Everything inside belongs to the job. OverSpent where it takes too much altogether."""
        global _present
        before = signal.signal(signal.SIGPROF, _over)
        _present, self._once_more = self, True
        try:
            with self.share(self.seconds):
                yield
        finally:
            _present = None
            signal.signal(signal.SIGPROF, before)

    @contextmanager
    def share(self, most: float) -> Iterator[None]:
        """At most so many seconds for what is inside, and no more than are left around it."""
        now = process_time()
        end = min(now + most, *self._ends[-1:]) if self._ends else now + most
        self._ends.append(end)
        try:
            signal.setitimer(signal.ITIMER_PROF, max(end - now, _LEAST))
            yield
        finally:
            self._ends.pop()
            rest = max(self._ends[-1] - process_time(), _LEAST) if self._ends else 0.0
            signal.setitimer(signal.ITIMER_PROF, rest)

    def keep_for_answer(self) -> bool:
        """Whether there is time for the answer. What does not listen while it is inside a library may
        have used that, too: it is given once more."""
        if self.left > _LEAST:
            return True
        if not self._once_more:
            return False
        self._once_more = False
        self._ends[0] = process_time() + self.for_answer
        signal.setitimer(signal.ITIMER_PROF, self.for_answer)
        return True


_present: Allowance | None = None


def _over(number: int, frame: FrameType | None) -> None:
    raise OverSpent(whole=_present is not None and _present.left <= _LEAST)


@contextmanager
def for_step(key: str) -> Iterator[None]:
    """Computing the step that has the key. OverSpent where it takes too much, Left where nobody waits."""
    allowance = _present
    if allowance is None:
        yield
        return
    if not allowance.wanted:
        raise Left
    left = allowance.steps - allowance.spent_on_steps
    if left <= _LEAST:
        raise OverSpent(own=False)
    allowance.at(key)
    started = process_time()
    try:
        with allowance.share(min(allowance.step, left)):
            yield
    except OverSpent as over:
        over.own = process_time() - started > allowance.step * 0.9
        if over.own:
            allowance.over(key, "time")
        raise
    except MemoryError:
        allowance.over(key, "memory")
        raise
    finally:
        allowance.spent_on_steps += process_time() - started


@contextmanager
def for_look() -> Iterator[None]:
    """A check, a picture, a table. OverSpent where it takes too much, or others have: a little is left
    for the answer itself."""
    if _present is None:
        yield
        return
    if not _present.wanted:
        raise Left
    left = _present.left - _present.for_answer
    if left <= _LEAST:
        raise OverSpent(own=False)
    try:
        with _present.share(min(_present.look, left)):
            yield
    except OverSpent as over:
        over.whole = not _present.keep_for_answer()
        raise
    except MemoryError:
        _present.no_room = True
        raise
