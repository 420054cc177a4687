-- Several units that an owner brings at once are kept as a lot is; a round that was left is gone on with at its unit.
ALTER TABLE lots ADD COLUMN customer_id INTEGER REFERENCES customers (id);

CREATE INDEX lots_customer ON lots (customer_id) WHERE customer_id IS NOT NULL;

CREATE TABLE rounds (
  lot_id INTEGER NOT NULL,
  key TEXT NOT NULL,
  title TEXT NOT NULL,
  after INTEGER NOT NULL,
  at TEXT NOT NULL,
  PRIMARY KEY (lot_id, key)
);

-- What was said of the end of a lot while it was worked on, once for each number of items decided.
CREATE TABLE lot_ends (
  lot_id INTEGER NOT NULL REFERENCES lots (id),
  decided INTEGER NOT NULL,
  low INTEGER NOT NULL,
  high INTEGER NOT NULL,
  at TEXT NOT NULL,
  PRIMARY KEY (lot_id, decided)
);
