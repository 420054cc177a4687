-- How a shop is taxed, cash and bank apart, of whom a unit was bought, how a person is reached, and what was changed by hand.
ALTER TABLE tax_rules ADD COLUMN reduced TEXT NOT NULL DEFAULT '0';
ALTER TABLE tax_rules ADD COLUMN treatment TEXT NOT NULL DEFAULT 'Standard';
ALTER TABLE tax_rules ADD COLUMN input INTEGER NOT NULL DEFAULT 0;
ALTER TABLE tax_rules ADD COLUMN ahead INTEGER NOT NULL DEFAULT 0;

ALTER TABLE journal ADD COLUMN tax_code TEXT NOT NULL DEFAULT '';

-- Blank is as the shop has it: what was there before stays as it was booked.
ALTER TABLE sales ADD COLUMN tax TEXT NOT NULL DEFAULT '';
ALTER TABLE payments ADD COLUMN way TEXT NOT NULL DEFAULT '';
ALTER TABLE own_entries ADD COLUMN way TEXT NOT NULL DEFAULT '';
ALTER TABLE own_entries ADD COLUMN tax_percent TEXT NOT NULL DEFAULT '0';
ALTER TABLE orders ADD COLUMN tax TEXT NOT NULL DEFAULT '0';

-- Of whom a unit or a lot was bought, and what proves it.
CREATE TABLE purchases (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER UNIQUE REFERENCES jobs (id),
  lot_id INTEGER UNIQUE REFERENCES lots (id),
  seller TEXT NOT NULL DEFAULT '',
  address TEXT NOT NULL DEFAULT '',
  proof TEXT NOT NULL DEFAULT '',
  at TEXT NOT NULL,
  CHECK ((job_id IS NULL) <> (lot_id IS NULL))
);

-- Phones, mails and addresses of a person, the first of them shown beside the name.
CREATE TABLE customer_contacts (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  kind TEXT NOT NULL CHECK (kind IN ('phone', 'mail', 'address')),
  value TEXT NOT NULL
);
CREATE INDEX customer_contacts_of ON customer_contacts (customer_id, id);
CREATE INDEX customer_contacts_value ON customer_contacts (value);

INSERT INTO customer_contacts (customer_id, kind, value)
SELECT id, CASE WHEN contact LIKE '%@%' THEN 'mail' WHEN contact GLOB '*[0-9][0-9][0-9]*' AND contact NOT GLOB '*[a-zA-Z][a-zA-Z][a-zA-Z]*' THEN 'phone'
  ELSE 'address' END, contact FROM customers WHERE contact <> '';

CREATE TRIGGER contacts_by_intake AFTER INSERT ON customers WHEN NEW.contact <> ''
BEGIN
  INSERT INTO customer_contacts (customer_id, kind, value)
  VALUES (NEW.id, CASE WHEN NEW.contact LIKE '%@%' THEN 'mail' WHEN NEW.contact GLOB '*[0-9][0-9][0-9]*'
    AND NEW.contact NOT GLOB '*[a-zA-Z][a-zA-Z][a-zA-Z]*' THEN 'phone' ELSE 'address' END, NEW.contact);
END;

-- People who are one: the jobs go to the other, and this row says to whom.
ALTER TABLE customers ADD COLUMN merged_into INTEGER REFERENCES customers (id);
CREATE TABLE merged_jobs (
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  customer_id INTEGER NOT NULL REFERENCES customers (id),
  PRIMARY KEY (job_id, customer_id)
) WITHOUT ROWID;

-- Who changed what: filled by the triggers below; time and name are added before the change is kept.
CREATE TABLE changes (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  at TEXT,
  who TEXT,
  about TEXT NOT NULL,
  job_id INTEGER REFERENCES jobs (id),
  field TEXT NOT NULL,
  old TEXT NOT NULL,
  new TEXT NOT NULL
);
CREATE INDEX changes_open ON changes (id) WHERE who IS NULL;
CREATE INDEX changes_at ON changes (at);

CREATE TRIGGER changes_job AFTER UPDATE OF paid, asking ON jobs WHEN NEW.practice_seed IS NULL
BEGIN
  INSERT INTO changes (about, job_id, field, old, new) SELECT 'unit', NEW.id, 'paid for it', coalesce(OLD.paid, ''), coalesce(NEW.paid, '')
    WHERE NEW.paid IS NOT OLD.paid;
  INSERT INTO changes (about, job_id, field, old, new) SELECT 'unit', NEW.id, 'asking price', coalesce(OLD.asking, ''), coalesce(NEW.asking, '')
    WHERE NEW.asking IS NOT OLD.asking AND OLD.asking IS NOT NULL;
END;

