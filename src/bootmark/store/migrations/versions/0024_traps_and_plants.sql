-- What a trap's lure is, how high it hangs, when its floor was changed; how many plants stand on a block.
ALTER TABLE trap ADD COLUMN lure VARCHAR DEFAULT '' NOT NULL;
ALTER TABLE trap ADD COLUMN height FLOAT;
ALTER TABLE trap_check ADD COLUMN new_liner BOOLEAN DEFAULT false NOT NULL;
ALTER TABLE planting ADD COLUMN plants INTEGER;
