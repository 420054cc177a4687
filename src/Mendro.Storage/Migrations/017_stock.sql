-- Bins, what went in and out of them, suppliers with their prices, orders.
CREATE TABLE stock_items (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  spec TEXT NOT NULL,
  name TEXT NOT NULL,
  bin TEXT NOT NULL DEFAULT '',
  count INTEGER NOT NULL DEFAULT 0,
  low INTEGER,
  cost TEXT,
  source TEXT NOT NULL DEFAULT '',
  deleted_at TEXT
);
CREATE INDEX stock_items_name ON stock_items (name);

CREATE TABLE stock_moves (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  item_id INTEGER NOT NULL REFERENCES stock_items (id),
  change INTEGER NOT NULL,
  job_id INTEGER REFERENCES jobs (id),
  order_line_id INTEGER,
  why TEXT NOT NULL,
  at TEXT NOT NULL
);
CREATE INDEX stock_moves_item ON stock_moves (item_id, id);

CREATE TABLE part_needs (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER REFERENCES jobs (id),
  part TEXT NOT NULL,
  count INTEGER NOT NULL,
  reserved INTEGER NOT NULL DEFAULT 0,
  item_id INTEGER REFERENCES stock_items (id),
  at TEXT NOT NULL,
  ended_at TEXT,
  why TEXT NOT NULL DEFAULT ''
);
CREATE INDEX part_needs_open ON part_needs (part) WHERE ended_at IS NULL;

CREATE TABLE suppliers (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  name TEXT NOT NULL UNIQUE,
  address TEXT NOT NULL DEFAULT '',
  postage TEXT NOT NULL DEFAULT '0',
  free_from TEXT,
  lead_days INTEGER NOT NULL DEFAULT 3,
  currency TEXT NOT NULL,
  words TEXT NOT NULL DEFAULT '',
  asked_at TEXT,
  problem TEXT NOT NULL DEFAULT '',
  deleted_at TEXT
);

CREATE TABLE supplier_prices (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  supplier_id INTEGER NOT NULL REFERENCES suppliers (id),
  number TEXT NOT NULL DEFAULT '',
  part TEXT NOT NULL,
  price TEXT NOT NULL,
  from_count INTEGER NOT NULL DEFAULT 1,
  available INTEGER
);
CREATE INDEX supplier_prices_of ON supplier_prices (supplier_id);

CREATE TABLE orders (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  supplier_id INTEGER NOT NULL REFERENCES suppliers (id),
  state TEXT NOT NULL DEFAULT 'Sent',
  currency TEXT NOT NULL,
  postage TEXT NOT NULL DEFAULT '0',
  at TEXT NOT NULL,
  expected_on TEXT NOT NULL,
  words TEXT NOT NULL DEFAULT '',
  ended_at TEXT
);

CREATE TABLE order_lines (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  order_id INTEGER NOT NULL REFERENCES orders (id),
  part TEXT NOT NULL,
  number TEXT NOT NULL DEFAULT '',
  price TEXT NOT NULL,
  count INTEGER NOT NULL,
  received INTEGER NOT NULL DEFAULT 0,
  wrong INTEGER NOT NULL DEFAULT 0,
  cancelled INTEGER NOT NULL DEFAULT 0
);
CREATE INDEX order_lines_of ON order_lines (order_id);
