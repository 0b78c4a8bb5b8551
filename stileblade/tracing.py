"""Traces: what a computation reads of its surroundings, recorded while it runs.

A result is good for as long as everything it read is still the same. What it read is not declared
anywhere; the computation sees its surroundings through an object that records each fact and a digest
of it. ``holds`` reads the same facts from other surroundings and compares. This is the "verifying
trace" of Mokhov, Mitchell and Peyton Jones, *Build Systems à la Carte* (2018).

>>> from dataclasses import dataclass
>>> @dataclass(frozen=True)
... class Sheet(ReadByPart):
...     width: float
...     height: float
>>> trace = Trace()
>>> traced(Sheet(105, 148), trace).width
105
>>> holds(trace.facts, Sheet(105, 210)), holds(trace.facts, Sheet(106, 148))
(True, False)
"""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Iterator, Mapping, Sequence, Set
from dataclasses import fields, is_dataclass
from enum import Enum
from types import FunctionType, MethodType
from typing import Any, TypeVar, cast
from weakref import WeakKeyDictionary

import numpy as np
from pydantic import BaseModel

T = TypeVar("T")

Move = tuple[str, Any]
"""One move from an object to a part of it: ``(".", name)``, ``("[]", key)``, ``("in", key)``,
``("keys", None)`` or ``("()", (query, arguments))``."""
Path = tuple[Move, ...]
Fact = tuple[Path, bytes]


class ReadByPart:
    """What is recorded part by part, as it is read. Everything else is one fact as a whole."""

    def ask(self, query: Callable[..., T], *arguments: Any) -> T:
        """``query(self, *arguments)``. In a trace the answer is a fact of its own (or is read by part),
        and what the query reads to find it is not."""
        return query(self, *arguments)


class Trace:
    """The facts read so far, each path once, in the order of the first reading."""

    def __init__(self) -> None:
        self._facts: dict[Path, bytes] = {}

    def record(self, path: Path, value: bytes) -> None:
        self._facts.setdefault(path, value)

    @property
    def facts(self) -> tuple[Fact, ...]:
        return tuple(self._facts.items())


class _Traced:
    """Stands for an object and records what is read of it. Its methods run on it, so that what they read
    is recorded, too. It cannot be hashed: a function that remembers its results must not be given it."""

    __slots__ = ("_object", "_path", "_trace")
    __hash__ = None  # type: ignore[assignment]

    def __init__(self, of: Any, path: Path, trace: Trace) -> None:
        self._object, self._path, self._trace = of, path, trace

    def __getattr__(self, name: str) -> Any:
        of = self._object
        if name.startswith("__"):
            raise AttributeError(name)
        if name == "ask":
            return self._asked
        attribute = getattr(type(of), name, None)
        if isinstance(attribute, FunctionType):
            return MethodType(attribute, self)
        return self._read((".", name))

    def __getitem__(self, key: Any) -> Any:
        return self._read(("[]", key))

    def __contains__(self, key: Any) -> bool:
        return bool(self._read(("in", key)))

    def __iter__(self) -> Iterator[Any]:
        return iter(self._read(("keys", None)))

    def __len__(self) -> int:
        return len(self._read(("keys", None)))

    def __bool__(self) -> bool:
        return bool(self._read(("bool", None)))

    def _asked(self, query: Callable[..., T], *arguments: Any) -> T:
        return cast(T, self._read(("()", (query, arguments))))

    def _read(self, move: Move) -> Any:
        path = (*self._path, move)
        digest, value = _observed(self._object, move)
        self._trace.record(path, digest)
        if isinstance(value, Exception):
            raise value
        return _within(value, path, self._trace)


def traced(root: T, trace: Trace) -> T:
    """The object, with what is read of it recorded in ``trace``. Its type is ``ReadByPart``."""
    return cast(T, _Traced(root, (), trace))


def untraced(value: T) -> T:
    """What a traced object stands for; anything else as it is."""
    return cast(T, value._object) if isinstance(value, _Traced) else value


def is_traced(value: object) -> bool:
    return isinstance(value, _Traced)


class Observations:
    """Facts of one object as it is now, each digested once."""

    def __init__(self, root: object) -> None:
        self._values: dict[Path, Any] = {(): root}
        self._digests: dict[Path, bytes] = {}

    def hold(self, facts: Sequence[Fact]) -> bool:
        """Whether all facts are as they were recorded."""
        return all(self._digest(path) == recorded for path, recorded in facts)

    def _digest(self, path: Path) -> bytes | None:
        if path not in self._digests:
            self._look(path)
        return self._digests[path]

    def _look(self, path: Path) -> None:
        before = path[:-1]
        if before not in self._values:
            self._look(before)
        owner = self._values[before]
        if owner is None or isinstance(owner, Exception):
            self._digests[path], self._values[path] = b"", None
        else:
            self._digests[path], self._values[path] = _observed(owner, path[-1])


