-- What was decided for the traces and jumpers of a job; mendro.trace-plan/1 as JSON.
CREATE TABLE trace_plans (
  job_id INTEGER PRIMARY KEY REFERENCES jobs (id),
  json TEXT NOT NULL,
  changed_at TEXT NOT NULL
);
