"""Finding the step that is meant by what people say: by words in any form and nearly any spelling, with the
figures in them put as values.

Each step's own file says what it is called; the index is made of that alone.
"""

from __future__ import annotations

import math
import re
import threading
import unicodedata
from collections import Counter
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

import snowballstemmer
from pydantic import ValidationError
from rapidfuzz.distance import OSA

from stileblade.errors import MeasureError, StepError
from stileblade.outlines.figure import FIGURES, Figure, outline_of
from stileblade.outlines.figures.straight import Rectangle
from stileblade.steps.step import STEPS, Step
from stileblade.units import Unit, format_length, parse_length
from stileblade.words import LANGUAGES, called, decimal, say, spoken, within

LONGEST = 120
"""Characters: what is longer is cut off."""
_WORD = re.compile(r"[^\W\d_]++")
_FIGURE = re.compile(
    r"(?<![\w.,])(?P<number>\d{1,6}+(?: \d{1,4}/\d{1,4}|/\d{1,4}|[.,]\d{1,4}+)?+) ?"
    r"(?P<unit>mm|cm|inches|inch|in(?! (?:the|a|an|its|each|front|back|middle|centre)\b)|\"|degrees|degree|deg|°|grad|zoll)?+"
)
_STOP = {
    "en": frozenset(
        [
            "a",
            "an",
            "and",
            "at",
            "be",
            "by",
            "can",
            "do",
            "for",
            "from",
            "get",
            "give",
            "have",
            "i",
            "in",
            "into",
            "is",
            "it",
            "its",
            "like",
            "make",
            "mm",
            "cm",
            "me",
            "my",
            "need",
            "of",
            "off",
            "on",
            "one",
            "onto",
            "or",
            "out",
            "please",
            "put",
            "shaped",
            "so",
            "some",
            "that",
            "the",
            "them",
            "then",
            "there",
            "this",
            "to",
            "up",
            "want",
            "we",
            "with",
        ]
    ),
    "de": frozenset(
        [
            "als",
            "am",
            "an",
            "auf",
            "aus",
            "bei",
            "bitte",
            "cm",
            "das",
            "dem",
            "den",
            "der",
            "des",
            "die",
            "ein",
            "eine",
            "einem",
            "einen",
            "einer",
            "er",
            "es",
            "etwas",
            "für",
            "geben",
            "haben",
            "hat",
            "ich",
            "ihm",
            "ihn",
            "im",
            "in",
            "ist",
            "kann",
            "man",
            "mach",
            "machen",
            "mein",
            "meine",
            "mich",
            "mir",
            "mit",
            "mm",
            "muss",
            "möchte",
            "nach",
            "noch",
            "oder",
            "sein",
            "sich",
            "sie",
            "sind",
            "so",
            "soll",
            "und",
            "uns",
            "unten",
            "vom",
            "von",
            "was",
            "wie",
            "will",
            "wir",
            "zu",
            "zum",
            "zur",
        ]
    ),
}
_DEGREES = frozenset(("degrees", "degree", "deg", "°", "grad"))
_INCHES = frozenset(("zoll",))
_STEMMERS = {"en": snowballstemmer.stemmer("english"), "de": snowballstemmer.stemmer("german")}
_STEMMING = threading.Lock()
"""A stemmer holds the word that it works on."""

TITLE, SAID, WORDS, FIGURE_NAME, CHOICE, ABOUT = 5.0, 3.0, 2.5, 2.5, 1.0, 0.6
"""How much a word counts by where it stands."""
ALIKE = 9.0
"""What a saying counts that is just what was said."""
LIKELY = 0.2
"""Share of the likeliest one's score that others have at least."""
WITH_FIGURE = 0.2
"""More of that where there is a figure in both."""
PREFIX, SPELLING, COMPOUND = 0.7, 0.55, 0.6
"""Shares of that for the beginning of a word, for one that is spelt nearly so, and for one that is a part of a
word put together ("Rundfenster"), as the languages in ``_COMPOUNDS`` do."""
_COMPOUNDS = frozenset(("de",))


