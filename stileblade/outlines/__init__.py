"""Outlines to build cards from: parametric figures, and artwork read from files."""
