CREATE TABLE account (
    id UUID NOT NULL,
    email VARCHAR NOT NULL,
    name VARCHAR NOT NULL,
    password_hash VARCHAR NOT NULL,
    CONSTRAINT pk_account PRIMARY KEY (id),
    CONSTRAINT uq_account_email UNIQUE (email)
);

CREATE TABLE agent (
    id VARCHAR NOT NULL,
    retired BOOLEAN NOT NULL,
    CONSTRAINT pk_agent PRIMARY KEY (id)
);

CREATE TABLE farm (
    id UUID NOT NULL,
    name VARCHAR NOT NULL,
    latitude DOUBLE PRECISION NOT NULL,
    longitude DOUBLE PRECISION NOT NULL,
    time_zone VARCHAR NOT NULL,
    clock_at TIMESTAMP WITH TIME ZONE,
    policy JSONB NOT NULL,
    CONSTRAINT pk_farm PRIMARY KEY (id)
);

CREATE TABLE sign (
    id VARCHAR NOT NULL,
    retired BOOLEAN NOT NULL,
    CONSTRAINT pk_sign PRIMARY KEY (id)
);

CREATE TABLE sign_in_attempt (
    id SERIAL NOT NULL,
    key VARCHAR NOT NULL,
    at TIMESTAMP WITH TIME ZONE NOT NULL,
    CONSTRAINT pk_sign_in_attempt PRIMARY KEY (id)
);

CREATE INDEX ix_sign_in_attempt_key ON sign_in_attempt (key);

