"""Bodies and marks laid on a backdrop."""

from bootmark.drawing.backdrops import blade
from bootmark.drawing.sketch import Draw, Mark, Sketch


def on(backdrop: str, *laid: Mark | str) -> Draw:
    """Bodies and marks on a backdrop, in the order in which they lie, the same whatever the leaf."""

    def draw(sketch: Sketch) -> str:
        return backdrop + "".join(mark if isinstance(mark, str) else mark(sketch.rng) for mark in laid)

    return draw


def under(*bodies: str) -> Draw:
    return on(blade(under=True), *bodies)


def upper(*bodies: str) -> Draw:
    return on(blade(), *bodies)


BLACK = "#26292c"
