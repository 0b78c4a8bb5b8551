"""Reading in a process of its own, bounded in time and memory.

``read_bounded`` starts ``python -m stileblade.outlines.reading.child``, which takes the
file on standard input and answers in JSON. What kind of file it is, its content says.
"""

from __future__ import annotations

import gc
import json
import resource
import subprocess
import sys
from pathlib import Path
from typing import Any, cast

from stileblade.errors import ReadingError, StilebladeError
from stileblade.outlines.reading.found import Lines
from stileblade.outlines.reading.limits import LIMITS

MOST_TEXT = 80
_TOO_MUCH = ReadingError(
    "The drawing takes too much time or memory to read.",
    hint="Simplify it, or read a part of it.",
    code="reading.limits",
)


def read_bounded(content: bytes, text: str = "", lines: Lines = "auto") -> dict[str, Any]:
    """What ``Found.as_data`` says of the file; ``text`` and ``lines`` as for ``read_file``.

    ``ReadingError`` for all that goes wrong.
    """
    if len(content) > LIMITS.bytes:
        raise ReadingError(
            f"The file has {len(content) / 1e6:.1f} MB; at most {LIMITS.bytes / 1e6:.0f} MB are read.",
            hint="Leave embedded pictures out, or simplify the drawing.",
        )
    try:
        done = subprocess.run(
            [sys.executable, "-m", "stileblade.outlines.reading.child", text[:MOST_TEXT], lines],
            input=content,
            capture_output=True,
            timeout=LIMITS.seconds + 2,
            check=False,
        )
    except subprocess.TimeoutExpired:
        raise _TOO_MUCH from None
    try:
        answer = json.loads(done.stdout)
    except ValueError:
        raise _TOO_MUCH from None
    if "error" in answer:
        raise ReadingError(answer["error"], hint=answer["hint"])
    return answer


def bound_memory() -> None:
    """No more than ``LIMITS.memory`` beyond the address space that libraries have taken."""
    pages = int(Path("/proc/self/statm").read_text().split()[0])
    most = pages * resource.getpagesize() + LIMITS.memory
    resource.setrlimit(resource.RLIMIT_AS, (most, most))


def _main() -> None:
    from stileblade.outlines.reading.kinds import read_file

    gc.disable()  # a tenth faster, and the process ends with its answer
    bound_memory()
    resource.setrlimit(resource.RLIMIT_CPU, (LIMITS.seconds, LIMITS.seconds))
    try:
        answer = read_file(sys.stdin.buffer.read(), sys.argv[1], cast(Lines, sys.argv[2])).as_data()
    except StilebladeError as error:
        answer = {"error": error.message, "hint": error.hint}
    except (MemoryError, RecursionError):
        answer = {"error": _TOO_MUCH.message, "hint": _TOO_MUCH.hint}
    json.dump(answer, sys.stdout)


if __name__ == "__main__":
    _main()
