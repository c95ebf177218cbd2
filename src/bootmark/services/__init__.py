"""One use case each: takes plain values, asks the core, reads and writes the store."""
