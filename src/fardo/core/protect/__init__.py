"""What keeps the goods whole: layers from the goods outward, the gap around them and what fills it."""
