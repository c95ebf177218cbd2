CREATE TABLE farm_settings (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    name VARCHAR NOT NULL,
    latitude DOUBLE PRECISION NOT NULL,
    longitude DOUBLE PRECISION NOT NULL,
    time_zone VARCHAR NOT NULL,
    region VARCHAR NOT NULL,
    currency VARCHAR NOT NULL,
    school VARCHAR NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_farm_settings PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_farm_settings_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);
CREATE TABLE farm_settings_version (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    record_id UUID NOT NULL,
    number INTEGER NOT NULL,
    base INTEGER,
    base_command UUID,
    conflict BOOLEAN NOT NULL,
    command_id UUID NOT NULL,
    account_id UUID NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    received_at TIMESTAMP WITH TIME ZONE NOT NULL,
    payload JSONB NOT NULL,
    CONSTRAINT pk_farm_settings_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_farm_settings_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_farm_settings_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES farm_settings (farm_id, id),
    CONSTRAINT fk_farm_settings_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_farm_settings_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
CREATE INDEX ix_farm_settings_conflict ON farm_settings (farm_id) WHERE conflict;
ALTER TABLE farm_settings ENABLE ROW LEVEL SECURITY;
ALTER TABLE farm_settings FORCE ROW LEVEL SECURITY;
CREATE POLICY farm_settings_farm ON farm_settings USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON farm_settings TO bm_web;
GRANT SELECT ON farm_settings TO bm_worker;
ALTER TABLE farm_settings_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE farm_settings_version FORCE ROW LEVEL SECURITY;
CREATE POLICY farm_settings_version_farm ON farm_settings_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON farm_settings_version TO bm_web;
GRANT SELECT ON farm_settings_version TO bm_worker;

CREATE TABLE member_terms (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    role VARCHAR NOT NULL,
    qualified BOOLEAN NOT NULL,
    certificate VARCHAR NOT NULL,
    certificate_until DATE,
    ended BOOLEAN NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_member_terms PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_member_terms_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);
CREATE TABLE member_terms_version (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    record_id UUID NOT NULL,
    number INTEGER NOT NULL,
    base INTEGER,
    base_command UUID,
    conflict BOOLEAN NOT NULL,
    command_id UUID NOT NULL,
    account_id UUID NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    received_at TIMESTAMP WITH TIME ZONE NOT NULL,
    payload JSONB NOT NULL,
    CONSTRAINT pk_member_terms_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_member_terms_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_member_terms_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES member_terms (farm_id, id),
    CONSTRAINT fk_member_terms_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_member_terms_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
CREATE INDEX ix_member_terms_conflict ON member_terms (farm_id) WHERE conflict;
ALTER TABLE member_terms ENABLE ROW LEVEL SECURITY;
ALTER TABLE member_terms FORCE ROW LEVEL SECURITY;
CREATE POLICY member_terms_farm ON member_terms USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON member_terms TO bm_web;
GRANT SELECT ON member_terms TO bm_worker;
ALTER TABLE member_terms_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE member_terms_version FORCE ROW LEVEL SECURITY;
CREATE POLICY member_terms_version_farm ON member_terms_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON member_terms_version TO bm_web;
GRANT SELECT ON member_terms_version TO bm_worker;

CREATE TABLE invitation (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    name VARCHAR NOT NULL,
    email VARCHAR NOT NULL,
    role VARCHAR NOT NULL,
    qualified BOOLEAN NOT NULL,
    certificate VARCHAR NOT NULL,
    certificate_until DATE,
    token_hash VARCHAR NOT NULL,
    ends_at TIMESTAMP WITH TIME ZONE NOT NULL,
    withdrawn BOOLEAN NOT NULL,
    used_at TIMESTAMP WITH TIME ZONE,
    used_by UUID,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_invitation PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_invitation_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_invitation_token_hash UNIQUE (token_hash)
);
CREATE TABLE invitation_version (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    record_id UUID NOT NULL,
    number INTEGER NOT NULL,
    base INTEGER,
    base_command UUID,
    conflict BOOLEAN NOT NULL,
    command_id UUID NOT NULL,
    account_id UUID NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    received_at TIMESTAMP WITH TIME ZONE NOT NULL,
    payload JSONB NOT NULL,
    CONSTRAINT pk_invitation_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_invitation_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_invitation_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES invitation (farm_id, id),
    CONSTRAINT fk_invitation_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_invitation_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
CREATE INDEX ix_invitation_conflict ON invitation (farm_id) WHERE conflict;
ALTER TABLE invitation ENABLE ROW LEVEL SECURITY;
ALTER TABLE invitation FORCE ROW LEVEL SECURITY;
CREATE POLICY invitation_farm ON invitation USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON invitation TO bm_web;
GRANT SELECT ON invitation TO bm_worker;
ALTER TABLE invitation_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE invitation_version FORCE ROW LEVEL SECURITY;
CREATE POLICY invitation_version_farm ON invitation_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON invitation_version TO bm_web;
GRANT SELECT ON invitation_version TO bm_worker;

CREATE TRIGGER farm_settings_insert_noted AFTER INSERT ON farm_settings REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');
CREATE TRIGGER farm_settings_update_noted AFTER UPDATE ON farm_settings REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');
CREATE TRIGGER farm_settings_delete_noted AFTER DELETE ON farm_settings REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');
CREATE TRIGGER member_terms_insert_noted AFTER INSERT ON member_terms REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');
CREATE TRIGGER member_terms_update_noted AFTER UPDATE ON member_terms REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');
CREATE TRIGGER member_terms_delete_noted AFTER DELETE ON member_terms REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');
CREATE TRIGGER invitation_insert_noted AFTER INSERT ON invitation REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');
CREATE TRIGGER invitation_update_noted AFTER UPDATE ON invitation REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');
CREATE TRIGGER invitation_delete_noted AFTER DELETE ON invitation REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');
CREATE TRIGGER membership_insert_noted AFTER INSERT ON membership REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');
CREATE TRIGGER membership_update_noted AFTER UPDATE ON membership REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');
CREATE TRIGGER membership_delete_noted AFTER DELETE ON membership REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('people');

-- A link is opened by somebody who is on no farm yet.
CREATE POLICY invitation_opened ON invitation FOR SELECT TO bm_owner USING (true);

ALTER TABLE farm ADD COLUMN currency VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE farm ADD COLUMN school VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE membership ADD COLUMN certificate VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE membership ADD COLUMN certificate_until DATE;
ALTER TABLE membership ADD COLUMN ended_at TIMESTAMP WITH TIME ZONE;
GRANT UPDATE (role, qualified, certificate, certificate_until, ended_at) ON membership TO bm_web;

-- Whoever has left a farm comes in no more; a certificate that has ended qualifies nobody from the next day on, by the farm's own date.
ALTER TABLE account ADD COLUMN preferences JSONB DEFAULT '{}' NOT NULL;
DROP FUNCTION bm_enter(text, uuid, timestamptz);
CREATE FUNCTION bm_enter(hashed text, wanted uuid, happened timestamptz)
RETURNS TABLE (
    session_id uuid, account_id uuid, name text, email text, asked_at timestamptz, farm text, role text, qualified boolean, stamps jsonb,
    preferences jsonb
)
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
#variable_conflict use_column
BEGIN
    RETURN QUERY
        SELECT s.session_id, s.account_id, s.name, s.email, s.asked_at, f.name::text, m.role::text,
            m.qualified AND (m.certificate_until IS NULL OR m.certificate_until >= (happened AT TIME ZONE f.time_zone)::date),
            (SELECT jsonb_object_agg(noted.topic, noted.stamp) FROM (
                SELECT c.topic, md5(string_agg(c.writer::text || ':' || c.writes, ',' ORDER BY c.writer)) AS stamp
                FROM farm_change c WHERE c.farm_id = wanted GROUP BY c.topic
            ) noted), a.preferences
        FROM bm_session(hashed, happened) s JOIN account a ON a.id = s.account_id
        JOIN membership m ON m.account_id = s.account_id AND m.farm_id = wanted AND m.ended_at IS NULL
        JOIN farm f ON f.id = m.farm_id;
    IF FOUND THEN
        PERFORM set_config('bm.farm', wanted::text, true);
    END IF;
END
$$;

CREATE OR REPLACE FUNCTION bm_memberships(wanted uuid) RETURNS TABLE (farm_id uuid, farm text, role text, qualified boolean)
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    SELECT m.farm_id, f.name, m.role, m.qualified FROM membership m JOIN farm f ON f.id = m.farm_id
    WHERE m.account_id = wanted AND m.ended_at IS NULL ORDER BY f.name
$$;

-- Everybody who is or was on the farm: who has left keeps the name beside what was signed.
DROP FUNCTION bm_people();
CREATE FUNCTION bm_people() RETURNS TABLE (
    id uuid, name text, email text, role text, qualified boolean, certificate text, certificate_until date, ended_at timestamptz
)
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    SELECT a.id, a.name, a.email, m.role, m.qualified, m.certificate, m.certificate_until, m.ended_at
    FROM membership m JOIN account a ON a.id = m.account_id
    WHERE m.farm_id = nullif(current_setting('bm.farm', true), '')::uuid ORDER BY a.name
$$;

-- What a link is for. state: open, used, withdrawn or ended.
CREATE FUNCTION bm_invitation(hashed text, happened timestamptz)
RETURNS TABLE (farm_id uuid, farm text, name text, email text, role text, inviter text, state text)
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    SELECT i.farm_id, f.name, i.name, i.email, i.role, a.name,
        CASE WHEN i.used_at IS NOT NULL THEN 'used' WHEN i.withdrawn THEN 'withdrawn' WHEN i.ends_at <= happened THEN 'ended' ELSE 'open' END
    FROM invitation i JOIN farm f ON f.id = i.farm_id JOIN account a ON a.id = i.account_id WHERE i.token_hash = hashed
$$;

-- An account is made by whoever holds an open link, and by nobody else. False where the address has one already.
CREATE FUNCTION bm_account_invited(hashed text, happened timestamptz, account uuid, folded text, called text, password text) RETURNS boolean
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    WITH made AS (
        INSERT INTO account (id, email, name, password_hash)
        SELECT account, folded, called, password FROM bm_invitation(hashed, happened) i WHERE i.state = 'open'
        ON CONFLICT (email) DO NOTHING RETURNING 1)
    SELECT EXISTS (SELECT FROM made)
$$;

-- Somebody joins a farm by a link, once. came: joined, member (who is one already keeps the link open), or why the link does not serve.
CREATE FUNCTION bm_join(hashed text, account uuid, happened timestamptz) RETURNS TABLE (joined_farm uuid, came text)
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
DECLARE
    link RECORD;
    terms RECORD;
    was text := current_setting('bm.farm', true);
BEGIN
    PERFORM pg_advisory_xact_lock(hashtextextended(hashed, 0));
    SELECT i.* INTO link FROM bm_invitation(hashed, happened) i;
    IF NOT FOUND THEN
        RETURN;
    END IF;
    IF link.state <> 'open' THEN
        RETURN QUERY SELECT link.farm_id, link.state;
        RETURN;
    END IF;
    IF EXISTS (SELECT FROM membership m WHERE m.farm_id = link.farm_id AND m.account_id = account AND m.ended_at IS NULL) THEN
        RETURN QUERY SELECT link.farm_id, 'member'::text;
        RETURN;
    END IF;
    PERFORM set_config('bm.farm', link.farm_id::text, true);
    SELECT i.role, i.qualified, i.certificate, i.certificate_until INTO terms FROM invitation i WHERE i.token_hash = hashed;
    INSERT INTO membership (farm_id, account_id, role, qualified, certificate, certificate_until)
    VALUES (link.farm_id, account, terms.role, terms.qualified, terms.certificate, terms.certificate_until)
    ON CONFLICT (farm_id, account_id) DO UPDATE SET role = excluded.role, qualified = excluded.qualified,
        certificate = excluded.certificate, certificate_until = excluded.certificate_until, ended_at = NULL;
    UPDATE invitation i SET used_at = happened, used_by = account WHERE i.token_hash = hashed;
    PERFORM set_config('bm.farm', coalesce(was, ''), true);
    RETURN QUERY SELECT link.farm_id, 'joined'::text;
END
$$;

-- A link that sets a password anew. farm_id: of the owner who made it; such a link serves only while the account is on that one farm:
-- nobody reaches another farm by it.
CREATE TABLE account_reset (
    id UUID NOT NULL,
    token_hash VARCHAR NOT NULL,
    account_id UUID NOT NULL,
    farm_id UUID,
    made_at TIMESTAMP WITH TIME ZONE NOT NULL,
    ends_at TIMESTAMP WITH TIME ZONE NOT NULL,
    used_at TIMESTAMP WITH TIME ZONE,
    CONSTRAINT pk_account_reset PRIMARY KEY (id),
    CONSTRAINT uq_account_reset_token_hash UNIQUE (token_hash),
    CONSTRAINT fk_account_reset_account_id FOREIGN KEY(account_id) REFERENCES account (id)
);
CREATE INDEX ix_account_reset_account_id ON account_reset (account_id);

CREATE FUNCTION bm_reset_open(hashed text, account uuid, happened timestamptz, until timestamptz) RETURNS boolean
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    DELETE FROM account_reset WHERE ends_at < happened - interval '30 days';
    WITH made AS (
        INSERT INTO account_reset (id, token_hash, account_id, farm_id, made_at, ends_at)
        SELECT gen_random_uuid(), hashed, account, mine.farm, happened, until
        FROM (SELECT nullif(current_setting('bm.farm', true), '')::uuid AS farm) mine
        WHERE (SELECT array_agg(m.farm_id) FROM membership m WHERE m.account_id = account AND m.ended_at IS NULL) = ARRAY[mine.farm]
        RETURNING 1)
    SELECT EXISTS (SELECT FROM made)
$$;

CREATE FUNCTION bm_reset(hashed text, happened timestamptz) RETURNS TABLE (account_id uuid, name text, email text)
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    SELECT a.id, a.name, a.email FROM account_reset r JOIN account a ON a.id = r.account_id
    WHERE r.token_hash = hashed AND r.used_at IS NULL AND r.ends_at > happened
        AND (r.farm_id IS NULL OR (SELECT array_agg(m.farm_id) FROM membership m WHERE m.account_id = r.account_id AND m.ended_at IS NULL) = ARRAY[r.farm_id])
$$;

-- A link that goes by mail to the account's own address, and so to its holder: it serves however many farms there are.
CREATE FUNCTION bm_reset_mailed(hashed text, account uuid, happened timestamptz, until timestamptz) RETURNS TABLE (name text, email text)
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    DELETE FROM account_reset WHERE ends_at < happened - interval '30 days';
    INSERT INTO account_reset (id, token_hash, account_id, made_at, ends_at)
    SELECT gen_random_uuid(), hashed, a.id, happened, until FROM account a WHERE a.id = account AND a.password_hash <> 'none';
    SELECT a.name, a.email FROM account a WHERE a.id = account AND a.password_hash <> 'none'
$$;
REVOKE ALL ON FUNCTION bm_reset_mailed(text, uuid, timestamptz, timestamptz) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION bm_reset_mailed(text, uuid, timestamptz, timestamptz) TO bm_worker;

-- Set a password by such a link, once; every other link of the account ends with it, as every sign-in does (0010).
CREATE FUNCTION bm_reset_used(hashed text, password text, happened timestamptz) RETURNS boolean
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
DECLARE
    holder uuid;
BEGIN
    PERFORM pg_advisory_xact_lock(hashtextextended(hashed, 0));
    SELECT r.account_id INTO holder FROM bm_reset(hashed, happened) r;
    IF NOT FOUND THEN
        RETURN false;
    END IF;
    UPDATE account SET password_hash = password WHERE id = holder;
    UPDATE account_reset SET used_at = happened WHERE account_id = holder AND used_at IS NULL;
    RETURN true;
END
$$;

CREATE FUNCTION bm_is_empty() RETURNS boolean LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ SELECT NOT EXISTS (SELECT FROM account) $$;

-- The first account and its farm, on an installation that has none. False where somebody was quicker.
CREATE FUNCTION bm_begin(
    farm uuid, farm_name text, latitude double precision, longitude double precision, zone text, policy jsonb,
    account uuid, folded text, called text, password text
) RETURNS boolean
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
BEGIN
    PERFORM pg_advisory_xact_lock(hashtextextended('the first account', 0));
    IF NOT bm_is_empty() THEN
        RETURN false;
    END IF;
    PERFORM set_config('bm.farm', farm::text, true);
    INSERT INTO account (id, email, name, password_hash) VALUES (account, folded, called, password);
    INSERT INTO farm (id, name, latitude, longitude, time_zone, policy) VALUES (farm, farm_name, latitude, longitude, zone, policy);
    INSERT INTO membership (farm_id, account_id, role, qualified) VALUES (farm, account, 'owner', false);
    RETURN true;
END
$$;

-- How somebody likes the screens; of the own account alone.
CREATE FUNCTION bm_preferences_set(hashed text, wanted jsonb, happened timestamptz) RETURNS void
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ UPDATE account SET preferences = wanted WHERE id = (SELECT account_id FROM bm_session(hashed, happened)) $$;

-- How often something was asked for within a span of time, this once counted: by all processes together.
CREATE UNLOGGED TABLE rate_hit (
    key VARCHAR NOT NULL,
    since TIMESTAMP WITH TIME ZONE NOT NULL,
    hits INTEGER NOT NULL,
    CONSTRAINT pk_rate_hit PRIMARY KEY (key)
);
CREATE FUNCTION bm_hit(wanted text, happened timestamptz, span interval) RETURNS integer
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
DECLARE
    counted integer;
BEGIN
    INSERT INTO rate_hit AS r (key, since, hits) VALUES (wanted, happened, 1)
    ON CONFLICT (key) DO UPDATE SET
        hits = CASE WHEN r.since <= happened - span THEN 1 ELSE r.hits + 1 END,
        since = CASE WHEN r.since <= happened - span THEN happened ELSE r.since END
    RETURNING r.hits INTO counted;
    IF random() < 0.01 THEN
        DELETE FROM rate_hit WHERE since < happened - interval '1 day';
    END IF;
    RETURN counted;
END
$$;

-- How the installation is, for owners: its size, and what waits or has failed.
CREATE FUNCTION bm_installation() RETURNS TABLE (bytes bigint, waiting bigint, failed bigint, oldest timestamptz)
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    SELECT pg_database_size(current_database()), count(*) FILTER (WHERE j.status IN ('todo', 'doing')),
        count(*) FILTER (WHERE j.status = 'failed'),
        min(e.at) FILTER (WHERE j.status = 'todo' AND (j.scheduled_at IS NULL OR j.scheduled_at < now()))
    FROM procrastinate_jobs j LEFT JOIN procrastinate_events e ON e.job_id = j.id AND e.type = 'deferred'
$$;

-- Who was erased: to be done again where a backup of before is restored.
CREATE TABLE erased (
    account_id UUID NOT NULL,
    at TIMESTAMP WITH TIME ZONE NOT NULL,
    CONSTRAINT pk_erased PRIMARY KEY (account_id)
);

-- Blank what is told of a person, wherever it stands; what the person wrote and signed stays, under no name. For the owner role alone.
CREATE FUNCTION bm_erase(gone uuid, happened timestamptz) RETURNS void
LANGUAGE plpgsql SET search_path = public, pg_temp AS
$$
DECLARE
    holding uuid;
    mailed text := (SELECT email FROM account WHERE id = gone);
    was text := current_setting('bm.farm', true);
BEGIN
    FOR holding IN SELECT farm_id FROM membership WHERE account_id = gone UNION SELECT i.farm_id FROM invitation i WHERE i.email = mailed LOOP
        PERFORM set_config('bm.farm', holding::text, true);
        UPDATE membership SET certificate = '', qualified = false, ended_at = coalesce(ended_at, happened) WHERE account_id = gone;
        UPDATE member_terms SET certificate = '' WHERE id = gone;
        UPDATE member_terms_version SET payload = payload || '{"certificate": ""}' WHERE record_id = gone;
        UPDATE invitation_version SET payload = payload || '{"name": "Erased", "email": "", "certificate": ""}'
        WHERE record_id IN (SELECT id FROM invitation WHERE used_by = gone OR email = mailed);
        UPDATE invitation SET name = 'Erased', email = '', certificate = '', withdrawn = true WHERE used_by = gone OR email = mailed;
        UPDATE photo SET latitude = NULL, longitude = NULL WHERE account_id = gone;
    END LOOP;
    PERFORM set_config('bm.farm', coalesce(was, ''), true);
    DELETE FROM sign_in_session WHERE account_id = gone;
    DELETE FROM account_reset WHERE account_id = gone;
    DELETE FROM sign_in_event WHERE account_id = gone OR name = mailed;
    DELETE FROM sign_in_attempt WHERE mailed <> '' AND position(mailed IN key) > 0;
    UPDATE account SET name = 'Erased', email = 'erased ' || gone, password_hash = 'none', preferences = '{}' WHERE id = gone;
    INSERT INTO erased (account_id, at) VALUES (gone, happened) ON CONFLICT (account_id) DO NOTHING;
END
$$;
REVOKE ALL ON FUNCTION bm_erase(uuid, timestamptz) FROM PUBLIC;

REVOKE ALL ON FUNCTION bm_people(), bm_invitation(text, timestamptz), bm_account_invited(text, timestamptz, uuid, text, text, text),
    bm_join(text, uuid, timestamptz), bm_reset_open(text, uuid, timestamptz, timestamptz), bm_reset(text, timestamptz),
    bm_reset_used(text, text, timestamptz), bm_is_empty(),
    bm_begin(uuid, text, double precision, double precision, text, jsonb, uuid, text, text, text),
    bm_enter(text, uuid, timestamptz), bm_preferences_set(text, jsonb, timestamptz), bm_hit(text, timestamptz, interval), bm_installation()
FROM PUBLIC;
GRANT EXECUTE ON FUNCTION bm_people(), bm_invitation(text, timestamptz), bm_account_invited(text, timestamptz, uuid, text, text, text),
    bm_join(text, uuid, timestamptz), bm_reset_open(text, uuid, timestamptz, timestamptz), bm_reset(text, timestamptz),
    bm_reset_used(text, text, timestamptz), bm_is_empty(),
    bm_begin(uuid, text, double precision, double precision, text, jsonb, uuid, text, text, text),
    bm_enter(text, uuid, timestamptz), bm_preferences_set(text, jsonb, timestamptz), bm_hit(text, timestamptz, interval), bm_installation()
TO bm_web;
