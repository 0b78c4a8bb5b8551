"""Artworks, papers and sizes that a person keeps."""
