"""Painted outlines of SVG files: style cascade, shapes, strokes, clips, text, the walk."""
