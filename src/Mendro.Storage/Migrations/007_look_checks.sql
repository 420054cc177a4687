-- What to check first in a unit that may have what was found in a like one; blank when its chance alone calls for the look.
ALTER TABLE second_looks ADD COLUMN check_id TEXT NOT NULL DEFAULT '';
