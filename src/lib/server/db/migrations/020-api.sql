-- Keys by which other programs come, for an account; and what was answered, so that the same asked again is done once.
CREATE TABLE api_keys (
	id TEXT PRIMARY KEY,
	account TEXT NOT NULL REFERENCES accounts (id),
	name TEXT NOT NULL,
	rights TEXT NOT NULL CHECK (json_valid(rights)),
	hash TEXT NOT NULL UNIQUE,
	made_at TEXT NOT NULL,
	used_at TEXT,
	ended_at TEXT
) STRICT;
CREATE INDEX api_keys_of ON api_keys (account, made_at);
CREATE TABLE api_answers (
	key TEXT NOT NULL,
	idem TEXT NOT NULL,
	-- SHA-256 of what was asked
	asked TEXT NOT NULL,
	-- 0 while it is being done
	status INTEGER NOT NULL,
	body TEXT NOT NULL,
	at TEXT NOT NULL,
	PRIMARY KEY (key, idem)
) STRICT, WITHOUT ROWID;
CREATE INDEX api_answers_old ON api_answers (at);

-- Addresses that are told of what happens, and what each was told.
CREATE TABLE hooks (
	id TEXT PRIMARY KEY,
	account TEXT NOT NULL REFERENCES accounts (id),
	address TEXT NOT NULL,
	kinds TEXT NOT NULL CHECK (json_valid(kinds)),
	-- locked under PELLUM_KEY; after a change both are used until the day
	locked TEXT NOT NULL,
	locked_before TEXT,
	before_until TEXT,
	made_at TEXT NOT NULL,
	ended_at TEXT,
	-- while it does not answer: how often in a row, and until when nothing is tried
	failures INTEGER NOT NULL DEFAULT 0,
	rests_until TEXT
) STRICT;
CREATE INDEX hooks_now ON hooks (account) WHERE ended_at IS NULL;
CREATE TABLE hook_deliveries (
	id INTEGER PRIMARY KEY,
	hook TEXT NOT NULL REFERENCES hooks (id),
	packet TEXT NOT NULL,
	n INTEGER NOT NULL,
	kind TEXT NOT NULL,
	at TEXT NOT NULL,
	state TEXT NOT NULL DEFAULT 'waits' CHECK (state IN ('waits', 'delivered', 'given up')),
	tries INTEGER NOT NULL DEFAULT 0,
	status INTEGER,
	answer TEXT NOT NULL DEFAULT '',
	done_at TEXT,
	UNIQUE (hook, packet, n)
) STRICT;
CREATE INDEX hook_deliveries_of ON hook_deliveries (hook, id);
CREATE INDEX hook_deliveries_old ON hook_deliveries (done_at) WHERE done_at IS NOT NULL;
CREATE INDEX hook_deliveries_next ON hook_deliveries (hook, packet, n) WHERE state = 'waits';

-- Calendars by a secret address.
CREATE TABLE calendar_feeds (
	account TEXT PRIMARY KEY REFERENCES accounts (id),
	hash TEXT NOT NULL UNIQUE,
	made_at TEXT NOT NULL
) STRICT;

-- What the receiver that ships with Pellum was told; a stand-in.
CREATE TABLE receiver (
	id INTEGER PRIMARY KEY,
	at TEXT NOT NULL,
	message TEXT NOT NULL,
	good INTEGER NOT NULL,
	body TEXT NOT NULL
) STRICT;
