"""Parametric figures, one family a module; the registry finds them all."""
