"""What Bootmark knows: agents, signs, looks and crops, checked as they are read."""

from bootmark.core.catalogue.loader import CatalogueError, default, load
from bootmark.core.catalogue.model import Agent, Catalogue, Control, Crop, Heat, Look, Sign

__all__ = ["Agent", "Catalogue", "CatalogueError", "Control", "Crop", "Heat", "Look", "Sign", "default", "load"]
