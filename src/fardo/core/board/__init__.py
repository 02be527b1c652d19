"""Corrugated board: its grades."""
