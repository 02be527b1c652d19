"""Blanks: the drawing of one, how many lie on a sheet, and the fence settings to cut it."""
