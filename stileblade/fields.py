"""Values that a person sets: pydantic fields that carry title, unit, bounds, description.

The JSON Schema made from them travels to the browser, which makes its forms of it:
``unit`` is "mm", "deg", "mm2" or "count"; ``control`` names a control that is more than
its type says ("outline", "target", "anchor"); ``when`` says for which values of other fields
this one counts, so that only those are shown; "*" is any but the empty one.
"""

from __future__ import annotations

import unicodedata
from collections.abc import Mapping, Sequence
from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, model_validator

from stileblade.errors import MeasureError
from stileblade.units import parse_length

LARGEST = 1000.0
"""No length on a card is larger, in mm."""


_BLANKS = frozenset("\t\n\v\f\r\x85\u2028\u2029")
_NO_LETTERS = frozenset("\u202a\u202b\u202c\u202d\u202e\u2066\u2067\u2068\u2069\ufffe\uffff")
"""What turns the direction of the text around it, and what no file may hold."""


def plain(text: str) -> str:
    """The one rule for names and all other text: on one line, of letters alone. A line break or tab
    becomes a blank; what controls a terminal, turns text round or is half a letter is shown as "\ufffd"."""
    return text if text.isprintable() else "".join(map(_letter, text))


def _letter(letter: str) -> str:
    if letter in _BLANKS:
        return " "
    control = letter in _NO_LETTERS or unicodedata.category(letter) in ("Cc", "Cs")
    return "\ufffd" if control else letter


def _plain_in(value: Any) -> Any:
    """Text, texts in a list, and keys: what lies deeper is another object's own."""
    if type(value) is str:
        return plain(value)
    if type(value) is list and value and type(value[0]) is str:
        return [plain(v) if type(v) is str else v for v in value]
    if type(value) is dict and not all(type(k) is str and k.isprintable() for k in value):
        return {plain(k) if type(k) is str else k: v for k, v in value.items()}
    return value


PlainText = Annotated[str, AfterValidator(plain)]
"""Text that comes in by another door than a document."""


class Values(BaseModel):
    """Frozen, closed to unknown names, free of NaN and infinity, and all text ``plain``."""

    model_config = ConfigDict(
        frozen=True,
        extra="forbid",
        allow_inf_nan=False,
        defer_build=True,
        json_schema_serialization_defaults_required=True,
    )

    @model_validator(mode="before")
    @classmethod
    def _text_as_written(cls, data: Any) -> Any:
        """Text is made plain, and lengths may be written as people write them, "10 1/4in / 2"; mm are kept."""
        if not isinstance(data, dict):
            return data
        data = {name: _plain_in(value) for name, value in data.items()}
        texts = {name: text for name, text in data.items() if type(text) is str}
        for name, text in texts.items():
            field = cls.model_fields.get(name)
            extra = field.json_schema_extra if field else None
            if isinstance(extra, dict) and extra.get("unit") == "mm":
                try:
                    data = {**data, name: parse_length(text)}
                except MeasureError as error:
                    raise ValueError(f"{name}={text[:40]!r}: {error.message}") from error
        return data


When = Mapping[str, Sequence[str]]


def counting(when: When | None) -> dict[str, Any]:
    """What a field's schema says of when it counts."""
    if not when:
        return {}
    return {"when": {name: [str(v) for v in values] for name, values in when.items()}}


def _extra(unit: str, when: When | None) -> dict[str, Any]:
    return {"unit": unit, **counting(when)}


def scaled_lengths(values: Values, factor: float) -> dict[str, float]:
    """All lengths of the values, by their fields, that many times as large."""
    found = {}
    for name, info in type(values).model_fields.items():
        extra = info.json_schema_extra
        if isinstance(extra, dict) and extra.get("unit") == "mm":
            found[name] = getattr(values, name) * factor
    return found


def length(
    default: float,
    title: str,
    description: str,
    *,
    least: float | None = None,
    most: float = LARGEST,
    above: float | None = None,
    when: When | None = None,
) -> Any:
    """A length in mm."""
    return Field(
        default,
        title=title,
        description=description,
        ge=least,
        gt=above,
        le=most,
        json_schema_extra=_extra("mm", when),
    )


def offset(default: float, title: str, description: str, *, when: When | None = None) -> Any:
    """A length in mm that may be negative."""
    return length(default, title, description, least=-LARGEST, when=when)


def angle(default: float, title: str, description: str, *, when: When | None = None) -> Any:
    """An angle in degrees, clockwise."""
    return Field(
        default,
        title=title,
        description=description,
        ge=-360,
        le=360,
        json_schema_extra=_extra("deg", when),
    )


def number_of(
    default: int,
    title: str,
    description: str,
    *,
    least: int,
    most: int,
    when: When | None = None,
) -> Any:
    """How many there are of something."""
    return Field(
        default,
        title=title,
        description=description,
        ge=least,
        le=most,
        json_schema_extra=_extra("count", when),
    )


def area(default: float, title: str, description: str, *, when: When | None = None) -> Any:
    """An area in mm^2."""
    return Field(
        default,
        title=title,
        description=description,
        ge=0,
        le=LARGEST**2,
        json_schema_extra=_extra("mm2", when),
    )


def share(
    default: float,
    title: str,
    description: str,
    *,
    least: float,
    most: float,
    when: When | None = None,
) -> Any:
    """A plain number that is part of a whole."""
    return Field(
        default,
        title=title,
        description=description,
        ge=least,
        le=most,
        json_schema_extra=_extra("share", when),
    )


def choice(
    default: Any,
    title: str,
    description: str,
    labels: Mapping[str, str] | None = None,
    *,
    when: When | None = None,
    **words: str,
) -> Any:
    """One of an enum's members; ``labels`` or keywords give the words for them."""
    extra: dict[str, Any] = {"labels": {**(labels or {}), **words}, **counting(when)}
    return Field(default, title=title, description=description, json_schema_extra=extra)


def switch(default: bool, title: str, description: str, *, when: When | None = None) -> Any:
    """On or off."""
    return Field(default, title=title, description=description, json_schema_extra=counting(when))


def special(
    default: Any,
    title: str,
    description: str,
    *,
    control: str,
    when: When | None = None,
    empty: str = "",
) -> Any:
    """A value with a control of its own; ``empty`` is what the control says where it is ""."""
    extra: dict[str, Any] = {"control": control, **counting(when)}
    if empty:
        extra["empty"] = empty
    return Field(default, title=title, description=description, json_schema_extra=extra)
