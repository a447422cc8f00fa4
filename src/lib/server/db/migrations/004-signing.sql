-- When a packet next does something by itself: a reminder, a warning, its end.
ALTER TABLE packets ADD COLUMN next_at TEXT;
CREATE INDEX packets_open ON packets (since) WHERE ended_at IS NULL;
CREATE INDEX packets_next ON packets (next_at) WHERE next_at IS NOT NULL;
ALTER TABLE packets ADD COLUMN term_end TEXT;
ALTER TABLE packets ADD COLUMN follows TEXT;
CREATE INDEX packets_follow ON packets (follows) WHERE follows IS NOT NULL;
-- The last day of the agreement, and whether its sender has been told that it is near.
ALTER TABLE packets ADD COLUMN term_told INTEGER NOT NULL DEFAULT 0;
CREATE INDEX packets_term ON packets (term_end) WHERE term_end IS NOT NULL;

ALTER TABLE packet_people ADD COLUMN phone TEXT;

-- A wish for another wording that the sender has not answered, so that the Desk finds it.
CREATE TABLE packet_wordings (
	packet TEXT NOT NULL REFERENCES packets (id),
	id TEXT NOT NULL,
	person TEXT NOT NULL,
	name TEXT NOT NULL,
	words TEXT NOT NULL,
	instead TEXT NOT NULL,
	at TEXT NOT NULL,
	PRIMARY KEY (packet, id)
) STRICT, WITHOUT ROWID;

-- A guest's link on the host's device holds only for a while.
ALTER TABLE links ADD COLUMN expires_at TEXT;
-- The part had been handed over when this link died: to whom.
ALTER TABLE links ADD COLUMN passed_to TEXT;

-- One-time codes, as keyed hashes; one a person at a time.
CREATE TABLE codes (
	packet TEXT NOT NULL,
	person TEXT NOT NULL,
	hash TEXT NOT NULL,
	expires_at TEXT NOT NULL,
	PRIMARY KEY (packet, person)
) STRICT, WITHOUT ROWID;

-- Browsers in which somebody has proved who they are.
CREATE TABLE passes (
	token_hash TEXT PRIMARY KEY,
	packet TEXT NOT NULL,
	person TEXT NOT NULL,
	expires_at TEXT NOT NULL
) STRICT, WITHOUT ROWID;

-- Drafts that go by themselves.
ALTER TABLE drafts ADD COLUMN send_at TEXT;
ALTER TABLE drafts ADD COLUMN send_fault TEXT;
CREATE INDEX drafts_due ON drafts (send_at) WHERE send_at IS NOT NULL;

-- Which of the saved answers the record knows of already.
ALTER TABLE saved_answers ADD COLUMN told TEXT;
ALTER TABLE saved_answers ADD COLUMN told_at TEXT;

CREATE TABLE holidays (day TEXT PRIMARY KEY, name TEXT NOT NULL) STRICT, WITHOUT ROWID;

-- The Phone stand-in.
CREATE TABLE phone (
	id INTEGER PRIMARY KEY,
	message_id TEXT NOT NULL UNIQUE,
	at TEXT NOT NULL,
	recipient TEXT NOT NULL,
	text TEXT NOT NULL
) STRICT;
CREATE INDEX phone_by_recipient ON phone (recipient, id);
