-- Hidden faults of demo units, for the stand-in instruments only; no page reads them.
CREATE TABLE stand_in_truths (
  job_id INTEGER PRIMARY KEY REFERENCES jobs (id),
  faults TEXT NOT NULL
);

-- Readings of good units: one unit counts once a probe, however often it was measured.
CREATE TABLE good_readings (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  profile_id TEXT NOT NULL,
  revision TEXT NOT NULL DEFAULT '',
  probe_id TEXT NOT NULL,
  unit TEXT NOT NULL CHECK (unit IN ('V', 'ohm', 'F', 'A', 'diode')),
  value REAL,
  good_unit TEXT NOT NULL CHECK (length(good_unit) BETWEEN 1 AND 80),
  job_id INTEGER REFERENCES jobs (id),
  at TEXT NOT NULL,
  withdrawn_at TEXT
);

CREATE INDEX good_readings_profile ON good_readings (profile_id, probe_id);

-- Contacts swept one by one; the newest mark that holds is the state of its contact.
CREATE TABLE contact_marks (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  connector_id TEXT NOT NULL,
  contact TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('beep', 'silent', 'short')),
  ohms REAL,
  at TEXT NOT NULL,
  withdrawn_at TEXT
);

CREATE INDEX contact_marks_job ON contact_marks (job_id, connector_id, id);
