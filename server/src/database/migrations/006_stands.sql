-- How long an entry counts (always, newest, both, never), as its kind says: the core writes it, nothing here repeats it.
ALTER TABLE entries ADD COLUMN stands text NOT NULL DEFAULT 'never';
ALTER TABLE entries DISABLE TRIGGER USER;
UPDATE entries SET stands = CASE
  WHEN verdict = 'fail' THEN 'both'
  WHEN kind IN ('result', 'acceptance', 'position', 'work', 'gate', 'intake') THEN 'newest'
  WHEN kind IN ('correction', 'note') THEN 'never'
  ELSE 'always' END;
ALTER TABLE entries ENABLE TRIGGER USER;
ALTER TABLE entries ALTER COLUMN stands DROP DEFAULT;
DROP INDEX entries_failed;
ALTER TABLE entries DROP COLUMN verdict;
CREATE INDEX entries_always ON entries (job_id, seq) WHERE stands IN ('always', 'both');
