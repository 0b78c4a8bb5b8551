"""A stand-in for the device: it reads what was sent, byte for byte, moves a tool, and says what came loose.

It knows nothing of designs. Places are in mm as the machine moves: x to the right, y away from the person,
from the sheet's near left corner.
"""
