"""What a piece of paper is while it is made."""
