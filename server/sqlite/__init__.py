"""A Django database backend: SQLite, with one writer at a time and shared syncs."""
