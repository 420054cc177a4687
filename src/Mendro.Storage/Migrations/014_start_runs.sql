-- Runs of starts that are under way, by job and function.
CREATE TABLE start_runs (
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  function TEXT NOT NULL,
  json TEXT NOT NULL,
  changed_at TEXT NOT NULL,
  PRIMARY KEY (job_id, function)
);
