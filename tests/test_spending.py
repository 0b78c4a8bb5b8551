"""An allowance of processor time: what takes too much is given up by itself, and the rest goes on."""

from __future__ import annotations

import hashlib
import signal
import time
from typing import Any

import numpy as np
import pytest

from stileblade.design.cache import OutcomeCache
from stileblade.design.evaluation import evaluate
from stileblade.spending import Allowance, OverSpent, for_look, for_step
from stileblade.steps.kinds.window import Window
from stileblade.unexpected import TOO_MUCH, Attempts
from tests.conftest import design_of


def spin(seconds: float) -> str:
    until = time.process_time() + seconds
    while time.process_time() < until:
        pass
    return "done"


def test_without_an_allowance_nothing_is_limited() -> None:
    with for_step("a"), for_look():
        assert spin(0.05) == "done"
    assert signal.getitimer(signal.ITIMER_PROF)[0] == 0


def test_a_step_is_given_up_and_the_next_has_its_own_time() -> None:
    over: list[tuple[str, str]] = []
    at: list[str] = []
    allowance = Allowance(1.0, at=at.append, over=lambda *what: over.append(what))
    with allowance.job():
        with pytest.raises(OverSpent) as caught, for_step("slow"):
            spin(5)
        assert caught.value.own
        assert not caught.value.whole
        with for_step("quick"):
            assert spin(0.05) == "done"
    assert over == [("slow", "time")]
    assert at == ["slow", "quick"]
    assert signal.getitimer(signal.ITIMER_PROF)[0] == 0


def test_steps_together_leave_time_for_the_rest() -> None:
    with Allowance(1.0, step=0.4, steps=0.5).job():
        with pytest.raises(OverSpent), for_step("first"):
            spin(5)
        with pytest.raises(OverSpent) as caught, for_step("second"):
            spin(0.3)
        assert not caught.value.own
        with for_look():
            assert spin(0.05) == "done"


def test_what_is_looked_at_is_left_out_by_itself() -> None:
    attempt = Attempts()
    with Allowance(1.0).job():
        assert attempt("slow", lambda: spin(5), "nothing") == "nothing"
        assert attempt("quick", lambda: spin(0.01), "nothing") == "done"
    assert attempt.failed == {"slow": TOO_MUCH}


def deaf(seconds: float) -> str:
    """In one call of a library, and at least so long: nothing is heard before it has ended."""
    quickest = np.inf  # of several: a machine's speed wavers
    for _ in range(5):
        started = time.process_time()
        hashlib.pbkdf2_hmac("sha256", b"", b"", 20_000)
        quickest = min(quickest, time.process_time() - started)
    hashlib.pbkdf2_hmac("sha256", b"", b"", int(2 * seconds / quickest * 20_000))
    return "done"


def test_what_does_not_listen_takes_the_time_for_the_answer_from_nobody() -> None:
    attempt = Attempts()
    with Allowance(1.0, look=0.5).job():
        assert attempt("deaf", lambda: deaf(1.05), "nothing") == "nothing"
        assert attempt("next", lambda: spin(0.01), "nothing") == "nothing"
        assert spin(0.05) == "done"
        with pytest.raises(OverSpent) as caught:
            spin(5)
        assert caught.value.whole
    assert set(attempt.failed) == {"deaf", "next"}
    assert signal.getitimer(signal.ITIMER_PROF)[0] == 0


def test_the_time_for_the_answer_is_given_again_once() -> None:
    def twice() -> None:
        with for_look():
            with pytest.raises(OverSpent) as inner, for_look():
                deaf(0.6)
            assert not inner.value.whole
            deaf(0.2)

    with pytest.raises(OverSpent) as caught, Allowance(0.5, look=1).job():
        twice()
    assert caught.value.whole


def test_the_whole_is_given_up_where_nothing_else_ends_it() -> None:
    before = time.process_time()
    with pytest.raises(OverSpent) as caught, Allowance(0.3).job():
        spin(5)
    assert caught.value.whole
    assert time.process_time() - before < 2


def test_a_slow_step_becomes_a_finding_and_the_others_are_computed(monkeypatch: Any) -> None:
    real = Window.apply

    def slow(self: Window, *given: Any) -> Any:
        if self.dx:
            spin(5)
        return real(self, *given)

    monkeypatch.setattr(Window, "apply", slow)
    window = {"kind": "window", "outline": {"kind": "circle", "diameter": 10}}
    design = design_of({"kind": "blank"}, {**window, "dx": 9}, {**window, "dy": 20})
    cache = OutcomeCache()
    with Allowance(1.0).job():
        outcomes = evaluate(design, cache).pieces[0].outcomes
    problems = [o.problem.message if o.problem else "" for o in outcomes]
    assert problems == ["", "It takes too much time to compute, and was given up.", ""]
    assert outcomes[-1].work is not None
    assert len(outcomes[-1].work.windows) == 1
    # it is known, and not tried again
    before = time.process_time()
    evaluate(design, cache)
    assert time.process_time() - before < 0.3


def test_a_step_without_room_says_so(monkeypatch: Any) -> None:
    def greedy(self: Window, *given: Any) -> Any:
        raise MemoryError

    monkeypatch.setattr(Window, "apply", greedy)
    design = design_of({"kind": "blank"}, {"kind": "window"})
    problem = evaluate(design).pieces[0].outcomes[-1].problem
    assert problem is not None
    assert problem.message == "It takes too much memory to compute, and was given up."
