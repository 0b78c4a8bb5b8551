"""Files to cut from. One format, one file; see ``plan`` for what they all write."""
