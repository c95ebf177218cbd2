ALTER TABLE farm NO FORCE ROW LEVEL SECURITY;
ALTER TABLE farm_change NO FORCE ROW LEVEL SECURITY;
-- The plan's nought: until now it lay where the farm's place was typed.
ALTER TABLE farm ADD COLUMN origin_latitude DOUBLE PRECISION;
ALTER TABLE farm ADD COLUMN origin_longitude DOUBLE PRECISION;
UPDATE farm SET origin_latitude = latitude, origin_longitude = longitude;
ALTER TABLE farm ALTER COLUMN origin_latitude SET NOT NULL;
ALTER TABLE farm ALTER COLUMN origin_longitude SET NOT NULL;

-- Metres east and south of an origin as longitude and latitude, by the ellipsoid's two radii there (WGS84).
CREATE FUNCTION bm_degrees(x double precision, y double precision, latitude double precision, longitude double precision)
RETURNS double precision[] LANGUAGE sql IMMUTABLE SET search_path = public, pg_temp AS
$$
    SELECT ARRAY[
        longitude + degrees(x / (6378137.0 / sqrt(1 - 0.00669437999014 * sin(radians(latitude)) ^ 2) * cos(radians(latitude)))),
        latitude - degrees(y / (6378137.0 * (1 - 0.00669437999014) / (1 - 0.00669437999014 * sin(radians(latitude)) ^ 2) ^ 1.5))
    ]
$$;
-- An outline in metres as one in degrees; what is none stays as it is.
CREATE FUNCTION bm_outline(outline jsonb, latitude double precision, longitude double precision) RETURNS jsonb
LANGUAGE plpgsql IMMUTABLE SET search_path = public, pg_temp AS
$$
BEGIN
    RETURN coalesce((
        SELECT jsonb_agg(to_jsonb(bm_degrees((corner ->> 0)::double precision, (corner ->> 1)::double precision, latitude, longitude))
            ORDER BY place)
        FROM jsonb_array_elements(outline) WITH ORDINALITY AS corners (corner, place)
    ), outline);
EXCEPTION WHEN data_exception THEN
    RETURN outline;
END
$$;

ALTER TABLE block NO FORCE ROW LEVEL SECURITY;
ALTER TABLE block_version NO FORCE ROW LEVEL SECURITY;
ALTER TABLE trap NO FORCE ROW LEVEL SECURITY;
ALTER TABLE trap_version NO FORCE ROW LEVEL SECURITY;
ALTER TABLE trap RENAME COLUMN x TO longitude;
ALTER TABLE trap RENAME COLUMN y TO latitude;
DO $$
DECLARE
    wanted bigint;
    changed bigint;
BEGIN
    SELECT count(*) INTO wanted FROM block;
    UPDATE block b SET outline = bm_outline(b.outline, f.latitude, f.longitude) FROM farm f WHERE f.id = b.farm_id;
    GET DIAGNOSTICS changed = ROW_COUNT;
    IF changed <> wanted THEN RAISE EXCEPTION '% of % blocks were brought to degrees', changed, wanted; END IF;
    SELECT count(*) INTO wanted FROM block_version WHERE jsonb_typeof(payload -> 'outline') = 'array';
    UPDATE block_version b SET payload = jsonb_set(b.payload, '{outline}', bm_outline(b.payload -> 'outline', f.latitude, f.longitude))
    FROM farm f WHERE f.id = b.farm_id AND jsonb_typeof(b.payload -> 'outline') = 'array';
    GET DIAGNOSTICS changed = ROW_COUNT;
    IF changed <> wanted THEN RAISE EXCEPTION '% of % versions of blocks were brought to degrees', changed, wanted; END IF;
    SELECT count(*) INTO wanted FROM trap;
    UPDATE trap t SET longitude = spot[1], latitude = spot[2]
    FROM (
        SELECT s.farm_id, s.id, bm_degrees(s.longitude, s.latitude, f.latitude, f.longitude) AS spot
        FROM trap s JOIN farm f ON f.id = s.farm_id
    ) there
    WHERE (there.farm_id, there.id) = (t.farm_id, t.id);
    GET DIAGNOSTICS changed = ROW_COUNT;
    IF changed <> wanted THEN RAISE EXCEPTION '% of % traps were brought to degrees', changed, wanted; END IF;
    SELECT count(*) INTO wanted FROM trap_version WHERE payload ? 'x';
    UPDATE trap_version t SET payload = t.payload - 'x' - 'y' || jsonb_build_object('longitude', spot[1], 'latitude', spot[2])
    FROM (
        SELECT s.farm_id, s.id,
            bm_degrees((s.payload ->> 'x')::double precision, (s.payload ->> 'y')::double precision, f.latitude, f.longitude) AS spot
        FROM trap_version s JOIN farm f ON f.id = s.farm_id WHERE s.payload ? 'x'
    ) there
    WHERE (there.farm_id, there.id) = (t.farm_id, t.id);
    GET DIAGNOSTICS changed = ROW_COUNT;
    IF changed <> wanted THEN RAISE EXCEPTION '% of % versions of traps were brought to degrees', changed, wanted; END IF;
