-- Waits, and what is coming, are counted by template, type and sender together (core/pace, facets), so all is counted anew by the job.
DELETE FROM waits;
DELETE FROM wait_counts;
DELETE FROM wait_open;
DELETE FROM forecasts;
DROP TABLE coming;
INSERT OR IGNORE INTO pace_behind SELECT id FROM packets;

-- How many will likely be done on each day (ISO 8601), in thousandths of a packet.
CREATE TABLE coming (
	among TEXT NOT NULL,
	day TEXT NOT NULL,
	folder TEXT NOT NULL,
	n INTEGER NOT NULL,
	PRIMARY KEY (among, day, folder)
) STRICT, WITHOUT ROWID;
