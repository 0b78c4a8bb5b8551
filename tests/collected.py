"""``python -m tests.collected``: whether every file of tests contributes at least one test."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parents[1]


def of_python() -> tuple[set[str], set[str]]:
    """The files that pytest collects something from when it is started as usual, and all there are."""
    listed = subprocess.run(
        [sys.executable, "-m", "pytest", "--collect-only", "-q", "tests"],
        cwd=ROOT,
        # what a person adds to each run may change what is listed
        env={k: v for k, v in os.environ.items() if k != "PYTEST_ADDOPTS"},
        capture_output=True,
        text=True,
        check=True,
    ).stdout
    there = {str(p.relative_to(ROOT)) for p in (ROOT / "tests").rglob("test_*.py")}
    return {line.split("::")[0] for line in listed.splitlines() if "::" in line}, there


def of_the_browser() -> tuple[set[str], set[str]]:
    listed = subprocess.run(
        ["npx", "--no-install", "vitest", "list", "--json"],
        cwd=ROOT / "web",
        capture_output=True,
        text=True,
        check=True,
    ).stdout
    found = json.loads(listed[listed.index("[") :])
    seen = {str(Path(test["file"]).relative_to(ROOT)) for test in found}
    return seen, {str(p.relative_to(ROOT)) for p in (ROOT / "web" / "src").rglob("*.test.ts")}


def main() -> int:
    silent = []
    for collected, there in (of_python(), of_the_browser()):
        silent += sorted(there - collected)
    for path in silent:
        print(f"{path} contributes no test: it is not collected, or holds none.")
    return int(bool(silent))


if __name__ == "__main__":
    sys.exit(main())
