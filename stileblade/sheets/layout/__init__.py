"""Where pieces come to lie on sheets. See docs/decisions/0013."""
