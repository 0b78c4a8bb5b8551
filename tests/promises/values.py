"""Random values of everything that is registered, made from its own schema: what a new file brings
is held to the promises by itself."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

from stileblade.outlines.figure import FIGURES, GivenBy
from stileblade.steps.step import STEPS, StartsWith
from stileblade.steps.union import AnyStep

Schema = dict[str, Any]
assert AnyStep  # with it all kinds are registered
Values = dict[str, Any]

NAMES = ["front", "back", "card", "figure", "left door", "flap", "panel 2", "step:s2", ""]
MOST_VARIED = 4
_MODEST: dict[str, tuple[float, float]] = {"mm": (0.3, 90), "deg": (-180, 180), "mm2": (0.5, 400)}


def values_of(form: Schema) -> st.SearchStrategy[Values]:
    """Values of a form: most at their defaults, a few drawn, of those some at their bounds."""
    drawn = {
        name: _value(name, schema, form)
        for name, schema in form["properties"].items()
        if name not in ("id", "on", "kind") and schema.get("control") != "hidden"
    }
    kind = form["properties"]["kind"]["const"]
    names = sorted(drawn)

    def some(chosen: set[str]) -> st.SearchStrategy[Values]:
        return st.fixed_dictionaries({name: drawn[name] for name in sorted(chosen)})

    varied = (
        st.sets(st.sampled_from(names), max_size=MOST_VARIED).flatmap(some)
        if names
        else st.just({})
    )
    return varied.map(lambda values: {"kind": kind, **values})


def _resolved(schema: Schema, root: Schema) -> Schema:
    reference = schema.get("$ref") or (schema.get("allOf") or [{}])[0].get("$ref")
    return root["$defs"][reference.rsplit("/", 1)[1]] if reference else schema


def _value(name: str, schema: Schema, root: Schema) -> st.SearchStrategy[Any]:
    target = _resolved(schema, root)
    by_control = {
        "outline": lambda: st.deferred(lambda: figures),
        "target": lambda: st.sampled_from(NAMES),
        "fold": lambda: st.sampled_from(["", "fold", "fold 2", "gone"]),
        "window": lambda: st.sampled_from(["", "s2", "gone"]),
        "piece": lambda: st.sampled_from(["base", "gone"]),
        "picks": lambda: st.lists(st.tuples(_share(), _share()).map(list), max_size=3),
        "layers": lambda: st.sampled_from([[], [0], [7]]),
        "artwork": lambda: st.just(""),
    }
    if schema.get("control") in by_control:
        return by_control[schema["control"]]()
    if "enum" in target:
        return st.sampled_from(target["enum"])
    if target.get("type") == "boolean":
        return st.booleans()
    if target.get("type") in ("number", "integer"):
        return _number(target, schema.get("unit", ""))
    if target.get("type") == "string":
        return st.sampled_from(["Ahoy", "i", "Low water 06:12", "  ", "\u96e8"])
    return st.just(schema.get("default"))


def _share() -> st.SearchStrategy[float]:
    return st.sampled_from([-10.0, 0.0, 0.25, 0.5, 1.0, 11.0])


def _number(target: Schema, unit: str) -> st.SearchStrategy[float]:
    above = target.get("exclusiveMinimum")
    low = target.get("minimum", above if above is not None else -1000.0)
    high = target.get("maximum", target.get("exclusiveMaximum", 1000.0))
    if target["type"] == "integer":
        most = min(int(high), int(low) + 9)
        return st.one_of(st.integers(int(low), most), st.sampled_from([int(low), int(high)]))
    least = low + 1e-3 if above is not None else low
    near, far = _MODEST.get(unit, (low, high))
    near, far = max(near, least), min(far, high)
    bounds = st.sampled_from(sorted({least, high, -least if least < 0 else least}))
    modest = st.floats(min(near, far), max(near, far))
    return st.one_of(
        modest, modest.map(lambda v: round(v, 1)).filter(lambda v: least <= v <= high), bounds
    )


figures = st.one_of(
    [values_of(cls.model_json_schema()) for cls in FIGURES if cls.given_by is not GivenBy.ARTWORK]
)
_STARTS = [cls for cls in STEPS if cls.starts_with in (StartsWith.CARD, StartsWith.FIGURE)]
starts = st.one_of([values_of(cls.model_json_schema()) for cls in _STARTS])
BY_KIND = {
    cls.model_fields["kind"].default: values_of(cls.model_json_schema())
    for cls in STEPS
    if cls.starts_with is None and not cls.for_layers
}
# what a step's own sample builds before it: where it needs a panel, a window, a slit
BEFORE: dict[str, list[Values]] = {
    kind: [step.model_dump(mode="json", exclude={"id"}) for step in cls.sample()[:-1]]
    for cls in STEPS
    for kind in [cls.model_fields["kind"].default]
}
steps = st.one_of([BY_KIND[kind] for kind in sorted(BY_KIND)])
