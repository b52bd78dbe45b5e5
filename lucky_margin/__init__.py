"""Lucky Margin: finish single photos at exact pixel sizes."""

__version__ = "0.22.0"
