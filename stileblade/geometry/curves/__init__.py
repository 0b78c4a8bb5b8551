"""Segments of curves, exact: their places, directions, crossings, parallels and flattened forms."""
