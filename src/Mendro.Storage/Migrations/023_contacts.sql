-- A contact that conducts only when it is pressed hard is a finding of its own.
CREATE TABLE contact_marks_new (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  connector_id TEXT NOT NULL,
  contact TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('beep', 'silent', 'short', 'pressed')),
  ohms REAL,
  at TEXT NOT NULL,
  withdrawn_at TEXT
);

INSERT INTO contact_marks_new (id, job_id, connector_id, contact, state, ohms, at, withdrawn_at)
SELECT id, job_id, connector_id, contact, state, ohms, at, withdrawn_at FROM contact_marks;

DROP TABLE contact_marks;

ALTER TABLE contact_marks_new RENAME TO contact_marks;

CREATE INDEX contact_marks_job ON contact_marks (job_id, connector_id, id);

-- An hour on a lot may be worth another sum than the shop's, and a unit may be mended whatever it brings.
ALTER TABLE lots ADD COLUMN per_hour TEXT;
ALTER TABLE jobs ADD COLUMN anyway INTEGER NOT NULL DEFAULT 0;
