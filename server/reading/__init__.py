"""Files and words read, nothing kept."""
