"""Weather of stations and blocks: readings taken in, judged, filled, and told as days."""
