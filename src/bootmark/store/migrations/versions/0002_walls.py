"""Row-level security on every farm table, and the functions through which people sign in."""

from alembic import op

from bootmark.store.migrations import walls

revision = "0002"
down_revision = "0001"

RECORDS = ("station", "block", "biofix", "stop", "look", "sample", "decision", "application")
OTHERS = ("finding", "treatment", "return_visit", "weather_derived", "weather_upload")
ADDED_ONLY = ("command", "weather_day", "weather_hour", "forecast", "photo", *(f"{name}_version" for name in RECORDS))

FUNCTIONS = """
CREATE FUNCTION bm_sign_in(wanted text) RETURNS TABLE (id uuid, name text, password_hash text)
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ SELECT id, name, password_hash FROM account WHERE email = lower(wanted) $$;

CREATE FUNCTION bm_account(wanted uuid) RETURNS TABLE (id uuid, name text, email text)
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ SELECT id, name, email FROM account WHERE id = wanted $$;

CREATE FUNCTION bm_memberships(wanted uuid) RETURNS TABLE (farm_id uuid, farm text, role text, qualified boolean)
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ SELECT m.farm_id, f.name, m.role, m.qualified FROM membership m JOIN farm f ON f.id = m.farm_id
   WHERE m.account_id = wanted ORDER BY f.name $$;

CREATE FUNCTION bm_people() RETURNS TABLE (id uuid, name text, role text, qualified boolean)
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ SELECT a.id, a.name, m.role, m.qualified FROM membership m JOIN account a ON a.id = m.account_id
   WHERE m.farm_id = nullif(current_setting('bm.farm', true), '')::uuid ORDER BY a.name $$;

CREATE FUNCTION bm_farms() RETURNS TABLE (id uuid)
LANGUAGE sql SECURITY DEFINER SET search_path = public AS $$ SELECT id FROM farm $$;

CREATE FUNCTION bm_failures(wanted text, since timestamptz) RETURNS bigint
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ SELECT count(*) FROM sign_in_attempt WHERE key = wanted AND at > since $$;

CREATE FUNCTION bm_failed(wanted text, happened timestamptz) RETURNS void
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ DELETE FROM sign_in_attempt WHERE at < happened - interval '1 day';
   INSERT INTO sign_in_attempt (key, at) VALUES (wanted, happened) $$;
"""


def upgrade() -> None:
    walls.wall("farm", column="id")
    walls.wall("membership", grants="SELECT")
    for table in (*RECORDS, *OTHERS):
        walls.wall(table)
    walls.append_only(ADDED_ONLY)
    # The owner's functions above read these two before a farm is known.
    op.execute("CREATE POLICY membership_sign_in ON membership FOR SELECT TO bm_owner USING (true)")
    op.execute("CREATE POLICY farm_sign_in ON farm FOR SELECT TO bm_owner USING (true)")
    op.execute("GRANT SELECT ON agent, sign TO bm_web, bm_worker")
    for statement in FUNCTIONS.strip().split("\n\n"):
        op.execute(statement)
    for name in (
        "bm_sign_in(text)",
        "bm_account(uuid)",
        "bm_memberships(uuid)",
        "bm_people()",
        "bm_failures(text, timestamptz)",
        "bm_failed(text, timestamptz)",
    ):
        op.execute(f"REVOKE ALL ON FUNCTION {name} FROM PUBLIC")
        op.execute(f"GRANT EXECUTE ON FUNCTION {name} TO bm_web")
    op.execute("REVOKE ALL ON FUNCTION bm_farms() FROM PUBLIC")
    op.execute("GRANT EXECUTE ON FUNCTION bm_farms() TO bm_worker")
