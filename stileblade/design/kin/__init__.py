"""Designs of one family, that are kept in step with each other."""
