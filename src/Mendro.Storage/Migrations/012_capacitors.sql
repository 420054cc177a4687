-- Capacitors in the drawer or of a kit that came.
CREATE TABLE capacitor_parts (
  id INTEGER PRIMARY KEY,
  source TEXT NOT NULL,
  farads REAL NOT NULL,
  volts REAL NOT NULL,
  diameter_mm REAL NOT NULL,
  height_mm REAL NOT NULL,
  lead_mm REAL NOT NULL,
  mount TEXT NOT NULL,
  polar INTEGER NOT NULL,
  celsius REAL NOT NULL,
  esr_ohms REAL,
  count INTEGER NOT NULL,
  price REAL,
  name TEXT,
  added_at TEXT NOT NULL,
  retired_at TEXT
);

-- The plan of a capacitor job: what goes in, and where everything sits; mendro.recap/1 as JSON.
CREATE TABLE capacitor_plans (
  job_id INTEGER PRIMARY KEY REFERENCES jobs (id),
  json TEXT NOT NULL,
  changed_at TEXT NOT NULL
);

-- What old capacitors measured is counted by model on each page of a capacitor job.
CREATE INDEX bench_records_capacitors ON bench_records (job_id, subject) WHERE kind = 'capacitor-out' AND withdrawn_at IS NULL;
