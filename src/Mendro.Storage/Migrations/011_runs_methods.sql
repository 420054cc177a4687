-- Methods under way: which step, since when its stopwatch runs, and the seconds of each step as a JSON list. A pause has no since.
CREATE TABLE runs (
  id INTEGER PRIMARY KEY,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  part_id TEXT NOT NULL,
  method_id TEXT NOT NULL,
  step INTEGER NOT NULL DEFAULT 0,
  since TEXT,
  seconds TEXT NOT NULL DEFAULT '[]',
  timer_id INTEGER REFERENCES timers (id),
  touches TEXT NOT NULL DEFAULT '',
  started_at TEXT NOT NULL,
  ended_at TEXT,
  record_id INTEGER REFERENCES bench_records (id)
);

CREATE INDEX runs_open ON runs (job_id) WHERE ended_at IS NULL;

-- The shop's own way of a method: a copy that was changed, every version kept.
CREATE TABLE shop_methods (
  id INTEGER PRIMARY KEY,
  method_id TEXT NOT NULL,
  version INTEGER NOT NULL,
  based_on TEXT NOT NULL,
  json TEXT NOT NULL,
  made_at TEXT NOT NULL,
  retired_at TEXT,
  UNIQUE (method_id, version)
);

-- What the methods learn from, without a walk over all records.
CREATE INDEX bench_records_repairs ON bench_records (job_id, seq) WHERE kind = 'repair' AND withdrawn_at IS NULL;

-- All jobs of one unit are found by its serial number.
CREATE INDEX jobs_serial ON jobs (serial, profile_id) WHERE serial <> '';

-- The way that the shop goes first, where schools differ: one method a kind of part.
CREATE TABLE usual_methods (
  part_kind TEXT PRIMARY KEY,
  method_id TEXT NOT NULL
);
