-- A model that is another one now, or whose making was taken back: it is offered no more, and its versions stay for its history.
CREATE TABLE retired_models (
  id TEXT PRIMARY KEY,
  now_id TEXT,
  at TEXT NOT NULL
);

-- Jobs and good readings that went from one model to another, and what each had before: merged, split, or given a model of its own.
CREATE TABLE model_moves (
  id INTEGER PRIMARY KEY,
  what TEXT NOT NULL,
  from_id TEXT NOT NULL,
  to_id TEXT NOT NULL,
  from_version INTEGER NOT NULL,
  to_version INTEGER NOT NULL,
  words TEXT NOT NULL,
  at TEXT NOT NULL,
  withdrawn_at TEXT
);

CREATE INDEX model_moves_from ON model_moves (from_id, id);
CREATE INDEX model_moves_to ON model_moves (to_id, id);

CREATE TABLE moved_jobs (
  move_id INTEGER NOT NULL REFERENCES model_moves (id),
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  profile_version INTEGER NOT NULL,
  model_name TEXT NOT NULL,
  PRIMARY KEY (move_id, job_id)
) WITHOUT ROWID;

CREATE TABLE moved_readings (
  move_id INTEGER NOT NULL REFERENCES model_moves (id),
  reading_id INTEGER NOT NULL REFERENCES good_readings (id),
  PRIMARY KEY (move_id, reading_id)
) WITHOUT ROWID;
