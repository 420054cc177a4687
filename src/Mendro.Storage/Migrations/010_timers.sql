-- Timers of the bench: soaking, drying, curing, charging. The end is a moment in UTC, so that a restart loses nothing.
CREATE TABLE timers (
  id INTEGER PRIMARY KEY,
  job_id INTEGER REFERENCES jobs (id),
  label TEXT NOT NULL,
  seconds REAL NOT NULL,
  ends_at TEXT NOT NULL,
  paused_seconds REAL,
  stopped_at TEXT
);

CREATE INDEX timers_running ON timers (stopped_at, ends_at);
