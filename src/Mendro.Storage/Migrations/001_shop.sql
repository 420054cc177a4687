CREATE TABLE settings (
  key TEXT PRIMARY KEY,
  value TEXT NOT NULL
);

CREATE TABLE profiles (
  id TEXT NOT NULL,
  version INTEGER NOT NULL,
  json TEXT NOT NULL,
  origin TEXT NOT NULL CHECK (origin IN ('library', 'shop')),
  created_at TEXT NOT NULL,
  PRIMARY KEY (id, version)
);

CREATE TABLE customers (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  contact TEXT NOT NULL DEFAULT '',
  created_at TEXT NOT NULL
);

CREATE TABLE jobs (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  number INTEGER NOT NULL UNIQUE,
  profile_id TEXT NOT NULL,
  profile_version INTEGER NOT NULL,
  model_name TEXT NOT NULL,
  unit_name TEXT NOT NULL DEFAULT '',
  revision TEXT NOT NULL DEFAULT '',
  serial TEXT NOT NULL DEFAULT '',
  customer_id INTEGER REFERENCES customers (id),
  lot TEXT NOT NULL DEFAULT '',
  paid TEXT,
  currency TEXT NOT NULL,
  accessories TEXT NOT NULL DEFAULT '',
  claim TEXT NOT NULL DEFAULT '',
  condition_note TEXT NOT NULL DEFAULT '',
  stage TEXT NOT NULL,
  access TEXT NOT NULL,
  shelf TEXT NOT NULL,
  shelf_reason TEXT NOT NULL DEFAULT '',
  next_try TEXT NOT NULL DEFAULT '',
  ending TEXT NOT NULL,
  ending_note TEXT NOT NULL DEFAULT '',
  stated_reason TEXT NOT NULL DEFAULT '',
  asking TEXT,
  value_working TEXT,
  value_as_is TEXT,
  value_parts TEXT,
  received_at TEXT NOT NULL,
  closed_at TEXT,
  deleted_at TEXT,
  FOREIGN KEY (profile_id, profile_version) REFERENCES profiles (id, version)
);

CREATE TABLE bench_records (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  seq INTEGER NOT NULL,
  kind TEXT NOT NULL,
  subject TEXT NOT NULL,
  state TEXT NOT NULL DEFAULT '',
  detail TEXT NOT NULL DEFAULT '',
  reading TEXT NOT NULL DEFAULT '',
  value REAL,
  words TEXT NOT NULL,
  note TEXT NOT NULL DEFAULT '',
  minutes REAL NOT NULL DEFAULT 0,
  cost TEXT,
  parts TEXT NOT NULL DEFAULT '',
  stage TEXT NOT NULL,
  at TEXT NOT NULL,
  withdrawn_at TEXT
);

CREATE INDEX bench_records_job ON bench_records (job_id, seq, id);

CREATE TABLE timeline (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  at TEXT NOT NULL,
  kind TEXT NOT NULL,
  words TEXT NOT NULL
);

CREATE INDEX timeline_job ON timeline (job_id, id);