CREATE TRIGGER changes_sale AFTER UPDATE ON sales
BEGIN
  INSERT INTO changes (about, job_id, field, old, new) SELECT 'sale', NEW.job_id, 'price', OLD.price, coalesce(NEW.price, '')
    WHERE OLD.price IS NOT NULL AND NEW.price IS NOT OLD.price;
  INSERT INTO changes (about, job_id, field, old, new) SELECT 'sale', NEW.job_id, 'fees', OLD.fees, NEW.fees
    WHERE OLD.state = 'Sold' AND NEW.fees IS NOT OLD.fees;
  INSERT INTO changes (about, job_id, field, old, new) SELECT 'sale', NEW.job_id, 'postage', OLD.postage, NEW.postage
    WHERE OLD.state = 'Sold' AND NEW.postage IS NOT OLD.postage;
  INSERT INTO changes (about, job_id, field, old, new) SELECT 'sale', NEW.job_id, 'state', lower(OLD.state), lower(NEW.state)
    WHERE NEW.state IS NOT OLD.state;
END;

CREATE TRIGGER changes_payment AFTER UPDATE OF deleted_at ON payments
BEGIN
  INSERT INTO changes (about, job_id, field, old, new) SELECT 'payment', NEW.job_id, NEW.kind || ' of ' || NEW.day,
    CASE WHEN OLD.deleted_at IS NULL THEN OLD.amount ELSE '' END, CASE WHEN NEW.deleted_at IS NULL THEN NEW.amount ELSE '' END
    WHERE (NEW.deleted_at IS NULL) <> (OLD.deleted_at IS NULL);
END;

CREATE TRIGGER changes_lot AFTER UPDATE OF price, postage, bought_on ON lots
BEGIN
  INSERT INTO changes (about, field, old, new) SELECT 'lot ' || NEW.name, 'price', coalesce(OLD.price, ''), coalesce(NEW.price, '')
    WHERE NEW.price IS NOT OLD.price;
  INSERT INTO changes (about, field, old, new) SELECT 'lot ' || NEW.name, 'postage', OLD.postage, NEW.postage WHERE NEW.postage IS NOT OLD.postage;
  INSERT INTO changes (about, field, old, new) SELECT 'lot ' || NEW.name, 'bought on', OLD.bought_on, NEW.bought_on
    WHERE NEW.bought_on IS NOT OLD.bought_on;
END;

CREATE TRIGGER changes_stock AFTER UPDATE OF cost, deleted_at ON stock_items
BEGIN
  INSERT INTO changes (about, field, old, new) SELECT 'stock ' || NEW.name, 'price a piece', coalesce(OLD.cost, ''), coalesce(NEW.cost, '')
    WHERE NEW.cost IS NOT OLD.cost;
  INSERT INTO changes (about, field, old, new) SELECT 'stock ' || NEW.name, 'kept', CASE WHEN OLD.deleted_at IS NULL THEN 'yes' ELSE 'no' END,
    CASE WHEN NEW.deleted_at IS NULL THEN 'yes' ELSE 'no' END WHERE (NEW.deleted_at IS NULL) <> (OLD.deleted_at IS NULL);
END;

CREATE TRIGGER changes_count AFTER INSERT ON stock_moves WHEN NEW.job_id IS NULL AND NEW.order_line_id IS NULL
BEGIN
  INSERT INTO changes (about, field, old, new) SELECT 'stock ' || i.name, NEW.why, coalesce((SELECT sum(change) FROM stock_moves m
    WHERE m.item_id = NEW.item_id AND m.id < NEW.id), 0), coalesce((SELECT sum(change) FROM stock_moves m WHERE m.item_id = NEW.item_id
    AND m.id <= NEW.id), 0) FROM stock_items i WHERE i.id = NEW.item_id AND EXISTS (SELECT 1 FROM stock_moves m WHERE m.item_id = NEW.item_id
    AND m.id < NEW.id);
END;

CREATE TRIGGER changes_order AFTER UPDATE OF state, postage, tax, expected_on ON orders
BEGIN
  INSERT INTO changes (about, field, old, new) SELECT 'order ' || NEW.id, 'state', lower(OLD.state), lower(NEW.state) WHERE NEW.state IS NOT OLD.state;
  INSERT INTO changes (about, field, old, new) SELECT 'order ' || NEW.id, 'postage', OLD.postage, NEW.postage WHERE NEW.postage IS NOT OLD.postage;
  INSERT INTO changes (about, field, old, new) SELECT 'order ' || NEW.id, 'tax', OLD.tax, NEW.tax WHERE NEW.tax IS NOT OLD.tax;
END;

CREATE TRIGGER changes_order_line AFTER UPDATE OF price, count, cancelled, wrong ON order_lines
BEGIN
  INSERT INTO changes (about, field, old, new) SELECT 'order ' || NEW.order_id, NEW.part || ', price', OLD.price, NEW.price WHERE NEW.price IS NOT OLD.price;
  INSERT INTO changes (about, field, old, new) SELECT 'order ' || NEW.order_id, NEW.part || ', count', OLD.count, NEW.count WHERE NEW.count IS NOT OLD.count;
  INSERT INTO changes (about, field, old, new) SELECT 'order ' || NEW.order_id, NEW.part || ', cancelled', OLD.cancelled, NEW.cancelled
    WHERE NEW.cancelled IS NOT OLD.cancelled;
END;

