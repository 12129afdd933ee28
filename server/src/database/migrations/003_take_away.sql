-- Files that go with entries, releases of designs, and where a job came from.

-- The bytes lie in the data folder, by their hash.
CREATE TABLE files (
  job_id text NOT NULL REFERENCES jobs (id),
  sha256 text NOT NULL,
  name text NOT NULL,
  type text NOT NULL,
  size integer NOT NULL,
  added_by text NOT NULL,
  added_at text NOT NULL,
  PRIMARY KEY (job_id, sha256)
);

-- `content` is canonical text: the frozen design, its figures, the head of the record at that moment.
CREATE TABLE releases (
  job_id text NOT NULL REFERENCES jobs (id),
  number integer NOT NULL,
  id text NOT NULL UNIQUE,
  version integer NOT NULL,
  label text NOT NULL,
  released_by text NOT NULL,
  released_at text NOT NULL,
  sha256 text NOT NULL,
  content text NOT NULL,
  PRIMARY KEY (job_id, number)
);
CREATE TRIGGER releases_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON releases
  FOR EACH STATEMENT EXECUTE FUNCTION refuse_rewrite();

-- When and by whom a job was brought in from elsewhere; null: it was made here.
ALTER TABLE jobs ADD COLUMN imported_at text;
ALTER TABLE jobs ADD COLUMN imported_by text;
