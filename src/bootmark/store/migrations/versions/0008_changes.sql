CREATE TABLE farm_change (
    farm_id uuid NOT NULL,
    topic varchar NOT NULL,
    writer xid8 NOT NULL,
    writes integer NOT NULL DEFAULT 1,
    CONSTRAINT pk_farm_change PRIMARY KEY (farm_id, topic, writer),
    CONSTRAINT fk_farm_change_farm_id FOREIGN KEY (farm_id) REFERENCES farm (id)
);

ALTER TABLE farm_change ENABLE ROW LEVEL SECURITY;
ALTER TABLE farm_change FORCE ROW LEVEL SECURITY;
CREATE POLICY farm_change_farm ON farm_change
    USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid)
    WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);
-- The triggers below write as the owner, whichever farm or none is set.
CREATE POLICY farm_change_owner ON farm_change TO bm_owner USING (true) WITH CHECK (true);
GRANT SELECT ON farm_change TO bm_web, bm_worker;

-- Each transaction has a row of its own, so that writers never wait for each other. Old rows go now and then; whoever is deleting
-- them already is left alone.
CREATE FUNCTION bm_note(which text, farms uuid[]) RETURNS void
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
BEGIN
    INSERT INTO farm_change AS noted (farm_id, topic, writer)
    SELECT farm, which, pg_current_xact_id() FROM unnest(farms) farm
    ON CONFLICT (farm_id, topic, writer) DO UPDATE SET writes = noted.writes + 1;
    IF pg_current_xact_id()::text::bigint % 64 = 0 THEN
        DELETE FROM farm_change WHERE ctid IN (
            SELECT old.ctid FROM farm_change old
            WHERE old.farm_id = ANY (farms) AND old.topic = which AND old.writer < (
                SELECT min(recent.writer) FROM (
                    SELECT newest.writer FROM farm_change newest WHERE newest.farm_id = old.farm_id AND newest.topic = which
                    ORDER BY newest.writer DESC LIMIT 32
                ) recent
            )
            FOR UPDATE SKIP LOCKED
        );
    END IF;
END
$$;

CREATE FUNCTION bm_rows_written() RETURNS trigger
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
BEGIN
    PERFORM bm_note(TG_ARGV[0], (SELECT array_agg(DISTINCT farm_id) FROM written));
    RETURN NULL;
END
$$;

CREATE FUNCTION bm_farm_written() RETURNS trigger
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
BEGIN
    PERFORM bm_note('places', ARRAY[NEW.id]);
    RETURN NULL;
END
$$;

REVOKE ALL ON FUNCTION bm_note(text, uuid[]) FROM PUBLIC;
REVOKE ALL ON FUNCTION bm_rows_written() FROM PUBLIC;
REVOKE ALL ON FUNCTION bm_farm_written() FROM PUBLIC;

CREATE TRIGGER farm_written AFTER INSERT OR UPDATE ON farm FOR EACH ROW EXECUTE FUNCTION bm_farm_written();

-- places
CREATE TRIGGER block_insert_noted AFTER INSERT ON block REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER block_update_noted AFTER UPDATE ON block REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER block_delete_noted AFTER DELETE ON block REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER station_insert_noted AFTER INSERT ON station REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER station_update_noted AFTER UPDATE ON station REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');
CREATE TRIGGER station_delete_noted AFTER DELETE ON station REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('places');

-- weather
CREATE TRIGGER weather_day_insert_noted AFTER INSERT ON weather_day REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER weather_day_update_noted AFTER UPDATE ON weather_day REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER weather_day_delete_noted AFTER DELETE ON weather_day REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER weather_hour_insert_noted AFTER INSERT ON weather_hour REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER weather_hour_update_noted AFTER UPDATE ON weather_hour REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER weather_hour_delete_noted AFTER DELETE ON weather_hour REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER forecast_insert_noted AFTER INSERT ON forecast REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER forecast_update_noted AFTER UPDATE ON forecast REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER forecast_delete_noted AFTER DELETE ON forecast REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER weather_derived_insert_noted AFTER INSERT ON weather_derived REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER weather_derived_update_noted AFTER UPDATE ON weather_derived REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER weather_derived_delete_noted AFTER DELETE ON weather_derived REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER judgement_insert_noted AFTER INSERT ON judgement REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER judgement_update_noted AFTER UPDATE ON judgement REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');
CREATE TRIGGER judgement_delete_noted AFTER DELETE ON judgement REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('weather');

-- seasons
CREATE TRIGGER biofix_insert_noted AFTER INSERT ON biofix REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER biofix_update_noted AFTER UPDATE ON biofix REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER biofix_delete_noted AFTER DELETE ON biofix REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER trap_insert_noted AFTER INSERT ON trap REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER trap_update_noted AFTER UPDATE ON trap REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER trap_delete_noted AFTER DELETE ON trap REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER trap_check_insert_noted AFTER INSERT ON trap_check REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER trap_check_update_noted AFTER UPDATE ON trap_check REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER trap_check_delete_noted AFTER DELETE ON trap_check REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER stage_sighting_insert_noted AFTER INSERT ON stage_sighting REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER stage_sighting_update_noted AFTER UPDATE ON stage_sighting REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER stage_sighting_delete_noted AFTER DELETE ON stage_sighting REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER crop_stage_insert_noted AFTER INSERT ON crop_stage REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER crop_stage_update_noted AFTER UPDATE ON crop_stage REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');
CREATE TRIGGER crop_stage_delete_noted AFTER DELETE ON crop_stage REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('seasons');

