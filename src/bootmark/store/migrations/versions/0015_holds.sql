CREATE TABLE hold (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    block_id UUID NOT NULL,
    decision_id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    since DATE NOT NULL,
    state VARCHAR NOT NULL,
    CONSTRAINT pk_hold PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_hold_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_hold_agent FOREIGN KEY(agent) REFERENCES agent (id),
    CONSTRAINT fk_hold_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_hold_farm_id_decision_id FOREIGN KEY(farm_id, decision_id) REFERENCES decision (farm_id, id),
    CONSTRAINT uq_hold_farm_id_decision_id UNIQUE (farm_id, decision_id),
    CONSTRAINT hold_state_known CHECK (state IN ('held', 'ended'))
);
CREATE TABLE outside_answer (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    decision_id UUID NOT NULL,
    block_id UUID NOT NULL,
    agent VARCHAR,
    answered_by VARCHAR NOT NULL,
    "on" DATE NOT NULL,
    words VARCHAR NOT NULL,
    frees BOOLEAN NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    command_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_outside_answer PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_outside_answer_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_outside_answer_agent FOREIGN KEY(agent) REFERENCES agent (id),
    CONSTRAINT fk_outside_answer_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_outside_answer_farm_id_decision_id FOREIGN KEY(farm_id, decision_id) REFERENCES decision (farm_id, id),
    CONSTRAINT uq_outside_answer_farm_id_decision_id UNIQUE (farm_id, decision_id)
);
CREATE TABLE outside_answer_version (
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
    CONSTRAINT pk_outside_answer_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_outside_answer_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_outside_answer_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES outside_answer (farm_id, id),
    CONSTRAINT fk_outside_answer_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_outside_answer_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);
CREATE INDEX ix_hold_farm_id_state ON hold (farm_id, state);
CREATE INDEX ix_outside_answer_by_time ON outside_answer (farm_id, seen_at);
CREATE INDEX ix_outside_answer_conflict ON outside_answer (farm_id) WHERE conflict;

ALTER TABLE hold ENABLE ROW LEVEL SECURITY;
ALTER TABLE hold FORCE ROW LEVEL SECURITY;
CREATE POLICY hold_farm ON hold USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON hold TO bm_web;
GRANT SELECT ON hold TO bm_worker;

ALTER TABLE outside_answer ENABLE ROW LEVEL SECURITY;
ALTER TABLE outside_answer FORCE ROW LEVEL SECURITY;
CREATE POLICY outside_answer_farm ON outside_answer USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT, UPDATE ON outside_answer TO bm_web;
GRANT SELECT ON outside_answer TO bm_worker;

ALTER TABLE outside_answer_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE outside_answer_version FORCE ROW LEVEL SECURITY;
CREATE POLICY outside_answer_version_farm ON outside_answer_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
GRANT SELECT, INSERT ON outside_answer_version TO bm_web;
GRANT SELECT ON outside_answer_version TO bm_worker;
CREATE TRIGGER hold_insert_noted AFTER INSERT ON hold REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER hold_update_noted AFTER UPDATE ON hold REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER hold_delete_noted AFTER DELETE ON hold REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER outside_answer_insert_noted AFTER INSERT ON outside_answer REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER outside_answer_update_noted AFTER UPDATE ON outside_answer REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER outside_answer_delete_noted AFTER DELETE ON outside_answer REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
