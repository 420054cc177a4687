-- What owners paid, ahead, in part or back; what a foreign currency was worth on a day.
CREATE TABLE payments (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  kind TEXT NOT NULL,
  amount TEXT NOT NULL,
  day TEXT NOT NULL,
  words TEXT NOT NULL DEFAULT '',
  at TEXT NOT NULL,
  deleted_at TEXT
);
CREATE INDEX payments_job ON payments (job_id, id);
CREATE INDEX payments_day ON payments (day);

CREATE TABLE rates (
  currency TEXT NOT NULL,
  day TEXT NOT NULL,
  rate TEXT NOT NULL,
  PRIMARY KEY (currency, day)
);
