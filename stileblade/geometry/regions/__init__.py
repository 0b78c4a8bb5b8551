"""Regions: areas bounded by closed contours, and the operations on them."""
