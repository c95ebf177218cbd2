"""Where a person is signed in."""
