"""How large a request may be."""

from __future__ import annotations

from stileblade.outlines.reading.limits import LIMITS

MB = 1_000_000
DESIGN = 24 * MB
"""A design, with the artworks that it is made of."""
FILE = LIMITS.bytes + MB // 2
"""A drawing or a font, with the form around it."""
SENT = 30 * MB + MB // 2
"""A file for the cutter, with the form around it."""
PLAIN = MB // 10
MOST_THINGS = 200_000
"""Objects and lists in one request."""
