-- A call is proposed until somebody signs it, where the farm says so; it may be made against the rules, with a reason; several controls go
-- together; a spot is a part of its block.
ALTER TABLE decision ADD COLUMN state VARCHAR DEFAULT 'called' NOT NULL;
ALTER TABLE decision ADD COLUMN why VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE decision ADD COLUMN also JSONB DEFAULT '[]' NOT NULL;
ALTER TABLE decision ADD COLUMN spot_area FLOAT;
ALTER TABLE decision ADD COLUMN spot VARCHAR DEFAULT '' NOT NULL;
CREATE INDEX ix_decision_proposed ON decision (farm_id) WHERE state = 'proposed';
ALTER TABLE farm ADD COLUMN calls_signed BOOLEAN DEFAULT false NOT NULL;
ALTER TABLE farm ADD COLUMN reach FLOAT;
ALTER TABLE farm_settings ADD COLUMN calls_signed BOOLEAN DEFAULT false NOT NULL;
ALTER TABLE farm_settings ADD COLUMN reach FLOAT;

-- What somebody thinks of a call, or asks somebody about it.
CREATE TABLE opinion (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    decision_id UUID NOT NULL,
    decision_version INTEGER NOT NULL,
    stance VARCHAR NOT NULL,
    asked_of UUID,
    words VARCHAR NOT NULL,
    withdrawn BOOLEAN DEFAULT false NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_opinion PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_opinion_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_opinion_farm_id_decision_id FOREIGN KEY(farm_id, decision_id) REFERENCES decision (farm_id, id)
);
CREATE INDEX ix_opinion_farm_id_decision_id ON opinion (farm_id, decision_id);
CREATE INDEX ix_opinion_by_time ON opinion (farm_id, seen_at);
CREATE INDEX ix_opinion_conflict ON opinion (farm_id) WHERE conflict;
CREATE TABLE opinion_version (
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
    CONSTRAINT pk_opinion_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_opinion_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_opinion_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES opinion (farm_id, id),
    CONSTRAINT fk_opinion_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_opinion_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
ALTER TABLE opinion ENABLE ROW LEVEL SECURITY;
ALTER TABLE opinion FORCE ROW LEVEL SECURITY;
CREATE POLICY opinion_farm ON opinion USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON opinion TO bm_web;
GRANT SELECT ON opinion TO bm_worker;
ALTER TABLE opinion_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE opinion_version FORCE ROW LEVEL SECURITY;
CREATE POLICY opinion_version_farm ON opinion_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON opinion_version TO bm_web;
GRANT SELECT ON opinion_version TO bm_worker;
CREATE TRIGGER opinion_insert_noted AFTER INSERT ON opinion REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER opinion_update_noted AFTER UPDATE ON opinion REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER opinion_delete_noted AFTER DELETE ON opinion REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');

-- Work that has begun and is not signed for closes its block.
CREATE TABLE begun_work (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    treatment_id UUID NOT NULL,
    began_at TIMESTAMP WITH TIME ZONE NOT NULL,
    withdrawn BOOLEAN DEFAULT false NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_begun_work PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_begun_work_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_begun_work_farm_id_treatment_id FOREIGN KEY(farm_id, treatment_id) REFERENCES treatment (farm_id, id)
);
CREATE INDEX ix_begun_work_farm_id_treatment_id ON begun_work (farm_id, treatment_id);
CREATE INDEX ix_begun_work_conflict ON begun_work (farm_id) WHERE conflict;
CREATE TABLE begun_work_version (
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
    CONSTRAINT pk_begun_work_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_begun_work_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_begun_work_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES begun_work (farm_id, id),
    CONSTRAINT fk_begun_work_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_begun_work_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
ALTER TABLE begun_work ENABLE ROW LEVEL SECURITY;
ALTER TABLE begun_work FORCE ROW LEVEL SECURITY;
CREATE POLICY begun_work_farm ON begun_work USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON begun_work TO bm_web;
GRANT SELECT ON begun_work TO bm_worker;
ALTER TABLE begun_work_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE begun_work_version FORCE ROW LEVEL SECURITY;
CREATE POLICY begun_work_version_farm ON begun_work_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON begun_work_version TO bm_web;
GRANT SELECT ON begun_work_version TO bm_worker;
CREATE TRIGGER begun_work_insert_noted AFTER INSERT ON begun_work REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER begun_work_update_noted AFTER UPDATE ON begun_work REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER begun_work_delete_noted AFTER DELETE ON begun_work REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');

-- Stalks that give way, fruit with holes, leaf that is lost: what the stand itself says.
CREATE TABLE crop_condition (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    stop_id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    condition VARCHAR NOT NULL,
    units JSONB NOT NULL,
    photo_id UUID,
    withdrawn BOOLEAN DEFAULT false NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_crop_condition PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_crop_condition_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_crop_condition_agent FOREIGN KEY(agent) REFERENCES agent (id),
    CONSTRAINT fk_crop_condition_farm_id_photo_id FOREIGN KEY(farm_id, photo_id) REFERENCES photo (farm_id, id),
    CONSTRAINT fk_crop_condition_farm_id_stop_id FOREIGN KEY(farm_id, stop_id) REFERENCES stop (farm_id, id)
);
CREATE INDEX ix_crop_condition_farm_id_stop_id ON crop_condition (farm_id, stop_id);
CREATE INDEX ix_crop_condition_conflict ON crop_condition (farm_id) WHERE conflict;
CREATE TABLE crop_condition_version (
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
    CONSTRAINT pk_crop_condition_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_crop_condition_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_crop_condition_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES crop_condition (farm_id, id),
    CONSTRAINT fk_crop_condition_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_crop_condition_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
ALTER TABLE crop_condition ENABLE ROW LEVEL SECURITY;
ALTER TABLE crop_condition FORCE ROW LEVEL SECURITY;
CREATE POLICY crop_condition_farm ON crop_condition USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON crop_condition TO bm_web;
GRANT SELECT ON crop_condition TO bm_worker;
ALTER TABLE crop_condition_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE crop_condition_version FORCE ROW LEVEL SECURITY;
CREATE POLICY crop_condition_version_farm ON crop_condition_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON crop_condition_version TO bm_web;
GRANT SELECT ON crop_condition_version TO bm_worker;
CREATE TRIGGER crop_condition_insert_noted AFTER INSERT ON crop_condition REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER crop_condition_update_noted AFTER UPDATE ON crop_condition REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER crop_condition_delete_noted AFTER DELETE ON crop_condition REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');

-- What is looked at in winter, before planting and in the store.
CREATE TABLE season_task (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    task VARCHAR NOT NULL,
    place_id UUID,
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
    CONSTRAINT pk_season_task PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_season_task_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);
CREATE INDEX ix_season_task_farm_id_on ON season_task (farm_id, "on");
CREATE INDEX ix_season_task_conflict ON season_task (farm_id) WHERE conflict;
CREATE TABLE season_task_version (
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
    CONSTRAINT pk_season_task_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_season_task_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_season_task_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES season_task (farm_id, id),
    CONSTRAINT fk_season_task_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_season_task_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
ALTER TABLE season_task ENABLE ROW LEVEL SECURITY;
ALTER TABLE season_task FORCE ROW LEVEL SECURITY;
CREATE POLICY season_task_farm ON season_task USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON season_task TO bm_web;
GRANT SELECT ON season_task TO bm_worker;
ALTER TABLE season_task_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE season_task_version FORCE ROW LEVEL SECURITY;
CREATE POLICY season_task_version_farm ON season_task_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON season_task_version TO bm_web;
GRANT SELECT ON season_task_version TO bm_worker;
CREATE TRIGGER season_task_insert_noted AFTER INSERT ON season_task REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER season_task_update_noted AFTER UPDATE ON season_task REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER season_task_delete_noted AFTER DELETE ON season_task REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');

-- What a block's plants, its harvest and its lot are.
ALTER TABLE planting ADD COLUMN height FLOAT;
ALTER TABLE planting ADD COLUMN sold_as VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE planting ADD COLUMN worth VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE planting ADD COLUMN supplier VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE planting ADD COLUMN origin VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE planting ADD COLUMN passport VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE planting ADD COLUMN checked_on DATE;
ALTER TABLE planting ADD COLUMN gone_to VARCHAR DEFAULT '' NOT NULL;

-- Where at a stop something was, and by which tool and in which hours it was counted.
ALTER TABLE stop ADD COLUMN longitude FLOAT;
ALTER TABLE stop ADD COLUMN latitude FLOAT;
ALTER TABLE stop ADD COLUMN flagged BOOLEAN DEFAULT false NOT NULL;
ALTER TABLE look ADD COLUMN plants INTEGER;
ALTER TABLE sample ADD COLUMN tool VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE sample ADD COLUMN pattern VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE sample ADD COLUMN laid INTEGER;
ALTER TABLE sample ADD COLUMN dead INTEGER;
ALTER TABLE sample ADD COLUMN parasitised INTEGER;
ALTER TABLE application ADD COLUMN label_hours FLOAT;
ALTER TABLE application ADD COLUMN hand_hours FLOAT;
ALTER TABLE application ADD COLUMN until_dry BOOLEAN DEFAULT false NOT NULL;
ALTER TABLE application ADD COLUMN early_minutes INTEGER;
ALTER TABLE application ADD COLUMN early_wear VARCHAR DEFAULT '' NOT NULL;

-- A trap among dispensers has a lure of its own, or proves nothing by being empty.
ALTER TABLE trap ADD COLUMN strong BOOLEAN DEFAULT false NOT NULL;