def holds(facts: Sequence[Fact], root: object) -> bool:
    """Whether the facts, read from ``root``, are what they were when they were recorded."""
    return Observations(root).hold(facts)


_KNOWN: WeakKeyDictionary[Any, dict[str, bytes]] = WeakKeyDictionary()
"""Digests of what has been read of objects that are told apart by identity, and so never change."""


def _observed(of: Any, move: Move) -> tuple[bytes, Any]:
    """What a move finds, and its digest; an error that it ends with is what it finds."""
    kind, what = move
    if kind == "." and _by_identity(of):
        known = _KNOWN.setdefault(of, {})
        if what in known:
            return known[what], getattr(of, what)
        found = _looked_up(of, move)
        if not isinstance(found[1], Exception):
            known[what] = found[0]
        return found
    return _looked_up(of, move)


def _by_identity(of: Any) -> bool:
    hashed: Any = type(of).__hash__
    return bool(hashed == object.__hash__)


def _looked_up(of: Any, move: Move) -> tuple[bytes, Any]:
    kind, what = move
    try:
        if kind == "[]":
            digest_of = getattr(of, "digest_of", None)
            known = digest_of(what) if digest_of else None
            return (known, of[what]) if known else _with_digest(of[what])
        if kind == ".":
            return _with_digest(getattr(of, what))
        if kind == "in":
            return _with_digest(what in of)
        if kind == "bool":
            return _with_digest(bool(of))
        if kind == "keys":
            return _with_digest(tuple(of))
        query, arguments = what
        return _with_digest(query(of, *arguments))
    except Exception as error:
        return digest((type(error).__qualname__, str(error))), error


def _with_digest(value: Any) -> tuple[bytes, Any]:
    return _shape(value) if _by_part(value) else digest(value), value


def _by_part(value: Any) -> bool:
    if isinstance(value, list | tuple):
        return any(isinstance(v, ReadByPart) for v in value)
    return isinstance(value, ReadByPart)


def _shape(value: Any) -> bytes:
    """What is known of something that is read by part before anything of it is read."""
    if isinstance(value, list | tuple):
        return digest(tuple(_shape(v) if _by_part(v) else digest(v) for v in value))
    return type(value).__qualname__.encode()


def _within(value: Any, path: Path, trace: Trace) -> Any:
    if isinstance(value, list | tuple) and _by_part(value):
        return type(value)(
            _within(v, (*path, ("[]", number)), trace) for number, v in enumerate(value)
        )
    return _Traced(value, path, trace) if isinstance(value, ReadByPart) else value


def digest(value: Any) -> bytes:
    """16 bytes that tell the value from others, by its content alone. TypeError where a value has no
    content that could be compared (a closure, say): such a thing must not be read whole."""
    found = hashlib.blake2b(digest_size=16)
    _feed(value, found.update)
    return found.digest()


def _feed(value: Any, update: Callable[[bytes], Any]) -> None:
    if value is None or isinstance(value, bool | int | float | complex):
        update(f"{type(value).__name__}{value!r};".encode())
    elif isinstance(value, Enum):
        update(f"{type(value).__qualname__}.{value.name};".encode())
    elif isinstance(value, str):
        update(f"str{len(value)}:{value}".encode("utf-8", "surrogatepass"))
    elif isinstance(value, bytes):
        update(b"bytes%d:" % len(value) + value)
    elif isinstance(value, np.ndarray):
        update(f"{value.dtype}{value.shape}".encode() + np.ascontiguousarray(value).tobytes())
    elif isinstance(value, np.generic):
        update(f"{value.dtype}{value.item()!r};".encode())
    elif hasattr(value, "content_digest"):
        update(value.content_digest)
    elif isinstance(value, BaseModel):
        update(f"{type(value).__qualname__}{value.model_dump_json()}".encode())
    elif is_dataclass(value) and not isinstance(value, type):
        update(f"{type(value).__qualname__}(".encode())
        for field in fields(value):
            _feed(getattr(value, field.name), update)
        update(b")")
    elif isinstance(value, Mapping):
        update(b"map%d:" % len(value))
        for key, item in value.items():
            _feed((key, item), update)
    elif isinstance(value, Set):
        update(b"set")
        _feed(tuple(sorted(map(digest, value))), update)
    elif isinstance(value, Sequence):
        update(f"{type(value).__name__}{len(value)}:".encode())
        for item in value:
            _feed(item, update)
    elif isinstance(value, FunctionType) and "<" not in value.__qualname__:
        update(f"{value.__module__}.{value.__qualname__};".encode())
    else:
        raise TypeError(f"{type(value).__qualname__} has no content to compare")


def path_text(path: Path) -> str:
    """The path as text that is the same in every process."""
    return "".join(
        f"({what[0].__module__}.{what[0].__qualname__}{[digest(a).hex() for a in what[1]]})"
        if kind == "()"
        else f"{kind}{what!r}"
        for kind, what in path
    )
