"""What a picture of a leaf must be like to be measured."""

PHOTO_DARK = 0.05
"""share of full light. Of the ground, linear, below which a picture is too dark. Tried in bench, 2026-11-27."""
PHOTO_HUE, PHOTO_SHADE = 0.16, 0.3
"""shares. By which a point's colour may differ from the ground's, and how much of its light a shadow leaves. Tried in bench, 2026-11-27."""
PHOTO_PLAIN, PHOTO_ROUGH = 0.9, 9.0
"""share and units of colour. Of a picture's frame that must be plain ground, and its own colours at the most. Tried in bench,
2026-11-27."""
PHOTO_BLUR = 0.12
"""share of a step. How steep the steepest edges must be from one point to the next. Tried in bench, 2026-11-27."""
PHOTO_CHROMA, PHOTO_BLACK = 11.0, 38.0
"""units of colour and lightness. From which something lies on the ground: a shadow has no colour of its own. Tried in bench, 2026-11-27."""
PHOTO_HALF = 0.5
"""share. Of a leaf's own colour at which its edge lies. Tried in bench, 2026-11-27."""
PHOTO_LEAF_LEAST, PHOTO_GLARE = 0.01, 0.02
"""shares. Of a picture that a leaf has at the least; of a leaf that may shine. Judgement, 2026-11-27."""
PHOTO_SOLID, PHOTO_SHINES = 0.9, 5.0
"""share and lightness. Of its hull that a whole leaf fills; above the ground's, from which a spot shines. Tried in bench, 2026-11-27."""
PHOTO_LEAP, PHOTO_BITTEN, PHOTO_DIP = 0.022, 0.6, 0.07
"""shares. Of a leaf's length: by which one side falls back where it is eaten; of its slices that may be bitten; and again of its length, by
which it may narrow and widen. Tried in bench, 2026-11-27."""
PHOTO_HUE_LEAST, PHOTO_TURNED, PHOTO_PALER, PHOTO_FADED = 0.05, 3.0, 18.0, 0.45
"""radians, times, lightness and share. Of a leaf's own green, beyond which it is discoloured. Tried in bench, 2026-11-27."""
