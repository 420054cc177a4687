-- The bench day: tasks of one's own, fixed hours, and what the calendar feed has told.
CREATE TABLE own_tasks (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  words TEXT NOT NULL,
  minutes REAL NOT NULL,
  passive INTEGER NOT NULL DEFAULT 0,
  place TEXT NOT NULL DEFAULT '',
  due TEXT NOT NULL DEFAULT '',
  at TEXT NOT NULL,
  done_at TEXT,
  deleted_at TEXT
);

CREATE TABLE fixed_hours (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  uid TEXT NOT NULL DEFAULT '',
  words TEXT NOT NULL,
  from_at TEXT NOT NULL,
  to_at TEXT NOT NULL,
  deleted_at TEXT
);
CREATE INDEX fixed_hours_to ON fixed_hours (to_at);

CREATE TABLE feed_items (
  uid TEXT PRIMARY KEY,
  words TEXT NOT NULL,
  from_at TEXT NOT NULL,
  to_at TEXT NOT NULL,
  all_day INTEGER NOT NULL,
  sequence INTEGER NOT NULL DEFAULT 0,
  changed_at TEXT NOT NULL,
  cancelled_at TEXT
);
