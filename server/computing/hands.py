"""A worker as the pool sees it: its process, the connection to it, and what it has taken."""

from __future__ import annotations

import os
from contextlib import suppress
from dataclasses import dataclass
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from pathlib import Path

from server.computing.worker import LEAVE

NICER = 10
_TICKS = os.sysconf("SC_CLK_TCK")


@dataclass(eq=False)
class Worker:
    process: BaseProcess
    connection: Connection
    slow: bool = False
    busy: bool = False
    jobs: int = 0
    """How many it has been given: what it remembers of them takes memory, too."""
    about: tuple[str, str] = ("", "")
    """Whose what it last computed."""
    since: float = 0.0

    def seconds(self) -> float:
        """Processor time that it has taken since it was started."""
        try:
            fields = Path(f"/proc/{self.process.pid}/stat").read_text().rsplit(")", 1)[1].split()
        except OSError:
            return 0.0
        return (int(fields[11]) + int(fields[12])) / _TICKS

    def leave(self) -> None:
        """Asks it to leave off what it does. One that has just been started does not listen yet."""
        if self.jobs > 1 and self.process.pid:
            with suppress(OSError):
                os.kill(self.process.pid, LEAVE)

    def end(self) -> None:
        self.connection.close()
        self.process.kill()
        self.process.join(5)


def to_slow_lane(worker: Worker) -> None:
    """At a lower priority from now on."""
    worker.slow = True
    if worker.process.pid:
        with suppress(OSError):  # it is gone already
            os.setpriority(os.PRIO_PROCESS, worker.process.pid, NICER)
