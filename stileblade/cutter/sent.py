"""What was sent to the machine, as the strokes that it asks for."""

from __future__ import annotations

import codecs
import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from enum import StrEnum

import numpy as np

from stileblade.errors import ReadingError
from stileblade.geometry.curves.segments import Floats
from stileblade.machine.machine import Machine
from stileblade.process_limits import TimeLimitExceeded, limited
from stileblade.registry import Registry, import_all
from stileblade.words import say

MOST_BYTES = 30_000_000
CHORD = 0.002
BEYOND = 1.0
"""mm beyond the bed: a tool that is up may go so far."""
SECONDS = 12
MEMORY = 1_000_000_000
"""Of processor time, and bytes: what reading a file may take."""
FARTHEST = 100_000.0
"""mm from the origin: no machine is larger."""
MOST_PLACES = 1_500_000
"""Of all strokes together: more takes the reporting too long."""


class Fault(StrEnum):
    """What can be wrong with a file, or with what came of it."""

    SCALE = "scale"
    MIRRORED = "mirrored"
    MOVED = "moved"
    PASS_MISSING = "pass-missing"
    EXTRA = "extra"
    OFF_SHAPE = "off-shape"
    SCORE_CUT = "score-cut"
    DRAWN_CUT = "drawn-cut"
    ORDER = "order"
    OPEN_CONTOUR = "open-contour"
    CUT_TWICE = "cut-twice"
    OVERLAP = "overlap"
    OFF_BED = "off-bed"
    OFF_SHEET = "off-sheet"
    ASKEW = "askew"
    TRAIL = "trail"
    CRUMB = "crumb"
    REFUSED = "refused"


@dataclass(frozen=True)
class Found:
    """A fault: a sentence, the place in mm and the second at which it happens, where there are any."""

    code: Fault
    message: str
    at: tuple[float, float] | None = None
    at_s: float | None = None


@dataclass(frozen=True)
class LeftOut:
    """What was read and not done, or done without being told to: why, and the line of the file at which it is so
    first, 0 where there is none."""

    reason: str
    line: int = 0


@dataclass(frozen=True, eq=False)
class Stroke:
    """One way with the tool down: the number of the tool (0 where the file names none), its speed in
    mm/s, its places (n, 2) as asked for, the name that the file gives it, and the line of the file. A tool that is
    set down and lifted again has pricked one place (1, 2)."""

    tool: int
    speed: float
    places: Floats
    name: str = ""
    line: int = 0


@dataclass(eq=False)
class Sent:
    """A file as it was understood: its strokes in the order in which they are run, what the machine
    refuses in it, what was left out, and the sheet's size where the file says it."""

    language: str
    strokes: list[Stroke] = field(default_factory=list)
    refused: list[Found] = field(default_factory=list)
    left_out: list[LeftOut] = field(default_factory=list)
    size: tuple[float, float] | None = None
    count: int = 0
    travels_off: Found | None = None
    """Where it first goes beyond the bed with the tool up."""

    def add(self, stroke: Stroke) -> None:
        """A further stroke. ReadingError where they become too many, or one goes where no machine could."""
        if not (
            np.abs(stroke.places) <= FARTHEST
        ).all():  # neither does a place that is not a number
            where = say(" (line {line})", line=stroke.line) if stroke.line else ""
            raise ReadingError(
                say("A line of the file goes beyond all measure{where}.", where=where),
                hint="Take it out, or export the file anew.",
            )
        self.count += len(stroke.places)
        if self.count > MOST_PLACES:
            raise ReadingError(
                say(
                    "The file moves the tool to more than {most_places:,} places.",
                    most_places=MOST_PLACES,
                ),
                hint="Send it in parts, sheet by sheet.",
            )
        self.strokes.append(stroke)

    def travel(self, places: Floats, machine: Machine, line: int) -> None:
        """Ways with the tool up: the first that goes beyond the bed is a fault."""
        out = np.maximum(-places, places - [machine.bed_width, machine.bed_height]).max(axis=1)
        if self.travels_off is None and not (out <= BEYOND).all():
            k = int(np.argmax(~(out <= BEYOND)))
            said = say(
                "It travels {by:,.0f} mm beyond the bed of {bed_width:g} x {bed_height:g} mm (line {line}).",
                by=out[k],
                bed_width=machine.bed_width,
                bed_height=machine.bed_height,
                line=line,
            )
            self.travels_off = Found(
                Fault.OFF_BED, said, (float(places[k, 0]), float(places[k, 1]))
            )

    def refuse(self, message: str, at: Floats | None = None, line: int = 0) -> None:
        """A refusal; of the same sentence only the first is kept."""
        where = say(" (line {line})", line=line) if line else ""
        if len(self.refused) < 20 and all(
            f.message.split(" (line")[0] != message for f in self.refused
        ):
            place = None if at is None else (float(at[0]), float(at[1]))
            self.refused.append(Found(Fault.REFUSED, message + where, place))


