-- What a page asks must not cost more as the shop grows older. What is kept here follows from other rows, as an index does: it
-- belongs to the same transaction and is never written by hand.

-- New whenever a job's records change, so that what was worked out for it is known to hold without reading them.
ALTER TABLE jobs ADD COLUMN mark INTEGER NOT NULL DEFAULT 0;
UPDATE jobs SET mark = random();

CREATE TRIGGER jobs_marked AFTER INSERT ON jobs
BEGIN UPDATE jobs SET mark = random() WHERE id = NEW.id; END;

CREATE TRIGGER jobs_marked_by_record AFTER INSERT ON bench_records
BEGIN UPDATE jobs SET mark = random() WHERE id = NEW.job_id; END;

CREATE TRIGGER jobs_marked_by_change AFTER UPDATE ON bench_records
BEGIN UPDATE jobs SET mark = random() WHERE id = NEW.job_id; END;

-- Lists, newest number first, by the page.
CREATE INDEX jobs_closed ON jobs (number) WHERE closed_at IS NOT NULL AND deleted_at IS NULL AND practice_seed IS NULL;
CREATE INDEX jobs_deleted ON jobs (number) WHERE deleted_at IS NOT NULL AND practice_seed IS NULL;
CREATE INDEX customers_name ON customers (name COLLATE NOCASE);
CREATE INDEX second_looks_open ON second_looks (job_id, id) WHERE dismissed_at IS NULL;
DROP INDEX bench_records_causes;

-- The newest readings at a probe, and those of a unit.
DROP INDEX good_readings_profile;
CREATE INDEX good_readings_probe ON good_readings (profile_id, probe_id, id) WHERE withdrawn_at IS NULL;
CREATE INDEX good_readings_unit ON good_readings (profile_id, good_unit, id);
CREATE INDEX good_readings_newest ON good_readings (profile_id, id);

-- Confirmed causes that have not yet been weighed for the other units in the shop.
CREATE TABLE looks_due (
  record_id INTEGER PRIMARY KEY REFERENCES bench_records (id)
);

-- What each job teaches: causes confirmed in it that hold and are not left out.
CREATE VIEW teaching AS
SELECT j.id AS job_id, j.profile_id, j.profile_version, j.revision, r.subject AS part_id,
  CASE WHEN json_valid(r.payload) THEN json_extract(r.payload, '$.mode') END AS mode_id
FROM bench_records r JOIN jobs j ON j.id = r.job_id
WHERE r.kind = 'cause' AND r.withdrawn_at IS NULL
  AND CASE WHEN json_valid(r.payload) THEN json_extract(r.payload, '$.present') AND json_type(r.payload, '$.mode') = 'text' END
  AND j.deleted_at IS NULL AND j.practice_seed IS NULL
  AND NOT EXISTS (SELECT 1 FROM excluded_lessons e WHERE e.record_id = r.id);

CREATE TABLE lessons (
  profile_id TEXT NOT NULL,
  part_id TEXT NOT NULL,
  mode_id TEXT NOT NULL,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  profile_version INTEGER NOT NULL,
  revision TEXT NOT NULL,
  PRIMARY KEY (profile_id, part_id, mode_id, job_id)
) WITHOUT ROWID;

CREATE INDEX lessons_job ON lessons (job_id);

-- The lessons counted; blank part and mode count the units.
CREATE TABLE lesson_counts (
  profile_id TEXT NOT NULL,
  profile_version INTEGER NOT NULL,
  revision TEXT NOT NULL,
  part_id TEXT NOT NULL,
  mode_id TEXT NOT NULL,
  found INTEGER NOT NULL,
  PRIMARY KEY (profile_id, profile_version, revision, part_id, mode_id)
) WITHOUT ROWID;

INSERT INTO lessons (profile_id, part_id, mode_id, job_id, profile_version, revision)
  SELECT DISTINCT profile_id, part_id, mode_id, job_id, profile_version, revision FROM teaching;
