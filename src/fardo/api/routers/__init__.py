"""One router a resource."""
