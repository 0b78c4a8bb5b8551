"""The card folded: its faces, flat and in space."""
