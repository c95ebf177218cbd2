-- A picture may be taken to be measured, and hangs on a treatment where it is of a card with its drops.
ALTER TABLE photo ADD COLUMN treatment_id UUID;
ALTER TABLE photo ADD COLUMN asked JSONB;
ALTER TABLE photo ADD COLUMN measured JSONB;
ALTER TABLE photo ADD COLUMN tag VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE photo ADD CONSTRAINT fk_photo_farm_id_treatment_id FOREIGN KEY(farm_id, treatment_id) REFERENCES treatment (farm_id, id);
ALTER TABLE photo DROP CONSTRAINT photo_hangs_on_one;
ALTER TABLE photo ADD CONSTRAINT photo_hangs_on_one CHECK (num_nonnulls(stop_id, enquiry_id, treatment_id) = 1);
CREATE INDEX ix_photo_farm_id_treatment_id ON photo (farm_id, treatment_id);
ALTER TABLE sample ADD COLUMN pictures JSONB DEFAULT '[]' NOT NULL;
ALTER TABLE sample ADD COLUMN ages JSONB DEFAULT '{}' NOT NULL;
-- A spot's place and area travel with its treatment. A farm may have them from an early 0.10.0, whose 0022 made them.
ALTER TABLE treatment ADD COLUMN IF NOT EXISTS spot VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE treatment ADD COLUMN IF NOT EXISTS spot_area FLOAT;
