"""Traps, sightings, crop stages, judged readings, stored forecasts; where a block takes its weather from; stations that send."""

from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

from bootmark.store.migrations import walls

revision = "0006"
down_revision = "0005"

JSON = postgresql.JSONB(astext_type=sa.Text())
MOMENT = sa.DateTime(timezone=True)


def _listed(*values: str) -> str:
    return ", ".join(f"'{value}'" for value in values)


def _farm(table: str) -> tuple[sa.Column[Any], sa.ForeignKeyConstraint]:
    return sa.Column("farm_id", sa.Uuid(), nullable=False), sa.ForeignKeyConstraint(["farm_id"], ["farm.id"], name=f"fk_{table}_farm_id")


def _within(table: str, column: str, target: str) -> sa.ForeignKeyConstraint:
    name = f"fk_{table}_farm_id_{column}"
    return sa.ForeignKeyConstraint(["farm_id", column], [f"{target}.farm_id", f"{target}.id"], name=name)


def _agent(table: str) -> sa.ForeignKeyConstraint:
    return sa.ForeignKeyConstraint(["agent"], ["agent.id"], name=f"fk_{table}_agent")


def _record(table: str, *parts: sa.Column[Any] | sa.Constraint) -> None:
    """A head table with its history, both behind the wall."""
    op.create_table(
        table,
        *_farm(table),
        sa.Column("id", sa.Uuid(), nullable=False),
        *parts,
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("version_id", sa.Uuid(), nullable=False),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        sa.Column("seen_at", MOMENT, nullable=False),
        sa.Column("account_id", sa.Uuid(), nullable=False),
        sa.PrimaryKeyConstraint("farm_id", "id", name=f"pk_{table}"),
    )
    history = f"{table}_version"
    op.create_table(
        history,
        *_farm(history),
        *(sa.Column(name, sa.Uuid(), nullable=False) for name in ("id", "record_id")),
        *(sa.Column(name, sa.Integer(), nullable=False) for name in ("number", "base")),
        sa.Column("conflict", sa.Boolean(), nullable=False),
        *(sa.Column(name, sa.Uuid(), nullable=False) for name in ("command_id", "account_id")),
        *(sa.Column(name, MOMENT, nullable=False) for name in ("seen_at", "received_at")),
        sa.Column("payload", JSON, nullable=False),
        _within(history, "record_id", table),
        _within(history, "command_id", "command"),
        sa.PrimaryKeyConstraint("farm_id", "id", name=f"pk_{history}"),
        sa.UniqueConstraint("farm_id", "record_id", "number", name=f"uq_{history}_farm_id_record_id_number"),
    )
    walls.wall(table)
    walls.append_only((history,))


def _index(table: str, *columns: str) -> None:
    op.create_index(f"ix_{table}_{'_'.join(columns)}", table, list(columns), unique=False)


def upgrade() -> None:
    op.add_column("station", sa.Column("kind", sa.String(), nullable=False, server_default="outdoor"))
    op.add_column("station", sa.Column("push_hash", sa.String(), nullable=False, server_default=""))
    op.add_column("station", sa.Column("failures", sa.Integer(), nullable=False, server_default="0"))
    op.add_column("station", sa.Column("next_try_at", MOMENT, nullable=True))
    op.add_column("station", sa.Column("last_error", sa.String(), nullable=False, server_default=""))
    op.create_check_constraint("station_kind_known", "station", f"kind IN ({_listed('outdoor', 'cover')})")
    op.add_column("block", sa.Column("weather", sa.String(), nullable=False, server_default="station"))
    op.add_column("block", sa.Column("elevation", sa.Double(), nullable=True))
    op.create_check_constraint("block_weather_known", "block", f"weather IN ({_listed('station', 'nearby')})")
    _record(
        "trap",
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("block_id", sa.Uuid(), nullable=False),
        sa.Column("agent", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("x", sa.Double(), nullable=False),
        sa.Column("y", sa.Double(), nullable=False),
        sa.Column("set_on", sa.Date(), nullable=False),
        sa.Column("lure_on", sa.Date(), nullable=True),
        sa.Column("lure_days", sa.Integer(), nullable=True),
        sa.Column("check_days", sa.Integer(), nullable=False),
        sa.Column("ended", sa.Boolean(), nullable=False),
        _within("trap", "block_id", "block"),
        _agent("trap"),
        sa.UniqueConstraint("farm_id", "name", name="uq_trap_farm_id_name"),
    )
    _index("trap", "farm_id", "block_id")
    _record(
        "trap_check",
        sa.Column("trap_id", sa.Uuid(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("caught", sa.Integer(), nullable=False),
        sa.Column("new_lure", sa.Boolean(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        _within("trap_check", "trap_id", "trap"),
    )
    _index("trap_check", "farm_id", "trap_id", "on")
    _record(
        "stage_sighting",
        sa.Column("block_id", sa.Uuid(), nullable=False),
        sa.Column("agent", sa.String(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("counts", JSON, nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        _within("stage_sighting", "block_id", "block"),
        _agent("stage_sighting"),
    )
    _index("stage_sighting", "farm_id", "block_id", "agent")
    _record(
        "crop_stage",
        sa.Column("block_id", sa.Uuid(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("code", sa.Integer(), nullable=False),
        sa.Column("node", sa.Integer(), nullable=True),
        sa.Column("counted", sa.String(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        _within("crop_stage", "block_id", "block"),
    )
    _index("crop_stage", "farm_id", "block_id", "on")
    _record(
        "judgement",
        sa.Column("station_id", sa.Uuid(), nullable=False),
        sa.Column("local_date", sa.Date(), nullable=False),
        sa.Column("flag", sa.String(), nullable=False),
        sa.Column("verdict", sa.String(), nullable=False),
        sa.Column("tmin", sa.Double(), nullable=True),
        sa.Column("tmax", sa.Double(), nullable=True),
        _within("judgement", "station_id", "station"),
        sa.CheckConstraint(f"verdict IN ({_listed('stands', 'left out', 'mended')})", name="judgement_verdict_known"),
        sa.UniqueConstraint("farm_id", "station_id", "local_date", name="uq_judgement_farm_id_station_id_local_date"),
    )
    op.create_table(
        "season_result",
        *_farm("season_result"),
        sa.Column("block_id", sa.Uuid(), nullable=False),
        sa.Column("agent", sa.String(), nullable=False),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("day", sa.Date(), nullable=False),
        sa.Column("needs", sa.Boolean(), nullable=False),
        sa.Column("opens", sa.Date(), nullable=True),
        sa.Column("closes", sa.Date(), nullable=True),
        sa.Column("told", JSON, nullable=False),
        sa.Column("arrays", sa.LargeBinary(), nullable=False),
        sa.Column("reckoned_at", MOMENT, nullable=False),
        _within("season_result", "block_id", "block"),
        _agent("season_result"),
        sa.PrimaryKeyConstraint("farm_id", "block_id", "agent", name="pk_season_result"),
    )
    _index("season_result", "farm_id", "needs")
    walls.wall("season_result")
    op.create_table(
        "season_run",
        *_farm("season_run"),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("day", sa.Date(), nullable=False),
        sa.Column("total", sa.Integer(), nullable=False),
        sa.Column("done", sa.Integer(), nullable=False),
        sa.Column("parts", JSON, nullable=False),
        sa.Column("started_at", MOMENT, nullable=False),
        sa.Column("finished_at", MOMENT, nullable=True),
        sa.PrimaryKeyConstraint("farm_id", "id", name="pk_season_run"),
    )
    _index("season_run", "farm_id", "started_at")
    walls.wall("season_run")
