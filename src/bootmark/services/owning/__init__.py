"""What an owner keeps: the farm itself, who works there, and the links by which people come."""
