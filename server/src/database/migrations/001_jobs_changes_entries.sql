-- Jobs with their current design, the history of its changes, and the append-only record.

CREATE TABLE jobs (
  id text PRIMARY KEY,
  name text NOT NULL,
  demo boolean NOT NULL DEFAULT false,
  created_at text NOT NULL,
  -- The first design, from which the changes lead to the current one; both plain JSON.
  first_design text NOT NULL,
  design text NOT NULL,
  version integer NOT NULL DEFAULT 0
);

CREATE TABLE changes (
  job_id text NOT NULL REFERENCES jobs (id),
  version integer NOT NULL,
  id text NOT NULL UNIQUE,
  base integer NOT NULL,
  label text NOT NULL,
  author text NOT NULL,
  made_at text NOT NULL,
  saved_at text NOT NULL,
  forward text NOT NULL,
  inverse text NOT NULL,
  PRIMARY KEY (job_id, version)
);

-- `content` is the RFC 8785 canonical text and the truth; every other column must agree with it.
CREATE TABLE entries (
  job_id text NOT NULL REFERENCES jobs (id),
  seq integer NOT NULL,
  id text NOT NULL UNIQUE,
  kind text NOT NULL,
  previous text,
  sha256 text NOT NULL,
  recorded_at text NOT NULL,
  -- What the entry is about and which entry it points at: for finding those that still matter.
  topic text NOT NULL,
  target integer,
  verdict text,
  content text NOT NULL,
  PRIMARY KEY (job_id, seq)
);
CREATE INDEX entries_topic ON entries (job_id, kind, topic, seq);
CREATE INDEX entries_failed ON entries (job_id, seq) WHERE verdict = 'fail';

CREATE FUNCTION refuse_rewrite() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'the record is append-only';
END $$;

CREATE TRIGGER entries_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON entries
  FOR EACH STATEMENT EXECUTE FUNCTION refuse_rewrite();
CREATE TRIGGER changes_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON changes
  FOR EACH STATEMENT EXECUTE FUNCTION refuse_rewrite();