END
$$;
ALTER TABLE farm FORCE ROW LEVEL SECURITY;
ALTER TABLE farm_change FORCE ROW LEVEL SECURITY;
ALTER TABLE block FORCE ROW LEVEL SECURITY;
ALTER TABLE block_version FORCE ROW LEVEL SECURITY;
ALTER TABLE trap FORCE ROW LEVEL SECURITY;
ALTER TABLE trap_version FORCE ROW LEVEL SECURITY;
DROP FUNCTION bm_outline(jsonb, double precision, double precision);
DROP FUNCTION bm_degrees(double precision, double precision, double precision, double precision);

CREATE OR REPLACE FUNCTION bm_begin(
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
    INSERT INTO farm (id, name, latitude, longitude, time_zone, policy, origin_latitude, origin_longitude)
    VALUES (farm, farm_name, latitude, longitude, zone, policy, latitude, longitude);
    INSERT INTO membership (farm_id, account_id, role, qualified) VALUES (farm, account, 'owner', false);
    RETURN true;
END
$$;

-- What stands on the plan and is no block: the gate, paths, water, hives, houses, lines, neighbours, single plants.
CREATE TABLE plan_feature (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    kind VARCHAR NOT NULL,
    name VARCHAR NOT NULL,
    points JSONB NOT NULL,
    height DOUBLE PRECISION,
    note VARCHAR NOT NULL,
    ended BOOLEAN NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_plan_feature PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_plan_feature_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);
CREATE TABLE plan_feature_version (
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
    CONSTRAINT pk_plan_feature_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_plan_feature_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_plan_feature_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES plan_feature (farm_id, id),
    CONSTRAINT fk_plan_feature_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_plan_feature_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
CREATE INDEX ix_plan_feature_conflict ON plan_feature (farm_id) WHERE conflict;
ALTER TABLE plan_feature ENABLE ROW LEVEL SECURITY;
ALTER TABLE plan_feature FORCE ROW LEVEL SECURITY;
CREATE POLICY plan_feature_farm ON plan_feature USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON plan_feature TO bm_web;
GRANT SELECT ON plan_feature TO bm_worker;
ALTER TABLE plan_feature_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE plan_feature_version FORCE ROW LEVEL SECURITY;
CREATE POLICY plan_feature_version_farm ON plan_feature_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON plan_feature_version TO bm_web;
GRANT SELECT ON plan_feature_version TO bm_worker;
CREATE TRIGGER plan_feature_insert_noted AFTER INSERT ON plan_feature REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER plan_feature_update_noted AFTER UPDATE ON plan_feature REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER plan_feature_delete_noted AFTER DELETE ON plan_feature REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');

-- What a person kept can be withdrawn, with a reason; it stays in the Book.
ALTER TABLE command ADD COLUMN reason VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE command ADD COLUMN withdrawn BOOLEAN DEFAULT false NOT NULL;
ALTER TABLE biofix ADD COLUMN withdrawn BOOLEAN DEFAULT false NOT NULL;
ALTER TABLE crop_stage ADD COLUMN withdrawn BOOLEAN DEFAULT false NOT NULL;
ALTER TABLE enquiry ADD COLUMN withdrawn BOOLEAN DEFAULT false NOT NULL;
ALTER TABLE sample ADD COLUMN withdrawn BOOLEAN DEFAULT false NOT NULL;
ALTER TABLE stage_sighting ADD COLUMN withdrawn BOOLEAN DEFAULT false NOT NULL;
ALTER TABLE trap_check ADD COLUMN withdrawn BOOLEAN DEFAULT false NOT NULL;
