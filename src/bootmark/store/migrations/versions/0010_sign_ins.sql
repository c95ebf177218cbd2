-- A sign-in. Only the hash of its token is kept. asked_at: when the password was given last; ended_by: what ended it before its time.
CREATE TABLE sign_in_session (
    id uuid NOT NULL,
    token_hash character varying NOT NULL,
    account_id uuid NOT NULL,
    device character varying NOT NULL,
    address character varying NOT NULL,
    made_at timestamp with time zone NOT NULL,
    asked_at timestamp with time zone NOT NULL,
    seen_at timestamp with time zone NOT NULL,
    ends_at timestamp with time zone NOT NULL,
    ended_at timestamp with time zone,
    ended_by character varying NOT NULL DEFAULT '',
    CONSTRAINT pk_sign_in_session PRIMARY KEY (id),
    CONSTRAINT uq_sign_in_session_token_hash UNIQUE (token_hash),
    CONSTRAINT fk_sign_in_session_account_id_account FOREIGN KEY (account_id) REFERENCES account (id)
);
CREATE INDEX ix_sign_in_session_account_id ON sign_in_session (account_id);

-- What came of a try to sign in. name: the address as it was folded, cut to what an address may be.
CREATE TABLE sign_in_event (
    id bigserial NOT NULL,
    at timestamp with time zone NOT NULL,
    account_id uuid,
    name character varying NOT NULL,
    address character varying NOT NULL,
    device character varying NOT NULL,
    outcome character varying NOT NULL,
    CONSTRAINT pk_sign_in_event PRIMARY KEY (id)
);
CREATE INDEX ix_sign_in_event_account_id_at ON sign_in_event (account_id, at);
CREATE INDEX ix_sign_in_event_at ON sign_in_event (at);

CREATE FUNCTION bm_session_open(
    key uuid, hashed text, account uuid, on_device text, from_address text, happened timestamptz, until timestamptz
) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    DELETE FROM sign_in_session WHERE ends_at < happened - interval '90 days';
    INSERT INTO sign_in_session (id, token_hash, account_id, device, address, made_at, asked_at, seen_at, ends_at)
    VALUES (key, hashed, account, on_device, from_address, happened, happened, happened, until)
$$;

-- Whose sign-in a token is. When it was seen is written at most every five minutes, and waits for nobody who writes the same.
CREATE FUNCTION bm_session(hashed text, happened timestamptz)
RETURNS TABLE (session_id uuid, account_id uuid, name text, email text, asked_at timestamptz)
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
#variable_conflict use_column
BEGIN
    UPDATE sign_in_session SET seen_at = happened WHERE id = (
        SELECT s.id FROM sign_in_session s
        WHERE s.token_hash = hashed AND s.ended_at IS NULL AND s.ends_at > happened AND s.seen_at < happened - interval '5 minutes'
        FOR UPDATE SKIP LOCKED);
    RETURN QUERY
        SELECT s.id, s.account_id, a.name::text, a.email::text, s.asked_at
        FROM sign_in_session s JOIN account a ON a.id = s.account_id
        WHERE s.token_hash = hashed AND s.ended_at IS NULL AND s.ends_at > happened;
END
$$;

CREATE FUNCTION bm_session_asked(hashed text, happened timestamptz) RETURNS void
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ UPDATE sign_in_session SET asked_at = happened WHERE token_hash = hashed AND ended_at IS NULL $$;

CREATE FUNCTION bm_session_end(account uuid, key uuid, happened timestamptz, by text) RETURNS void
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ UPDATE sign_in_session SET ended_at = happened, ended_by = by WHERE account_id = account AND id = key AND ended_at IS NULL $$;

CREATE FUNCTION bm_sessions(account uuid, happened timestamptz)
RETURNS TABLE (id uuid, device text, address text, made_at timestamptz, seen_at timestamptz, ends_at timestamptz)
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    SELECT id, device, address, made_at, seen_at, ends_at FROM sign_in_session
    WHERE account_id = account AND ended_at IS NULL AND ends_at > happened ORDER BY seen_at DESC
$$;

-- The owner of a farm signs a member of it out everywhere; a number of sign-ins. Of another farm's people it ends none.
CREATE FUNCTION bm_member_signed_out(account uuid, happened timestamptz) RETURNS bigint
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    WITH gone AS (
        UPDATE sign_in_session SET ended_at = happened, ended_by = 'owner'
        WHERE account_id = account AND ended_at IS NULL AND ends_at > happened AND EXISTS (
            SELECT FROM membership m
            WHERE m.account_id = account AND m.farm_id = nullif(current_setting('bm.farm', true), '')::uuid)
        RETURNING 1)
    SELECT count(*) FROM gone
$$;

-- Whoever changes a password ends every sign-in that the old one opened.
CREATE FUNCTION bm_password_changed() RETURNS trigger
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
BEGIN
    UPDATE sign_in_session SET ended_at = now(), ended_by = 'password' WHERE account_id = NEW.id AND ended_at IS NULL;
    RETURN NULL;
