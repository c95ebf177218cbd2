"""Bodies laid on a backdrop, for the signs that are animals."""

from bootmark.drawing.backdrops import blade
from bootmark.drawing.sketch import Draw


def on(backdrop: str, *bodies: str) -> Draw:
    """Bodies on a backdrop, the same whatever the leaf."""
    return lambda _: backdrop + "".join(bodies)


def under(*bodies: str) -> Draw:
    return on(blade(under=True), *bodies)


def upper(*bodies: str) -> Draw:
    return on(blade(), *bodies)


BLACK = "#26292c"
