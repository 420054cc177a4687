-- Repeated starts in one record; what stood in for what in a swap trial.
ALTER TABLE bench_records ADD COLUMN trials INTEGER NOT NULL DEFAULT 1;

-- A practice unit is a job with hidden faults, drawn with a seed; it is kept apart from the shop's own.
ALTER TABLE jobs ADD COLUMN practice_seed INTEGER;

CREATE TABLE gear (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  kind TEXT NOT NULL,
  standard INTEGER NOT NULL DEFAULT 0,
  other_uses INTEGER NOT NULL DEFAULT 0,
  cleaned_at TEXT NOT NULL,
  retired_at TEXT,
  created_at TEXT NOT NULL
);

CREATE TABLE gear_uses (
  record_id INTEGER NOT NULL REFERENCES bench_records (id),
  gear_id INTEGER NOT NULL REFERENCES gear (id),
  PRIMARY KEY (record_id, gear_id)
);

-- A lesson that should not count: the cause was wrong, or the unit was a special case.
CREATE TABLE excluded_lessons (
  record_id INTEGER PRIMARY KEY REFERENCES bench_records (id),
  at TEXT NOT NULL
);

CREATE TABLE second_looks (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  cause_record_id INTEGER NOT NULL REFERENCES bench_records (id),
  before REAL NOT NULL,
  after REAL NOT NULL,
  minutes REAL NOT NULL,
  at TEXT NOT NULL,
  dismissed_at TEXT
);

CREATE INDEX second_looks_job ON second_looks (job_id);
