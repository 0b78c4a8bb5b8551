"""Finding the step that is meant by what people say: by words in any form and nearly any spelling, with the
figures in them put as values.

Each step's own file says what it is called; the index is made of that alone.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

from rapidfuzz.distance import OSA

from stileblade.outlines.figure import FIGURES
from stileblade.steps.said_values import LONGEST, figure_words, values_of
from stileblade.steps.saying import has_figure, puts_together, stem, stems, words_of
from stileblade.steps.step import STEPS, Step
from stileblade.units import Unit
from stileblade.words import LANGUAGES, called, say, spoken

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
word put together ("Rundfenster"), where the language does that."""


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
            add(figure_words(figure), FIGURE_NAME * kind.by_figure)
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


def _match(said: str, entry: _Entry, *, known: bool, last: bool) -> tuple[float, str]:
    """How much a word counts among an entry's, and the stem that it is. Only one that is not ``known`` to any
    entry may be the beginning of a word, or spelt otherwise."""
    own, compounds = stem(said), puts_together()
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
            values, told = values_of(entry, meant, text, unit)
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
