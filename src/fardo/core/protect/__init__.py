"""What keeps the goods whole: the gap around them and what fills it."""
