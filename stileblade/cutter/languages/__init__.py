"""Languages that machines are sent. One language, one file."""
