-- People who sign in, their sessions, and the instruments of the shop.

CREATE TABLE people (
  id text PRIMARY KEY,
  name text NOT NULL,
  -- JSON list of roles.
  roles text NOT NULL,
  password_hash text NOT NULL,
  demo boolean NOT NULL DEFAULT false,
  active boolean NOT NULL DEFAULT true,
  created_at text NOT NULL
);
CREATE UNIQUE INDEX people_name ON people (lower(name));

-- Only the hash of a session's token is kept: whoever reads the database cannot use it.
CREATE TABLE sessions (
  token_hash text PRIMARY KEY,
  person_id text NOT NULL REFERENCES people (id),
  created_at text NOT NULL,
  seen_at text NOT NULL
);

CREATE TABLE instruments (
  id text PRIMARY KEY,
  kind text NOT NULL,
  name text NOT NULL,
  serial text NOT NULL,
  -- Day (YYYY-MM-DD) through which the calibration holds; null: none is kept.
  calibration_due text,
  retired boolean NOT NULL DEFAULT false,
  created_at text NOT NULL
);
