"""The Book: what was seen and done, every version of it, and how counts changed."""
