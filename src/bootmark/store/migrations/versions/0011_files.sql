-- job: "reading" or "importing" while the worker is at it, "failed" where it could not, else empty; wanted: the choices that it works by;
-- progress: in per cent; understood: what was read, with the key of the choices by which it was.
ALTER TABLE weather_upload
    ADD COLUMN job character varying NOT NULL DEFAULT '',
    ADD COLUMN progress integer NOT NULL DEFAULT 0,
    ADD COLUMN wanted jsonb NOT NULL DEFAULT '{}',
    ADD COLUMN understood jsonb NOT NULL DEFAULT '{}';
