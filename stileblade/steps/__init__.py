"""Build steps: what a step is, and what several kinds share."""
