"""Reading in a process of its own for each file, bounded in time and memory.

The process is parted from one that has imported all that reading needs, and ends with its answer.
What kind of file it is, its content says.
"""

from __future__ import annotations

import gc
import multiprocessing
import resource
import signal
from multiprocessing.connection import Connection
from typing import Any

from stileblade.errors import ReadingError, StilebladeError
from stileblade.outlines.reading.found import Lines
from stileblade.outlines.reading.limits import LIMITS
from stileblade.process_limits import address_space
from stileblade.unexpected import logger
from stileblade.words import say

MOST_TEXT = 80
PRELOADED = "stileblade.outlines.reading.kinds"
"""What whoever reads many files has the process preload from which others are parted."""
_HINT = "Simplify it, or read a part of it."
TOO_LONG = say("The drawing takes more than {seconds} seconds to read.", seconds=LIMITS.seconds)
TOO_LARGE = say(
    "The drawing takes more than {memory} MB of memory to read.", memory=LIMITS.memory // 1_000_000
)
TOO_DEEP = "The drawing is nested too deeply to be read."
NOT_READ = "The drawing could not be read: that is a mistake of the program's own."
Answer = dict[str, Any]


def read_bounded(content: bytes, text: str = "", lines: Lines = "auto") -> Answer:
    """What ``Found.as_data`` says of the file; ``text`` and ``lines`` as for ``read_file``.

    ``ReadingError`` for all that goes wrong, which says what was too much.
    """
    if len(content) > LIMITS.bytes:
        raise ReadingError(
            say(
                "The file has {size:.1f} MB; at most {most:.0f} MB are read.",
                size=len(content) / 1e6,
                most=LIMITS.bytes / 1e6,
            ),
            hint="Leave embedded pictures out, or simplify the drawing.",
        )
    context = multiprocessing.get_context("forkserver")
    here, there = context.Pipe(duplex=False)
    child = context.Process(
        target=_read, args=(there, content, text[:MOST_TEXT], lines), daemon=True
    )
    child.start()
    there.close()
    try:
        answer = here.recv() if here.poll(LIMITS.seconds + 2) else _error(TOO_LONG)
    except EOFError:  # it was ended by a limit
        child.join(1)
        answer = _error(TOO_LONG if child.exitcode == -signal.SIGXCPU else TOO_LARGE)
    finally:
        here.close()
        child.kill()
        child.join(2)
    if "error" in answer:
        raise ReadingError(answer["error"], hint=answer["hint"], code=answer.get("code"))
    return answer


def _error(message: str) -> Answer:
    return {"error": message, "hint": _HINT, "code": "reading.limits"}


def bound_memory() -> None:
    """No more than ``LIMITS.memory`` beyond the address space that libraries have taken."""
    most = address_space() + LIMITS.memory
    resource.setrlimit(resource.RLIMIT_AS, (most, most))


def _read(connection: Connection, content: bytes, text: str, lines: Lines) -> None:
    from stileblade.outlines.reading.kinds import read_file

    gc.disable()  # a tenth faster, and the process ends with its answer
    bound_memory()
    resource.setrlimit(resource.RLIMIT_CPU, (LIMITS.seconds, LIMITS.seconds + 1))
    try:
        answer = read_file(content, text, lines).as_data()
    except StilebladeError as error:
        answer = {"error": error.message, "hint": error.hint, "code": error.code}
    except MemoryError:
        answer = _error(TOO_LARGE)
    except RecursionError:
        answer = _error(TOO_DEEP)
    except Exception:
        logger.exception("a file of %d bytes could not be read", len(content))
        answer = {"error": NOT_READ, "hint": "It has been written down. Export the drawing anew."}
    connection.send(answer)
