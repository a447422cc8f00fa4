-- A sheet of people and values, and the packets made from it with a template.
CREATE TABLE batches (
	id TEXT PRIMARY KEY,
	template TEXT NOT NULL REFERENCES templates (id),
	owner TEXT NOT NULL,
	name TEXT NOT NULL,
	made_at TEXT NOT NULL,
	columns TEXT NOT NULL,
	setting TEXT NOT NULL,
	-- the last run: how many were to go, how many have; null where it has not run
	wanted INTEGER,
	sent INTEGER,
	running INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX batches_by_time ON batches (made_at);

CREATE TABLE batch_rows (
	batch TEXT NOT NULL REFERENCES batches (id) ON DELETE CASCADE,
	n INTEGER NOT NULL,
	cells TEXT NOT NULL,
	-- why it did not go when it was tried
	fault TEXT,
	PRIMARY KEY (batch, n)
) STRICT, WITHOUT ROWID;

-- What has gone, by whose it is: a later run, also of a newer sheet, leaves it out.
CREATE TABLE batch_packets (
	batch TEXT NOT NULL REFERENCES batches (id) ON DELETE CASCADE,
	who TEXT NOT NULL,
	packet TEXT NOT NULL REFERENCES packets (id),
	PRIMARY KEY (batch, who)
) STRICT, WITHOUT ROWID;