@dataclass(frozen=True)
class Hit:
    """A step that may be meant: its values as they were said, and those in words."""

    kind: str
    values: Mapping[str, Any]
    told: tuple[str, ...]
    score: float


@dataclass(frozen=True, eq=False)
class _Entry:
    step: type[Step]
    words: dict[str, float]
    """By stem, how much it counts."""
    spelt: dict[str, str]
    """The words as they are spelt, with their stems."""
    sayings: tuple[tuple[frozenset[str], bool], ...]
    """The stems of each, and whether there is a figure in it."""
    own: frozenset[str]
    """Words that by themselves say the step."""
    title: frozenset[str]
    choices: dict[str, dict[str, frozenset[str]]] = field(default_factory=dict)
    """By field and value, the stems of its label."""


def stem(word: str) -> str:
    """The word without its ending, as the language that is spoken has them."""
    return _stem(word, spoken())


@lru_cache(maxsize=4096)
def _stem(word: str, language: str) -> str:
    plain = unicodedata.normalize("NFKD", word.lower()).encode("ascii", "ignore").decode()
    with _STEMMING:
        return str(_STEMMERS[language].stemWord(plain or word.lower()))


def words_of(text: str) -> list[str]:
    """The words of a text, without those that say nothing; all where none says anything."""
    found = [w.lower() for w in _WORD.findall(text.replace("'s", ""))]
    return [w for w in found if w not in _STOP[spoken()]] or found


def stems(text: str) -> list[str]:
    """The same in their plain form."""
    return [stem(w) for w in words_of(text)]


@lru_cache(maxsize=len(LANGUAGES))
def _index(language: str) -> tuple[tuple[_Entry, ...], dict[str, float]]:
    """All steps, and how telling each stem is; ``language`` is the one that is spoken."""
    entries = tuple(_entry(kind) for kind in STEPS)
    count = Counter(word for entry in entries for word in entry.words)
    return entries, {w: math.log(1 + len(entries) / n) for w, n in count.items()}


def _entry(kind: type[Step]) -> _Entry:
    words: dict[str, float] = {}
    spelt: dict[str, str] = {}

    def add(text: str, weight: float) -> None:
        for word in words_of(text):
            spelt[word] = stem(word)
            words[spelt[word]] = max(words.get(spelt[word], 0.0), weight)

    choices: dict[str, dict[str, frozenset[str]]] = {}
    about = " ".join((kind.__doc__ or "").split())
    for text in {about, say(about), str(kind.stage), say(str(kind.stage))}:
        add(text, ABOUT)
    for name, info in kind.model_fields.items():
        extra = info.json_schema_extra
        labels = extra.get("labels") if isinstance(extra, dict) else None
        if isinstance(labels, dict):
            choices[name] = {str(k): frozenset(stems(say(str(v)))) for k, v in labels.items()}
            add(" ".join(say(str(v)) for v in labels.values()), CHOICE)
    if "outline" in kind.model_fields:
        for figure in FIGURES:
            add(_figure_words(figure), FIGURE_NAME * kind.by_figure)
    add(kind.words, WORDS)
    said = (*kind.sayings, *called("steps", kind.model_fields["kind"].default))
    for saying in said:
        add(saying, SAID)
    for name in {kind.title, say(kind.title)}:
        add(name, TITLE)
    sayings = tuple((frozenset(stems(s)), has_figure(s)) for s in (say(kind.title), *said))
    title = frozenset(stems(say(kind.title)))
    own = title.union(*(s for s, _ in sayings if len(s) == 1))
    return _Entry(kind, words, spelt, sayings, own, title, choices)


def _figure_words(figure: type[Figure]) -> str:
    """All that a figure is called."""
    more = called("figures", figure.model_fields["kind"].default)
    return " ".join((say(figure.title), figure.title, figure.words, *more))


def has_figure(text: str) -> bool:
    return any(letter.isdecimal() for letter in text)