CREATE TRIGGER changes_setting AFTER UPDATE OF value ON settings WHEN NEW.key IN ('rate-per-hour', 'currency') AND NEW.value IS NOT OLD.value
BEGIN
  INSERT INTO changes (about, field, old, new) VALUES ('settings', CASE NEW.key WHEN 'currency' THEN 'currency' ELSE 'an hour' END, OLD.value, NEW.value);
END;

CREATE TRIGGER changes_setting_added AFTER INSERT ON settings WHEN NEW.key = 'rate-per-hour'
BEGIN
  INSERT INTO changes (about, field, old, new) VALUES ('settings', 'an hour', '', NEW.value);
END;

CREATE TRIGGER changes_rate AFTER UPDATE OF rate ON rates WHEN NEW.rate IS NOT OLD.rate
BEGIN
  INSERT INTO changes (about, field, old, new) VALUES ('rate of ' || NEW.currency, 'from ' || NEW.day, OLD.rate, NEW.rate);
END;

CREATE TRIGGER changes_tax_added AFTER INSERT ON tax_rules
BEGIN
  INSERT INTO changes (about, field, old, new) SELECT 'tax', 'from ' || NEW.day, coalesce((SELECT percent || ' %' FROM tax_rules t WHERE t.day < NEW.day
    ORDER BY t.day DESC LIMIT 1), ''), NEW.percent || ' %';
END;

CREATE TRIGGER changes_tax AFTER UPDATE ON tax_rules WHEN NEW.percent IS NOT OLD.percent
BEGIN
  INSERT INTO changes (about, field, old, new) VALUES ('tax', 'from ' || NEW.day, OLD.percent || ' %', NEW.percent || ' %');
END;

CREATE TRIGGER changes_own AFTER UPDATE OF deleted_at ON own_entries WHEN (NEW.deleted_at IS NULL) <> (OLD.deleted_at IS NULL)
BEGIN
  INSERT INTO changes (about, field, old, new) VALUES (NEW.kind || ' of ' || NEW.day, NEW.words, CASE WHEN OLD.deleted_at IS NULL THEN OLD.amount
    ELSE '' END, CASE WHEN NEW.deleted_at IS NULL THEN NEW.amount ELSE '' END);
END;

CREATE TRIGGER books_by_bill_of_order AFTER UPDATE OF tax, postage ON orders
WHEN NEW.tax IS NOT OLD.tax OR NEW.postage IS NOT OLD.postage
BEGIN INSERT INTO books_due SELECT 'order', NEW.id WHERE NOT EXISTS (SELECT 1 FROM books_due WHERE kind = 'order' AND id = NEW.id); END;

-- What owners owe, job by job, added up as it is written: looking at it does not grow with the shop.
CREATE TABLE journal_open (
  job_id INTEGER NOT NULL REFERENCES jobs (id),
  currency TEXT NOT NULL,
  value INTEGER NOT NULL,
  since TEXT NOT NULL,
  PRIMARY KEY (job_id, currency)
) WITHOUT ROWID;
CREATE INDEX journal_open_owed ON journal_open (since, job_id) WHERE value <> 0;

INSERT INTO journal_open (job_id, currency, value, since)
SELECT e.job_id, e.currency, sum(l.value), min(e.own_day) FROM journal_lines l JOIN journal e ON e.id = l.entry_id
WHERE l.account = 'Owners' AND e.job_id IS NOT NULL GROUP BY e.job_id, e.currency;

CREATE TRIGGER journal_open_added AFTER INSERT ON journal_lines WHEN NEW.account = 'Owners'
BEGIN
  INSERT INTO journal_open (job_id, currency, value, since)
    SELECT e.job_id, e.currency, NEW.value, e.own_day FROM journal e WHERE e.id = NEW.entry_id AND e.job_id IS NOT NULL
    ON CONFLICT (job_id, currency) DO UPDATE SET value = value + excluded.value, since = min(since, excluded.since);
END;

-- Asked by a name that stands in a parameter, an index of some rows only is not used.
DROP INDEX jobs_lot;
CREATE INDEX jobs_lot ON jobs (lot, number);
CREATE INDEX jobs_customer ON jobs (customer_id, id) WHERE customer_id IS NOT NULL;
CREATE INDEX jobs_closed_at ON jobs (closed_at) WHERE closed_at IS NOT NULL AND deleted_at IS NULL AND practice_seed IS NULL;
CREATE INDEX bench_records_at ON bench_records (at);
CREATE INDEX timeline_life ON timeline (at) WHERE kind = 'life';

-- A second factor for who wants it: the secret as the shop's keys protect it, the step that was used last, and codes without the phone.
ALTER TABLE accounts ADD COLUMN second_secret TEXT;
ALTER TABLE accounts ADD COLUMN second_step INTEGER;
CREATE TABLE recovery_codes (
  mark TEXT PRIMARY KEY,
  account_id INTEGER NOT NULL REFERENCES accounts (id),
  used_at TEXT
) WITHOUT ROWID;
CREATE INDEX recovery_codes_of ON recovery_codes (account_id);
