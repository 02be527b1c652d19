"""Where things lie in the box."""
