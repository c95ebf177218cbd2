"""What guards the database, as text: policies, functions, triggers, grants, and the queue's schema."""

import os

import psycopg

from bootmark.store import setup

QUERIES = {
    "walls": """
        SELECT relname || ': ' || CASE WHEN relrowsecurity AND relforcerowsecurity THEN 'forced' WHEN relrowsecurity THEN 'not forced'
            ELSE 'none' END
        FROM pg_class WHERE relkind = 'r' AND relnamespace = 'public'::regnamespace""",
    "policies": """
        SELECT tablename || ' ' || policyname || ' ' || cmd || ' to ' || array_to_string(roles, ',') || ' using ' || coalesce(qual, '-')
            || ' check ' || coalesce(with_check, '-')
        FROM pg_policies WHERE schemaname = 'public'""",
    "functions": """
        SELECT p.oid::regprocedure || ' ' || CASE WHEN prosecdef THEN 'definer ' ELSE 'invoker ' END
            || coalesce(array_to_string(proconfig, ','), '-') || ' ' || coalesce(array_to_string(proacl, ' '), 'public') || ' ' || md5(prosrc)
        FROM pg_proc p WHERE pronamespace = 'public'::regnamespace""",
    "triggers": """
        SELECT tgrelid::regclass || ' ' || tgname || ' ' || tgfoid::regproc FROM pg_trigger
        WHERE NOT tgisinternal AND tgrelid IN (SELECT oid FROM pg_class WHERE relnamespace = 'public'::regnamespace)""",
    "grants": """
        SELECT table_name || ' ' || grantee || ' ' || string_agg(privilege_type, ',' ORDER BY privilege_type)
        FROM information_schema.role_table_grants WHERE table_schema = 'public' AND grantee IN ('bm_web', 'bm_worker', 'PUBLIC')
        GROUP BY table_name, grantee""",
    "queue": """
        SELECT table_name || '.' || column_name || ' ' || data_type FROM information_schema.columns
        WHERE table_schema = 'public' AND table_name LIKE 'procrastinate%'""",
}


def snapshot() -> str:
    """Of the database that is in use, a line each, in order."""
    lines = []
    with psycopg.connect(setup.plain(os.environ["BOOTMARK_ADMIN_URL"])) as connection:
        for title, query in QUERIES.items():
            lines += [f"# {title}", *sorted(str(row[0]) for row in connection.execute(query.encode())), ""]  # type: ignore[call-overload]
    return "\n".join(lines)
