"""Where each pest is in its season: forecasts, traps, sightings, crop stages."""
