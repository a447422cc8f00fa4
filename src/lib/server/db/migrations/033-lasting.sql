-- Keys: authorities between a certificate and its root, with their lists; whether it was taken in; withdrawn when and why.
ALTER TABLE keys ADD COLUMN between_them TEXT NOT NULL DEFAULT '[]';
ALTER TABLE keys ADD COLUMN own INTEGER NOT NULL DEFAULT 0;
ALTER TABLE keys ADD COLUMN withdrawn TEXT;

-- A copy that a later one begins with, to the byte: its own bytes are kept there.
ALTER TABLE sealed_files ADD COLUMN later TEXT;

-- Until when copies are proven by what is in them, and by which method: a packet's, or the certificate of a disposal (`disposal:7`);
-- '': to be found out from the keys.
CREATE TABLE lasting (
	of TEXT PRIMARY KEY,
	until TEXT NOT NULL,
	method TEXT NOT NULL
) STRICT, WITHOUT ROWID;
INSERT INTO lasting (of, until, method) SELECT id, '', 'sha256' FROM packets WHERE sealed ->> '$.evidence' IS NOT NULL
UNION ALL SELECT 'disposal:' || number, '', 'sha256' FROM disposals WHERE certificate IS NOT NULL;
CREATE INDEX lasting_until ON lasting (until);
CREATE INDEX lasting_method ON lasting (method, until);
