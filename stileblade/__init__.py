"""Stileblade's core: card bases built from exact outlines. Needs no web framework."""

__version__ = "0.1.0"
MADE_WITH = "Made with Stileblade"
"""What the application's own files say of themselves."""
