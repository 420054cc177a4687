-- What was taught to a model while working on a job: from which version of its profile to which, so that it can be taken back.
CREATE TABLE teachings (
  id INTEGER PRIMARY KEY,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  profile_id TEXT NOT NULL,
  version_before INTEGER NOT NULL,
  version_after INTEGER,
  line TEXT NOT NULL,
  words TEXT NOT NULL,
  at TEXT NOT NULL,
  withdrawn_at TEXT
);

CREATE INDEX teachings_profile ON teachings (profile_id, id);
CREATE INDEX teachings_job ON teachings (job_id, id);
