-- The shop's own parts: every revision that was ever saved, and which parts are no longer offered.

CREATE TABLE library_parts (
  id text NOT NULL,
  revision integer NOT NULL,
  kind text NOT NULL,
  -- The part as plain JSON.
  content text NOT NULL,
  note text NOT NULL,
  saved_by text NOT NULL,
  saved_at text NOT NULL,
  PRIMARY KEY (id, revision)
);
CREATE TRIGGER library_parts_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON library_parts
  FOR EACH STATEMENT EXECUTE FUNCTION refuse_rewrite();

CREATE TABLE library_retired (
  id text PRIMARY KEY,
  retired_by text NOT NULL,
  retired_at text NOT NULL
);
