"""Stileblade's core: card bases built from exact outlines. Needs no web framework."""

__version__ = "0.1.0"
