CREATE TABLE meta (key TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT;

CREATE TABLE accounts (
	id TEXT PRIMARY KEY,
	name TEXT NOT NULL,
	email TEXT NOT NULL UNIQUE COLLATE NOCASE,
	level TEXT NOT NULL CHECK (level IN ('owner', 'preparer', 'viewer')),
	password TEXT NOT NULL,
	created_at TEXT NOT NULL,
	closed_at TEXT
) STRICT;

CREATE TABLE sessions (
	token_hash TEXT PRIMARY KEY,
	account TEXT NOT NULL REFERENCES accounts (id),
	created_at TEXT NOT NULL,
	expires_at TEXT NOT NULL
) STRICT;
CREATE INDEX sessions_by_account ON sessions (account);

-- Everything large, once, under its SHA-256.
CREATE TABLE blobs (
	digest TEXT PRIMARY KEY,
	media TEXT NOT NULL,
	bytes BLOB NOT NULL,
	created_at TEXT NOT NULL
) STRICT;

CREATE TABLE papers (
	digest TEXT PRIMARY KEY REFERENCES blobs (digest),
	pages TEXT NOT NULL,
	words TEXT NOT NULL,
	thumbnail TEXT NOT NULL REFERENCES blobs (digest),
	stripped TEXT NOT NULL
) STRICT;

-- Files that go along untouched.
CREATE TABLE attachments (digest TEXT PRIMARY KEY REFERENCES blobs (digest)) STRICT;

CREATE TABLE drafts (
	id TEXT PRIMARY KEY,
	owner TEXT NOT NULL REFERENCES accounts (id),
	revision INTEGER NOT NULL,
	plan TEXT NOT NULL,
	saved_at TEXT NOT NULL
) STRICT;
CREATE INDEX drafts_by_owner ON drafts (owner, saved_at);

CREATE TABLE plans (digest TEXT PRIMARY KEY, json TEXT NOT NULL) STRICT;

-- The record. What has happened is never changed: the triggers refuse.
CREATE TABLE events (
	seq INTEGER PRIMARY KEY,
	packet TEXT NOT NULL,
	n INTEGER NOT NULL,
	body TEXT NOT NULL,
	hash TEXT NOT NULL
) STRICT;
CREATE UNIQUE INDEX events_by_packet ON events (packet, n);
CREATE TRIGGER events_stay BEFORE UPDATE ON events BEGIN SELECT RAISE (ABORT, 'events are never changed'); END;
CREATE TRIGGER events_last BEFORE DELETE ON events BEGIN SELECT RAISE (ABORT, 'events are never deleted'); END;

-- Complete nodes above the leaves of the tree over all events; leaf i is the event with seq i + 1.
CREATE TABLE tree_nodes (
	level INTEGER NOT NULL,
	idx INTEGER NOT NULL,
	hash TEXT NOT NULL,
	PRIMARY KEY (level, idx)
) STRICT, WITHOUT ROWID;

-- What screens read; derived from events in the same transaction, and checked by check-data.
CREATE TABLE packets (
	id TEXT PRIMARY KEY,
	reference TEXT NOT NULL UNIQUE,
	owner TEXT NOT NULL,
	title TEXT NOT NULL,
	status TEXT NOT NULL,
	sent_at TEXT NOT NULL,
	since TEXT NOT NULL,
	deadline TEXT,
	ended_at TEXT,
	thread TEXT NOT NULL,
	sealed TEXT NOT NULL,
	events INTEGER NOT NULL,
	head TEXT NOT NULL
) STRICT;
CREATE INDEX packets_out ON packets (status, since);
CREATE INDEX packets_ended ON packets (ended_at) WHERE ended_at IS NOT NULL;
CREATE INDEX packets_deadline ON packets (deadline) WHERE status = 'out' AND deadline IS NOT NULL;

CREATE TABLE packet_people (
	packet TEXT NOT NULL REFERENCES packets (id),
	person TEXT NOT NULL,
	name TEXT NOT NULL,
	email TEXT NOT NULL COLLATE NOCASE,
	standing TEXT NOT NULL,
	since TEXT,
	PRIMARY KEY (packet, person)
) STRICT, WITHOUT ROWID;
CREATE INDEX people_unreachable ON packet_people (packet) WHERE standing = 'unreachable';
CREATE INDEX people_turn ON packet_people (email, standing);

CREATE TABLE packet_counts (status TEXT PRIMARY KEY, n INTEGER NOT NULL) STRICT;
CREATE TRIGGER count_new AFTER INSERT ON packets BEGIN
	INSERT INTO packet_counts (status, n) VALUES (new.status, 1) ON CONFLICT (status) DO UPDATE SET n = n + 1;
END;
CREATE TRIGGER count_moved AFTER UPDATE OF status ON packets WHEN old.status <> new.status BEGIN
	UPDATE packet_counts SET n = n - 1 WHERE status = old.status;
	INSERT INTO packet_counts (status, n) VALUES (new.status, 1) ON CONFLICT (status) DO UPDATE SET n = n + 1;
END;

CREATE VIRTUAL TABLE packets_text USING fts5 (id UNINDEXED, words, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3');

-- Signers' links: only the SHA-256 of the 256 random bits is kept.
CREATE TABLE links (
	token_hash TEXT PRIMARY KEY,
	packet TEXT NOT NULL,
	person TEXT NOT NULL,
	created_at TEXT NOT NULL,
	revoked_at TEXT
) STRICT, WITHOUT ROWID;
CREATE INDEX links_by_person ON links (packet, person);

CREATE TABLE saved_answers (
	packet TEXT NOT NULL,
	person TEXT NOT NULL,
	answers TEXT NOT NULL,
	saved_at TEXT NOT NULL,
	PRIMARY KEY (packet, person)
) STRICT, WITHOUT ROWID;

-- Work to be done after a commit: at least once, each under a key that is used once.
CREATE TABLE jobs (
	id INTEGER PRIMARY KEY,
	kind TEXT NOT NULL,
	key TEXT NOT NULL UNIQUE,
	payload TEXT NOT NULL,
	due_at TEXT NOT NULL,
	attempts INTEGER NOT NULL DEFAULT 0,
	error TEXT,
	done_at TEXT
) STRICT;
CREATE INDEX jobs_due ON jobs (due_at) WHERE done_at IS NULL;
CREATE INDEX jobs_failing ON jobs (attempts) WHERE done_at IS NULL AND attempts > 0;

-- The Mailbox stand-in.
CREATE TABLE mailbox (
	id INTEGER PRIMARY KEY,
	message_id TEXT NOT NULL UNIQUE,
	at TEXT NOT NULL,
	recipient TEXT NOT NULL COLLATE NOCASE,
	sender TEXT NOT NULL,
	subject TEXT NOT NULL,
	text TEXT NOT NULL,
	html TEXT NOT NULL,
	attachments TEXT NOT NULL
) STRICT;
CREATE INDEX mailbox_by_recipient ON mailbox (recipient, id);

CREATE TABLE keys (
	name TEXT PRIMARY KEY,
	certificate BLOB NOT NULL,
	issuer BLOB NOT NULL,
	crl BLOB NOT NULL,
	locked_key BLOB NOT NULL
) STRICT;
