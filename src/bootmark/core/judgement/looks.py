"""Which look comes next."""

HANDLING_SECONDS = 60
"""seconds. That any look costs besides its own: to walk up, kneel, take the tool out, tell the answer. Judgement, 2026-11-24."""
WORTH_A_LOOK = 0.02
"""bits. Below which a look is not worth its walk. Judgement, 2026-11-24."""
LEADS = 10.0
"""bits. That a whole chance of leading with an agent that is at work is worth. Tried in bench, 2026-11-25."""
THE_CALL = 0.1
"""factor. What a bit about the call, or a chance to confirm the leader, counts for beside the chance of leading rightly. Tried in bench,
2026-11-25."""
REST_TELLS = 0.6
"""share. Of what each further sign of a look tells by itself, that those asked before have not told. Judgement, 2026-11-24."""
UNLIKELY = 3e-4
"""chance. Below which a set of causes is not asked about. Judgement, 2026-11-24."""
CHANGES_THE_CALL = 0.1
"""share. Of what the best look says about the call, from which a look may change it. Judgement, 2026-11-25."""
SPLITS = 0.1
"""chance. Between the first and the last of the suspects, from which a sign is said to tell them apart. Judgement, 2026-11-24."""
NIGHT = (21, 5)
"""hours. From and until which looks of the night are asked for. Common practice, 2026-11-24."""
