"""The same leaf, branch or row pictured again: two dates side by side and over each other."""
