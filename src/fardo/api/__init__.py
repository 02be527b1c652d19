"""The web side, thin: parse, call, answer."""
