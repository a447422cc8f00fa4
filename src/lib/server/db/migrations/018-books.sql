-- Where a batch's sheet comes from (JSON): the file and which sheet of it, and where headings and columns stand there.
ALTER TABLE batches ADD COLUMN origin TEXT NOT NULL DEFAULT '{}';
ALTER TABLE batches ADD COLUMN file TEXT NOT NULL DEFAULT '';
CREATE INDEX batches_of ON batches (owner, made_at);
CREATE INDEX batches_by_file ON batches (file);
-- Counts what changes how its rows are judged. `running` is 2 while a run rests.
ALTER TABLE batches ADD COLUMN revision INTEGER NOT NULL DEFAULT 0;
-- When the run began, for the time left; and how many could not be sent in it.
ALTER TABLE batches ADD COLUMN began_at TEXT;
ALTER TABLE batches ADD COLUMN failed INTEGER NOT NULL DEFAULT 0;
-- Why the last run ended before its end.
ALTER TABLE batches ADD COLUMN stopped TEXT NOT NULL DEFAULT '';

-- The line of the file; cells put right in place (JSON, by column); what goes in the run that is under way (JSON), as it was shown.
ALTER TABLE batch_rows ADD COLUMN line INTEGER NOT NULL DEFAULT 0;
ALTER TABLE batch_rows ADD COLUMN righted TEXT;
ALTER TABLE batch_rows ADD COLUMN given TEXT;
CREATE INDEX batch_rows_due ON batch_rows (batch, n) WHERE given IS NOT NULL;

-- What a row brought (JSON, by target), so that a change in a newer sheet is noticed.
ALTER TABLE batch_packets ADD COLUMN brought TEXT NOT NULL DEFAULT '{}';
CREATE UNIQUE INDEX batch_packets_by_packet ON batch_packets (packet);

-- What a heading meant when a person settled it, by template.
CREATE TABLE sheet_heads (
	template TEXT NOT NULL REFERENCES templates (id) ON DELETE CASCADE,
	head TEXT NOT NULL,
	target TEXT NOT NULL,
	PRIMARY KEY (template, head)
) STRICT, WITHOUT ROWID;
