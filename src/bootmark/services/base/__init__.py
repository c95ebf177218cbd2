"""What every use case stands on: commands, people, the farm's time, what is kept in memory, the queue."""
