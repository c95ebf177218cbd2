ALTER TABLE farm ADD COLUMN measures VARCHAR DEFAULT 'metric' NOT NULL;
ALTER TABLE farm ADD COLUMN scale VARCHAR DEFAULT 'C' NOT NULL;
ALTER TABLE farm ADD COLUMN days VARCHAR DEFAULT 'day-first' NOT NULL;
ALTER TABLE farm ADD COLUMN numbers VARCHAR DEFAULT 'point' NOT NULL;
ALTER TABLE farm ADD COLUMN retention_days INTEGER;
ALTER TABLE farm_settings ADD COLUMN measures VARCHAR DEFAULT 'metric' NOT NULL;
ALTER TABLE farm_settings ADD COLUMN scale VARCHAR DEFAULT 'C' NOT NULL;
ALTER TABLE farm_settings ADD COLUMN days VARCHAR DEFAULT 'day-first' NOT NULL;
ALTER TABLE farm_settings ADD COLUMN numbers VARCHAR DEFAULT 'point' NOT NULL;
ALTER TABLE farm_settings ADD COLUMN retention_days INTEGER;

-- Blank, on every farm that says after how many days, who sent an enquiry that is answered, where a photograph was made, and whom a link
-- that is used or over was for. How many rows were blanked.
CREATE FUNCTION bm_forget(happened timestamptz) RETURNS integer
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
DECLARE
    holding record;
    was text := current_setting('bm.farm', true);
    forgotten integer := 0;
    rows integer;
BEGIN
    FOR holding IN SELECT id, coalesce(clock_at, happened) - make_interval(days => retention_days) AS by_farm,
        happened - make_interval(days => retention_days) AS by_clock FROM farm WHERE retention_days IS NOT NULL LOOP
        PERFORM set_config('bm.farm', holding.id::text, true);
        UPDATE enquiry_version SET payload = payload || '{"sender": ""}'
        WHERE payload ->> 'sender' <> '' AND record_id IN (SELECT id FROM enquiry WHERE state = 'answered' AND seen_at < holding.by_farm);
        UPDATE enquiry SET sender = '' WHERE sender <> '' AND state = 'answered' AND seen_at < holding.by_farm;
        GET DIAGNOSTICS rows = ROW_COUNT;
        forgotten := forgotten + rows;
        UPDATE photo SET latitude = NULL, longitude = NULL WHERE latitude IS NOT NULL AND seen_at < holding.by_farm;
        GET DIAGNOSTICS rows = ROW_COUNT;
        forgotten := forgotten + rows;
        UPDATE invitation_version SET payload = payload || '{"name": "", "email": ""}'
        WHERE payload ->> 'name' <> '' AND record_id IN (SELECT id FROM invitation WHERE coalesce(used_at, ends_at) < holding.by_clock);
        UPDATE invitation SET name = '', email = '' WHERE name <> '' AND coalesce(used_at, ends_at) < holding.by_clock;
        GET DIAGNOSTICS rows = ROW_COUNT;
        forgotten := forgotten + rows;
    END LOOP;
    PERFORM set_config('bm.farm', coalesce(was, ''), true);
    RETURN forgotten;
END
$$;
REVOKE ALL ON FUNCTION bm_forget(timestamptz) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION bm_forget(timestamptz) TO bm_worker;
