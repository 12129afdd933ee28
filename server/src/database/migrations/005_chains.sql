-- The journals are the truth; here stands up to which link of each chain the rows go.

CREATE TABLE chains (
  name text PRIMARY KEY,
  n integer NOT NULL,
  sha256 text NOT NULL
);

-- Password hashes move to the shop's journal, at the start that follows.
CREATE TABLE moved_passwords AS SELECT id, password_hash FROM people;
ALTER TABLE people DROP COLUMN password_hash;
