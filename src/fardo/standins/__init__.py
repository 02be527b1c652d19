"""Small simulated devices: real HTTP, a page with a button for the hand that would press it, faults on request."""
