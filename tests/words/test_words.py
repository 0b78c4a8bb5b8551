"""All that is said has its German, with the same values in it, and nothing is said that is no longer used."""

from __future__ import annotations

import ast
import json
import re
from collections.abc import Iterator
from pathlib import Path
from string import Formatter
from typing import Any

import pytest

from stileblade.design.document import Design, load_design
from stileblade.design.evaluation import evaluate
from stileblade.errors import StepError
from stileblade.steps.searching import search
from stileblade.units import Unit, format_area, format_length, parse_length
from stileblade.views.bench import Wanted, as_json, view
from stileblade.views.catalogue import catalogue
from stileblade.words import language, named, say, speaking
from tests.words.gathered import ENGLISH, ROOT, gathered

GERMAN = json.loads((ROOT / "stileblade" / "words" / "de.json").read_text("utf-8"))
DEMOS = sorted((ROOT / "demo" / "designs").glob("*.json"))
assert Design


def test_the_list_of_all_english_texts_is_current() -> None:
    kept, now = json.loads(ENGLISH.read_text("utf-8")), gathered()
    for part in now:
        assert set(kept[part]) == set(now[part]), "make words writes it anew"


def test_every_text_has_its_german() -> None:
    english = gathered()
    assert set(english["screens"]) == set(GERMAN["screens"])
    assert not set(english["core"]) - set(GERMAN["core"]) - set(GERMAN["names"])


def test_nothing_is_left_over() -> None:
    used = set(gathered()["core"])
    for path in [*(ROOT / "stileblade").rglob("*.py"), *(ROOT / "server").rglob("*.py")]:
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            if isinstance(node, ast.Constant) and isinstance(node.value, str):
                used.add(node.value)
    assert not [text for text in GERMAN["core"] if text not in used]


@pytest.mark.parametrize("part", ["screens", "core", "names"])
def test_texts_hold_the_same_values_and_forms(part: str) -> None:
    for english, german in GERMAN[part].items():
        assert german.strip(), english
        assert _values(english) == _values(german), english
        assert english.count("{}") == german.count("{}"), english
        assert english.count(" | ") == german.count(" | "), english
        assert english[:1].isspace() == german[:1].isspace(), english
        assert english[-1:].isspace() == german[-1:].isspace(), english


def _values(text: str) -> set[tuple[str | None, str | None, str | None]]:
    return {(name, spec, how) for _, name, spec, how in Formatter().parse(text) if name}


def test_figures_are_written_with_a_comma_and_read_with_either() -> None:
    with speaking("de"):
        assert format_length(12.5) == "12,5 mm"
        assert format_length(12.7 * 5, Unit.IN) == "2,5 in"
        assert format_area(1234.56) == "1234,6 mm²"
        assert say("{small:.2f} x {large:.1f} mm", small=0.5, large=1200.25) == "0,50 x 1200,2 mm"
        assert say("The drawing has more than {elements:,} elements.", elements=12000) == (
            "Die Zeichnung hat mehr als 12.000 Elemente."
        )
    assert format_length(12.5) == "12.5 mm"
    assert parse_length("12,5") == parse_length("12.5")


def test_one_and_more_and_values_that_are_said_too() -> None:
    with speaking("de"):
        assert say("{n} sheet | {n} sheets", n=1) == "1 Bogen"
        assert say("{n} sheet | {n} sheets", n=3) == "3 Bögen"
        assert named("fold 2") == "Falz 2"
        assert named("left door") == "linker Flügel"
        assert (
            say("There is no panel {name!r}.", name="left door")
            == "Es gibt kein Feld „linker Flügel“."
        )
        assert (
            say("{name}, part {number}", name="my own {name}", number=2) == "my own {name}, Teil 2"
        )
    assert named("fold 2") == "fold 2"
    assert language("xx") is language("en")


def test_an_error_of_a_step_is_said_with_its_lengths() -> None:
    with speaking("de"):
        error = StepError("Make it smaller.", hint="{} would do.")
        assert str(error) == "Kleiner machen. {} würden reichen."
        error = StepError("A margin of {} leaves nothing of a panel.", 12.5)
        assert error.message == "Ein Rand von 12,5 mm lässt nichts von einem Feld."
        assert (
            error.said(lambda mm: f"{mm / 25.4:.2f}")[0]
            == "Ein Rand von 0.49 lässt nichts von einem Feld."
        )


def test_what_can_be_built_is_said_in_german_and_kept_in_english() -> None:
    english = {s.kind: s for s in catalogue().steps}
    with speaking("de"):
        german = {s.kind: s for s in catalogue().steps}
    assert german["window"].title == "Fenster"
    assert german["window"].form["properties"]["margin"]["title"] == "Rand"
    assert german["window"].form["properties"]["sized"]["labels"]["fit"] == "Ränder, im Verhältnis"
    assert english["window"].title == "Window"
    assert {s.kind: s.title for s in catalogue().steps} == {k: s.title for k, s in english.items()}
    assert all(german[k].before == english[k].before for k in english)


KEPT = re.compile(
    # keys, names, colours and codes of documents, which are the same in all languages
    r".*\.(id|kind|piece|panel|panels|side|made|how|direction|edge|field|figure|envelope_name|front|ref|code|unit)"
    r"|.*\.(severity|fill|outside|inside|shape|what|picked_by|both|across|down)"
    r"|.*(panels|folds|sheets|around|envelopes)\.name|flat\.(targets|offers\..*)|rest\.space\.folds"
    r"|rest\.findings\.mends\.changes\..*"
)


