"""Every registered format is held to what the guide to extending says."""

from __future__ import annotations

import re

import pytest

from stileblade.design.evaluation import evaluate
from stileblade.formats.format import formats
from stileblade.formats.plan import Plan, plan_of
from stileblade.views.catalogue import catalogue
from tests.conftest import design_of

STEPS = (
    {"kind": "blank"},
    {"kind": "window", "outline": {"kind": "heart"}},
    {"kind": "crease", "made": "perforate"},
    {"kind": "border-line", "along": "outline", "margin": 4, "how": "draw"},
)


def plan(name: str = "Whale & wave") -> Plan:
    evaluation = evaluate(design_of(*STEPS).model_copy(update={"name": name}))
    return plan_of(evaluation, evaluation.pieces[0])


@pytest.mark.parametrize("key", formats().names())
def test_it_says_what_it_is_and_writes(key: str) -> None:
    form = formats()[key]
    assert form.extension == key
    assert re.fullmatch(r"[a-z0-9]{2,5}", key)
    assert re.fullmatch(r"[a-z]+/[a-z0-9.+-]+", form.media_type)
    assert form.title
    assert form.about
    assert form.write.__doc__
    assert len(form.write(plan())) > 500


@pytest.mark.parametrize("key", formats().names())
def test_names_of_any_script_are_written(key: str) -> None:
    assert formats()[key].write(plan('M\u00f6we <&> \u6d77 "quoted"'))


def test_the_browser_gets_its_menu_from_the_registry() -> None:
    assert [f.extension for f in catalogue().formats] == formats().names()
