"""Outlines drawn to pens, and read from path data."""
