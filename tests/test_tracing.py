"""Traces: what is recorded, what is held against it, and what cannot be recorded."""

from __future__ import annotations

from collections import UserDict
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

import numpy as np
import pytest

from stileblade.tracing import Observations, ReadByPart, Trace, digest, holds, path_text, traced


@dataclass(frozen=True)
class Side(ReadByPart):
    length: float
    note: str = ""


class Shelf(UserDict[str, float], ReadByPart):
    pass


@dataclass(frozen=True, eq=False)
class Sheet(ReadByPart):
    width: float = 105.0
    height: float = 148.0
    sides: tuple[Side, ...] = (Side(1.0), Side(2.0))
    shelf: Shelf = field(default_factory=Shelf)

    @property
    def area(self) -> float:
        return self.width * self.height

    def around(self, margin: float) -> float:
        return self.width + margin

    @property
    def torn(self) -> float:
        raise ValueError(f"torn at {self.width}")


def facts_of(read: Any, sheet: Sheet) -> Any:
    trace = Trace()
    read(traced(sheet, trace))
    return trace.facts


@pytest.mark.parametrize(("read", "same", "other"), [
    (lambda s: s.width, Sheet(height=1), Sheet(width=1)),
    (lambda s: s.area, Sheet(148.0, 105.0), Sheet(width=1)),
    (lambda s: s.around(3), Sheet(height=1), Sheet(width=1)),
    (lambda s: s.sides[1].length, Sheet(sides=(Side(9), Side(2.0, "x"))), Sheet(sides=(Side(1), Side(3)))),
    (lambda s: s.ask(lambda sheet: sheet.width > 100), Sheet(width=101), Sheet(width=99)),
    (lambda s: s.shelf.get("gone"), Sheet(shelf=Shelf(other=1.0)), Sheet(shelf=Shelf(gone=1.0))),
    (lambda s: "a" in s.shelf, Sheet(width=1), Sheet(shelf=Shelf(a=1.0))),
])  # fmt: skip
def test_a_trace_holds_while_what_was_read_is_the_same(
    read: Any, same: Sheet, other: Sheet
) -> None:
    facts = facts_of(read, Sheet())
    assert holds(facts, Sheet())
    assert holds(facts, same)
    assert not holds(facts, other)


def test_an_error_is_a_fact() -> None:
    trace = Trace()
    with pytest.raises(ValueError, match="torn at 105"):
        _ = traced(Sheet(), trace).torn
    assert holds(trace.facts, Sheet(height=1))
    assert not holds(trace.facts, Sheet(width=1))


def test_a_function_that_remembers_its_results_must_not_be_given_what_is_traced() -> None:
    @lru_cache
    def width_of(sheet: Sheet) -> float:
        return sheet.width

    with pytest.raises(TypeError, match="unhashable"):
        width_of(traced(Sheet(), Trace()))


def test_what_has_no_content_cannot_be_read_whole() -> None:
    margin = 3.0
    with pytest.raises(TypeError, match="function has no content to compare"):
        digest(lambda width: width + margin)


@pytest.mark.parametrize(("first", "second"), [
    (1, 1.0), ("1", 1), (b"a", "a"), ((), []), (("a", "b"), ("ab",)), ((("a",), "b"), ("a", ("b",))),
    (np.zeros(2), np.zeros((2, 1))), (np.zeros(2), np.zeros(2, np.float32)), (None, ""), (True, 1),
    ({"a": 1}, {"a": 2}), (Side(1.0), Side(1.0, "x")),
])  # fmt: skip
def test_different_values_have_different_digests(first: object, second: object) -> None:
    assert digest(first) != digest(second)
    assert digest(first) == digest(first)


def test_each_fact_is_looked_at_once() -> None:
    looked = []

    class Counted(ReadByPart):
        @property
        def width(self) -> float:
            looked.append(1)
            return 3.0

    trace = Trace()
    _ = traced(Counted(), trace).width + traced(Counted(), trace).width
    looked.clear()
    now = Observations(Counted())
    assert now.hold(trace.facts)
    assert now.hold(trace.facts)
    assert looked == [1]


def test_a_path_is_the_same_text_in_every_process() -> None:
    ((path, _),) = facts_of(lambda s: s.ask(_narrow, 100), Sheet())
    assert path_text(path) == f"(tests.test_tracing._narrow['{digest(100).hex()}'])"


def _narrow(sheet: Sheet, width: float) -> bool:
    return sheet.width < width
