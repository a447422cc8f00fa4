-- The stand-in of a witness: the roots that it was sent, each held against the one before by the proof that came with it.
CREATE TABLE witness_roots (
	day TEXT PRIMARY KEY,
	size INTEGER NOT NULL,
	root TEXT NOT NULL,
	body TEXT NOT NULL,
	-- whether it goes on from the one before, by its own proof
	follows INTEGER NOT NULL CHECK (follows IN (0, 1)),
	at TEXT NOT NULL
) STRICT, WITHOUT ROWID;
