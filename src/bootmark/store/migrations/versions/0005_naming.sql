ALTER TABLE farm ADD COLUMN region VARCHAR DEFAULT '' NOT NULL;

CREATE TABLE enquiry (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    sender VARCHAR NOT NULL,
    came_as VARCHAR NOT NULL,
    crop VARCHAR NOT NULL,
    family VARCHAR NOT NULL,
    place VARCHAR NOT NULL,
    words VARCHAR NOT NULL,
    signs JSONB NOT NULL,
    verdict VARCHAR NOT NULL,
    state VARCHAR NOT NULL,
    working JSONB NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_enquiry PRIMARY KEY (farm_id, id),
    CONSTRAINT enquiry_came_as_known CHECK (came_as IN ('leaf', 'photograph', 'message')),
    CONSTRAINT enquiry_state_known CHECK (state IN ('open', 'asked', 'answered')),
    CONSTRAINT enquiry_verdict_known CHECK (verdict IN ('named', 'needs a look', 'not a pest', 'normal for the season', 'help has come', 'must be reported', 'cannot tell')),
    CONSTRAINT fk_enquiry_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE INDEX ix_enquiry_farm_id_state ON enquiry (farm_id, state);

CREATE TABLE enquiry_version (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    record_id UUID NOT NULL,
    number INTEGER NOT NULL,
    base INTEGER NOT NULL,
    conflict BOOLEAN NOT NULL,
    command_id UUID NOT NULL,
    account_id UUID NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    received_at TIMESTAMP WITH TIME ZONE NOT NULL,
    payload JSONB NOT NULL,
    CONSTRAINT pk_enquiry_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_enquiry_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT fk_enquiry_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES enquiry (farm_id, id),
    CONSTRAINT fk_enquiry_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_enquiry_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

ALTER TABLE enquiry ENABLE ROW LEVEL SECURITY;

ALTER TABLE enquiry FORCE ROW LEVEL SECURITY;

CREATE POLICY enquiry_farm ON enquiry USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON enquiry TO bm_web, bm_worker;

ALTER TABLE enquiry_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE enquiry_version FORCE ROW LEVEL SECURITY;

CREATE POLICY enquiry_version_farm ON enquiry_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON enquiry_version TO bm_web, bm_worker;

ALTER TABLE photo ALTER COLUMN stop_id DROP NOT NULL;

ALTER TABLE photo ADD COLUMN enquiry_id UUID;

ALTER TABLE photo ADD COLUMN latitude DOUBLE PRECISION;

ALTER TABLE photo ADD COLUMN longitude DOUBLE PRECISION;

ALTER TABLE photo ADD CONSTRAINT fk_photo_farm_id_enquiry_id FOREIGN KEY(farm_id, enquiry_id) REFERENCES enquiry (farm_id, id);

ALTER TABLE photo ADD CONSTRAINT photo_hangs_on_one CHECK (num_nonnulls(stop_id, enquiry_id) = 1);

CREATE INDEX ix_photo_farm_id_enquiry_id ON photo (farm_id, enquiry_id);
