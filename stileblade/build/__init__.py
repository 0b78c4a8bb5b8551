"""The design document, its build steps, and their evaluation."""
