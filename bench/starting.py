"""How soon the command line is at work: a check of a design, beside the imports that it cannot do
without."""

from __future__ import annotations

import resource
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parents[1]
DESIGN = ROOT / "demo" / "designs" / "02-lighthouse.json"
AIM = 3.0
TIMES = 7
_BARE = ("-c", "import numpy, shapely, pydantic")
_COMMANDS = {
    "check of a design": ("-m", "stileblade", "check", str(DESIGN)),
    "help": ("-m", "stileblade", "--help"),
}


def processor_ms(arguments: tuple[str, ...]) -> float:
    """Milliseconds of the processor that Python takes with these arguments, the least of several."""
    found = []
    for _ in range(TIMES):
        before = resource.getrusage(resource.RUSAGE_CHILDREN)
        subprocess.run([sys.executable, *arguments], cwd=ROOT, capture_output=True, check=False)
        after = resource.getrusage(resource.RUSAGE_CHILDREN)
        found.append(after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime)
    return min(found) * 1e3


def report() -> None:
    bare = processor_ms(_BARE)
    print(f"{'command line, ms of the processor':44}{'ms':>8}{'imports':>9}{'ratio':>7}{'aim':>6}")
    for name, arguments in _COMMANDS.items():
        spent = processor_ms(arguments)
        print(f"{name:44}{spent:8.0f}{bare:9.0f}{spent / bare:7.2f}{AIM:6.1f}")
