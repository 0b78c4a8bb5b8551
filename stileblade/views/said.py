"""Texts of views: said in the language that is spoken when the view is made."""

from __future__ import annotations

from typing import Annotated, Any, TypeAlias

from pydantic import AfterValidator

from stileblade.words import named, say

Said: TypeAlias = Annotated[str, AfterValidator(named)]
"""A text of the core's own, or the name of a panel, fold or side."""


def _form(schema: Any) -> Any:
    if isinstance(schema, list):
        return [_form(each) for each in schema]
    if not isinstance(schema, dict):
        return schema
    said = {key: _form(value) for key, value in schema.items()}
    for key in ("title", "description", "empty"):
        if isinstance(said.get(key), str):
            said[key] = say(" ".join(said[key].split()))
    if isinstance(said.get("labels"), dict):
        said["labels"] = {value: say(str(label)) for value, label in said["labels"].items()}
    return said


SaidForm: TypeAlias = Annotated[dict[str, Any], AfterValidator(_form)]
"""A JSON Schema of which a form is made: its titles, descriptions and labels are said."""