-- results
CREATE TRIGGER season_result_insert_noted AFTER INSERT ON season_result REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('results');
CREATE TRIGGER season_result_update_noted AFTER UPDATE ON season_result REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('results');
CREATE TRIGGER season_result_delete_noted AFTER DELETE ON season_result REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('results');

-- scouting
CREATE TRIGGER stop_insert_noted AFTER INSERT ON stop REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER stop_update_noted AFTER UPDATE ON stop REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER stop_delete_noted AFTER DELETE ON stop REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER look_insert_noted AFTER INSERT ON look REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER look_update_noted AFTER UPDATE ON look REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER look_delete_noted AFTER DELETE ON look REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER finding_insert_noted AFTER INSERT ON finding REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER finding_update_noted AFTER UPDATE ON finding REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER finding_delete_noted AFTER DELETE ON finding REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER sample_insert_noted AFTER INSERT ON sample REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER sample_update_noted AFTER UPDATE ON sample REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER sample_delete_noted AFTER DELETE ON sample REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER enquiry_insert_noted AFTER INSERT ON enquiry REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER enquiry_update_noted AFTER UPDATE ON enquiry REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER enquiry_delete_noted AFTER DELETE ON enquiry REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER photo_insert_noted AFTER INSERT ON photo REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER photo_update_noted AFTER UPDATE ON photo REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');
CREATE TRIGGER photo_delete_noted AFTER DELETE ON photo REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('scouting');

-- treatment
CREATE TRIGGER decision_insert_noted AFTER INSERT ON decision REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER decision_update_noted AFTER UPDATE ON decision REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER decision_delete_noted AFTER DELETE ON decision REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER treatment_insert_noted AFTER INSERT ON treatment REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER treatment_update_noted AFTER UPDATE ON treatment REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER treatment_delete_noted AFTER DELETE ON treatment REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER return_visit_insert_noted AFTER INSERT ON return_visit REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER return_visit_update_noted AFTER UPDATE ON return_visit REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER return_visit_delete_noted AFTER DELETE ON return_visit REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER application_insert_noted AFTER INSERT ON application REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER application_update_noted AFTER UPDATE ON application REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');
CREATE TRIGGER application_delete_noted AFTER DELETE ON application REFERENCING OLD TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION bm_rows_written('treatment');

-- Somebody comes to a farm: who it is there and what the farm's rows are at, in one question. The wall is told of the farm only where
-- the account is a member; otherwise there is no row, and nothing is told.
CREATE FUNCTION bm_enter(account uuid, wanted uuid)
RETURNS TABLE (name text, email text, farm text, role text, qualified boolean, stamps jsonb)
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
BEGIN
    RETURN QUERY
        SELECT a.name::text, a.email::text, f.name::text, m.role::text, m.qualified,
            (SELECT jsonb_object_agg(noted.topic, noted.stamp) FROM (
                SELECT c.topic, md5(string_agg(c.writer::text || ':' || c.writes, ',' ORDER BY c.writer)) AS stamp
                FROM farm_change c WHERE c.farm_id = wanted GROUP BY c.topic
            ) noted)
        FROM membership m JOIN account a ON a.id = m.account_id JOIN farm f ON f.id = m.farm_id
        WHERE m.account_id = account AND m.farm_id = wanted;
    IF FOUND THEN
        PERFORM set_config('bm.farm', wanted::text, true);
    END IF;
END
$$;
REVOKE ALL ON FUNCTION bm_enter(uuid, uuid) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION bm_enter(uuid, uuid) TO bm_web;

-- What the Book and the Round read: the newest first, and what stands beside each other.
CREATE INDEX ix_application_conflict ON application (farm_id) WHERE conflict;
CREATE INDEX ix_biofix_conflict ON biofix (farm_id) WHERE conflict;
CREATE INDEX ix_block_conflict ON block (farm_id) WHERE conflict;
CREATE INDEX ix_crop_stage_conflict ON crop_stage (farm_id) WHERE conflict;
CREATE INDEX ix_decision_conflict ON decision (farm_id) WHERE conflict;
CREATE INDEX ix_enquiry_conflict ON enquiry (farm_id) WHERE conflict;
CREATE INDEX ix_judgement_conflict ON judgement (farm_id) WHERE conflict;
CREATE INDEX ix_look_conflict ON look (farm_id) WHERE conflict;
CREATE INDEX ix_sample_conflict ON sample (farm_id) WHERE conflict;
CREATE INDEX ix_stage_sighting_conflict ON stage_sighting (farm_id) WHERE conflict;
CREATE INDEX ix_station_conflict ON station (farm_id) WHERE conflict;
CREATE INDEX ix_stop_conflict ON stop (farm_id) WHERE conflict;
CREATE INDEX ix_trap_conflict ON trap (farm_id) WHERE conflict;
CREATE INDEX ix_trap_check_conflict ON trap_check (farm_id) WHERE conflict;
CREATE INDEX ix_look_by_time ON look (farm_id, seen_at);
CREATE INDEX ix_sample_by_time ON sample (farm_id, seen_at);
CREATE INDEX ix_decision_by_time ON decision (farm_id, seen_at);
CREATE INDEX ix_application_by_time ON application (farm_id, finished_at);
CREATE INDEX ix_biofix_by_time ON biofix (farm_id, seen_at);
CREATE INDEX ix_trap_check_by_time ON trap_check (farm_id, seen_at);
CREATE INDEX ix_stage_sighting_by_time ON stage_sighting (farm_id, seen_at);
CREATE INDEX ix_crop_stage_by_time ON crop_stage (farm_id, seen_at);
DROP INDEX ix_stop_farm_id_block_id;
CREATE INDEX ix_stop_farm_id_block_id_on ON stop (farm_id, block_id, "on");
CREATE INDEX ix_stop_farm_id_on ON stop (farm_id, "on");
