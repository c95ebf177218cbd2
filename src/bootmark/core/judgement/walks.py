"""What is looked at when, what that is worth, and how long it takes."""

CALM_RHYTHM_DAYS = 7
"""days. Between looks at a block. Common practice, 2026-11-23."""
FAST_RHYTHM_DAYS = 3
"""days. Between looks in a hot dry spell, in which mites double in days. Common practice, 2026-11-23."""
FAST_SPELL_DAYS = 5
"""days. Of a hot dry spell from which that holds. Judgement, 2026-11-23."""
WINDOW_SOON_DAYS = 6
"""days. Before a control's window opens, from which its block is on the walk. Judgement, 2026-11-23."""
WINDOW_CLOSES_DAYS = 3
"""days. Before a window closes, from which a day late costs most. Judgement, 2026-11-27."""
GROWS_SOON_DAYS = 3
"""days. Before what was counted passes its threshold, from which its block is on the walk. Judgement, 2026-11-27."""
CHANCE_RETURN, CHANCE_CASE, CHANCE_OPEN, CHANCE_SOON, CHANCE_NEVER = 0.6, 0.5, 0.35, 0.2, 0.25
"""chances that a decision is due. By a booked look, a case without a name, a window that is open, one that comes, a block that nobody has
looked at. Judgement, 2026-11-27."""
CHANCE_TRAP, CHANCE_UNSEEN, CHANCE_GROWS = (0.12, 0.22), (0.1, 0.4), (0.8, 0.4)
"""chances, least and most, or near and far. By a trap that is due, a rhythm that is over, what grows towards its threshold. Judgement,
2026-11-27."""
CHANCE_HISTORY, CHANCE_NEXT_DOOR, CHANCE_ASKED = 0.12, 0.25, 0.01
"""chances. By what was proved here in these weeks of earlier years, or beside it lately, and by the scout's wish alone. Judgement,
2026-11-27."""
CHANCE_A_DAY, CHANCE_MOST = 0.02, 0.95
"""chance. That each day late adds, and the most. Judgement, 2026-11-27."""
COST_LATER = 0.85
"""share of the worst. What a day late costs where there are days left. Judgement, 2026-11-27."""
HISTORY_DAYS, BESIDE_METRES = 15, 120.0
"""days and metres. To either side in earlier years; from middle to middle of blocks. Judgement, 2026-11-27."""
LURE_DAYS = 42
"""days. That a lure lasts where its label says nothing else. Common practice, 2026-11-25."""
CHECK_DAYS = 3
"""days. Between readings of a trap where nobody said. Common practice, 2026-11-25."""
STORE_WEEK, STORE_MONTH = 7, 30
"""days. Between looks at a store's thermometer and traps, and between sieved samples. Common practice, 2026-11-27."""
LOOK_MINUTES = {"return": 8, "case": 6, "trap": 4, "window": 8, "rhythm": 8, "asked": 8}
"""minutes. That a stop takes, by what calls for it; the longest of its reasons counts. Judgement, 2026-11-27."""
METRES_A_MINUTE = 60
"""metres a minute. Between rows with a bag: a stroll. Judgement, 2026-11-27."""
CATCH_DAYS = 10
"""days. Since a trap was read last, after which its catch says nothing of today. Judgement, 2026-11-27."""
FOUND_DAYS = 14
"""days. Since a pest was proved in a block, within which clean blocks are walked before it. Judgement, 2026-11-27."""