INSERT INTO lesson_counts
  SELECT profile_id, profile_version, revision, part_id, mode_id, count(*) FROM lessons GROUP BY 1, 2, 3, 4, 5;
INSERT INTO lesson_counts
  SELECT profile_id, profile_version, revision, '', '', count(DISTINCT job_id) FROM lessons GROUP BY 1, 2, 3;

CREATE TRIGGER lessons_added AFTER INSERT ON lessons
BEGIN
  INSERT INTO lesson_counts
    SELECT NEW.profile_id, NEW.profile_version, NEW.revision, k.part_id, k.mode_id, 0
    FROM (SELECT NEW.part_id AS part_id, NEW.mode_id AS mode_id UNION ALL SELECT '', '') k
    WHERE NOT EXISTS (SELECT 1 FROM lesson_counts c WHERE c.profile_id = NEW.profile_id AND c.profile_version = NEW.profile_version
      AND c.revision = NEW.revision AND c.part_id = k.part_id AND c.mode_id = k.mode_id);
  UPDATE lesson_counts SET found = found + 1
    WHERE profile_id = NEW.profile_id AND profile_version = NEW.profile_version AND revision = NEW.revision
      AND (part_id = NEW.part_id AND mode_id = NEW.mode_id
        OR part_id = '' AND mode_id = '' AND (SELECT count(*) FROM lessons WHERE job_id = NEW.job_id) = 1);
  UPDATE revisions SET mark = random() WHERE what = 'causes';
END;

CREATE TRIGGER lessons_removed AFTER DELETE ON lessons
BEGIN
  UPDATE lesson_counts SET found = found - 1
    WHERE profile_id = OLD.profile_id AND profile_version = OLD.profile_version AND revision = OLD.revision
      AND (part_id = OLD.part_id AND mode_id = OLD.mode_id
        OR part_id = '' AND mode_id = '' AND NOT EXISTS (SELECT 1 FROM lessons WHERE job_id = OLD.job_id));
  DELETE FROM lesson_counts WHERE profile_id = OLD.profile_id AND profile_version = OLD.profile_version
    AND revision = OLD.revision AND found = 0;
  UPDATE revisions SET mark = random() WHERE what = 'causes';
END;

-- Jobs whose lessons and words are to be drawn anew before the transaction ends (DerivedRows). Triggers only name the job: SQLite
-- compiles all that a trigger might do for every statement.
CREATE TABLE jobs_due (
  job_id INTEGER PRIMARY KEY
);

DROP TRIGGER causes_added;
DROP TRIGGER causes_changed;
DROP TRIGGER causes_excluded;
DROP TRIGGER causes_included;
DROP TRIGGER causes_of_jobs;

CREATE TRIGGER due_by_record AFTER INSERT ON bench_records WHEN NEW.kind = 'cause' OR NEW.symptom = 1
BEGIN INSERT INTO jobs_due SELECT NEW.job_id WHERE NOT EXISTS (SELECT 1 FROM jobs_due WHERE job_id = NEW.job_id); END;

CREATE TRIGGER due_by_change AFTER UPDATE OF withdrawn_at, payload ON bench_records WHEN NEW.kind = 'cause' OR NEW.symptom = 1
BEGIN INSERT INTO jobs_due SELECT NEW.job_id WHERE NOT EXISTS (SELECT 1 FROM jobs_due WHERE job_id = NEW.job_id); END;

CREATE TRIGGER due_by_exclusion AFTER INSERT ON excluded_lessons
BEGIN
  INSERT INTO jobs_due SELECT job_id FROM bench_records WHERE id = NEW.record_id AND job_id NOT IN (SELECT job_id FROM jobs_due);
END;

CREATE TRIGGER due_by_inclusion AFTER DELETE ON excluded_lessons
BEGIN
  INSERT INTO jobs_due SELECT job_id FROM bench_records WHERE id = OLD.record_id AND job_id NOT IN (SELECT job_id FROM jobs_due);
END;

