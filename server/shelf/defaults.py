"""Papers that a new shelf starts with."""

from __future__ import annotations

from stileblade.card.stock import Grain, Paper

PAPERS: tuple[Paper, ...] = (
    Paper(id="harbour", name="Harbour blue", outside="#a9c4cc", inside="#f4efe2",
          thickness=0.3, weight=240),
    Paper(id="chalk", name="Chalk white", outside="#faf7ef", inside="#faf7ef",
          thickness=0.27, weight=220),
    Paper(id="sand", name="Sand", outside="#e6d5b0", inside="#f4ead2", thickness=0.3, weight=250),
    Paper(id="brick", name="Brick", outside="#c46f4e", inside="#f2e3d8", thickness=0.32, weight=270),
    Paper(id="kelp", name="Kelp green", outside="#7f9a7a", inside="#eef0e2",
          thickness=0.25, weight=200, grain=Grain.SHORT),
    Paper(id="night", name="Night ink", outside="#2f3d54", inside="#2f3d54",
          thickness=0.35, weight=300, sheet_width=304.8, sheet_height=304.8,
          grain=Grain.UNKNOWN),
)  # fmt: skip
