-- Who is in the shop, who did what, and other programs.
CREATE TABLE accounts (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  -- A name is one person's for good: what was done under it stays theirs.
  name TEXT NOT NULL COLLATE NOCASE UNIQUE,
  role TEXT NOT NULL,
  password TEXT NOT NULL,
  made_at TEXT NOT NULL,
  closed_at TEXT
);

CREATE TABLE sessions (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  mark TEXT NOT NULL UNIQUE,
  account_id INTEGER NOT NULL REFERENCES accounts (id),
  -- A phone's session looks at one job and adds to it.
  job_number INTEGER,
  browser TEXT NOT NULL DEFAULT '',
  address TEXT NOT NULL DEFAULT '',
  made_at TEXT NOT NULL,
  seen_at TEXT NOT NULL,
  ends_at TEXT NOT NULL,
  ended_at TEXT
);
CREATE INDEX sessions_account ON sessions (account_id) WHERE ended_at IS NULL;

CREATE TABLE one_time_codes (
  mark TEXT PRIMARY KEY,
  purpose TEXT NOT NULL,
  account_id INTEGER NOT NULL REFERENCES accounts (id),
  job_number INTEGER,
  made_at TEXT NOT NULL,
  ends_at TEXT NOT NULL,
  used_at TEXT
);

CREATE TABLE access_log (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  at TEXT NOT NULL,
  who TEXT NOT NULL,
  words TEXT NOT NULL,
  address TEXT NOT NULL DEFAULT ''
);

CREATE TABLE programs (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  name TEXT NOT NULL COLLATE NOCASE UNIQUE,
  mark TEXT NOT NULL UNIQUE,
  scopes TEXT NOT NULL,
  made_at TEXT NOT NULL,
  made_by TEXT NOT NULL,
  used_at TEXT,
  ended_at TEXT
);

CREATE TABLE hooks (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  url TEXT NOT NULL,
  secret TEXT NOT NULL,
  events TEXT NOT NULL,
  made_at TEXT NOT NULL,
  made_by TEXT NOT NULL,
  ended_at TEXT
);

CREATE TABLE hook_posts (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  hook_id INTEGER NOT NULL REFERENCES hooks (id),
  event TEXT NOT NULL,
  body TEXT NOT NULL,
  made_at TEXT NOT NULL,
  next_at TEXT,
  tries INTEGER NOT NULL DEFAULT 0,
  answer TEXT NOT NULL DEFAULT '',
  done_at TEXT
);
CREATE INDEX hook_posts_next ON hook_posts (next_at) WHERE next_at IS NOT NULL;

ALTER TABLE bench_records ADD COLUMN done_by TEXT NOT NULL DEFAULT '';
ALTER TABLE timeline ADD COLUMN done_by TEXT NOT NULL DEFAULT '';

-- A person's name and contact may have to be taken out of everything, as the law of many places has it: while such an erasure is under
-- way, in its own transaction, texts may change. That it took place stays.
CREATE TABLE erasures (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  owner INTEGER NOT NULL,
  at TEXT NOT NULL,
  done_by TEXT NOT NULL DEFAULT '',
  under_way INTEGER NOT NULL DEFAULT 1
);

-- What was done cannot be rewritten: a record may be withdrawn and brought back, nothing else of it changes, and a line of a timeline
-- or of the access log never does.
CREATE TRIGGER bench_records_stay BEFORE UPDATE OF id, job_id, seq, kind, subject, symptom, payload_version, payload, words, note, minutes,
  cost, stage, at, replaces, done_by ON bench_records
WHEN NOT EXISTS (SELECT 1 FROM erasures WHERE under_way)
BEGIN
  SELECT RAISE(ABORT, 'a record is never changed');
END;
CREATE TRIGGER bench_records_remain BEFORE DELETE ON bench_records
BEGIN
  SELECT RAISE(ABORT, 'a record is never removed');
END;
CREATE TRIGGER timeline_stays BEFORE UPDATE ON timeline
WHEN NOT EXISTS (SELECT 1 FROM erasures WHERE under_way)
BEGIN
  SELECT RAISE(ABORT, 'a timeline is never changed');
END;
CREATE TRIGGER timeline_remains BEFORE DELETE ON timeline
BEGIN
  SELECT RAISE(ABORT, 'a timeline is never shortened');
END;
CREATE TRIGGER access_log_stays BEFORE UPDATE ON access_log
BEGIN
  SELECT RAISE(ABORT, 'the access log is never changed');
END;
CREATE TRIGGER access_log_remains BEFORE DELETE ON access_log
BEGIN
  SELECT RAISE(ABORT, 'the access log is never shortened');
END;
