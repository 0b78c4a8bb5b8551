"""Kinds of build steps, one file each; the registry finds them all."""
