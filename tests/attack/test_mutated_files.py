"""Files for the cutter, written by the application itself and then spoiled: each is read or refused in words, within
the limits on time and memory, and none ends the process or comes back as an exception of a library."""

from __future__ import annotations

import gc
import os
import random
import tempfile
import time
from collections import Counter
from pathlib import Path

import pytest

from stileblade.cutter import sent
from stileblade.cutter.sent import languages
from stileblade.cutter.turned_out import Conditions
from stileblade.design.document import read_design
from stileblade.design.evaluation import evaluate
from stileblade.errors import ReadingError, StilebladeError
from stileblade.formats.files import files_of
from stileblade.formats.format import formats
from stileblade.machine.shipped import MACHINES
from stileblade.meant.shown import cut_report
from stileblade.process_limits import TimeLimitExceeded, limited
from tests.conftest import TIMES

DESIGNS = Path(__file__).resolve().parents[2] / "demo" / "designs"
ODD = (
    "0", "-1", "1e9", "nan", "inf", "1e308", "99999999999999999999", "-1e-300", "", "x", "1", "2", "3", "70",
    "1000000", "0.5",
)  # fmt: skip
SECONDS, MEGABYTES = 30.0, 1200
"""For reading and all that is reported of it; the limits on reading alone are narrower."""


def good_files(language: str) -> list[bytes]:
    """Of several cards, in the formats that are in this language."""
    found = []
    for name in ("01", "03", "08", "23"):
        design = read_design(next(DESIGNS.glob(f"{name}*.json")).read_text())
        evaluation = evaluate(design)
        for kind in formats().names():
            for file in files_of(evaluation, kind)[:2]:
                if languages()[language].sniffs(file.content[:4000]):
                    found.append(file.content)
    return found


def spoiled(content: bytes, chance: random.Random) -> bytes:
    """Numbers made odd, lines left out, doubled and swapped, bytes changed, the end cut off."""
    lines = content.split(b"\n")
    if len(lines) < 20:  # all in few lines: between its numbers
        lines = content.replace(b",", b",\n").replace(b";", b";\n").split(b"\n")
    for _ in range(chance.choice([1, 1, 2, 5, 20])):
        at, how = chance.randrange(len(lines)), chance.randrange(7)
        if how < 3:
            lines[at] = chance.choice(ODD).encode()
        elif how == 3:
            del lines[at : at + chance.choice([1, 2, 2, 8])]
        elif how == 4:
            some = lines[at : at + chance.choice([2, 4, 40, 200])]
            lines[at:at] = some * chance.choice([1, 2, 30])
        elif how == 5:
            other = chance.randrange(len(lines))
            lines[at], lines[other] = lines[other], lines[at]
        elif lines[at]:
            changed = bytearray(lines[at])
            changed[chance.randrange(len(changed))] = chance.randrange(256)
            lines[at] = bytes(changed)
        if not lines:
            return b""
    whole = b"\n".join(lines)
    return whole[: chance.randrange(len(whole) + 1)] if chance.random() < 0.1 else whole


def outcome(content: bytes, machine: str) -> tuple[str, float, float]:
    """How a process of its own ended that cut the file, its seconds of processor time and its megabytes."""
    child = os.fork()
    if not child:
        status = 2
        try:
            cut_report(content, next(m for m in MACHINES if m.name == machine), None, Conditions())
            status = 0
        except StilebladeError:
            status = 1
        finally:
            os._exit(status)
    _, ended, used = os.wait4(child, 0)
    told = {0: "read", 1: "refused"}.get(os.waitstatus_to_exitcode(ended), "broken")
    return told, used.ru_utime + used.ru_stime, used.ru_maxrss / 1000


@pytest.mark.parametrize("language", languages().names())
def test_a_spoiled_file_is_read_or_refused_in_words(language: str) -> None:
    files = good_files(language)
    assert files
    machines = [m.name for m in MACHINES]
    chance = random.Random(f"{language} {time.time() if TIMES > 1 else ''}")
    ends: Counter[str] = Counter()
    gc.freeze()
    try:
        for _ in range(75 * TIMES):
            content = spoiled(chance.choice(files), chance)
            told, seconds, megabytes = outcome(content, chance.choice(machines))
            ends[told] += 1
            if told == "broken" or seconds > SECONDS or megabytes > MEGABYTES:
                kept = Path(tempfile.gettempdir()) / f"spoiled-{language}-{os.getpid()}"
                kept.write_bytes(content)
                pytest.fail(f"{kept}: {told}, {seconds:.1f} s, {megabytes:.0f} MB")
    finally:
        gc.unfreeze()
    assert ends["refused"]


def test_what_takes_too_long_to_read_is_refused_and_the_limits_go(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setattr(sent, "SECONDS", 1)
    with pytest.raises(TimeLimitExceeded), limited(1, 10**9):
        forever()
    with pytest.raises(MemoryError), limited(5, 10**8):
        bytearray(10**9)
    assert len(bytearray(2 * 10**8)) == 2 * 10**8


def forever() -> None:
    while True:
        try:
            sum(range(1000))
        except Exception:
            continue


def test_a_file_that_is_too_much_to_read_is_refused_in_words(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    """Blocks within blocks of a DXF, each inserted ten times by the next."""
    blocks = "".join(
        f"0|BLOCK|8|0|2|B{n}|70|0|10|0|20|0|"
        + (f"0|INSERT|8|0|2|B{n - 1}|10|1|20|1|" * 10 if n else "0|LINE|8|0|10|0|20|0|11|1|21|1|")
        + "0|ENDBLK|8|0|"
        for n in range(9)
    )
    text = f"0|SECTION|2|BLOCKS|{blocks}0|ENDSEC|0|SECTION|2|ENTITIES|0|INSERT|8|0|2|B8|10|0|20|0|0|ENDSEC|0|EOF|"
    monkeypatch.setattr(sent, "SECONDS", 2)
    began = time.process_time()
    with pytest.raises(ReadingError):
        sent.read_sent(text.replace("|", "\n").encode(), MACHINES[0])
    assert time.process_time() - began < 6
