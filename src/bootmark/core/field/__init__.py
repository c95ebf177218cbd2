"""What a scout needs with no signal: the standard library only."""
