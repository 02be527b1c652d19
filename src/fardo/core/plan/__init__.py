"""From the goods to what it costs in all: every box there is, by every service that takes it."""
