"""The pens' colours, by their groups' names."""

from __future__ import annotations

_COLOURS = (
    "#2f6b45", "#9a3b2e", "#2b4a8b", "#8a6a1f", "#6b3f7d", "#23707a", "#a34d73", "#4d4a45",
)  # fmt: skip
PENS = {f"pen-{number}": colour for number, colour in enumerate(_COLOURS, 1)}