END
$$;
CREATE TRIGGER password_changed AFTER UPDATE OF password_hash ON account
FOR EACH ROW WHEN (OLD.password_hash IS DISTINCT FROM NEW.password_hash) EXECUTE FUNCTION bm_password_changed();

CREATE FUNCTION bm_sign_in_event(account uuid, folded text, from_address text, on_device text, came_of_it text, happened timestamptz)
RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    DELETE FROM sign_in_event WHERE at < happened - interval '400 days';
    INSERT INTO sign_in_event (at, account_id, name, address, device, outcome)
    VALUES (happened, account, folded, from_address, on_device, came_of_it)
$$;

CREATE FUNCTION bm_sign_in_events(account uuid, most integer)
RETURNS TABLE (at timestamptz, address text, device text, outcome text)
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ SELECT at, address, device, outcome FROM sign_in_event WHERE account_id = account ORDER BY at DESC, id DESC LIMIT most $$;

-- Whether somebody has signed in to this account from this address of late.
CREATE FUNCTION bm_knows_address(folded text, from_address text, since timestamptz) RETURNS boolean
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    SELECT EXISTS (SELECT FROM sign_in_event e JOIN account a ON a.id = e.account_id
                   WHERE a.email = folded AND e.address = from_address AND e.outcome = 'signed in' AND e.at > since)
$$;

CREATE FUNCTION bm_tries(wanted text, since timestamptz) RETURNS TABLE (failures bigint, newest timestamptz)
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ SELECT count(*), max(at) FROM sign_in_attempt WHERE key = wanted AND at > since $$;

CREATE FUNCTION bm_tries_forgotten(wanted text) RETURNS void
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ DELETE FROM sign_in_attempt WHERE key = wanted $$;


CREATE FUNCTION bm_health() RETURNS TABLE (revision text, worker_seen timestamptz)
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ SELECT (SELECT max(version_num)::text FROM alembic_version), (SELECT max(last_heartbeat) FROM procrastinate_workers) $$;

-- Somebody comes to a farm by the token of a sign-in: who it is there and what the farm's rows are at, in one question. The wall is told
-- of the farm only where the account is a member; otherwise there is no row, and nothing is told.
DROP FUNCTION bm_enter(uuid, uuid);
CREATE FUNCTION bm_enter(hashed text, wanted uuid, happened timestamptz)
RETURNS TABLE (
    session_id uuid, account_id uuid, name text, email text, asked_at timestamptz, farm text, role text, qualified boolean, stamps jsonb
)
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
#variable_conflict use_column
BEGIN
    RETURN QUERY
        SELECT s.session_id, s.account_id, s.name, s.email, s.asked_at, f.name::text, m.role::text, m.qualified,
            (SELECT jsonb_object_agg(noted.topic, noted.stamp) FROM (
                SELECT c.topic, md5(string_agg(c.writer::text || ':' || c.writes, ',' ORDER BY c.writer)) AS stamp
                FROM farm_change c WHERE c.farm_id = wanted GROUP BY c.topic
            ) noted)
        FROM bm_session(hashed, happened) s
        JOIN membership m ON m.account_id = s.account_id AND m.farm_id = wanted JOIN farm f ON f.id = m.farm_id;
    IF FOUND THEN
        PERFORM set_config('bm.farm', wanted::text, true);
    END IF;
END
$$;

REVOKE ALL ON FUNCTION
    bm_session_open(uuid, text, uuid, text, text, timestamptz, timestamptz), bm_session(text, timestamptz),
    bm_session_asked(text, timestamptz), bm_session_end(uuid, uuid, timestamptz, text), bm_sessions(uuid, timestamptz),
    bm_member_signed_out(uuid, timestamptz), bm_password_changed(),
    bm_sign_in_event(uuid, text, text, text, text, timestamptz), bm_sign_in_events(uuid, integer),
    bm_knows_address(text, text, timestamptz), bm_tries(text, timestamptz), bm_tries_forgotten(text), bm_health(),
    bm_enter(text, uuid, timestamptz)
FROM PUBLIC;
GRANT EXECUTE ON FUNCTION
    bm_session_open(uuid, text, uuid, text, text, timestamptz, timestamptz), bm_session(text, timestamptz),
    bm_session_asked(text, timestamptz), bm_session_end(uuid, uuid, timestamptz, text), bm_sessions(uuid, timestamptz),
    bm_member_signed_out(uuid, timestamptz), bm_sign_in_event(uuid, text, text, text, text, timestamptz),
    bm_sign_in_events(uuid, integer), bm_knows_address(text, text, timestamptz), bm_tries(text, timestamptz), bm_tries_forgotten(text),
    bm_health(), bm_enter(text, uuid, timestamptz)
TO bm_web;
