"""What a picture must be like to be measured, and what counts in it."""

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
PHOTO_FORM = 5.0
"""times. That a form unlike a leaf's counts against an axis, beside the share of slices at which both sides agree.
Tried in bench, 2026-11-27."""
PHOTO_UNLIKE = 0.036
"""share. Of its widest, by which an outline may differ from a leaf's along its axis: two on each other do by more.
Tried in bench, 2026-11-27."""
MIDRIB_WIDE, LEAF_STEP, LEAF_EDGE_LONG, LEAF_TURNED = 0.05, 3.0, 0.14, 1.9
"""share, units of colour, share and radians. Of a leaf's length: on either side of its midrib that may be an edge; by which colours differ
along an edge; how long of its length that is, if another leaf made it; of hue, below which it is green no more.
Tried in bench, 2026-11-27."""
PHOTO_GREEN = 1.3
"""radians. Of hue, from red towards green, that the greenest part of a leaf has at the least: skin has less. Tried in bench, 2026-11-27."""
PHOTO_HUE_LEAST, PHOTO_TURNED, PHOTO_PALER, PHOTO_FADED = 0.05, 3.0, 18.0, 0.45
"""radians, times, lightness and share. Of a leaf's own green, beyond which it is discoloured. Tried in bench, 2026-11-27."""
SHEET_COLOUR, SHEET_LIGHT = 14.0, 24.0
"""units of colour and lightness. By which a sheet may differ from its own middle. Tried in bench, 2026-11-27."""
SHEET_LEAST, SHEET_FILLS, SHEET_BENT = 0.1, 0.94, 0.03
"""shares. Of a picture that a sheet has at the least, of four straight sides that it fills, and of a side by which that may bend.
Tried in bench, 2026-11-27."""
SHEET_LEAN, SHEET_MARGIN = 0.78, 1.5
"""share and millimetres. Of its length that a direction keeps when a sheet leans; along its edge, which is not read. Tried in bench,
2026-11-27."""
SHEET_DARK, PAPER_COVERED = 64.0, 0.05
"""of 255, and share. How bright the brightest tenth of a picture of a sheet is at the least; of white paper that may be covered.
Judgement, 2026-11-27."""
EDGE_REACH, SPECK_BLUR, DROPS_BLUR, CARD_BLUR = 2.5, 3.0, 0.4, 1.2
"""millimetres and times. On both sides of a sheet's edge, where its blur is looked at; the widest that it may be: of the shortest speck; on
a card with drops; on a sticky card. Tried in bench, 2026-11-27."""
SPECK_POINTS, SPECK_LEAST = 1.6, 3.0
"""points. That the shortest speck of the gate must have, and that any speck covers. Tried in bench, 2026-11-27."""
SPECK_DARKER, SPECK_NOISE = 0.08, 6.0
"""share and times. By which a speck is darker than the paper at the least; of the paper's own noise. Tried in bench, 2026-11-27."""
GATE_SLACK = 0.8
"""share. Of a gate that is let pass, as lengths are not told to the point. Tried in bench, 2026-11-27."""
STILL_WITHIN, MATCH_LEAST, MATCH_SHARE = 0.6, 12, 0.05
"""millimetres, number and share. By which what did not move may seem to; of specks from which on two pictures must agree, and share that
must have stayed. Judgement, 2026-11-27."""
CARD_COLOUR, CARD_YELLOW, CARD_APART, CARD_MARGIN = 14.0, 22.0, 18.0, 0.6
"""units of colour, and millimetres. From which a card lies on the ground; that dry paper has of yellow; by which a wet spot has less of it;
along the edge, which is not read. Tried in bench, 2026-11-27."""
CARD_DRY, CARD_WET = 0.9, 0.1
"""shares. Of a card's points that are less yellow than dry paper, and bluer than wet paper. Tried in bench, 2026-11-27."""
MERGED_ABOVE = 0.2
"""share. Of a card that is covered, above which drops lie on each other and are not counted. Common practice, 2026-11-27."""
DROPS_UNSEEN = 0.5
"""share. Of drops that a picture does not tell apart, for each share of the card that is covered. Tried in bench, 2026-11-27."""
SMEAR_OFF, SMEAR_EDGE, SMEAR_MOST = 0.35, 0.2, 0.03
"""share, millimetres and share. Of the way from dry to wet that a smear has gone; from a drop, where colours mix; of the card.
Tried in bench, 2026-11-27."""
THING_DARKER, THING_SHORTEST, THING_LONGEST, THING_LIKE = 0.2, 0.6, 15.0, 0.35
"""share, millimetres and logarithm. By which what sits on a card is darker than it; its lengths that count; by which like things differ.
Judgement, 2026-11-27."""
DISH_RIM = 4.0
"""millimetres. Along a dish's edge, which are its rim. Common practice, 2026-11-27."""
LINE_LONG, LINE_OFF, LINE_WIDE = 15.0, 0.35, 1.2
"""millimetres. From which a straight dark line on a card is printed; by which it may be bent along that; how wide it is at the most, with
what lies across it. Tried in bench, 2026-11-27."""
SAME_WITHIN = 1.5
"""millimetres. By which a thing on a card may seem to have moved from week to week. Judgement, 2026-11-27."""
