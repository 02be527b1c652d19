"""The commands of `fardo`, by what they are about."""