def _match(said: str, entry: _Entry, *, known: bool, last: bool) -> tuple[float, str]:
    """How much a word counts among an entry's, and the stem that it is. Only one that is not ``known`` to any
    entry may be the beginning of a word, or spelt otherwise."""
    own, compounds = stem(said), spoken() in _COMPOUNDS
    if own in entry.words or known:
        return entry.words.get(own, 0.0), own
    best, which = 0.0, ""
    for word, found in entry.spelt.items():
        if last and len(said) >= 2 and word.startswith(said):
            share = PREFIX
        elif len(said) >= 4 and len(word) >= 4 and OSA.distance(said, word, score_cutoff=1) <= 1:
            share = SPELLING
        elif compounds and len(word) >= 4 and word in said:
            share = COMPOUND
        else:
            continue
        if entry.words[found] * share > best:
            best, which = entry.words[found] * share, found
    return best, which


def search(text: str, unit: Unit = Unit.MM) -> list[Hit]:
    """The steps that may be meant, the likeliest first; all of them, in order, for an empty text."""
    entries, telling = _index(spoken())
    said = words_of(text[:LONGEST])
    if not said:
        return [Hit(e.step.model_fields["kind"].default, {}, (), 0.0) for e in entries]
    found = []
    for entry in entries:
        score, meant = _score(entry, said, telling, figures=has_figure(text))
        if score > 0:
            values, told = _values(entry, meant, text, unit)
            found.append(Hit(entry.step.model_fields["kind"].default, values, told, score))
    found.sort(key=lambda hit: -hit.score)
    return [hit for hit in found if hit.score >= LIKELY * found[0].score]


def _score(
    entry: _Entry, said: list[str], telling: Mapping[str, float], *, figures: bool
) -> tuple[float, frozenset[str]]:
    """How likely the step is meant, and the words as the index spells them."""
    total, hit, meant = 0.0, 0, []
    for place, word in enumerate(said):
        last, known = place == len(said) - 1, stem(word) in telling
        weight, which = _match(word, entry, known=known, last=last)
        if weight:
            hit += 1
            total += weight * telling[which]
            meant.append(which)
    if not hit:
        return 0.0, frozenset()
    words = frozenset(meant)
    whole = frozenset(map(stem, said)) | words
    alike = 0.0
    for saying, figure in entry.sayings:
        common = len(words & saying)
        share = common / len(words | saying) * min(1.0, common / len(set(said)))
        alike = max(alike, share**2 + (WITH_FIGURE if share and figure and figures else 0.0))
    return total * (hit / len(said)) ** 2 + ALIKE * alike, whole


def _values(
    entry: _Entry, words: frozenset[str], text: str, unit: Unit
) -> tuple[dict[str, Any], tuple[str, ...]]:
    """What was said of the step's values; nothing where that cannot be."""
    kind, told = entry.step, list[str]()
    values: dict[str, Any] = {}
    rest = words - entry.title
    for name, labels in entry.choices.items():
        for value, label in labels.items():
            telling = label - entry.title
            said = (bool(telling) and telling <= rest) or stem(value) in rest
            if said and value != kind.model_fields[name].default:
                values[name] = value
    numbers = list(_numbers(text, unit))
    for name in kind.takes:
        if name == "outline":
            figure = _figure(entry, words) or _of_two_measures(numbers)
            sized = _sized(figure or kind.model_fields["outline"].default, numbers)
            if figure or sized != kind.model_fields["outline"].default:
                values["outline"] = sized.model_dump(mode="json")
                told.append(_figure_in_words(sized, unit))
        elif (number := _taken(numbers, _unit_of(kind, name))) is not None:
            values[name] = number
    made = _made(kind, values)
    told += [_in_words(made, name, unit) for name in values if name != "outline"]
    return values, tuple(told)


