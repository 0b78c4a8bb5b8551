"""Registries of kinds: steps, figures, checks, formats. A duplicate is fatal."""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Callable, Iterator
from typing import Generic, TypeVar

from stileblade.errors import UnknownKind

T = TypeVar("T")


class Registry(Generic[T]):
    """Named things of one sort, in the order of their registration."""

    def __init__(self, what: str) -> None:
        self.what = what
        self._known: dict[str, T] = {}

    def add(self, name: str, thing: T) -> T:
        if name in self._known:
            raise RuntimeError(f"{self.what} {name!r} is registered twice")
        self._known[name] = thing
        return thing

    def register(self, name: str) -> Callable[[T], T]:
        """A decorator that adds what it decorates."""
        return lambda thing: self.add(name, thing)

    def __getitem__(self, name: str) -> T:
        try:
            return self._known[name]
        except KeyError:
            raise UnknownKind(self.what, name, self._known) from None

    def __iter__(self) -> Iterator[T]:
        return iter(self._known.values())

    def __len__(self) -> int:
        return len(self._known)

    def names(self) -> list[str]:
        return list(self._known)


def import_all(package: str) -> None:
    """Import every module of a package, so that all it holds is registered."""
    found = importlib.import_module(package)
    for module in pkgutil.iter_modules(found.__path__):
        importlib.import_module(f"{package}.{module.name}")
