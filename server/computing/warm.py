"""Imported once, before workers are parted from it: whatever the first job would wait for."""

from __future__ import annotations

from server.computing.drawings import words_in_faces
from stileblade.design.document import load_design
from stileblade.design.evaluation import evaluate
from stileblade.formats.format import formats
from stileblade.units import Unit
from stileblade.views.bench import view
from stileblade.views.catalogue import catalogue
from stileblade.views.searching import hits
from stileblade.words import LANGUAGES, speaking

formats()
catalogue()
words_in_faces("Ahoy")
for language in LANGUAGES:
    with speaking(language):
        hits("round window 20", Unit.MM)
_EVALUATION = evaluate(load_design({"pieces": [{"steps": [{"kind": "blank"}]}]}))
view(_EVALUATION, _EVALUATION.pieces[0], None, set())
