"""Aiming at a figure: which values of which steps reach it, solved on the evaluation itself."""
