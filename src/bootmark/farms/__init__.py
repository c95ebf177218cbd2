"""The keeper of the server, at its terminal: farms, their first owners, forgotten passwords."""
