"""What a person sees of a value: its title, what it is, its unit."""

from __future__ import annotations

from stileblade.fields import Values


def assert_described(cls: type[Values]) -> None:
    assert cls.__doc__
    schema = cls.model_json_schema()
    properties = schema["properties"]
    for name, field in properties.items():
        if name == "kind":
            continue
        # a title that is also its type's name stands with the type alone
        kind = schema.get("$defs", {}).get(field.get("$ref", "").rpartition("/")[2], {})
        assert field.get("title") or kind.get("title"), f"{cls.__name__}.{name} has no title"
        assert field.get("description"), f"{cls.__name__}.{name} has no description"
        if field.get("type") in ("number", "integer"):
            assert field.get("unit"), f"{cls.__name__}.{name} has no unit"
        if "when" in field:
            assert set(field["when"]) <= set(properties)
