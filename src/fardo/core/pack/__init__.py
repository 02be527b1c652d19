"""Packing at the bench: the steps that follow from a chosen plan, and what is fetched for them."""
