"""What is shown of an evaluation: plain models, each beside the function that makes it."""
