-- Pages that are pictures, as JSON (from 0), and the languages they are to be read in. Null: none, or taken in before
-- scans were looked for.
ALTER TABLE papers ADD COLUMN scans TEXT;

-- What a machine has read on such a page: {words, drawn, sure, lean, turn}, as JSON. Null: it could not be read.
CREATE TABLE paper_scans (
	paper TEXT NOT NULL REFERENCES papers (digest),
	page INTEGER NOT NULL,
	reading TEXT,
	at TEXT NOT NULL,
	PRIMARY KEY (paper, page)
) STRICT, WITHOUT ROWID;