_IN_ENGLISH = re.compile(
    r"\b(the|and|or|of|with|without|from|by|to|its?|is|are|not|turned|upright|level|across|each|all)\b"
)
"""Words that German has not, by which a sentence that is half one and half the other is known."""


@pytest.mark.parametrize("path", DEMOS, ids=lambda p: p.stem)
def test_nothing_of_a_card_is_left_in_english(path: Path) -> None:
    """Every text of every step's view is another one in German, but for what is the same in both."""
    document = json.loads(path.read_text("utf-8"))
    own = [document["name"], *(p["name"] for p in document["pieces"]), "Ship's locker"]
    own += [a["reason"] for a in document["accepted"]]
    same = {e for part in ("core", "names") for e, g in GERMAN[part].items() if e == g}

    def said(name: str) -> list[tuple[str, str]]:
        with speaking(name):
            evaluation = evaluate(load_design(document))
            steps = [(p, p.outcomes[-1]) for p in evaluation.pieces if p.outcomes]
            steps += [(evaluation.pieces[0], o) for o in evaluation.pieces[0].outcomes[:-1]]
            views = [view(evaluation, p, o.step.id, set(), Wanted.ALL) for p, o in steps]
            return [found for v in views for found in _texts(json.loads(as_json(v)))]

    english, german = said("en"), said("de")
    assert [place for place, _ in english] == [place for place, _ in german]
    for (place, text), (_, other) in zip(english, german, strict=True):
        if KEPT.fullmatch(place) or text in same or any(name in text for name in own):
            continue
        assert text != other or not re.search("[a-z]{3}", text), (place, text)
        assert not _IN_ENGLISH.search(other), (place, other)


def _texts(value: Any, place: str = "") -> Iterator[tuple[str, str]]:
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from _texts(inner, f"{place}.{key}".lstrip("."))
    elif isinstance(value, list):
        for inner in value:
            yield from _texts(inner, place)
    elif isinstance(value, str) and value:
        yield place, value


SAID = """
größer machen: fit | vergrößern: fit|grow | auf 90 mm bringen: fit | skalieren: fit | breiter machen: fit
5 mm größer: grow | Rand um die Figur 3 mm: grow | Umrandung: grow | runde Öffnung: window | Rundfenster: window
rundes Fenster 60: window | Kreis: window | Loch: window|hang-hole | Bullauge: window | ovales Fenster: window
Herz: window | Stern: window|figure | Ausschnitt: window | abschneiden: slice | unten gerade abschneiden: slice
flacher Fuß: slice | kürzen: slice | beschneiden: slice | sticken: border-line | gestickte Linie: border-line
Naht: border-line | Rahmen: border-line|window | Fadenlöcher: border-line | gestrichelte Linie: border-line
Tasche: slot-ladder|window|lock | Verschluss: lock | Steckverschluss: lock | Pop-up: forward-step
Bühne: forward-step | stehende Figur: standing-figure | Loch für Band: hang-hole | aufhängen: hang-hole
Öse: hang-hole | Ecken abrunden: soften | runde Ecken 5 mm: soften | wellig: shaped-edge | Wellenrand: shaped-edge
gerissene Kante: shaped-edge | Zickzack: shaped-edge | Handschrift: lettering | Text schreiben: lettering
Name: lettering | spiegeln: mirror | verdoppeln: mirror | Überlappung 8: mirror | Falzlinie: fold-line
hier falten: fold-line | knicken: fold-line | rillen: fold-line | perforierte Linie: fold-line | abreißen: fold-line
Rücken: crease | verschmelzen: weld | Schwanz anhängen: weld | Kerbe: cut-away | Löcher schließen: fill
umdrehen: flip | drehen 30: turn | neigen: turn | Schablone: stencil | Wort ausschneiden: stencil | Gitter: grille
Sprossenfenster: grille | Schlitze: slot-ladder | überstehen: overhang | teilen: split | Hälften verbinden: tab
Schnabel: v-fold | Figur zeichnen: drawn-figure | mit Stift zeichnen: drawn-figure | Durchblick: seen-through
Fenstr: window | spiegel: mirror | Ecke: soften | Passepartout: mat | Einlegeblatt: insert | Banderole: band
"""


def test_what_people_say_in_german_finds_the_step() -> None:
    said = [row.rpartition(": ") for row in SAID.strip().replace("\n", " | ").split(" | ")]
    with speaking("de"):
        missed = [text for text, _, kinds in said if search(text)[0].kind not in kinds.split("|")]
        assert len(said) > 75
        assert len(missed) <= 3, missed
        window = search("rundes Fenster 60")[0]
        assert window.values["outline"] == {"kind": "circle", "diameter": 60.0}
        assert window.told == ("Kreis 60 mm",)
        corners = search("runde Ecken 2,5 mm")[0]
        assert (corners.values["radius"], corners.told) == (2.5, ("Radius 2,5 mm",))
        assert search("Fenster 2 Zoll")[0].values["outline"]["diameter"] == pytest.approx(50.8)
        assert search("round window")[0].kind == "window", "English is understood as well"
