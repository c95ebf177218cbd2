CREATE TABLE model_offset (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    times DOUBLE PRECISION NOT NULL,
    error DOUBLE PRECISION NOT NULL,
    years INTEGER NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_model_offset PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_model_offset_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_model_offset_agent FOREIGN KEY(agent) REFERENCES agent (id)
);
CREATE TABLE model_offset_version (
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
    CONSTRAINT pk_model_offset_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_model_offset_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_model_offset_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES model_offset (farm_id, id),
    CONSTRAINT fk_model_offset_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_model_offset_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
CREATE INDEX ix_model_offset_farm_id_agent ON model_offset (farm_id, agent);
CREATE INDEX ix_model_offset_conflict ON model_offset (farm_id) WHERE conflict;

ALTER TABLE model_offset ENABLE ROW LEVEL SECURITY;
ALTER TABLE model_offset FORCE ROW LEVEL SECURITY;
CREATE POLICY model_offset_farm ON model_offset USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON model_offset TO bm_web;
GRANT SELECT ON model_offset TO bm_worker;

ALTER TABLE model_offset_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE model_offset_version FORCE ROW LEVEL SECURITY;
CREATE POLICY model_offset_version_farm ON model_offset_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON model_offset_version TO bm_web;
GRANT SELECT ON model_offset_version TO bm_worker;
CREATE TRIGGER model_offset_insert_noted AFTER INSERT ON model_offset REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER model_offset_update_noted AFTER UPDATE ON model_offset REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER model_offset_delete_noted AFTER DELETE ON model_offset REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
ALTER TABLE station ADD COLUMN wind_height DOUBLE PRECISION DEFAULT 2 NOT NULL;
ALTER TABLE application ADD COLUMN aired_hours DOUBLE PRECISION;
