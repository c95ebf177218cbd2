"""Enquiries that come to the desk, the plant health area of a farm, and photographs that hang on an enquiry."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

from bootmark.store.migrations import walls

revision = "0005"
down_revision = "0004"

VERDICTS = ("named", "needs a look", "not a pest", "normal for the season", "help has come", "must be reported", "cannot tell")
JSON = postgresql.JSONB(astext_type=sa.Text())


def _listed(*values: str) -> str:
    return ", ".join(f"'{value}'" for value in values)


def upgrade() -> None:
    op.add_column("farm", sa.Column("region", sa.String(), nullable=False, server_default=""))
    op.create_table(
        "enquiry",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("sender", sa.String(), nullable=False),
        sa.Column("came_as", sa.String(), nullable=False),
        sa.Column("crop", sa.String(), nullable=False),
        sa.Column("family", sa.String(), nullable=False),
        sa.Column("place", sa.String(), nullable=False),
        sa.Column("words", sa.String(), nullable=False),
        sa.Column("signs", JSON, nullable=False),
        sa.Column("verdict", sa.String(), nullable=False),
        sa.Column("state", sa.String(), nullable=False),
        sa.Column("working", JSON, nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("version_id", sa.Uuid(), nullable=False),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.CheckConstraint(f"came_as IN ({_listed('leaf', 'photograph', 'message')})", name="enquiry_came_as_known"),
        sa.CheckConstraint(f"state IN ({_listed('open', 'asked', 'answered')})", name="enquiry_state_known"),
        sa.CheckConstraint(f"verdict IN ({_listed(*VERDICTS)})", name="enquiry_verdict_known"),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_enquiry_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_enquiry")),
    )
    op.create_index(op.f("ix_enquiry_farm_id_state"), "enquiry", ["farm_id", "state"], unique=False)
    op.create_table(
        "enquiry_version",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("record_id", sa.Uuid(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("base", sa.Integer(), nullable=False),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        sa.Column("command_id", sa.Uuid(), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("received_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("payload", JSON, nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "command_id"], ["command.farm_id", "command.id"], name=op.f("fk_enquiry_version_farm_id_command_id")
        ),
        sa.ForeignKeyConstraint(
            ["farm_id", "record_id"], ["enquiry.farm_id", "enquiry.id"], name=op.f("fk_enquiry_version_farm_id_record_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_enquiry_version_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_enquiry_version")),
        sa.UniqueConstraint("farm_id", "record_id", "number", name=op.f("uq_enquiry_version_farm_id_record_id_number")),
    )
    walls.wall("enquiry")
    walls.append_only(("enquiry_version",))
    op.alter_column("photo", "stop_id", nullable=True)
    op.add_column("photo", sa.Column("enquiry_id", sa.Uuid(), nullable=True))
    op.add_column("photo", sa.Column("latitude", sa.Double(), nullable=True))
    op.add_column("photo", sa.Column("longitude", sa.Double(), nullable=True))
    op.create_foreign_key("fk_photo_farm_id_enquiry_id", "photo", "enquiry", ["farm_id", "enquiry_id"], ["farm_id", "id"])
    op.create_check_constraint("photo_hangs_on_one", "photo", "num_nonnulls(stop_id, enquiry_id) = 1")
    op.create_index(op.f("ix_photo_farm_id_enquiry_id"), "photo", ["farm_id", "enquiry_id"], unique=False)
