"""Regions grown and shrunk, and what a pen paints."""
