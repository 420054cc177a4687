-- Money is what happened, written once: entries that stand, corrected by their reverse; months that are closed; tax with its day.
CREATE TABLE journal (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  day TEXT NOT NULL,
  own_day TEXT NOT NULL,
  at TEXT NOT NULL,
  who TEXT NOT NULL DEFAULT '',
  matter TEXT NOT NULL,
  basis TEXT NOT NULL,
  what TEXT NOT NULL,
  job_id INTEGER REFERENCES jobs (id),
  lot TEXT NOT NULL DEFAULT '',
  currency TEXT NOT NULL,
  rate TEXT NOT NULL DEFAULT '1',
  tax_percent TEXT NOT NULL DEFAULT '0',
  reverses INTEGER REFERENCES journal (id)
);
CREATE INDEX journal_day ON journal (day, id);
CREATE INDEX journal_matter ON journal (matter);
CREATE INDEX journal_job ON journal (job_id, id) WHERE job_id IS NOT NULL;
CREATE INDEX journal_lot ON journal (lot, id) WHERE lot <> '';
CREATE UNIQUE INDEX journal_reverses ON journal (reverses) WHERE reverses IS NOT NULL;

-- Values in the smallest coin of the entry's currency: debit above nothing, credit below.
CREATE TABLE journal_lines (
  entry_id INTEGER NOT NULL REFERENCES journal (id),
  account TEXT NOT NULL,
  value INTEGER NOT NULL,
  PRIMARY KEY (entry_id, account)
) WITHOUT ROWID;

CREATE INDEX journal_lines_owners ON journal_lines (entry_id, value) WHERE account = 'Owners';

-- What each account came to in each month, added up as it is written.
CREATE TABLE journal_months (
  month TEXT NOT NULL,
  currency TEXT NOT NULL,
  account TEXT NOT NULL,
  value INTEGER NOT NULL,
  PRIMARY KEY (month, currency, account)
) WITHOUT ROWID;

CREATE TRIGGER journal_lines_added AFTER INSERT ON journal_lines
BEGIN
  INSERT INTO journal_months (month, currency, account, value)
    SELECT substr(e.day, 1, 7), e.currency, NEW.account, NEW.value FROM journal e WHERE e.id = NEW.entry_id
    ON CONFLICT (month, currency, account) DO UPDATE SET value = value + excluded.value;
END;

CREATE TRIGGER journal_stands BEFORE UPDATE OF day, own_day, matter, basis, job_id, currency, rate, tax_percent, reverses ON journal
BEGIN SELECT RAISE(ABORT, 'an entry of the books is not changed: it is reversed'); END;

CREATE TRIGGER journal_stays BEFORE DELETE ON journal
BEGIN SELECT RAISE(ABORT, 'an entry of the books is not taken away: it is reversed'); END;

CREATE TRIGGER journal_lines_stand BEFORE UPDATE ON journal_lines
BEGIN SELECT RAISE(ABORT, 'an entry of the books is not changed: it is reversed'); END;

CREATE TRIGGER journal_lines_stay BEFORE DELETE ON journal_lines
BEGIN SELECT RAISE(ABORT, 'an entry of the books is not taken away: it is reversed'); END;

-- Closing and opening of months, in the order in which it was done.
CREATE TABLE month_locks (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  month TEXT NOT NULL,
  locked INTEGER NOT NULL,
  at TEXT NOT NULL,
  who TEXT NOT NULL DEFAULT ''
);

CREATE TABLE tax_rules (
  day TEXT PRIMARY KEY,
  percent TEXT NOT NULL,
  inclusive INTEGER NOT NULL
);

INSERT INTO tax_rules (day, percent, inclusive)
SELECT '0001-01-01', CAST(json_extract(value, '$.Percent') AS TEXT), coalesce(json_extract(value, '$.Inclusive'), 1)
FROM settings WHERE key = 'tax-rule' AND json_valid(value) AND json_extract(value, '$.Percent') IS NOT NULL;

-- Bills as they were given out, numbered without a gap in each year; one that was wrong is reversed by another.
CREATE TABLE bills (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  year INTEGER NOT NULL,
  number INTEGER NOT NULL,
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  at TEXT NOT NULL,
  who TEXT NOT NULL DEFAULT '',
  paper TEXT NOT NULL,
  reverses INTEGER REFERENCES bills (id),
  UNIQUE (year, number)
);
CREATE INDEX bills_job ON bills (job_id, id);
CREATE UNIQUE INDEX bills_reverses ON bills (reverses) WHERE reverses IS NOT NULL;

CREATE TRIGGER bills_stand BEFORE UPDATE OF year, number, job_id, paper, reverses ON bills
BEGIN SELECT RAISE(ABORT, 'a bill is not changed: it is reversed'); END;

CREATE TRIGGER bills_stay BEFORE DELETE ON bills
BEGIN SELECT RAISE(ABORT, 'a bill is not taken away: it is reversed'); END;

-- What an hour cost when a job was closed: its papers say the same ever after.
ALTER TABLE jobs ADD COLUMN hour_at_close TEXT;

UPDATE jobs SET hour_at_close = (SELECT value FROM settings WHERE key = 'rate-per-hour') WHERE closed_at IS NOT NULL;

-- What each movement of a bin was worth, in the shop's currency; bins were all at their last price before.
ALTER TABLE stock_moves ADD COLUMN value TEXT;

UPDATE stock_moves SET value = (SELECT CAST(round(CAST(i.cost AS REAL) * stock_moves.change, 4) AS TEXT) FROM stock_items i
  WHERE i.id = stock_moves.item_id AND i.cost IS NOT NULL);

