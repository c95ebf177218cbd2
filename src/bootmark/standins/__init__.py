"""Small simulated devices that ship with Bootmark, and the demo farm."""
