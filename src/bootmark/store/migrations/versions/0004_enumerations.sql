ALTER TABLE look ADD CONSTRAINT look_verdict_known CHECK (verdict IN ('named', 'needs a look', 'not a pest', 'normal for the season', 'help has come', 'must be reported', 'cannot tell'));

ALTER TABLE finding ADD CONSTRAINT finding_verdict_known CHECK (verdict IN ('named', 'needs a look', 'not a pest', 'normal for the season', 'help has come', 'must be reported', 'cannot tell'));

ALTER TABLE finding ADD CONSTRAINT finding_activity_known CHECK (activity IN ('active', 'finished', 'parasitised', 'dead', 'not known'));

ALTER TABLE decision ADD CONSTRAINT decision_kind_known CHECK (kind IN ('leave', 'look again', 'act now', 'act in window', 'spot-treat', 'release', 'cultural act', 'harvest first', 'salvage', 'refer', 'report'));

ALTER TABLE membership ADD CONSTRAINT membership_role_known CHECK (role IN ('owner', 'adviser', 'scout', 'applicator', 'viewer'));

ALTER TABLE treatment ADD CONSTRAINT treatment_state_known CHECK (state IN ('planned', 'done', 'withdrawn'));

ALTER TABLE return_visit ADD CONSTRAINT return_visit_state_known CHECK (state IN ('booked', 'answered', 'withdrawn'));

ALTER TABLE sample ADD CONSTRAINT sample_measure_known CHECK (measure IN ('mean', 'proportion', 'trap'));
