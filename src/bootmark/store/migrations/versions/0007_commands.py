"""Commands build on commands: what each builds on, its shape's version, and the times that a device told."""

from alembic import op

from bootmark.store.migrations import walls

revision = "0007"
down_revision = "0006"

HEADS = (
    "application", "biofix", "block", "crop_stage", "decision", "enquiry", "judgement", "look",
    "sample", "stage_sighting", "station", "stop", "trap", "trap_check",
)  # fmt: skip


def upgrade() -> None:
    op.execute("ALTER TABLE command ADD COLUMN v integer NOT NULL DEFAULT 1")
    op.execute("ALTER TABLE command ADD COLUMN base uuid")
    op.execute("ALTER TABLE command ADD COLUMN merges jsonb NOT NULL DEFAULT '[]'")
    op.execute("ALTER TABLE command ADD COLUMN told_at timestamptz")
    op.execute("ALTER TABLE command ADD COLUMN sent_at timestamptz")
    op.execute("ALTER TABLE command ALTER COLUMN base_version DROP NOT NULL")
    for head in HEADS:
        history = f"{head}_version"
        op.execute(f"ALTER TABLE {history} ADD COLUMN base_command uuid")
        op.execute(f"ALTER TABLE {history} ALTER COLUMN base DROP NOT NULL")
        op.execute(f"ALTER TABLE {head} ADD COLUMN command_id uuid")
        with walls.rows(head, history) as change:
            based = f"SELECT count(*) FROM {history} WHERE base > 0"
            change(
                f"UPDATE {history} late SET base_command = early.command_id FROM {history} early "
                "WHERE early.farm_id = late.farm_id AND early.record_id = late.record_id AND early.number = late.base AND late.base > 0",
                based,
            )
            change(
                f"UPDATE {head} SET command_id = made.command_id FROM {history} made "
                f"WHERE made.farm_id = {head}.farm_id AND made.id = {head}.version_id",
                f"SELECT count(*) FROM {head}",
            )
        op.execute(f"ALTER TABLE {head} ALTER COLUMN command_id SET NOT NULL")
    with walls.rows("command", *(f"{head}_version" for head in HEADS)) as change:
        for head in HEADS:
            change(
                f"UPDATE command SET base = made.base_command FROM {head}_version made "
                "WHERE made.farm_id = command.farm_id AND made.command_id = command.id AND made.base_command IS NOT NULL",
                f"SELECT count(*) FROM {head}_version WHERE base_command IS NOT NULL",
            )
