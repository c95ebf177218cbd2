REVOKE INSERT, UPDATE ON
    farm, block, biofix, stop, look, sample, decision, application, finding, treatment, return_visit, enquiry, trap, trap_check,
    stage_sighting, crop_stage, judgement
FROM bm_worker;
REVOKE INSERT ON
    command, photo, station_version, block_version, biofix_version, stop_version, look_version, sample_version, decision_version,
    application_version, enquiry_version, trap_version, trap_check_version, stage_sighting_version, crop_stage_version, judgement_version
FROM bm_worker;
REVOKE SELECT ON photo FROM bm_worker;
-- A station's row is noted in, never made.
REVOKE INSERT ON station FROM bm_worker;
REVOKE INSERT ON weather_upload FROM bm_worker;
