-- What grows on a block is a planting: a crop from a day on, several at once in a mixed bed, one after the other in a rotation.
CREATE TABLE planting (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    block_id UUID NOT NULL,
    crop VARCHAR NOT NULL,
    cultivar VARCHAR NOT NULL,
    part VARCHAR NOT NULL,
    since DATE,
    until DATE,
    harvest_from DATE,
    grown_from UUID,
    apart_on DATE,
    withdrawn BOOLEAN DEFAULT false NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_planting PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_planting_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_planting_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_planting_farm_id_grown_from FOREIGN KEY(farm_id, grown_from) REFERENCES planting (farm_id, id)
);
CREATE TABLE planting_version (
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
    CONSTRAINT pk_planting_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_planting_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_planting_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES planting (farm_id, id),
    CONSTRAINT fk_planting_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_planting_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
CREATE INDEX ix_planting_farm_id_block_id ON planting (farm_id, block_id);
CREATE INDEX ix_planting_conflict ON planting (farm_id) WHERE conflict;
ALTER TABLE block ADD COLUMN row_direction DOUBLE PRECISION;
ALTER TABLE block ADD COLUMN row_spacing DOUBLE PRECISION;
ALTER TABLE block ADD COLUMN ended DATE;
ALTER TABLE block ADD COLUMN standing JSONB DEFAULT '[]' NOT NULL;
ALTER TABLE block ADD COLUMN strips JSONB DEFAULT '[]' NOT NULL;
ALTER TABLE stop ADD COLUMN planting_id UUID;
ALTER TABLE crop_stage ADD COLUMN planting_id UUID;
ALTER TABLE stop ADD CONSTRAINT fk_stop_farm_id_planting_id FOREIGN KEY(farm_id, planting_id) REFERENCES planting (farm_id, id);
ALTER TABLE crop_stage ADD CONSTRAINT fk_crop_stage_farm_id_planting_id FOREIGN KEY(farm_id, planting_id) REFERENCES planting (farm_id, id);

-- Each block has had one crop until now: it becomes its planting, and the stops and crop stages that were kept there are its own.
ALTER TABLE block NO FORCE ROW LEVEL SECURITY;
ALTER TABLE block_version NO FORCE ROW LEVEL SECURITY;
ALTER TABLE stop NO FORCE ROW LEVEL SECURITY;
ALTER TABLE crop_stage NO FORCE ROW LEVEL SECURITY;
INSERT INTO planting (farm_id, id, block_id, crop, cultivar, part, since, until, harvest_from, version, version_id, command_id, conflict, seen_at, account_id)
SELECT farm_id, md5('planting of ' || id)::uuid, id, crop, cultivar, '', NULL, NULL, harvest_from, 1, md5('version of planting of ' || id)::uuid, command_id, false, seen_at, account_id
FROM block;
INSERT INTO planting_version (farm_id, id, record_id, number, base, base_command, conflict, command_id, account_id, seen_at, received_at,
                              payload)
SELECT planting.farm_id, planting.version_id, planting.id, 1, NULL, NULL, false, planting.command_id, planting.account_id, planting.seen_at,
       kept.received_at,
       jsonb_build_object('block_id', planting.block_id, 'crop', planting.crop, 'cultivar', planting.cultivar, 'part', '', 'since', NULL,
                          'until', NULL, 'harvest_from', planting.harvest_from)
FROM planting
JOIN block ON block.farm_id = planting.farm_id AND block.id = planting.block_id
JOIN block_version kept ON kept.farm_id = block.farm_id AND kept.id = block.version_id;
DO $$
BEGIN
    IF (SELECT count(*) FROM planting_version) <> (SELECT count(*) FROM block) THEN
        RAISE EXCEPTION 'A block has no version: its planting can have none either.';
    END IF;
END
$$;
UPDATE block SET standing = jsonb_build_array(jsonb_build_object(
    'id', md5('planting of ' || id)::uuid, 'crop', crop, 'cultivar', cultivar, 'part', '', 'since', NULL, 'harvest_from', harvest_from,
    'before', NULL, 'apart_on', NULL));
UPDATE stop SET planting_id = md5('planting of ' || block_id)::uuid;
UPDATE crop_stage SET planting_id = md5('planting of ' || block_id)::uuid;
ALTER TABLE block FORCE ROW LEVEL SECURITY;
ALTER TABLE block_version FORCE ROW LEVEL SECURITY;
ALTER TABLE stop FORCE ROW LEVEL SECURITY;
ALTER TABLE crop_stage FORCE ROW LEVEL SECURITY;

ALTER TABLE planting ENABLE ROW LEVEL SECURITY;
ALTER TABLE planting FORCE ROW LEVEL SECURITY;
CREATE POLICY planting_farm ON planting USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON planting TO bm_web;
GRANT SELECT ON planting TO bm_worker;
ALTER TABLE planting_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE planting_version FORCE ROW LEVEL SECURITY;
CREATE POLICY planting_version_farm ON planting_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON planting_version TO bm_web;
GRANT SELECT ON planting_version TO bm_worker;
CREATE TRIGGER planting_insert_noted AFTER INSERT ON planting REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER planting_update_noted AFTER UPDATE ON planting REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER planting_delete_noted AFTER DELETE ON planting REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');

-- A picture of the farm lies under the plan: its bytes, and where points of it lie.
CREATE TABLE plan_image (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    account_id UUID NOT NULL,
    received_at TIMESTAMP WITH TIME ZONE NOT NULL,
    width INTEGER NOT NULL,
    height INTEGER NOT NULL,
    content BYTEA NOT NULL,
    CONSTRAINT pk_plan_image PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_plan_image_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);
CREATE TABLE plan_picture (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    image_id UUID NOT NULL,
    marks JSONB NOT NULL,
    points JSONB NOT NULL,
    ended BOOLEAN NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_plan_picture PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_plan_picture_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_plan_picture_farm_id_image_id FOREIGN KEY(farm_id, image_id) REFERENCES plan_image (farm_id, id)
);
CREATE TABLE plan_picture_version (
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
    CONSTRAINT pk_plan_picture_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_plan_picture_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_plan_picture_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES plan_picture (farm_id, id),
    CONSTRAINT fk_plan_picture_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_plan_picture_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
CREATE INDEX ix_plan_picture_conflict ON plan_picture (farm_id) WHERE conflict;
ALTER TABLE plan_image ENABLE ROW LEVEL SECURITY;
ALTER TABLE plan_image FORCE ROW LEVEL SECURITY;
CREATE POLICY plan_image_farm ON plan_image USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON plan_image TO bm_web;
GRANT SELECT ON plan_image TO bm_worker;
ALTER TABLE plan_picture ENABLE ROW LEVEL SECURITY;
ALTER TABLE plan_picture FORCE ROW LEVEL SECURITY;
CREATE POLICY plan_picture_farm ON plan_picture USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON plan_picture TO bm_web;
GRANT SELECT ON plan_picture TO bm_worker;
ALTER TABLE plan_picture_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE plan_picture_version FORCE ROW LEVEL SECURITY;
CREATE POLICY plan_picture_version_farm ON plan_picture_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON plan_picture_version TO bm_web;
GRANT SELECT ON plan_picture_version TO bm_worker;
CREATE TRIGGER plan_picture_insert_noted AFTER INSERT ON plan_picture REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER plan_picture_update_noted AFTER UPDATE ON plan_picture REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER plan_picture_delete_noted AFTER DELETE ON plan_picture REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');

-- How the units of a count came: by the plan, picked because they looked bad, or all that there are.
ALTER TABLE sample ADD COLUMN chosen VARCHAR DEFAULT 'plan' NOT NULL;

-- A farm's own thresholds: where an agent starts to matter on a crop, who said so and why.
CREATE TABLE own_threshold (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    crop VARCHAR NOT NULL,
    measure VARCHAR NOT NULL,
    value DOUBLE PRECISION NOT NULL,
    why VARCHAR NOT NULL,
    withdrawn BOOLEAN DEFAULT false NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_own_threshold PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_own_threshold_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_own_threshold_agent FOREIGN KEY(agent) REFERENCES agent (id)
);
CREATE TABLE own_threshold_version (
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
    CONSTRAINT pk_own_threshold_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_own_threshold_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_own_threshold_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES own_threshold (farm_id, id),
    CONSTRAINT fk_own_threshold_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_own_threshold_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
CREATE INDEX ix_own_threshold_farm_id_agent ON own_threshold (farm_id, agent);
CREATE INDEX ix_own_threshold_conflict ON own_threshold (farm_id) WHERE conflict;
ALTER TABLE own_threshold ENABLE ROW LEVEL SECURITY;
ALTER TABLE own_threshold FORCE ROW LEVEL SECURITY;
CREATE POLICY own_threshold_farm ON own_threshold USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON own_threshold TO bm_web;
GRANT SELECT ON own_threshold TO bm_worker;
ALTER TABLE own_threshold_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE own_threshold_version FORCE ROW LEVEL SECURITY;
CREATE POLICY own_threshold_version_farm ON own_threshold_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON own_threshold_version TO bm_web;
GRANT SELECT ON own_threshold_version TO bm_worker;
CREATE TRIGGER own_threshold_insert_noted AFTER INSERT ON own_threshold REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER own_threshold_update_noted AFTER UPDATE ON own_threshold REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER own_threshold_delete_noted AFTER DELETE ON own_threshold REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');

-- A trap that could not be read, or whose lure was spent, caught nothing that is known: that is no nought.
ALTER TABLE trap_check ALTER COLUMN caught DROP NOT NULL;
ALTER TABLE trap_check ADD COLUMN state VARCHAR DEFAULT 'read' NOT NULL;

-- Places that are no blocks are looked at in a rhythm of their own: incoming plants, fences, stores, bins, a neighbour's edge.
ALTER TABLE plan_feature ADD COLUMN check_days INTEGER;
CREATE TABLE place_check (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    feature_id UUID NOT NULL,
    "on" DATE NOT NULL,
    fine BOOLEAN NOT NULL,
    note VARCHAR NOT NULL,
    withdrawn BOOLEAN DEFAULT false NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_place_check PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_place_check_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_place_check_farm_id_feature_id FOREIGN KEY(farm_id, feature_id) REFERENCES plan_feature (farm_id, id)
);
CREATE TABLE place_check_version (
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
    CONSTRAINT pk_place_check_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_place_check_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_place_check_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES place_check (farm_id, id),
    CONSTRAINT fk_place_check_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_place_check_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
CREATE INDEX ix_place_check_farm_id_feature_id_on ON place_check (farm_id, feature_id, "on");
CREATE INDEX ix_place_check_conflict ON place_check (farm_id) WHERE conflict;
ALTER TABLE place_check ENABLE ROW LEVEL SECURITY;
ALTER TABLE place_check FORCE ROW LEVEL SECURITY;
CREATE POLICY place_check_farm ON place_check USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON place_check TO bm_web;
GRANT SELECT ON place_check TO bm_worker;
ALTER TABLE place_check_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE place_check_version FORCE ROW LEVEL SECURITY;
CREATE POLICY place_check_version_farm ON place_check_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON place_check_version TO bm_web;
GRANT SELECT ON place_check_version TO bm_worker;
CREATE TRIGGER place_check_insert_noted AFTER INSERT ON place_check REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER place_check_update_noted AFTER UPDATE ON place_check REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER place_check_delete_noted AFTER DELETE ON place_check REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
