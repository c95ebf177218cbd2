"""Rules and computation. No interface and no database code in here."""

ENGINE = "1"
"""Version of the rules; pinned by every decision, so that its working can be shown for ever."""
