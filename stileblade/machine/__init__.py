"""The machine that cuts: what it can do, how fast, and how it is told."""
