-- A batch that stands open: whose, and what of its last sheet somebody has to look at.
ALTER TABLE batches ADD COLUMN opened_by TEXT;
ALTER TABLE batches ADD COLUMN trouble TEXT NOT NULL DEFAULT '';
CREATE INDEX batches_standing ON batches (id) WHERE opened_by IS NOT NULL;
CREATE INDEX batches_trouble ON batches (owner) WHERE trouble <> '';
