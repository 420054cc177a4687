-- A record's payload is JSON of its own kind and version, beside the few columns that are asked for. What replaced what is
-- kept, so that undo can follow it. How far a unit is apart follows from its records and is kept no more.
ALTER TABLE bench_records ADD COLUMN payload TEXT NOT NULL DEFAULT '{}';
ALTER TABLE bench_records ADD COLUMN payload_version INTEGER NOT NULL DEFAULT 1;
ALTER TABLE bench_records ADD COLUMN symptom INTEGER NOT NULL DEFAULT 0;
ALTER TABLE bench_records ADD COLUMN replaces INTEGER REFERENCES bench_records (id);

-- What was done under the key of a form: sent twice, done once.
CREATE TABLE actions (
  key TEXT PRIMARY KEY,
  at TEXT NOT NULL,
  result TEXT NOT NULL
);

CREATE INDEX actions_at ON actions (at);

-- What every page asks for.
CREATE INDEX bench_records_causes ON bench_records (kind, id) WHERE withdrawn_at IS NULL;
CREATE INDEX bench_records_withdrawn ON bench_records (job_id, withdrawn_at) WHERE withdrawn_at IS NOT NULL;
CREATE INDEX bench_records_replaces ON bench_records (replaces) WHERE replaces IS NOT NULL;
CREATE INDEX jobs_live ON jobs (number) WHERE closed_at IS NULL AND deleted_at IS NULL AND practice_seed IS NULL;
CREATE INDEX gear_uses_gear ON gear_uses (gear_id);

-- A mark for what the shop knows beyond one job, new with every change (also after one that was taken back, which a counter
-- would not be), so that a page can tell at a glance whether it changed: confirmed causes
-- with what may take them out of learning, and test gear with its uses.
CREATE TABLE revisions (
  what TEXT PRIMARY KEY,
  mark INTEGER NOT NULL
);

INSERT INTO revisions (what, mark) VALUES ('causes', 0), ('gear', 0);

CREATE TRIGGER causes_added AFTER INSERT ON bench_records WHEN NEW.kind = 'cause'
BEGIN UPDATE revisions SET mark = random() WHERE what = 'causes'; END;

CREATE TRIGGER causes_changed AFTER UPDATE OF withdrawn_at, payload ON bench_records WHEN NEW.kind = 'cause'
BEGIN UPDATE revisions SET mark = random() WHERE what = 'causes'; END;

CREATE TRIGGER causes_excluded AFTER INSERT ON excluded_lessons
BEGIN UPDATE revisions SET mark = random() WHERE what = 'causes'; END;

CREATE TRIGGER causes_included AFTER DELETE ON excluded_lessons
BEGIN UPDATE revisions SET mark = random() WHERE what = 'causes'; END;

CREATE TRIGGER causes_of_jobs AFTER UPDATE OF deleted_at, closed_at, revision ON jobs
BEGIN UPDATE revisions SET mark = random() WHERE what = 'causes'; END;

CREATE TRIGGER gear_added AFTER INSERT ON gear
BEGIN UPDATE revisions SET mark = random() WHERE what = 'gear'; END;

CREATE TRIGGER gear_changed AFTER UPDATE ON gear
BEGIN UPDATE revisions SET mark = random() WHERE what = 'gear'; END;

CREATE TRIGGER gear_used AFTER INSERT ON gear_uses
BEGIN UPDATE revisions SET mark = random() WHERE what = 'gear'; END;

CREATE TRIGGER gear_trial_withdrawn AFTER UPDATE OF withdrawn_at ON bench_records WHEN NEW.kind = 'swap'
BEGIN UPDATE revisions SET mark = random() WHERE what = 'gear'; END;
