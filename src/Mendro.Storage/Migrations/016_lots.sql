-- Lots with their price, what stands apart in them, offers weighed, chances given before a repair.
CREATE TABLE lots (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  name TEXT NOT NULL UNIQUE,
  price TEXT,
  postage TEXT NOT NULL DEFAULT '0',
  currency TEXT NOT NULL,
  bought_on TEXT NOT NULL,
  words TEXT NOT NULL DEFAULT '',
  way TEXT NOT NULL DEFAULT 'Equal',
  profile_id TEXT NOT NULL DEFAULT '',
  working TEXT,
  otherwise TEXT,
  created_at TEXT NOT NULL
);

INSERT INTO lots (name, currency, bought_on, created_at)
SELECT lot, min(currency), substr(min(received_at), 1, 10), min(received_at) FROM jobs WHERE lot <> '' AND practice_seed IS NULL GROUP BY lot;

CREATE TABLE lot_items (
  job_id INTEGER PRIMARY KEY REFERENCES jobs (id),
  apart INTEGER NOT NULL DEFAULT 0,
  why TEXT NOT NULL DEFAULT '',
  weight TEXT
);

CREATE INDEX jobs_lot ON jobs (lot, number) WHERE lot <> '';

CREATE TABLE offers (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  state TEXT NOT NULL DEFAULT 'Open',
  title TEXT NOT NULL,
  profiles TEXT NOT NULL,
  claim TEXT NOT NULL DEFAULT '',
  count INTEGER NOT NULL DEFAULT 1,
  currency TEXT NOT NULL,
  asking TEXT NOT NULL DEFAULT '0',
  postage TEXT NOT NULL DEFAULT '0',
  buy_fee TEXT NOT NULL DEFAULT '0',
  working TEXT NOT NULL DEFAULT '0',
  in_parts TEXT NOT NULL DEFAULT '0',
  spread REAL NOT NULL DEFAULT 0.25,
  chance REAL NOT NULL DEFAULT 0,
  minutes REAL NOT NULL DEFAULT 0,
  highest TEXT NOT NULL DEFAULT '0',
  cautious TEXT NOT NULL DEFAULT '0',
  paid TEXT,
  lot TEXT NOT NULL DEFAULT '',
  words TEXT NOT NULL DEFAULT '',
  at TEXT NOT NULL,
  changed_at TEXT NOT NULL,
  deleted_at TEXT
);

CREATE TABLE offer_jobs (
  offer_id INTEGER NOT NULL REFERENCES offers (id),
  job_id INTEGER PRIMARY KEY REFERENCES jobs (id)
);

CREATE TABLE forecasts (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  record_id INTEGER NOT NULL,
  function TEXT NOT NULL,
  chance REAL NOT NULL,
  at TEXT NOT NULL
);
CREATE INDEX forecasts_job ON forecasts (job_id, id);
