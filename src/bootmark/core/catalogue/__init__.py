"""What Bootmark knows: agents, signs, looks and crops, checked as they are read."""

from bootmark.core.catalogue.heat import Heat
from bootmark.core.catalogue.loader import default, load
from bootmark.core.catalogue.model import Agent, Catalogue, Control, Crop, Look, Sign
from bootmark.core.catalogue.reader import CatalogueError

__all__ = ["Agent", "Catalogue", "CatalogueError", "Control", "Crop", "Heat", "Look", "Sign", "default", "load"]
