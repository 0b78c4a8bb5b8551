"""Whether what came of a sheet is what was meant."""
