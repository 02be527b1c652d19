"""Speed and size, printed as tables. Nothing here passes or fails on time; quote medians and ratios."""
