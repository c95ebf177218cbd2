-- A temporary table is looked up before any other unless pg_temp is named: whoever made one called "account" or "sign_in_attempt"
-- could have had its trigger run as the owner.
ALTER FUNCTION bm_account(uuid) SET search_path = public, pg_temp;
ALTER FUNCTION bm_memberships(uuid) SET search_path = public, pg_temp;
ALTER FUNCTION bm_people() SET search_path = public, pg_temp;
ALTER FUNCTION bm_farms() SET search_path = public, pg_temp;
ALTER FUNCTION bm_failures(text, timestamptz) SET search_path = public, pg_temp;
ALTER FUNCTION bm_failed(text, timestamptz) SET search_path = public, pg_temp;

-- An address comes folded, and is kept folded: the database makes no letters alike that the lock-out counts apart.
CREATE OR REPLACE FUNCTION bm_sign_in(wanted text) RETURNS TABLE (id uuid, name text, password_hash text)
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ SELECT id, name, password_hash FROM account WHERE email = wanted $$;
