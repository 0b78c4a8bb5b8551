"""Imported once, before workers are parted from it: whatever the first job would wait for."""

from __future__ import annotations

from stileblade.design.document import load_design
from stileblade.design.evaluation import evaluate
from stileblade.formats.format import formats
from stileblade.views.bench import view
from stileblade.views.catalogue import catalogue

formats()
catalogue()
_EVALUATION = evaluate(load_design({"pieces": [{"steps": [{"kind": "blank"}]}]}))
view(_EVALUATION, _EVALUATION.pieces[0], None, set())
