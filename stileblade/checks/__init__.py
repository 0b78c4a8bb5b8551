"""What is measured and judged before cutting. One check, one file; see ``check``."""
