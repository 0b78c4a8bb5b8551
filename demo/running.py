"""The application started as ``make demo`` starts it, on a free port, ended by its process."""

from __future__ import annotations

import os
import re
import signal
import subprocess
import sys
import threading
from pathlib import Path
from types import TracebackType

ROOT = Path(__file__).resolve().parents[1]


class Running:
    """``manage.py serve`` with a data folder of its own; a context that ends it."""

    def __init__(self, data: Path, port: int = 0) -> None:
        environment = {**os.environ, "STILEBLADE_DEMO": "1", "STILEBLADE_DATA": str(data)}
        self.process = subprocess.Popen(
            [sys.executable, "manage.py", "serve", "--port", str(port)],
            cwd=ROOT,
            env=environment,
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
        )
        self.address = self._address()
        assert self.process.stdout is not None
        threading.Thread(target=self.process.stdout.read, daemon=True).start()

    def _address(self) -> str:
        said = ""
        assert self.process.stdout is not None
        for line in self.process.stdout:
            said += line
            if match := re.search(r"http://127\.0\.0\.1:\d+", line):
                return match.group(0)
        raise RuntimeError(f"the server did not start: {said}")

    def end(self) -> int:
        """Asks it to end; its exit status."""
        self.process.send_signal(signal.SIGTERM)
        return self.process.wait(timeout=20)

    def __enter__(self) -> Running:
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        error: BaseException | None,
        trace: TracebackType | None,
    ) -> None:
        self.end()
