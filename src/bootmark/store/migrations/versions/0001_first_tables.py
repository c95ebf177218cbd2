"""First tables"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "account",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("email", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("password_hash", sa.String(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_account")),
        sa.UniqueConstraint("email", name=op.f("uq_account_email")),
    )
    op.create_table(
        "agent",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("retired", sa.Boolean(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_agent")),
    )
    op.create_table(
        "farm",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("latitude", sa.Double(), nullable=False),
        sa.Column("longitude", sa.Double(), nullable=False),
        sa.Column("time_zone", sa.String(), nullable=False),
        sa.Column("clock_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("policy", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_farm")),
    )
    op.create_table(
        "sign",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("retired", sa.Boolean(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_sign")),
    )
    op.create_table(
        "sign_in_attempt",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_sign_in_attempt")),
    )
    op.create_index(op.f("ix_sign_in_attempt_key"), "sign_in_attempt", ["key"], unique=False)
    op.create_table(
        "command",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("record_id", sa.Uuid(), nullable=False),
        sa.Column("base_version", sa.Integer(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("received_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.Column("content_hash", sa.String(), nullable=False),
        sa.Column("result", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_command_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_command")),
    )
    op.create_table(
        "membership",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.Column("role", sa.String(), nullable=False),
        sa.Column("qualified", sa.Boolean(), nullable=False),
        sa.ForeignKeyConstraint(["account_id"], ["account.id"], name=op.f("fk_membership_account_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_membership_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "account_id", name=op.f("pk_membership")),
    )
    op.create_table(
        "station",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("latitude", sa.Double(), nullable=False),
        sa.Column("longitude", sa.Double(), nullable=False),
        sa.Column("elevation", sa.Double(), nullable=False),
        sa.Column("offset_minutes", sa.Integer(), nullable=False),
        sa.Column("url", sa.String(), nullable=False),
        sa.Column("heard_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("version_id", sa.Uuid(), nullable=False),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_station_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_station")),
    )
    op.create_table(
        "block",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("crop", sa.String(), nullable=False),
        sa.Column("place", sa.String(), nullable=False),
        sa.Column("cultivar", sa.String(), nullable=False),
        sa.Column("area", sa.Double(), nullable=False),
        sa.Column("outline", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("station_id", sa.Uuid(), nullable=True),
        sa.Column("harvest_from", sa.Date(), nullable=True),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("version_id", sa.Uuid(), nullable=False),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.ForeignKeyConstraint(["farm_id", "station_id"], ["station.farm_id", "station.id"], name=op.f("fk_block_farm_id_station_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_block_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_block")),
        sa.UniqueConstraint("farm_id", "name", name=op.f("uq_block_farm_id_name")),
    )
    op.create_table(
        "forecast",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("station_id", sa.Uuid(), nullable=False),
        sa.Column("issued_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("valid_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("temp", sa.Double(), nullable=False),
        sa.Column("rh", sa.Double(), nullable=False),
        sa.Column("wind", sa.Double(), nullable=False),
        sa.Column("rain", sa.Double(), nullable=False),
        sa.ForeignKeyConstraint(["farm_id", "station_id"], ["station.farm_id", "station.id"], name=op.f("fk_forecast_farm_id_station_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_forecast_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "station_id", "issued_at", "valid_at", name=op.f("pk_forecast")),
    )
    op.create_table(
        "station_version",
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
        sa.Column("payload", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "command_id"], ["command.farm_id", "command.id"], name=op.f("fk_station_version_farm_id_command_id")
        ),
        sa.ForeignKeyConstraint(
            ["farm_id", "record_id"], ["station.farm_id", "station.id"], name=op.f("fk_station_version_farm_id_record_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_station_version_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_station_version")),
        sa.UniqueConstraint("farm_id", "record_id", "number", name=op.f("uq_station_version_farm_id_record_id_number")),
    )
    op.create_table(
        "weather_day",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("station_id", sa.Uuid(), nullable=False),
        sa.Column("local_date", sa.Date(), nullable=False),
        sa.Column("received_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("tmin", sa.Double(), nullable=False),
        sa.Column("tmax", sa.Double(), nullable=False),
        sa.Column("rain", sa.Double(), nullable=True),
        sa.Column("source", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "station_id"], ["station.farm_id", "station.id"], name=op.f("fk_weather_day_farm_id_station_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_weather_day_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "station_id", "local_date", "received_at", name=op.f("pk_weather_day")),
    )
    op.create_table(
        "weather_derived",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("station_id", sa.Uuid(), nullable=False),
        sa.Column("local_date", sa.Date(), nullable=False),
        sa.Column("tmin", sa.Double(), nullable=True),
        sa.Column("tmax", sa.Double(), nullable=True),
        sa.Column("filled", sa.String(), nullable=False),
        sa.Column("flags", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "station_id"], ["station.farm_id", "station.id"], name=op.f("fk_weather_derived_farm_id_station_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_weather_derived_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "station_id", "local_date", name=op.f("pk_weather_derived")),
    )
    op.create_table(
        "weather_hour",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("station_id", sa.Uuid(), nullable=False),
        sa.Column("utc_hour", sa.DateTime(timezone=True), nullable=False),
        sa.Column("received_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("temp", sa.Double(), nullable=False),
        sa.Column("rh", sa.Double(), nullable=False),
        sa.Column("wind", sa.Double(), nullable=False),
        sa.Column("rain", sa.Double(), nullable=False),
        sa.Column("source", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "station_id"], ["station.farm_id", "station.id"], name=op.f("fk_weather_hour_farm_id_station_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_weather_hour_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "station_id", "utc_hour", "received_at", name=op.f("pk_weather_hour")),
    )
    op.create_table(
        "weather_upload",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("station_id", sa.Uuid(), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.Column("received_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("file_name", sa.String(), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.Column("choices", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("imported_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("summary", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "station_id"], ["station.farm_id", "station.id"], name=op.f("fk_weather_upload_farm_id_station_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_weather_upload_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_weather_upload")),
    )
    op.create_table(
        "biofix",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("block_id", sa.Uuid(), nullable=False),
        sa.Column("agent", sa.String(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("basis", sa.String(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("version_id", sa.Uuid(), nullable=False),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.ForeignKeyConstraint(["agent"], ["agent.id"], name=op.f("fk_biofix_agent")),
        sa.ForeignKeyConstraint(["farm_id", "block_id"], ["block.farm_id", "block.id"], name=op.f("fk_biofix_farm_id_block_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_biofix_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_biofix")),
    )
    op.create_index(op.f("ix_biofix_farm_id_block_id_agent"), "biofix", ["farm_id", "block_id", "agent"], unique=False)
    op.create_table(
        "block_version",
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
        sa.Column("payload", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "command_id"], ["command.farm_id", "command.id"], name=op.f("fk_block_version_farm_id_command_id")
        ),
        sa.ForeignKeyConstraint(["farm_id", "record_id"], ["block.farm_id", "block.id"], name=op.f("fk_block_version_farm_id_record_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_block_version_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_block_version")),
        sa.UniqueConstraint("farm_id", "record_id", "number", name=op.f("uq_block_version_farm_id_record_id_number")),
    )
    op.create_table(
        "stop",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("block_id", sa.Uuid(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("where", sa.String(), nullable=False),
        sa.Column("return_id", sa.Uuid(), nullable=True),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("version_id", sa.Uuid(), nullable=False),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.ForeignKeyConstraint(["farm_id", "block_id"], ["block.farm_id", "block.id"], name=op.f("fk_stop_farm_id_block_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_stop_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_stop")),
    )
    op.create_index(op.f("ix_stop_farm_id_block_id"), "stop", ["farm_id", "block_id"], unique=False)
    op.create_table(
        "biofix_version",
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
        sa.Column("payload", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "command_id"], ["command.farm_id", "command.id"], name=op.f("fk_biofix_version_farm_id_command_id")
        ),
        sa.ForeignKeyConstraint(
            ["farm_id", "record_id"], ["biofix.farm_id", "biofix.id"], name=op.f("fk_biofix_version_farm_id_record_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_biofix_version_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_biofix_version")),
        sa.UniqueConstraint("farm_id", "record_id", "number", name=op.f("uq_biofix_version_farm_id_record_id_number")),
    )
    op.create_table(
        "look",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("stop_id", sa.Uuid(), nullable=False),
        sa.Column("signs", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("verdict", sa.String(), nullable=False),
        sa.Column("working", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("version_id", sa.Uuid(), nullable=False),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.ForeignKeyConstraint(["farm_id", "stop_id"], ["stop.farm_id", "stop.id"], name=op.f("fk_look_farm_id_stop_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_look_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_look")),
    )
    op.create_index(op.f("ix_look_farm_id_stop_id"), "look", ["farm_id", "stop_id"], unique=False)
    op.create_table(
        "photo",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("stop_id", sa.Uuid(), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("width", sa.Integer(), nullable=False),
        sa.Column("height", sa.Integer(), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.ForeignKeyConstraint(["farm_id", "stop_id"], ["stop.farm_id", "stop.id"], name=op.f("fk_photo_farm_id_stop_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_photo_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_photo")),
    )
    op.create_index(op.f("ix_photo_farm_id_stop_id"), "photo", ["farm_id", "stop_id"], unique=False)
    op.create_table(
        "sample",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("stop_id", sa.Uuid(), nullable=False),
        sa.Column("agent", sa.String(), nullable=False),
        sa.Column("unit", sa.String(), nullable=False),
        sa.Column("measure", sa.String(), nullable=False),
        sa.Column("counts", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("enemies", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("version_id", sa.Uuid(), nullable=False),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.ForeignKeyConstraint(["agent"], ["agent.id"], name=op.f("fk_sample_agent")),
        sa.ForeignKeyConstraint(["farm_id", "stop_id"], ["stop.farm_id", "stop.id"], name=op.f("fk_sample_farm_id_stop_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_sample_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_sample")),
    )
    op.create_index(op.f("ix_sample_farm_id_stop_id"), "sample", ["farm_id", "stop_id"], unique=False)
    op.create_table(
        "stop_version",
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
        sa.Column("payload", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "command_id"], ["command.farm_id", "command.id"], name=op.f("fk_stop_version_farm_id_command_id")
        ),
        sa.ForeignKeyConstraint(["farm_id", "record_id"], ["stop.farm_id", "stop.id"], name=op.f("fk_stop_version_farm_id_record_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_stop_version_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_stop_version")),
        sa.UniqueConstraint("farm_id", "record_id", "number", name=op.f("uq_stop_version_farm_id_record_id_number")),
    )
    op.create_table(
        "decision",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("look_id", sa.Uuid(), nullable=False),
        sa.Column("sample_id", sa.Uuid(), nullable=True),
        sa.Column("block_id", sa.Uuid(), nullable=False),
        sa.Column("agent", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("headline", sa.String(), nullable=False),
        sa.Column("control", sa.String(), nullable=False),
        sa.Column("working", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("version_id", sa.Uuid(), nullable=False),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.ForeignKeyConstraint(["agent"], ["agent.id"], name=op.f("fk_decision_agent")),
        sa.ForeignKeyConstraint(["farm_id", "block_id"], ["block.farm_id", "block.id"], name=op.f("fk_decision_farm_id_block_id")),
        sa.ForeignKeyConstraint(["farm_id", "look_id"], ["look.farm_id", "look.id"], name=op.f("fk_decision_farm_id_look_id")),
        sa.ForeignKeyConstraint(["farm_id", "sample_id"], ["sample.farm_id", "sample.id"], name=op.f("fk_decision_farm_id_sample_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_decision_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_decision")),
    )
    op.create_table(
        "finding",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("look_id", sa.Uuid(), nullable=False),
        sa.Column("look_version", sa.Integer(), nullable=False),
        sa.Column("block_id", sa.Uuid(), nullable=False),
        sa.Column("agent", sa.String(), nullable=False),
        sa.Column("verdict", sa.String(), nullable=False),
        sa.Column("probability", sa.Double(), nullable=False),
        sa.Column("confirmed", sa.Boolean(), nullable=False),
        sa.Column("activity", sa.String(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.ForeignKeyConstraint(["agent"], ["agent.id"], name=op.f("fk_finding_agent")),
        sa.ForeignKeyConstraint(["farm_id", "block_id"], ["block.farm_id", "block.id"], name=op.f("fk_finding_farm_id_block_id")),
        sa.ForeignKeyConstraint(["farm_id", "look_id"], ["look.farm_id", "look.id"], name=op.f("fk_finding_farm_id_look_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_finding_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_finding")),
    )
    op.create_index(op.f("ix_finding_farm_id_block_id_agent"), "finding", ["farm_id", "block_id", "agent"], unique=False)
    op.create_table(
        "look_version",
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
        sa.Column("payload", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "command_id"], ["command.farm_id", "command.id"], name=op.f("fk_look_version_farm_id_command_id")
        ),
        sa.ForeignKeyConstraint(["farm_id", "record_id"], ["look.farm_id", "look.id"], name=op.f("fk_look_version_farm_id_record_id")),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_look_version_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_look_version")),
        sa.UniqueConstraint("farm_id", "record_id", "number", name=op.f("uq_look_version_farm_id_record_id_number")),
    )
    op.create_table(
        "sample_version",
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
        sa.Column("payload", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "command_id"], ["command.farm_id", "command.id"], name=op.f("fk_sample_version_farm_id_command_id")
        ),
        sa.ForeignKeyConstraint(
            ["farm_id", "record_id"], ["sample.farm_id", "sample.id"], name=op.f("fk_sample_version_farm_id_record_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_sample_version_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_sample_version")),
        sa.UniqueConstraint("farm_id", "record_id", "number", name=op.f("uq_sample_version_farm_id_record_id_number")),
    )
    op.create_table(
        "decision_version",
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
        sa.Column("payload", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "command_id"], ["command.farm_id", "command.id"], name=op.f("fk_decision_version_farm_id_command_id")
        ),
        sa.ForeignKeyConstraint(
            ["farm_id", "record_id"], ["decision.farm_id", "decision.id"], name=op.f("fk_decision_version_farm_id_record_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_decision_version_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_decision_version")),
        sa.UniqueConstraint("farm_id", "record_id", "number", name=op.f("uq_decision_version_farm_id_record_id_number")),
    )
    op.create_table(
        "treatment",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("decision_id", sa.Uuid(), nullable=False),
        sa.Column("decision_version", sa.Integer(), nullable=False),
        sa.Column("block_id", sa.Uuid(), nullable=False),
        sa.Column("agent", sa.String(), nullable=False),
        sa.Column("control", sa.String(), nullable=False),
        sa.Column("ordinal", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("not_after", sa.Date(), nullable=True),
        sa.Column("why", sa.String(), nullable=False),
        sa.Column("state", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["agent"], ["agent.id"], name=op.f("fk_treatment_agent")),
        sa.ForeignKeyConstraint(["farm_id", "block_id"], ["block.farm_id", "block.id"], name=op.f("fk_treatment_farm_id_block_id")),
        sa.ForeignKeyConstraint(
            ["farm_id", "decision_id"], ["decision.farm_id", "decision.id"], name=op.f("fk_treatment_farm_id_decision_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_treatment_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_treatment")),
    )
    op.create_index(op.f("ix_treatment_farm_id_block_id"), "treatment", ["farm_id", "block_id"], unique=False)
    op.create_table(
        "application",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("treatment_id", sa.Uuid(), nullable=False),
        sa.Column("started_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("finished_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("amount", sa.Double(), nullable=False),
        sa.Column("amount_unit", sa.String(), nullable=False),
        sa.Column("area", sa.Double(), nullable=False),
        sa.Column("working", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("version_id", sa.Uuid(), nullable=False),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "treatment_id"], ["treatment.farm_id", "treatment.id"], name=op.f("fk_application_farm_id_treatment_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_application_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_application")),
        sa.UniqueConstraint("farm_id", "treatment_id", name=op.f("uq_application_farm_id_treatment_id")),
    )
    op.create_table(
        "application_version",
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
        sa.Column("payload", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.ForeignKeyConstraint(
            ["farm_id", "command_id"], ["command.farm_id", "command.id"], name=op.f("fk_application_version_farm_id_command_id")
        ),
        sa.ForeignKeyConstraint(
            ["farm_id", "record_id"], ["application.farm_id", "application.id"], name=op.f("fk_application_version_farm_id_record_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_application_version_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_application_version")),
        sa.UniqueConstraint("farm_id", "record_id", "number", name=op.f("uq_application_version_farm_id_record_id_number")),
    )
    op.create_table(
        "return_visit",
        sa.Column("farm_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("block_id", sa.Uuid(), nullable=False),
        sa.Column("agent", sa.String(), nullable=False),
        sa.Column("decision_id", sa.Uuid(), nullable=False),
        sa.Column("application_id", sa.Uuid(), nullable=True),
        sa.Column("due_on", sa.Date(), nullable=False),
        sa.Column("look_for", sa.String(), nullable=False),
        sa.Column("state", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["agent"], ["agent.id"], name=op.f("fk_return_visit_agent")),
        sa.ForeignKeyConstraint(
            ["farm_id", "application_id"], ["application.farm_id", "application.id"], name=op.f("fk_return_visit_farm_id_application_id")
        ),
        sa.ForeignKeyConstraint(["farm_id", "block_id"], ["block.farm_id", "block.id"], name=op.f("fk_return_visit_farm_id_block_id")),
        sa.ForeignKeyConstraint(
            ["farm_id", "decision_id"], ["decision.farm_id", "decision.id"], name=op.f("fk_return_visit_farm_id_decision_id")
        ),
        sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=op.f("fk_return_visit_farm_id")),
        sa.PrimaryKeyConstraint("farm_id", "id", name=op.f("pk_return_visit")),
    )
    op.create_index(op.f("ix_return_visit_farm_id_state_due_on"), "return_visit", ["farm_id", "state", "due_on"], unique=False)
    op.create_foreign_key("fk_stop_farm_id_return_id", "stop", "return_visit", ["farm_id", "return_id"], ["farm_id", "id"])
