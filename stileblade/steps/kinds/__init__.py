"""One file for each kind of step."""
