-- The day for which a unit was promised to its owner, as 2026-11-26; blank for none.
ALTER TABLE jobs ADD COLUMN promised TEXT NOT NULL DEFAULT '';
