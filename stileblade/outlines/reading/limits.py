"""What a file may cost. Reading happens in a child process that keeps to these itself."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Limits:
    bytes: int = 12_000_000
    """Largest file: the largest drawings in use have a few MB."""
    elements: int = 20_000
    """After ``use`` is expanded: more shapes than anybody cuts."""
    depth: int = 256
    segments: int = 120_000
    seconds: int = 10
    memory: int = 500_000_000
    """Address space beyond what libraries take before the first byte is read."""


LIMITS = Limits()
