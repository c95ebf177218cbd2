"""The trap register."""
