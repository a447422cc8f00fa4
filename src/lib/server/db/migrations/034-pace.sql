-- Packets whose waits are to be counted anew: noted with each event, counted by a job. All there are, once.
CREATE TABLE pace_behind (packet TEXT PRIMARY KEY) STRICT, WITHOUT ROWID;
INSERT INTO pace_behind SELECT id FROM packets;

-- What has been waited for in each packet, as it was counted last (core/pace, CountedWait).
CREATE TABLE waits (
	packet TEXT NOT NULL,
	of TEXT NOT NULL,
	person TEXT NOT NULL,
	template TEXT NOT NULL,
	version TEXT NOT NULL,
	type TEXT NOT NULL,
	sender TEXT NOT NULL,
	folder TEXT NOT NULL,
	duty TEXT NOT NULL,
	delivery TEXT NOT NULL,
	language TEXT NOT NULL,
	part_of_day TEXT NOT NULL,
	hour TEXT NOT NULL,
	began TEXT NOT NULL,
	over_at TEXT,
	days REAL,
	working REAL,
	how TEXT,
	reminded TEXT,
	warned TEXT,
	texted TEXT,
	PRIMARY KEY (packet, of, person)
) STRICT, WITHOUT ROWID;
CREATE INDEX waits_newest ON waits (began) WHERE of = 'part';
CREATE INDEX waits_of_template ON waits (template, began) WHERE of = 'part';

-- How many waits were over after so many days, how, by what they are counted by and the week in which they began; `clock`: all days or
-- working days.
CREATE TABLE wait_counts (
	of TEXT NOT NULL,
	facet TEXT NOT NULL,
	value TEXT NOT NULL,
	clock TEXT NOT NULL,
	week TEXT NOT NULL,
	folder TEXT NOT NULL,
	days REAL NOT NULL,
	how TEXT NOT NULL,
	n INTEGER NOT NULL,
	PRIMARY KEY (of, facet, value, clock, week, folder, days, how)
) STRICT, WITHOUT ROWID;

-- How many are still open since that hour (2026-11-23T09, UTC).
CREATE TABLE wait_open (
	of TEXT NOT NULL,
	facet TEXT NOT NULL,
	value TEXT NOT NULL,
	began TEXT NOT NULL,
	folder TEXT NOT NULL,
	n INTEGER NOT NULL,
	PRIMARY KEY (of, facet, value, began, folder)
) STRICT, WITHOUT ROWID;

-- What is reckoned of each packet that is out (core/pace, Forecast), beyond what its own row says of when it will likely be done.
CREATE TABLE forecasts (
	packet TEXT PRIMARY KEY,
	as_of TEXT NOT NULL,
	rests_on INTEGER NOT NULL,
	too_few INTEGER NOT NULL,
	-- the share that is not done by its last day; null where it has none
	chance REAL,
	-- when all of it, and each stop, will likely be done (core/packet, LikelyCourse), JSON
	whole TEXT NOT NULL,
	stops TEXT NOT NULL,
	-- the one thing that may help where it will likely be late, in words; '' where there is none
	helps TEXT NOT NULL,
	-- what is counted under `coming` of it, to be taken off again
	counted TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX forecasts_as_of ON forecasts (as_of);
CREATE INDEX forecasts_late ON forecasts (chance) WHERE too_few = 0 AND chance >= 0.5;

-- The share of waits like the longest of what is out that were over when it was reckoned last, as text of one length (0.8731), so that lists
-- go by it.
ALTER TABLE packets ADD COLUMN unusual TEXT NOT NULL DEFAULT '0.0000';
-- What lists say of when it will likely be done (core/packet, Likely), JSON; '' where nobody has reckoned it.
ALTER TABLE packets ADD COLUMN likely TEXT NOT NULL DEFAULT '';
CREATE INDEX packets_open_unusual ON packets (unusual) WHERE ended_at IS NULL AND batch IS NULL;

-- How many will likely be done on each day (ISO 8601), in thousandths of a packet.
CREATE TABLE coming (
	facet TEXT NOT NULL,
	value TEXT NOT NULL,
	day TEXT NOT NULL,
	folder TEXT NOT NULL,
	n INTEGER NOT NULL,
	PRIMARY KEY (facet, value, day, folder)
) STRICT, WITHOUT ROWID;

-- Who of the office wants what needs them by mail, in the morning of working days; when the next one is due.
CREATE TABLE morning_letters (
	account TEXT PRIMARY KEY REFERENCES accounts (id),
	due_at TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX morning_letters_due ON morning_letters (due_at);

-- Where people stumble in a template, counted per field where the organisation lets it: visits, seconds, turned back to, refused (why),
-- the last one of somebody who never came back or who declined. Nothing of who it was, nor of what stood there.
CREATE TABLE field_counts (
	template TEXT NOT NULL,
	version TEXT NOT NULL,
	field TEXT NOT NULL,
	what TEXT NOT NULL,
	reason TEXT NOT NULL,
	n INTEGER NOT NULL,
	PRIMARY KEY (template, version, field, what, reason)
) STRICT, WITHOUT ROWID;
-- The field that somebody was at last, until their part is over; how often their page has told.
CREATE TABLE field_last (
	packet TEXT NOT NULL,
	person TEXT NOT NULL,
	field TEXT NOT NULL,
	told INTEGER NOT NULL,
	PRIMARY KEY (packet, person)
) STRICT, WITHOUT ROWID;
