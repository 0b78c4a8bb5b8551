"""Exact outlines. The only package that imports the geometry kernel."""