-- What the shop paid or took in besides its jobs: rent, tools, an opening balance, what its owner drew.
CREATE TABLE own_entries (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  day TEXT NOT NULL,
  kind TEXT NOT NULL,
  amount TEXT NOT NULL,
  words TEXT NOT NULL DEFAULT '',
  deleted_at TEXT
);

-- What is to be brought into the books: they are settled with the change that made it due.
CREATE TABLE books_due (
  kind TEXT NOT NULL,
  id INTEGER NOT NULL,
  PRIMARY KEY (kind, id)
) WITHOUT ROWID;

-- What is left out for want of a rate.
CREATE TABLE books_lacking (
  job_id INTEGER PRIMARY KEY REFERENCES jobs (id)
);

INSERT INTO books_due SELECT 'job', id FROM jobs WHERE practice_seed IS NULL;
INSERT INTO books_due SELECT 'lot', id FROM lots;
INSERT INTO books_due SELECT 'move', id FROM stock_moves WHERE job_id IS NULL;
INSERT INTO books_due SELECT 'order', id FROM orders;

-- Not “or ignore”: the statement that fires a trigger has its own way with conflicts, and that way holds.
CREATE TRIGGER books_by_intake AFTER INSERT ON jobs WHEN NEW.practice_seed IS NULL AND (NEW.paid IS NOT NULL OR NEW.lot <> '')
BEGIN
  INSERT INTO books_due SELECT 'job', NEW.id WHERE NEW.paid IS NOT NULL AND NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'job' AND id = NEW.id);
  INSERT INTO books_due SELECT 'lot', id FROM lots l WHERE name = NEW.lot
    AND NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'lot' AND id = l.id);
END;

CREATE TRIGGER books_by_job AFTER UPDATE OF paid, currency, customer_id, ending, closed_at, deleted_at, lot ON jobs
WHEN NEW.practice_seed IS NULL AND (NEW.paid IS NOT OLD.paid OR NEW.currency IS NOT OLD.currency OR NEW.customer_id IS NOT OLD.customer_id
  OR NEW.ending IS NOT OLD.ending OR NEW.closed_at IS NOT OLD.closed_at OR NEW.deleted_at IS NOT OLD.deleted_at OR NEW.lot IS NOT OLD.lot)
BEGIN
  INSERT INTO books_due SELECT 'job', NEW.id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'job' AND id = NEW.id);
  INSERT INTO books_due SELECT 'lot', id FROM lots l WHERE name IN (NEW.lot, OLD.lot) AND name <> ''
    AND NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'lot' AND id = l.id);
END;

CREATE TRIGGER books_by_record AFTER INSERT ON bench_records WHEN NEW.cost IS NOT NULL
BEGIN INSERT INTO books_due SELECT 'job', NEW.job_id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'job' AND id = NEW.job_id); END;

CREATE TRIGGER books_by_change AFTER UPDATE OF withdrawn_at, cost ON bench_records WHEN NEW.cost IS NOT NULL OR OLD.cost IS NOT NULL
BEGIN INSERT INTO books_due SELECT 'job', NEW.job_id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'job' AND id = NEW.job_id); END;

CREATE TRIGGER books_by_sale AFTER INSERT ON sales
BEGIN INSERT INTO books_due SELECT 'job', NEW.job_id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'job' AND id = NEW.job_id); END;

CREATE TRIGGER books_by_sold AFTER UPDATE ON sales
BEGIN INSERT INTO books_due SELECT 'job', NEW.job_id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'job' AND id = NEW.job_id); END;

CREATE TRIGGER books_by_payment AFTER INSERT ON payments
BEGIN INSERT INTO books_due SELECT 'job', NEW.job_id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'job' AND id = NEW.job_id); END;

CREATE TRIGGER books_by_repayment AFTER UPDATE ON payments
BEGIN INSERT INTO books_due SELECT 'job', NEW.job_id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'job' AND id = NEW.job_id); END;

CREATE TRIGGER books_by_donor AFTER UPDATE OF state, price ON donor_parts
BEGIN INSERT INTO books_due SELECT 'job', NEW.job_id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'job' AND id = NEW.job_id); END;

CREATE TRIGGER books_by_lot AFTER INSERT ON lots
BEGIN INSERT INTO books_due SELECT 'lot', NEW.id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'lot' AND id = NEW.id); END;

CREATE TRIGGER books_by_price AFTER UPDATE OF price, postage, currency, bought_on ON lots
BEGIN
  INSERT INTO books_due SELECT 'lot', NEW.id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'lot' AND id = NEW.id);
  INSERT INTO books_due SELECT 'job', id FROM jobs j WHERE lot = NEW.name AND practice_seed IS NULL AND NEW.bought_on IS NOT OLD.bought_on
    AND NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'job' AND id = j.id);
END;

CREATE TRIGGER books_by_move AFTER INSERT ON stock_moves WHEN NEW.job_id IS NULL
BEGIN
  INSERT INTO books_due SELECT 'move', NEW.id WHERE NEW.order_line_id IS NULL;
  INSERT INTO books_due SELECT 'order', order_id FROM order_lines l WHERE id = NEW.order_line_id
    AND NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'order' AND id = l.order_id);
END;

CREATE TRIGGER books_by_rate AFTER INSERT ON rates
BEGIN INSERT INTO books_due SELECT 'job', job_id FROM books_lacking b WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'job' AND id = b.job_id); END;

CREATE TRIGGER books_by_own AFTER INSERT ON own_entries
BEGIN INSERT INTO books_due SELECT 'own', NEW.id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'own' AND id = NEW.id); END;

CREATE TRIGGER books_by_own_gone AFTER UPDATE ON own_entries
BEGIN INSERT INTO books_due SELECT 'own', NEW.id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'own' AND id = NEW.id); END;