CREATE TRIGGER due_by_intake AFTER INSERT ON jobs
BEGIN INSERT INTO jobs_due SELECT NEW.id WHERE NOT EXISTS (SELECT 1 FROM jobs_due WHERE job_id = NEW.id); END;

CREATE TRIGGER due_by_job AFTER UPDATE OF number, model_name, unit_name, serial, lot, claim, customer_id, revision, deleted_at ON jobs
BEGIN INSERT INTO jobs_due SELECT NEW.id WHERE NOT EXISTS (SELECT 1 FROM jobs_due WHERE job_id = NEW.id); END;

-- Uses of test gear in swap trials that hold, since it was cleaned.
ALTER TABLE gear ADD COLUMN trial_uses INTEGER NOT NULL DEFAULT 0;
UPDATE gear SET trial_uses = (SELECT count(*) FROM gear_uses u JOIN bench_records r ON r.id = u.record_id
  WHERE u.gear_id = gear.id AND r.withdrawn_at IS NULL AND r.at >= gear.cleaned_at);

CREATE TRIGGER gear_uses_added AFTER INSERT ON gear_uses
BEGIN
  UPDATE gear SET trial_uses = trial_uses + 1 WHERE id = NEW.gear_id
    AND EXISTS (SELECT 1 FROM bench_records r WHERE r.id = NEW.record_id AND r.withdrawn_at IS NULL AND r.at >= gear.cleaned_at);
END;

CREATE TRIGGER gear_uses_withdrawn AFTER UPDATE OF withdrawn_at ON bench_records
WHEN (OLD.withdrawn_at IS NULL) <> (NEW.withdrawn_at IS NULL)
BEGIN
  UPDATE gear SET trial_uses = trial_uses + CASE WHEN NEW.withdrawn_at IS NULL THEN 1 ELSE -1 END
    WHERE cleaned_at <= NEW.at AND id IN (SELECT gear_id FROM gear_uses WHERE record_id = NEW.id);
END;

CREATE TRIGGER gear_cleaned AFTER UPDATE OF cleaned_at ON gear
BEGIN
  UPDATE gear SET trial_uses = (SELECT count(*) FROM gear_uses u JOIN bench_records r ON r.id = u.record_id
    WHERE u.gear_id = NEW.id AND r.withdrawn_at IS NULL AND r.at >= NEW.cleaned_at) WHERE id = NEW.id;
END;

-- What a job is found by: number, model, unit, serial, lot, claim, owner and what fails; any three letters in a row find it.
CREATE VIEW job_words AS
SELECT j.id AS job_id,
  j.number || ' ' || j.model_name || ' ' || j.unit_name || ' ' || j.serial || ' ' || j.lot || ' ' || j.claim || ' '
    || coalesce((SELECT c.name FROM customers c WHERE c.id = j.customer_id), '') || ' '
    || coalesce((SELECT group_concat(r.words, ' ') FROM bench_records r WHERE r.job_id = j.id AND r.withdrawn_at IS NULL AND r.symptom = 1), '')
    AS text
FROM jobs j WHERE j.practice_seed IS NULL;

CREATE TABLE job_texts (
  job_id INTEGER PRIMARY KEY,
  text TEXT NOT NULL
);

CREATE VIRTUAL TABLE job_search USING fts5(text, content = 'job_texts', content_rowid = 'job_id', tokenize = 'trigram');

INSERT INTO job_texts (job_id, text) SELECT job_id, text FROM job_words;
INSERT INTO job_search (job_search) VALUES ('rebuild');

CREATE TRIGGER job_texts_added AFTER INSERT ON job_texts
BEGIN INSERT INTO job_search (rowid, text) VALUES (NEW.job_id, NEW.text); END;

CREATE TRIGGER job_texts_changed AFTER UPDATE ON job_texts
BEGIN
  INSERT INTO job_search (job_search, rowid, text) VALUES ('delete', OLD.job_id, OLD.text);
  INSERT INTO job_search (rowid, text) VALUES (NEW.job_id, NEW.text);
END;
