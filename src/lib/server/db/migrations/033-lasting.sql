-- Keys: authorities between a certificate and its root, with their lists; whether it was taken in; withdrawn when and why.
ALTER TABLE keys ADD COLUMN between_them TEXT NOT NULL DEFAULT '[]';
ALTER TABLE keys ADD COLUMN own INTEGER NOT NULL DEFAULT 0;
ALTER TABLE keys ADD COLUMN withdrawn TEXT;

-- A copy that a later one begins with, to the byte: its own bytes are kept there.
ALTER TABLE sealed_files ADD COLUMN later TEXT;

-- Until when a packet's copies are proven by what is in them, and by which method; '': to be found out from the keys.
CREATE TABLE lasting (
	packet TEXT PRIMARY KEY REFERENCES packets (id),
	until TEXT NOT NULL,
	method TEXT NOT NULL
) STRICT, WITHOUT ROWID;
INSERT INTO lasting (packet, until, method) SELECT id, '', 'sha256' FROM packets WHERE sealed ->> '$.evidence' IS NOT NULL;
CREATE INDEX lasting_until ON lasting (until);
CREATE INDEX lasting_method ON lasting (method, until);
