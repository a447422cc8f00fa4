-- How a document's pages look beside the file they were made from: {differ, blank, hidden, from}, as JSON. Null: taken in
-- before pages were compared.
ALTER TABLE papers ADD COLUMN compared TEXT;
-- That file, where a page looks different.
ALTER TABLE papers ADD COLUMN original TEXT REFERENCES blobs (digest);

-- Pages that look different and were accepted as they are: from 0, and by whom.
CREATE TABLE paper_looks (
	paper TEXT NOT NULL REFERENCES papers (digest),
	page INTEGER NOT NULL,
	account TEXT NOT NULL,
	name TEXT NOT NULL,
	at TEXT NOT NULL,
	PRIMARY KEY (paper, page)
) STRICT, WITHOUT ROWID;
