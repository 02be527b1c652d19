"""What is sent: parts, and the small things that go with them."""
