-- Pages from which visitors start packets. `setting` is what the office works on; what visitors see is the version in use.
CREATE TABLE intakes (
	id TEXT PRIMARY KEY,
	slug TEXT NOT NULL UNIQUE,
	owner TEXT NOT NULL REFERENCES accounts (id),
	template TEXT NOT NULL REFERENCES templates (id),
	setting TEXT NOT NULL,
	revision INTEGER NOT NULL DEFAULT 1,
	state TEXT NOT NULL DEFAULT 'making' CHECK (state IN ('making', 'open', 'closed')),
	version INTEGER NOT NULL DEFAULT 0,
	begun INTEGER NOT NULL DEFAULT 0,
	handed INTEGER NOT NULL DEFAULT 0,
	changed_at TEXT NOT NULL
) STRICT;

CREATE TABLE intake_versions (
	intake TEXT NOT NULL REFERENCES intakes (id),
	version INTEGER NOT NULL,
	setting TEXT NOT NULL,
	account TEXT NOT NULL REFERENCES accounts (id),
	at TEXT NOT NULL,
	PRIMARY KEY (intake, version)
) STRICT, WITHOUT ROWID;

-- What a visitor has begun. Its version and its template's plan stay what they were when it began. What was entered is kept here once
-- the address is proved, until it is handed in.
CREATE TABLE cases (
	id TEXT PRIMARY KEY,
	intake TEXT NOT NULL REFERENCES intakes (id),
	version INTEGER NOT NULL,
	plan TEXT NOT NULL REFERENCES plans (digest),
	token_hash TEXT NOT NULL UNIQUE,
	begun_at TEXT NOT NULL,
	seen_at TEXT NOT NULL,
	page TEXT NOT NULL DEFAULT '',
	address TEXT NOT NULL DEFAULT '',
	known TEXT NOT NULL DEFAULT '{}',
	language TEXT NOT NULL DEFAULT '',
	visitor TEXT NOT NULL DEFAULT '',
	email TEXT NOT NULL DEFAULT '',
	entered TEXT,
	proved_at TEXT,
	-- somebody of the office goes on with it, by a link of their own
	taken_by TEXT REFERENCES accounts (id),
	taken_hash TEXT UNIQUE,
	handed_at TEXT,
	packet TEXT
) STRICT;
CREATE INDEX cases_of ON cases (intake, begun_at);
CREATE INDEX cases_left ON cases (intake, page) WHERE handed_at IS NULL;
CREATE INDEX cases_packet ON cases (packet) WHERE packet IS NOT NULL;
CREATE INDEX cases_address ON cases (intake, address, handed_at) WHERE handed_at IS NOT NULL;
CREATE INDEX cases_stale ON cases (seen_at) WHERE handed_at IS NULL;

CREATE TABLE case_codes (
	id TEXT PRIMARY KEY REFERENCES cases (id) ON DELETE CASCADE,
	email TEXT NOT NULL,
	hash TEXT NOT NULL,
	expires_at TEXT NOT NULL,
	wrong INTEGER NOT NULL DEFAULT 0
) STRICT, WITHOUT ROWID;

-- People on a sheet, each with a link of their own; what the sheet says of them is known before.
CREATE TABLE intake_people (
	intake TEXT NOT NULL REFERENCES intakes (id),
	n INTEGER NOT NULL,
	token_hash TEXT NOT NULL UNIQUE,
	name TEXT NOT NULL,
	email TEXT NOT NULL,
	known TEXT NOT NULL,
	PRIMARY KEY (intake, n)
) STRICT, WITHOUT ROWID;

-- Rows that follow from cases, for a sheet.
CREATE TABLE intake_rows (
	intake TEXT NOT NULL REFERENCES intakes (id),
	follow_up TEXT NOT NULL,
	n INTEGER NOT NULL,
	packet TEXT NOT NULL,
	at TEXT NOT NULL,
	cells TEXT NOT NULL,
	PRIMARY KEY (intake, follow_up, n)
) STRICT, WITHOUT ROWID;
