ALTER TABLE farm ENABLE ROW LEVEL SECURITY;

ALTER TABLE farm FORCE ROW LEVEL SECURITY;

CREATE POLICY farm_farm ON farm USING (id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON farm TO bm_web, bm_worker;

ALTER TABLE membership ENABLE ROW LEVEL SECURITY;

ALTER TABLE membership FORCE ROW LEVEL SECURITY;

CREATE POLICY membership_farm ON membership USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT ON membership TO bm_web, bm_worker;

ALTER TABLE station ENABLE ROW LEVEL SECURITY;

ALTER TABLE station FORCE ROW LEVEL SECURITY;

CREATE POLICY station_farm ON station USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON station TO bm_web, bm_worker;

ALTER TABLE block ENABLE ROW LEVEL SECURITY;

ALTER TABLE block FORCE ROW LEVEL SECURITY;

CREATE POLICY block_farm ON block USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON block TO bm_web, bm_worker;

ALTER TABLE biofix ENABLE ROW LEVEL SECURITY;

ALTER TABLE biofix FORCE ROW LEVEL SECURITY;

CREATE POLICY biofix_farm ON biofix USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON biofix TO bm_web, bm_worker;

ALTER TABLE stop ENABLE ROW LEVEL SECURITY;

ALTER TABLE stop FORCE ROW LEVEL SECURITY;

CREATE POLICY stop_farm ON stop USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON stop TO bm_web, bm_worker;

ALTER TABLE look ENABLE ROW LEVEL SECURITY;

ALTER TABLE look FORCE ROW LEVEL SECURITY;

CREATE POLICY look_farm ON look USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON look TO bm_web, bm_worker;

ALTER TABLE sample ENABLE ROW LEVEL SECURITY;

ALTER TABLE sample FORCE ROW LEVEL SECURITY;

CREATE POLICY sample_farm ON sample USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON sample TO bm_web, bm_worker;

ALTER TABLE decision ENABLE ROW LEVEL SECURITY;

ALTER TABLE decision FORCE ROW LEVEL SECURITY;

CREATE POLICY decision_farm ON decision USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON decision TO bm_web, bm_worker;

ALTER TABLE application ENABLE ROW LEVEL SECURITY;

ALTER TABLE application FORCE ROW LEVEL SECURITY;

CREATE POLICY application_farm ON application USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON application TO bm_web, bm_worker;

ALTER TABLE finding ENABLE ROW LEVEL SECURITY;

ALTER TABLE finding FORCE ROW LEVEL SECURITY;

CREATE POLICY finding_farm ON finding USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON finding TO bm_web, bm_worker;

ALTER TABLE treatment ENABLE ROW LEVEL SECURITY;

ALTER TABLE treatment FORCE ROW LEVEL SECURITY;

CREATE POLICY treatment_farm ON treatment USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON treatment TO bm_web, bm_worker;

ALTER TABLE return_visit ENABLE ROW LEVEL SECURITY;

ALTER TABLE return_visit FORCE ROW LEVEL SECURITY;

CREATE POLICY return_visit_farm ON return_visit USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON return_visit TO bm_web, bm_worker;

ALTER TABLE weather_derived ENABLE ROW LEVEL SECURITY;

ALTER TABLE weather_derived FORCE ROW LEVEL SECURITY;

CREATE POLICY weather_derived_farm ON weather_derived USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON weather_derived TO bm_web, bm_worker;

ALTER TABLE weather_upload ENABLE ROW LEVEL SECURITY;

ALTER TABLE weather_upload FORCE ROW LEVEL SECURITY;

CREATE POLICY weather_upload_farm ON weather_upload USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT, UPDATE ON weather_upload TO bm_web, bm_worker;

ALTER TABLE command ENABLE ROW LEVEL SECURITY;

ALTER TABLE command FORCE ROW LEVEL SECURITY;

CREATE POLICY command_farm ON command USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON command TO bm_web, bm_worker;

ALTER TABLE weather_day ENABLE ROW LEVEL SECURITY;

ALTER TABLE weather_day FORCE ROW LEVEL SECURITY;

CREATE POLICY weather_day_farm ON weather_day USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON weather_day TO bm_web, bm_worker;

ALTER TABLE weather_hour ENABLE ROW LEVEL SECURITY;

ALTER TABLE weather_hour FORCE ROW LEVEL SECURITY;

CREATE POLICY weather_hour_farm ON weather_hour USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON weather_hour TO bm_web, bm_worker;

ALTER TABLE forecast ENABLE ROW LEVEL SECURITY;

ALTER TABLE forecast FORCE ROW LEVEL SECURITY;

CREATE POLICY forecast_farm ON forecast USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON forecast TO bm_web, bm_worker;

ALTER TABLE photo ENABLE ROW LEVEL SECURITY;

ALTER TABLE photo FORCE ROW LEVEL SECURITY;

CREATE POLICY photo_farm ON photo USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON photo TO bm_web, bm_worker;

ALTER TABLE station_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE station_version FORCE ROW LEVEL SECURITY;

CREATE POLICY station_version_farm ON station_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON station_version TO bm_web, bm_worker;

ALTER TABLE block_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE block_version FORCE ROW LEVEL SECURITY;

CREATE POLICY block_version_farm ON block_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON block_version TO bm_web, bm_worker;

ALTER TABLE biofix_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE biofix_version FORCE ROW LEVEL SECURITY;

CREATE POLICY biofix_version_farm ON biofix_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON biofix_version TO bm_web, bm_worker;

ALTER TABLE stop_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE stop_version FORCE ROW LEVEL SECURITY;

CREATE POLICY stop_version_farm ON stop_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON stop_version TO bm_web, bm_worker;

ALTER TABLE look_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE look_version FORCE ROW LEVEL SECURITY;

CREATE POLICY look_version_farm ON look_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON look_version TO bm_web, bm_worker;

ALTER TABLE sample_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE sample_version FORCE ROW LEVEL SECURITY;

CREATE POLICY sample_version_farm ON sample_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON sample_version TO bm_web, bm_worker;

ALTER TABLE decision_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE decision_version FORCE ROW LEVEL SECURITY;

CREATE POLICY decision_version_farm ON decision_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON decision_version TO bm_web, bm_worker;

ALTER TABLE application_version ENABLE ROW LEVEL SECURITY;

ALTER TABLE application_version FORCE ROW LEVEL SECURITY;

CREATE POLICY application_version_farm ON application_version USING (farm_id = nullif(current_setting('bm.farm', true), '')::uuid) WITH CHECK (farm_id = nullif(current_setting('bm.farm', true), '')::uuid);

GRANT SELECT, INSERT ON application_version TO bm_web, bm_worker;

CREATE POLICY membership_sign_in ON membership FOR SELECT TO bm_owner USING (true);

CREATE POLICY farm_sign_in ON farm FOR SELECT TO bm_owner USING (true);

GRANT SELECT ON agent, sign TO bm_web, bm_worker;

CREATE FUNCTION bm_sign_in(wanted text) RETURNS TABLE (id uuid, name text, password_hash text)
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ SELECT id, name, password_hash FROM account WHERE email = lower(wanted) $$;;

CREATE FUNCTION bm_account(wanted uuid) RETURNS TABLE (id uuid, name text, email text)
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ SELECT id, name, email FROM account WHERE id = wanted $$;;

CREATE FUNCTION bm_memberships(wanted uuid) RETURNS TABLE (farm_id uuid, farm text, role text, qualified boolean)
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ SELECT m.farm_id, f.name, m.role, m.qualified FROM membership m JOIN farm f ON f.id = m.farm_id
   WHERE m.account_id = wanted ORDER BY f.name $$;;

CREATE FUNCTION bm_people() RETURNS TABLE (id uuid, name text, role text, qualified boolean)
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ SELECT a.id, a.name, m.role, m.qualified FROM membership m JOIN account a ON a.id = m.account_id
   WHERE m.farm_id = nullif(current_setting('bm.farm', true), '')::uuid ORDER BY a.name $$;;

CREATE FUNCTION bm_farms() RETURNS TABLE (id uuid)
LANGUAGE sql SECURITY DEFINER SET search_path = public AS $$ SELECT id FROM farm $$;;

CREATE FUNCTION bm_failures(wanted text, since timestamptz) RETURNS bigint
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ SELECT count(*) FROM sign_in_attempt WHERE key = wanted AND at > since $$;;

CREATE FUNCTION bm_failed(wanted text, happened timestamptz) RETURNS void
LANGUAGE sql SECURITY DEFINER SET search_path = public AS
$$ DELETE FROM sign_in_attempt WHERE at < happened - interval '1 day';
   INSERT INTO sign_in_attempt (key, at) VALUES (wanted, happened) $$;;

REVOKE ALL ON FUNCTION bm_sign_in(text) FROM PUBLIC;

GRANT EXECUTE ON FUNCTION bm_sign_in(text) TO bm_web;

REVOKE ALL ON FUNCTION bm_account(uuid) FROM PUBLIC;

GRANT EXECUTE ON FUNCTION bm_account(uuid) TO bm_web;

REVOKE ALL ON FUNCTION bm_memberships(uuid) FROM PUBLIC;

GRANT EXECUTE ON FUNCTION bm_memberships(uuid) TO bm_web;

REVOKE ALL ON FUNCTION bm_people() FROM PUBLIC;

GRANT EXECUTE ON FUNCTION bm_people() TO bm_web;

REVOKE ALL ON FUNCTION bm_failures(text, timestamptz) FROM PUBLIC;

GRANT EXECUTE ON FUNCTION bm_failures(text, timestamptz) TO bm_web;

REVOKE ALL ON FUNCTION bm_failed(text, timestamptz) FROM PUBLIC;

GRANT EXECUTE ON FUNCTION bm_failed(text, timestamptz) TO bm_web;

REVOKE ALL ON FUNCTION bm_farms() FROM PUBLIC;

GRANT EXECUTE ON FUNCTION bm_farms() TO bm_worker;
