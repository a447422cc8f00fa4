-- Each kind of job is a lane of its own: what waits in one is found without walking over the others'.
ALTER TABLE jobs ADD COLUMN set_aside_at TEXT;
DROP INDEX jobs_due;
CREATE INDEX jobs_due ON jobs (kind, due_at, id) WHERE done_at IS NULL AND set_aside_at IS NULL;
CREATE INDEX jobs_aside ON jobs (set_aside_at) WHERE set_aside_at IS NOT NULL;

-- What time should have brought and could not: a packet's clock, a draft that was to go by itself. Tried again later, so
-- that it keeps nobody else waiting.
CREATE TABLE troubles (
	what TEXT NOT NULL CHECK (what IN ('clock', 'draft')),
	id TEXT NOT NULL,
	tries INTEGER NOT NULL,
	error TEXT NOT NULL,
	since TEXT NOT NULL,
	again_at TEXT NOT NULL,
	PRIMARY KEY (what, id)
) STRICT, WITHOUT ROWID;
