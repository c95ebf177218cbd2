"""Cases as JSON: read, answered as the screens answer them, and written."""