CREATE TABLE command (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    kind VARCHAR NOT NULL,
    record_id UUID NOT NULL,
    base_version INTEGER NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    received_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    content_hash VARCHAR NOT NULL,
    result JSONB NOT NULL,
    CONSTRAINT pk_command PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_command_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE membership (
    farm_id UUID NOT NULL,
    account_id UUID NOT NULL,
    role VARCHAR NOT NULL,
    qualified BOOLEAN NOT NULL,
    CONSTRAINT pk_membership PRIMARY KEY (farm_id, account_id),
    CONSTRAINT fk_membership_account_id FOREIGN KEY(account_id) REFERENCES account (id),
    CONSTRAINT fk_membership_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE station (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    name VARCHAR NOT NULL,
    latitude DOUBLE PRECISION NOT NULL,
    longitude DOUBLE PRECISION NOT NULL,
    elevation DOUBLE PRECISION NOT NULL,
    offset_minutes INTEGER NOT NULL,
    url VARCHAR NOT NULL,
    heard_at TIMESTAMP WITH TIME ZONE,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_station PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_station_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE block (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    name VARCHAR NOT NULL,
    crop VARCHAR NOT NULL,
    place VARCHAR NOT NULL,
    cultivar VARCHAR NOT NULL,
    area DOUBLE PRECISION NOT NULL,
    outline JSONB NOT NULL,
    station_id UUID,
    harvest_from DATE,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_block PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_block_farm_id_station_id FOREIGN KEY(farm_id, station_id) REFERENCES station (farm_id, id),
    CONSTRAINT fk_block_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_block_farm_id_name UNIQUE (farm_id, name)
);

CREATE TABLE forecast (
    farm_id UUID NOT NULL,
    station_id UUID NOT NULL,
    issued_at TIMESTAMP WITH TIME ZONE NOT NULL,
    valid_at TIMESTAMP WITH TIME ZONE NOT NULL,
    temp DOUBLE PRECISION NOT NULL,
    rh DOUBLE PRECISION NOT NULL,
    wind DOUBLE PRECISION NOT NULL,
    rain DOUBLE PRECISION NOT NULL,
    CONSTRAINT pk_forecast PRIMARY KEY (farm_id, station_id, issued_at, valid_at),
    CONSTRAINT fk_forecast_farm_id_station_id FOREIGN KEY(farm_id, station_id) REFERENCES station (farm_id, id),
    CONSTRAINT fk_forecast_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE station_version (
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
    CONSTRAINT pk_station_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_station_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT fk_station_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES station (farm_id, id),
    CONSTRAINT fk_station_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_station_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

CREATE TABLE weather_day (
    farm_id UUID NOT NULL,
    station_id UUID NOT NULL,
    local_date DATE NOT NULL,
    received_at TIMESTAMP WITH TIME ZONE NOT NULL,
    tmin DOUBLE PRECISION NOT NULL,
    tmax DOUBLE PRECISION NOT NULL,
    rain DOUBLE PRECISION,
    source VARCHAR NOT NULL,
    CONSTRAINT pk_weather_day PRIMARY KEY (farm_id, station_id, local_date, received_at),
    CONSTRAINT fk_weather_day_farm_id_station_id FOREIGN KEY(farm_id, station_id) REFERENCES station (farm_id, id),
    CONSTRAINT fk_weather_day_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE weather_derived (
    farm_id UUID NOT NULL,
    station_id UUID NOT NULL,
    local_date DATE NOT NULL,
    tmin DOUBLE PRECISION,
    tmax DOUBLE PRECISION,
    filled VARCHAR NOT NULL,
    flags JSONB NOT NULL,
    CONSTRAINT pk_weather_derived PRIMARY KEY (farm_id, station_id, local_date),
    CONSTRAINT fk_weather_derived_farm_id_station_id FOREIGN KEY(farm_id, station_id) REFERENCES station (farm_id, id),
    CONSTRAINT fk_weather_derived_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE weather_hour (
    farm_id UUID NOT NULL,
    station_id UUID NOT NULL,
    utc_hour TIMESTAMP WITH TIME ZONE NOT NULL,
    received_at TIMESTAMP WITH TIME ZONE NOT NULL,
    temp DOUBLE PRECISION NOT NULL,
    rh DOUBLE PRECISION NOT NULL,
    wind DOUBLE PRECISION NOT NULL,
    rain DOUBLE PRECISION NOT NULL,
    source VARCHAR NOT NULL,
    CONSTRAINT pk_weather_hour PRIMARY KEY (farm_id, station_id, utc_hour, received_at),
    CONSTRAINT fk_weather_hour_farm_id_station_id FOREIGN KEY(farm_id, station_id) REFERENCES station (farm_id, id),
    CONSTRAINT fk_weather_hour_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE weather_upload (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    station_id UUID NOT NULL,
    account_id UUID NOT NULL,
    received_at TIMESTAMP WITH TIME ZONE NOT NULL,
    file_name VARCHAR NOT NULL,
    content BYTEA NOT NULL,
    choices JSONB NOT NULL,
    imported_at TIMESTAMP WITH TIME ZONE,
    summary JSONB NOT NULL,
    CONSTRAINT pk_weather_upload PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_weather_upload_farm_id_station_id FOREIGN KEY(farm_id, station_id) REFERENCES station (farm_id, id),
    CONSTRAINT fk_weather_upload_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE biofix (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    block_id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    "on" DATE NOT NULL,
    basis VARCHAR NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_biofix PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_biofix_agent FOREIGN KEY(agent) REFERENCES agent (id),
    CONSTRAINT fk_biofix_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_biofix_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE INDEX ix_biofix_farm_id_block_id_agent ON biofix (farm_id, block_id, agent);

CREATE TABLE block_version (
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
    CONSTRAINT pk_block_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_block_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT fk_block_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_block_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_block_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

CREATE TABLE stop (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    block_id UUID NOT NULL,
    "on" DATE NOT NULL,
    "where" VARCHAR NOT NULL,
    return_id UUID,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_stop PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_stop_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_stop_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE INDEX ix_stop_farm_id_block_id ON stop (farm_id, block_id);

CREATE TABLE biofix_version (
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
    CONSTRAINT pk_biofix_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_biofix_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT fk_biofix_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES biofix (farm_id, id),
    CONSTRAINT fk_biofix_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_biofix_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

CREATE TABLE look (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    stop_id UUID NOT NULL,
    signs JSONB NOT NULL,
    note VARCHAR NOT NULL,
    verdict VARCHAR NOT NULL,
    working JSONB NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_look PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_look_farm_id_stop_id FOREIGN KEY(farm_id, stop_id) REFERENCES stop (farm_id, id),
    CONSTRAINT fk_look_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE INDEX ix_look_farm_id_stop_id ON look (farm_id, stop_id);

CREATE TABLE photo (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    stop_id UUID NOT NULL,
    account_id UUID NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    width INTEGER NOT NULL,
    height INTEGER NOT NULL,
    content BYTEA NOT NULL,
    CONSTRAINT pk_photo PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_photo_farm_id_stop_id FOREIGN KEY(farm_id, stop_id) REFERENCES stop (farm_id, id),
    CONSTRAINT fk_photo_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE INDEX ix_photo_farm_id_stop_id ON photo (farm_id, stop_id);

CREATE TABLE sample (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    stop_id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    unit VARCHAR NOT NULL,
    measure VARCHAR NOT NULL,
    counts JSONB NOT NULL,
    enemies JSONB NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_sample PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_sample_agent FOREIGN KEY(agent) REFERENCES agent (id),
    CONSTRAINT fk_sample_farm_id_stop_id FOREIGN KEY(farm_id, stop_id) REFERENCES stop (farm_id, id),
    CONSTRAINT fk_sample_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE INDEX ix_sample_farm_id_stop_id ON sample (farm_id, stop_id);

CREATE TABLE stop_version (
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
    CONSTRAINT pk_stop_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_stop_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT fk_stop_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES stop (farm_id, id),
    CONSTRAINT fk_stop_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_stop_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

CREATE TABLE decision (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    look_id UUID NOT NULL,
    sample_id UUID,
    block_id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    kind VARCHAR NOT NULL,
    headline VARCHAR NOT NULL,
    control VARCHAR NOT NULL,
    working JSONB NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_decision PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_decision_agent FOREIGN KEY(agent) REFERENCES agent (id),
    CONSTRAINT fk_decision_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_decision_farm_id_look_id FOREIGN KEY(farm_id, look_id) REFERENCES look (farm_id, id),
    CONSTRAINT fk_decision_farm_id_sample_id FOREIGN KEY(farm_id, sample_id) REFERENCES sample (farm_id, id),
    CONSTRAINT fk_decision_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE TABLE finding (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    look_id UUID NOT NULL,
    look_version INTEGER NOT NULL,
    block_id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    verdict VARCHAR NOT NULL,
    probability DOUBLE PRECISION NOT NULL,
    confirmed BOOLEAN NOT NULL,
    activity VARCHAR NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    CONSTRAINT pk_finding PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_finding_agent FOREIGN KEY(agent) REFERENCES agent (id),
    CONSTRAINT fk_finding_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_finding_farm_id_look_id FOREIGN KEY(farm_id, look_id) REFERENCES look (farm_id, id),
    CONSTRAINT fk_finding_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE INDEX ix_finding_farm_id_block_id_agent ON finding (farm_id, block_id, agent);

CREATE TABLE look_version (
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
    CONSTRAINT pk_look_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_look_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT fk_look_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES look (farm_id, id),
    CONSTRAINT fk_look_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_look_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

CREATE TABLE sample_version (
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
    CONSTRAINT pk_sample_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_sample_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT fk_sample_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES sample (farm_id, id),
    CONSTRAINT fk_sample_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_sample_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

CREATE TABLE decision_version (
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
    CONSTRAINT pk_decision_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_decision_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT fk_decision_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES decision (farm_id, id),
    CONSTRAINT fk_decision_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_decision_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

CREATE TABLE treatment (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    decision_id UUID NOT NULL,
    decision_version INTEGER NOT NULL,
    block_id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    control VARCHAR NOT NULL,
    ordinal INTEGER NOT NULL,
    "on" DATE NOT NULL,
    not_after DATE,
    why VARCHAR NOT NULL,
    state VARCHAR NOT NULL,
    CONSTRAINT pk_treatment PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_treatment_agent FOREIGN KEY(agent) REFERENCES agent (id),
    CONSTRAINT fk_treatment_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_treatment_farm_id_decision_id FOREIGN KEY(farm_id, decision_id) REFERENCES decision (farm_id, id),
    CONSTRAINT fk_treatment_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE INDEX ix_treatment_farm_id_block_id ON treatment (farm_id, block_id);

CREATE TABLE application (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    treatment_id UUID NOT NULL,
    started_at TIMESTAMP WITH TIME ZONE NOT NULL,
    finished_at TIMESTAMP WITH TIME ZONE NOT NULL,
    amount DOUBLE PRECISION NOT NULL,
    amount_unit VARCHAR NOT NULL,
    area DOUBLE PRECISION NOT NULL,
    working JSONB NOT NULL,
    note VARCHAR NOT NULL,
    version INTEGER NOT NULL,
    version_id UUID NOT NULL,
    conflict BOOLEAN NOT NULL,
    seen_at TIMESTAMP WITH TIME ZONE NOT NULL,
    account_id UUID NOT NULL,
    CONSTRAINT pk_application PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_application_farm_id_treatment_id FOREIGN KEY(farm_id, treatment_id) REFERENCES treatment (farm_id, id),
    CONSTRAINT fk_application_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_application_farm_id_treatment_id UNIQUE (farm_id, treatment_id)
);

CREATE TABLE application_version (
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
    CONSTRAINT pk_application_version PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_application_version_farm_id_command_id FOREIGN KEY(farm_id, command_id) REFERENCES command (farm_id, id),
    CONSTRAINT fk_application_version_farm_id_record_id FOREIGN KEY(farm_id, record_id) REFERENCES application (farm_id, id),
    CONSTRAINT fk_application_version_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id),
    CONSTRAINT uq_application_version_farm_id_record_id_number UNIQUE (farm_id, record_id, number)
);

CREATE TABLE return_visit (
    farm_id UUID NOT NULL,
    id UUID NOT NULL,
    block_id UUID NOT NULL,
    agent VARCHAR NOT NULL,
    decision_id UUID NOT NULL,
    application_id UUID,
    due_on DATE NOT NULL,
    look_for VARCHAR NOT NULL,
    state VARCHAR NOT NULL,
    CONSTRAINT pk_return_visit PRIMARY KEY (farm_id, id),
    CONSTRAINT fk_return_visit_agent FOREIGN KEY(agent) REFERENCES agent (id),
    CONSTRAINT fk_return_visit_farm_id_application_id FOREIGN KEY(farm_id, application_id) REFERENCES application (farm_id, id),
    CONSTRAINT fk_return_visit_farm_id_block_id FOREIGN KEY(farm_id, block_id) REFERENCES block (farm_id, id),
    CONSTRAINT fk_return_visit_farm_id_decision_id FOREIGN KEY(farm_id, decision_id) REFERENCES decision (farm_id, id),
    CONSTRAINT fk_return_visit_farm_id FOREIGN KEY(farm_id) REFERENCES farm (id)
);

CREATE INDEX ix_return_visit_farm_id_state_due_on ON return_visit (farm_id, state, due_on);

ALTER TABLE stop ADD CONSTRAINT fk_stop_farm_id_return_id FOREIGN KEY(farm_id, return_id) REFERENCES return_visit (farm_id, id);
