-- The holder of a lasting sign-in sets the password of its own account, and of no other; every sign-in of it then ends (0010).
CREATE FUNCTION bm_password_set(hashed text, password text, happened timestamptz) RETURNS void
LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS
$$
    UPDATE account SET password_hash = password
    FROM sign_in_session s
    WHERE s.token_hash = hashed AND s.ended_at IS NULL AND s.ends_at > happened AND account.id = s.account_id
$$;

REVOKE ALL ON FUNCTION bm_password_set(text, text, timestamptz) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION bm_password_set(text, text, timestamptz) TO bm_web;
