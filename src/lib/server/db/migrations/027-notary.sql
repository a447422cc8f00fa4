-- Notaries of the stand-in: their commission, their seal picture, and whether the stand-in plays them by itself.
CREATE TABLE notaries (
	id TEXT PRIMARY KEY,
	commission TEXT NOT NULL,
	-- SHA-256 of a PNG among the blobs
	seal TEXT,
	plays INTEGER NOT NULL,
	-- taken out: chosen for nothing new
	ended_at TEXT
) STRICT;
CREATE INDEX notaries_seal ON notaries (seal);

-- What a notary did and refused, each chained to the one before.
CREATE TABLE notary_journal (
	notary TEXT NOT NULL REFERENCES notaries (id),
	n INTEGER NOT NULL,
	packet TEXT NOT NULL,
	body TEXT NOT NULL,
	hash TEXT NOT NULL,
	PRIMARY KEY (notary, n)
) STRICT, WITHOUT ROWID;
CREATE TRIGGER notary_journal_stays BEFORE UPDATE ON notary_journal BEGIN
	SELECT RAISE(ABORT, 'a journal is never changed');
END;
CREATE TRIGGER notary_journal_is_kept BEFORE DELETE ON notary_journal BEGIN
	SELECT RAISE(ABORT, 'a journal is never changed');
END;

-- Sessions that are to come or going on; made anew with their packet.
CREATE TABLE packet_sessions (
	packet TEXT PRIMARY KEY REFERENCES packets (id),
	commission TEXT NOT NULL,
	starts TEXT,
	running INTEGER NOT NULL,
	-- people before the notary, and how many of them have signed
	people INTEGER NOT NULL,
	signed INTEGER NOT NULL,
	since TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX packet_sessions_of ON packet_sessions (commission, since);

-- What is said in a room, until its packet has ended; and which page is shown to all.
CREATE TABLE room_words (
	id INTEGER PRIMARY KEY,
	packet TEXT NOT NULL,
	person TEXT NOT NULL,
	said TEXT NOT NULL,
	at TEXT NOT NULL
) STRICT;
CREATE INDEX room_words_of ON room_words (packet, id);
CREATE TABLE room_pages (
	packet TEXT PRIMARY KEY,
	paper TEXT NOT NULL,
	page INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
-- When something was last heard of whoever is in a room.
CREATE TABLE room_seen (
	packet TEXT NOT NULL,
	person TEXT NOT NULL,
	at TEXT NOT NULL,
	PRIMARY KEY (packet, person)
) STRICT, WITHOUT ROWID;
