-- Wrong parts that were sent back; what a part of a donor was sold for.
ALTER TABLE order_lines ADD COLUMN returned INTEGER NOT NULL DEFAULT 0;
ALTER TABLE donor_parts ADD COLUMN price TEXT;
