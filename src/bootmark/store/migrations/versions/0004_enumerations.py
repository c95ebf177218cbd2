"""What verdicts, decisions, activities, roles and states may be: whole enumerations, from the start."""

from alembic import op

revision = "0004"
down_revision = "0003"

VERDICTS = ("named", "needs a look", "not a pest", "normal for the season", "help has come", "must be reported", "cannot tell")
DECISIONS = (
    "leave",
    "look again",
    "act now",
    "act in window",
    "spot-treat",
    "release",
    "cultural act",
    "harvest first",
    "salvage",
    "refer",
    "report",
)
ALLOWED = {
    ("look", "verdict"): VERDICTS,
    ("finding", "verdict"): VERDICTS,
    ("finding", "activity"): ("active", "finished", "parasitised", "dead", "not known"),
    ("decision", "kind"): DECISIONS,
    ("membership", "role"): ("owner", "adviser", "scout", "applicator", "viewer"),
    ("treatment", "state"): ("planned", "done", "withdrawn"),
    ("return_visit", "state"): ("booked", "answered", "withdrawn"),
    ("sample", "measure"): ("mean", "proportion", "trap"),
}


def upgrade() -> None:
    for (table, column), values in ALLOWED.items():
        listed = ", ".join(f"'{value}'" for value in values)
        op.create_check_constraint(f"{table}_{column}_known", table, f"{column} IN ({listed})")
