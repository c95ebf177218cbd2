"""What `./bootmark` runs before there is an environment: the standard library only."""
