ALTER TABLE look DROP CONSTRAINT look_verdict_known;
ALTER TABLE look ADD CONSTRAINT look_verdict_known CHECK (verdict IN ('named', 'needs a look', 'not a pest', 'normal for the season', 'help has come', 'must be reported', 'cannot tell', 'send a sample', 'no cause known'));
ALTER TABLE finding DROP CONSTRAINT finding_verdict_known;
ALTER TABLE finding ADD CONSTRAINT finding_verdict_known CHECK (verdict IN ('named', 'needs a look', 'not a pest', 'normal for the season', 'help has come', 'must be reported', 'cannot tell', 'send a sample', 'no cause known'));
ALTER TABLE enquiry DROP CONSTRAINT enquiry_verdict_known;
ALTER TABLE enquiry ADD CONSTRAINT enquiry_verdict_known CHECK (verdict IN ('named', 'needs a look', 'not a pest', 'normal for the season', 'help has come', 'must be reported', 'cannot tell', 'send a sample', 'no cause known'));
ALTER TABLE decision DROP CONSTRAINT decision_kind_known;
ALTER TABLE decision ADD CONSTRAINT decision_kind_known CHECK (kind IN ('leave', 'look again', 'act now', 'act in window', 'spot-treat', 'release', 'cultural act', 'harvest first', 'salvage', 'refer', 'report', 'send a sample'));
