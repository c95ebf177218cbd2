"""What a scout does on a round: stops, looks, counts, enquiries."""