def _made(kind: type[Step], values: dict[str, Any]) -> Step:
    """The step with the values, of which those that it cannot have are taken out."""
    named = {"kind": kind.model_fields["kind"].default}
    try:
        return kind.model_validate({**named, **values})
    except ValidationError as error:
        for wrong in error.errors():
            values.pop(str(wrong["loc"][0]) if wrong["loc"] else "", None)
    try:
        return kind.model_validate({**named, **values})
    except ValidationError:
        values.clear()
        return kind.model_validate(named)


def _numbers(text: str, unit: Unit) -> Iterator[tuple[float, str]]:
    """The figures in what was said: mm and "mm", degrees and "deg", or as it is and "" for one without
    a unit."""
    for match in _FIGURE.finditer(text[:LONGEST].lower()):
        number, said = match["number"], match["unit"] or ""
        try:
            if said in _DEGREES:
                yield float(number.replace(",", ".")), "deg"
            else:
                said = "in" if said in _INCHES else said
                yield parse_length(f"{number}{said}", unit), "mm" if said else ""
        except (MeasureError, ValueError):
            continue


def _taken(numbers: list[tuple[float, str]], wanted: str) -> float | None:
    """The first figure that a value of that unit can take, taken out of the list."""
    for place, (number, unit) in enumerate(numbers):
        if unit in (wanted, "") and (wanted != "count" or number == round(number)):
            del numbers[place]
            return int(number) if wanted == "count" else round(number, 4)
    return None


def _unit_of(kind: type[Step], name: str) -> str:
    extra = kind.model_fields[name].json_schema_extra
    return str(extra.get("unit", "count")) if isinstance(extra, dict) else "count"


def _figure(entry: _Entry, words: frozenset[str]) -> Figure | None:
    """The figure that is named beside the step."""
    best, found = 0.0, None
    rest = words - entry.title
    for figure in FIGURES:
        if figure().reads():
            continue
        title, more = frozenset(stems(say(figure.title))), frozenset(stems(_figure_words(figure)))
        weight = 2.0 * len(title & rest) / len(title) + 0.5 * len(more & (rest - entry.own))
        if weight > best:
            best, found = weight, figure()
    return found


def _of_two_measures(numbers: list[tuple[float, str]]) -> Figure | None:
    """Where no figure is named, two measures are those of a rectangle."""
    return Rectangle() if sum(unit in ("mm", "") for _, unit in numbers) > 1 else None


def _sized(figure: Figure, numbers: list[tuple[float, str]]) -> Figure:
    """The figure with the sizes that were said."""
    try:
        names = figure.sizes(outline_of(figure, {}).bounds)
    except StepError:
        return figure
    wanted = [n for n in (names.across, names.down, names.both) if n]
    values: dict[str, float] = {}
    for name in wanted:
        if (number := _taken(numbers, "mm")) is not None:
            values[name] = number
    if names.across in values and names.down and names.down not in values:
        own = figure.model_dump()
        values[names.down] = round(own[names.down] * values[names.across] / own[names.across], 2)
    try:
        sized = type(figure).model_validate({**figure.model_dump(), **values})
        outline_of(sized, {})
    except (ValidationError, StepError):
        return figure
    return sized


def _figure_in_words(figure: Figure, unit: Unit) -> str:
    box = outline_of(figure, {}).bounds
    if abs(box.width - box.height) < 1e-6:
        return f"{within(figure.title)} {format_length(box.width, unit)}"
    wide = format_length(box.width, unit, with_unit=False)
    return f"{within(figure.title)} {wide} × {format_length(box.height, unit)}"


def _in_words(step: Step, name: str, unit: Unit) -> str:
    info, value = type(step).model_fields[name], getattr(step, name)
    extra = info.json_schema_extra
    labels = extra.get("labels") if isinstance(extra, dict) else None
    if isinstance(labels, dict):
        return say(str(labels.get(str(value), value)))
    title = within(str(info.title or name))
    wanted = _unit_of(type(step), name)
    if wanted == "mm":
        return f"{title} {format_length(value, unit)}"
    return f"{title} {decimal(f'{value:g}')}{'°' if wanted == 'deg' else ''}"
