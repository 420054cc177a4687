-- Soaks under way, pictures, what a shelved job waits for, sales and what others asked, parts of donor units.
CREATE TABLE soaks (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  function TEXT NOT NULL,
  minutes REAL NOT NULL,
  started_at TEXT NOT NULL,
  timer_id INTEGER,
  noted TEXT NOT NULL DEFAULT '[]',
  ended_at TEXT
);
CREATE INDEX soaks_open ON soaks (job_id) WHERE ended_at IS NULL;

CREATE TABLE pictures (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  hash TEXT NOT NULL,
  width INTEGER NOT NULL,
  height INTEGER NOT NULL,
  bytes INTEGER NOT NULL,
  about TEXT NOT NULL DEFAULT '',
  side TEXT NOT NULL DEFAULT '',
  caption TEXT NOT NULL DEFAULT '',
  marks TEXT NOT NULL DEFAULT '[]',
  at TEXT NOT NULL,
  deleted_at TEXT
);
CREATE INDEX pictures_job ON pictures (job_id, id);

CREATE TABLE shelf_waits (
  job_id INTEGER PRIMARY KEY REFERENCES jobs (id),
  part TEXT NOT NULL DEFAULT '',
  until TEXT,
  since TEXT NOT NULL
);

CREATE TABLE sales (
  job_id INTEGER PRIMARY KEY REFERENCES jobs (id),
  state TEXT NOT NULL,
  asking TEXT,
  price TEXT,
  fees TEXT NOT NULL DEFAULT '0',
  postage TEXT NOT NULL DEFAULT '0',
  packing TEXT NOT NULL DEFAULT '0',
  condition TEXT NOT NULL,
  words TEXT NOT NULL DEFAULT '',
  offered_at TEXT NOT NULL,
  changed_at TEXT NOT NULL
);

CREATE TABLE comparables (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  profile_id TEXT NOT NULL,
  day TEXT NOT NULL,
  condition TEXT NOT NULL,
  price TEXT NOT NULL,
  currency TEXT NOT NULL,
  words TEXT NOT NULL DEFAULT '',
  deleted_at TEXT
);
CREATE INDEX comparables_model ON comparables (profile_id, day);

CREATE TABLE donor_parts (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  part TEXT NOT NULL,
  name TEXT NOT NULL,
  kind TEXT NOT NULL,
  profile_id TEXT NOT NULL,
  good REAL NOT NULL,
  state TEXT NOT NULL DEFAULT 'there',
  words TEXT NOT NULL DEFAULT '',
  changed_at TEXT NOT NULL
);
CREATE INDEX donor_parts_kind ON donor_parts (profile_id, kind);
