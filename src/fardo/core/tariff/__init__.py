"""What a carrier asks: zones, weights, measures and charges, to an itemised quote or a refusal that says why."""
