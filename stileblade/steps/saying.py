"""Words of what people say, in the language that is spoken: without their endings, and without those that say
nothing of what is meant."""

from __future__ import annotations

import re
import threading
import unicodedata
from functools import lru_cache

import snowballstemmer

from stileblade.words import spoken

_WORD = re.compile(r"[^\W\d_]++")
_NOTHING_EN = """
a an and at be by can do for from get give have i in into is it its like make mm cm me my need of
off on one onto or out please put shaped so some that the them then there this to up want we with
"""
_NOTHING_DE = """
als am an auf aus bei bitte cm das dem den der des die ein eine einem einen einer er es etwas für
geben haben hat ich ihm ihn im in ist kann man mach machen mein meine mich mir mit mm muss möchte
nach noch oder sein sich sie sind so soll und uns unten vom von was wie will wir zu zum zur
"""
_NOTHING = {"en": frozenset(_NOTHING_EN.split()), "de": frozenset(_NOTHING_DE.split())}
_STEMMERS = {"en": snowballstemmer.stemmer("english"), "de": snowballstemmer.stemmer("german")}
_STEMMING = threading.Lock()
"""A stemmer holds the word that it works on."""
_COMPOUNDS = frozenset(("de",))


def puts_together() -> bool:
    """Whether the language puts words together to one: "Rundfenster"."""
    return spoken() in _COMPOUNDS


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
    return [w for w in found if w not in _NOTHING[spoken()]] or found


def stems(text: str) -> list[str]:
    """The same in their plain form."""
    return [stem(w) for w in words_of(text)]


def has_figure(text: str) -> bool:
    return any(letter.isdecimal() for letter in text)
