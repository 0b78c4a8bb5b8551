"""What is said to people, in the language that is spoken just then.

In the code stands what is said in English; that is its key in the file of another language (``de.json``,
part "core"; part "screens" is the browser's). A text has its values in braces, written as ``str.format``
has it, and two forms with " | " between where one and more differ: ``say("{n} sheet | {n} sheets", n=3)``.

A value that is a text is said, too, where there is a saying for it: a panel's name, a word from a table.
What people typed themselves is the same in all languages: nothing is known of it, or it is an ``Own``.
"""

from __future__ import annotations

import json
import re
from collections.abc import Iterable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from string import Formatter
from typing import Any

LANGUAGES = ("en", "de")
_NUMBERED = re.compile(r"([a-z ]{1,40}) (\d{1,4}(?:\.\d{1,2})?)")


@dataclass(frozen=True, eq=False)
class Language:
    """Its sayings by the English texts; ``called``: what kinds of "steps" and "figures" are called, too, for the
    search; ``decimal``: what stands between a figure's whole and its parts."""

    name: str
    sayings: Mapping[str, str]
    called: Mapping[str, Mapping[str, list[str]]]
    decimal: str = "."


ENGLISH = Language("en", {}, {})
_spoken: ContextVar[Language] = ContextVar("spoken", default=ENGLISH)


@cache
def language(name: str) -> Language:
    """The language of that name; English where it is not known."""
    if name not in LANGUAGES or name == ENGLISH.name:
        return ENGLISH
    content = json.loads((Path(__file__).with_name(f"{name}.json")).read_text("utf-8"))
    more = {group: content[group] for group in ("steps", "figures")}
    return Language(name, {**content["core"], **content["names"]}, more, content["decimal"])


def spoken() -> str:
    """The name of the language that is spoken now."""
    return _spoken.get().name


@contextmanager
def speaking(name: str) -> Iterator[None]:
    """All that is said meanwhile is said in the language of that name."""
    token = _spoken.set(language(name))
    try:
        yield
    finally:
        _spoken.reset(token)


def say(text: str, **values: Any) -> str:
    """The text in the language that is spoken, with its values; as it is where there is no saying for it.
    ``n`` chooses between the forms for one and for more."""
    tongue = _spoken.get()
    said = tongue.sayings.get(text, text)
    if not values:
        return said
    if " | " in said:
        one, more = said.split(" | ", 1)
        said = one if values.get("n") == 1 else more
    return _In(tongue).vformat(said, (), values)


def named(name: str) -> str:
    """A panel, a fold, a side by its name, as it is called in the language that is spoken: "fold 2"."""
    tongue = _spoken.get()
    if not tongue.sayings:
        return name
    numbered = _NUMBERED.fullmatch(name)
    if numbered and (said := tongue.sayings.get(f"{numbered[1]} {{n}}")):
        return said.replace("{n}", numbered[2])
    return tongue.sayings.get(name, name)


def within(title: str) -> str:
    """A title within a sentence: English writes it small there."""
    return title.lower() if _spoken.get() is ENGLISH else say(title)


def called(group: str, kind: str) -> tuple[str, ...]:
    """What a kind of "steps" or "figures" is called, too, in a language that is not English."""
    return tuple(_spoken.get().called.get(group, {}).get(kind, ()))


def decimal(figure: str) -> str:
    """A written figure, with a comma where the language that is spoken has one."""
    mark = _spoken.get().decimal
    return figure if mark == "." else figure.replace(".", mark)


def listed(figures: list[str]) -> str:
    """Figures one after the other, told apart where they have commas themselves."""
    return ("; " if _spoken.get().decimal == "," else ", ").join(figures)


def together(names: Iterable[str]) -> str:
    """Names as one: "front and back"."""
    return f" {say('and')} ".join(names)


class Own(str):
    """What somebody called a thing: as a value it is the same in all languages."""


class _In(Formatter):
    """Texts among the values are said, figures written as the language has them."""

    def __init__(self, tongue: Language) -> None:
        self.tongue = tongue

    def get_field(self, field_name: str, args: Any, kwargs: Any) -> Any:
        value, first = super().get_field(field_name, args, kwargs)
        return (named(value) if type(value) is str else value), first

    def convert_field(self, value: Any, conversion: Any) -> Any:
        if conversion == "r" and isinstance(value, str) and self.tongue is not ENGLISH:
            return f"„{value}“"
        return super().convert_field(value, conversion)

    def format_field(self, value: Any, format_spec: str) -> Any:
        written = super().format_field(value, format_spec)
        if self.tongue.decimal == "." or not isinstance(value, int | float):
            return written
        return written.translate(_SWAPPED)


_SWAPPED = str.maketrans({".": ",", ",": "."})
