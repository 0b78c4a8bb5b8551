"""Words as outlines: fonts, shipped or read from a file, and their setting in lines."""
