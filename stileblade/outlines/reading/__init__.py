"""Outlines read from files. Files are hostile until read: see ``limits``."""
