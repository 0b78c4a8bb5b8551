"""From designs to sheets: jobs, the pieces that they want, where those lie, and what is cut when."""
