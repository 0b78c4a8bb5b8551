"""Designs kept, saved, listed, evaluated and exported."""
