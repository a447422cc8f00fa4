-- Pictures by which somebody shows who they are. Those of a try are locked under a key of its own, which is locked under PELLUM_KEY;
-- with the key they are gone, also from where a backup has only one of the two.
CREATE TABLE identity_tries (
	id TEXT PRIMARY KEY,
	packet TEXT NOT NULL,
	person TEXT NOT NULL,
	kind TEXT NOT NULL,
	locked_key BLOB,
	-- what was measured, under the same key
	found BLOB,
	begun_at TEXT NOT NULL,
	handed_at TEXT
) STRICT;
CREATE INDEX identity_tries_of ON identity_tries (packet, person, begun_at);

CREATE TABLE identity_pictures (
	try TEXT NOT NULL REFERENCES identity_tries (id) ON DELETE CASCADE,
	side TEXT NOT NULL,
	digest TEXT NOT NULL,
	measures TEXT NOT NULL,
	bytes BLOB NOT NULL,
	PRIMARY KEY (try, side)
) STRICT;

-- Who showed who they are, by address: not asked again for so many days, where the office permits it.
CREATE TABLE identities_known (
	email TEXT NOT NULL COLLATE NOCASE,
	way TEXT NOT NULL,
	name TEXT NOT NULL,
	packet TEXT NOT NULL,
	at TEXT NOT NULL,
	PRIMARY KEY (email, way)
) STRICT, WITHOUT ROWID;