@dataclass(frozen=True)
class Language:
    """A language that machines are sent: ``sniffs`` says whether a file is in it by its first bytes."""

    name: str
    title: str
    sniffs: Callable[[bytes], bool]
    read: Callable[[bytes, Machine], Sent]


LANGUAGES: Registry[Language] = Registry("language")


def register_language(
    name: str, *, title: str, sniffs: Callable[[bytes], bool]
) -> Callable[[Callable[[bytes, Machine], Sent]], Callable[[bytes, Machine], Sent]]:
    """A decorator for the function that reads a language."""

    def register(read: Callable[[bytes, Machine], Sent]) -> Callable[[bytes, Machine], Sent]:
        LANGUAGES.add(name, Language(name, title, sniffs, read))
        return read

    return register


def languages() -> Registry[Language]:
    """All languages that are understood."""
    import_all("stileblade.cutter.languages")
    return LANGUAGES


def read_sent(content: bytes, machine: Machine) -> Sent:
    """The file's strokes. ReadingError where it is in no language that is known, broken or too large."""
    if not content.strip():
        raise ReadingError("The file is empty.", hint="Save it again, and send that.")
    if len(content) > MOST_BYTES:
        raise ReadingError(
            say(
                "The file has {size:.1f} MB; at most {most:.0f} MB are taken.",
                size=len(content) / 1e6,
                most=MOST_BYTES / 1e6,
            ),
            hint="Send it in parts, sheet by sheet.",
        )
    content = content.removeprefix(codecs.BOM_UTF8)
    return _read_within_limits(language_of(content), content, machine)


def language_of(content: bytes) -> Language:
    """The language of a file, by its first bytes. ReadingError where it is in none that is known."""
    head = content.removeprefix(codecs.BOM_UTF8)[:4000]
    known_ones = [languages()[name] for name in sorted(languages().names())]
    for language in known_ones:
        if language.sniffs(head):
            return language
    known = ", ".join(language.title for language in known_ones)
    raise ReadingError(
        "This is in no language that the machine understands.",
        hint=say("It takes {known}.", known=known),
    )


def _read_within_limits(language: Language, content: bytes, machine: Machine) -> Sent:
    try:
        with limited(SECONDS, MEMORY):
            return language.read(content, machine)
    except TimeLimitExceeded:
        raise ReadingError(
            say("The file takes more than {seconds} seconds to read.", seconds=SECONDS),
            hint="Send it in parts, sheet by sheet.",
        ) from None
    except (MemoryError, RecursionError):
        raise ReadingError(
            say("The file takes more than {memory} MB to read.", memory=MEMORY // 1_000_000),
            hint="Send it in parts, sheet by sheet.",
        ) from None


def round_arc(centre: Floats, start: Floats, turn: float, *, grows: float = 0.0) -> Floats:
    """Places (n, 2) of an arc after its start, of chords within ``CHORD`` mm: about a centre by so many radians,
    positive against the clock, its radius growing by as much as its ends differ."""
    arm = start - centre
    radius = float(np.hypot(*arm))
    step = max(0.02, 2 * math.acos(max(-1.0, 1 - CHORD / max(radius, CHORD))))
    share = np.arange(1, max(1, math.ceil(abs(turn) / step)) + 1)
    share = share / share[-1]
    angles, radii = math.atan2(arm[1], arm[0]) + turn * share, radius + grows * share
    return np.asarray(centre + radii[:, None] * np.stack([np.cos(angles), np.sin(angles)], axis=1))


def without_rests(places: Iterable[Floats]) -> Floats:
    """Places (n, 2) one after the other, those that are the one before left out."""
    found = np.array(list(places), float).reshape(-1, 2)
    if len(found) < 2:
        return found
    apart = np.ones(len(found), bool)
    apart[1:] = (np.diff(found, axis=0) != 0).any(axis=1)
    return found[apart]
