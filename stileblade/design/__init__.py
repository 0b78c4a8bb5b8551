"""The design document, and its evaluation."""
