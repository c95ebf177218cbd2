ALTER TABLE station ADD COLUMN kind VARCHAR DEFAULT 'outdoor' NOT NULL;

ALTER TABLE station ADD COLUMN push_hash VARCHAR DEFAULT '' NOT NULL;

ALTER TABLE station ADD COLUMN failures INTEGER DEFAULT '0' NOT NULL;

ALTER TABLE station ADD COLUMN next_try_at TIMESTAMP WITH TIME ZONE;

ALTER TABLE station ADD COLUMN last_error VARCHAR DEFAULT '' NOT NULL;

ALTER TABLE station ADD CONSTRAINT station_kind_known CHECK (kind IN ('outdoor', 'cover'));

ALTER TABLE block ADD COLUMN weather VARCHAR DEFAULT 'station' NOT NULL;

ALTER TABLE block ADD COLUMN elevation DOUBLE PRECISION;

ALTER TABLE block ADD CONSTRAINT block_weather_known CHECK (weather IN ('station', 'nearby'));

CREATE TABLE trap (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    name VARCHAR NOT NULL,
    block_id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    kind VARCHAR NOT NULL,
    x DOUBLE PRECISION NOT NULL,
    y DOUBLE PRECISION NOT NULL,
    set_on DATE NOT NULL,
    lure_on DATE,
    lure_days INTEGER,
    check_days INTEGER NOT NULL,
    ended BOOLEAN NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_trap PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_trap_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_trap_agent FOREIGN KEY(agent) REFERENCES agent (id),
    CONSTRAINT uq_trap_farm_id_name UNIQUE (farm_id, name),
    CONSTRAINT fk_trap_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE trap_version (
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
    CONSTRAINT pk_trap_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_trap_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_trap_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES trap (farm_id, id),
    CONSTRAINT fk_trap_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_trap_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

ALTER TABLE trap ENABLE ROW LEVEL SECURITY;

ALTER TABLE trap FORCE ROW LEVEL SECURITY;

CREATE POLICY trap_farm ON trap USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON trap TO bm_web, bm_worker;

ALTER TABLE trap_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE trap_version FORCE ROW LEVEL SECURITY;

CREATE POLICY trap_version_farm ON trap_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON trap_version TO bm_web, bm_worker;

CREATE INDEX ix_trap_farm_id_block_id ON trap (farm_id, block_id);

CREATE TABLE trap_check (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    trap_id UUID NOT NULL,
    "on" DATE NOT NULL,
    caught INTEGER NOT NULL,
    new_lure BOOLEAN NOT NULL,
    note VARCHAR NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_trap_check PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_trap_check_farm_id_trap_id FOREIGN KEY(farm_id, trap_id) REFERENCES trap (farm_id, id),
    CONSTRAINT fk_trap_check_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE trap_check_version (
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
    CONSTRAINT pk_trap_check_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_trap_check_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_trap_check_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES trap_check (farm_id, id),
    CONSTRAINT fk_trap_check_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_trap_check_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

ALTER TABLE trap_check ENABLE ROW LEVEL SECURITY;

ALTER TABLE trap_check FORCE ROW LEVEL SECURITY;

CREATE POLICY trap_check_farm ON trap_check USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON trap_check TO bm_web, bm_worker;

ALTER TABLE trap_check_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE trap_check_version FORCE ROW LEVEL SECURITY;

CREATE POLICY trap_check_version_farm ON trap_check_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON trap_check_version TO bm_web, bm_worker;

CREATE INDEX ix_trap_check_farm_id_trap_id_on ON trap_check (farm_id, trap_id, "on");

CREATE TABLE stage_sighting (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    block_id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    "on" DATE NOT NULL,
    counts JSONB NOT NULL,
    note VARCHAR NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_stage_sighting PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_stage_sighting_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_stage_sighting_agent FOREIGN KEY(agent) REFERENCES agent (id),
    CONSTRAINT fk_stage_sighting_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE stage_sighting_version (
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
    CONSTRAINT pk_stage_sighting_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_stage_sighting_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_stage_sighting_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES stage_sighting (farm_id, id),
    CONSTRAINT fk_stage_sighting_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_stage_sighting_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

ALTER TABLE stage_sighting ENABLE ROW LEVEL SECURITY;

ALTER TABLE stage_sighting FORCE ROW LEVEL SECURITY;

CREATE POLICY stage_sighting_farm ON stage_sighting USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON stage_sighting TO bm_web, bm_worker;

ALTER TABLE stage_sighting_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE stage_sighting_version FORCE ROW LEVEL SECURITY;

CREATE POLICY stage_sighting_version_farm ON stage_sighting_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON stage_sighting_version TO bm_web, bm_worker;

CREATE INDEX ix_stage_sighting_farm_id_block_id_agent ON stage_sighting (farm_id, block_id, agent);

CREATE TABLE crop_stage (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    block_id UUID NOT NULL,
    "on" DATE NOT NULL,
    code INTEGER NOT NULL,
    node INTEGER,
    counted VARCHAR NOT NULL,
    note VARCHAR NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_crop_stage PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_crop_stage_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_crop_stage_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE crop_stage_version (
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
    CONSTRAINT pk_crop_stage_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_crop_stage_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_crop_stage_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES crop_stage (farm_id, id),
    CONSTRAINT fk_crop_stage_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_crop_stage_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

ALTER TABLE crop_stage ENABLE ROW LEVEL SECURITY;

ALTER TABLE crop_stage FORCE ROW LEVEL SECURITY;

CREATE POLICY crop_stage_farm ON crop_stage USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON crop_stage TO bm_web, bm_worker;

ALTER TABLE crop_stage_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE crop_stage_version FORCE ROW LEVEL SECURITY;

CREATE POLICY crop_stage_version_farm ON crop_stage_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON crop_stage_version TO bm_web, bm_worker;

CREATE INDEX ix_crop_stage_farm_id_block_id_on ON crop_stage (farm_id, block_id, "on");

CREATE TABLE judgement (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    station_id UUID NOT NULL,
    local_date DATE NOT NULL,
    flag VARCHAR NOT NULL,
    verdict VARCHAR NOT NULL,
    tmin DOUBLE PRECISION,
    tmax DOUBLE PRECISION,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_judgement PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_judgement_farm_id_station_id FOREIGN KEY(farm_id, station_id) REFERENCES station (farm_id, id),
    CONSTRAINT judgement_verdict_known CHECK (verdict IN ('stands', 'left out', 'mended')),
    CONSTRAINT uq_judgement_farm_id_station_id_local_date UNIQUE (farm_id, station_id, local_date),
    CONSTRAINT fk_judgement_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE judgement_version (
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
    CONSTRAINT pk_judgement_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_judgement_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_judgement_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES judgement (farm_id, id),
    CONSTRAINT fk_judgement_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT uq_judgement_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

ALTER TABLE judgement ENABLE ROW LEVEL SECURITY;

ALTER TABLE judgement FORCE ROW LEVEL SECURITY;

CREATE POLICY judgement_farm ON judgement USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON judgement TO bm_web, bm_worker;

ALTER TABLE judgement_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE judgement_version FORCE ROW LEVEL SECURITY;

CREATE POLICY judgement_version_farm ON judgement_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON judgement_version TO bm_web, bm_worker;

CREATE TABLE season_result (
    farm_id UUID NOT NULL,
    block_id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    key VARCHAR NOT NULL,
    day DATE NOT NULL,
    needs BOOLEAN NOT NULL,
    opens DATE,
    closes DATE,
    told JSONB NOT NULL,
    arrays BYTEA NOT NULL,
    reckoned_at TIMESTAMP WITH TIME ZONE NOT NULL,
    CONSTRAINT pk_season_result PRIMARY KEY (farm_id, block_id, agent),
    CONSTRAINT fk_season_result_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT fk_season_result_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_season_result_agent FOREIGN KEY(agent) REFERENCES agent (id)
);

CREATE INDEX ix_season_result_farm_id_needs ON season_result (farm_id, needs);

ALTER TABLE season_result ENABLE ROW LEVEL SECURITY;

ALTER TABLE season_result FORCE ROW LEVEL SECURITY;

CREATE POLICY season_result_farm ON season_result USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON season_result TO bm_web, bm_worker;

CREATE TABLE season_run (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    day DATE NOT NULL,
    total INTEGER NOT NULL,
    done INTEGER NOT NULL,
    parts JSONB NOT NULL,
    started_at TIMESTAMP WITH TIME ZONE NOT NULL,
    finished_at TIMESTAMP WITH TIME ZONE,
    CONSTRAINT pk_season_run PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_season_run_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE INDEX ix_season_run_farm_id_started_at ON season_run (farm_id, started_at);

ALTER TABLE season_run ENABLE ROW LEVEL SECURITY;

ALTER TABLE season_run FORCE ROW LEVEL SECURITY;

CREATE POLICY season_run_farm ON season_run USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON season_run TO bm_web, bm_worker;
