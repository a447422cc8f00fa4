-- Documents that rows of a batch may have instead of the template's, and how their fields were laid.
CREATE TABLE batch_documents (
	batch TEXT NOT NULL REFERENCES batches (id),
	-- by which a cell names it
	key TEXT NOT NULL,
	name TEXT NOT NULL,
	-- as it came, by its digest; and the PDF that was made of it
	file TEXT NOT NULL,
	paper TEXT,
	state TEXT NOT NULL DEFAULT 'waits' CHECK (state IN ('waits', 'ready', 'doubt', 'refused')),
	say TEXT NOT NULL DEFAULT '',
	-- of the template, for which its fields were laid
	version INTEGER NOT NULL DEFAULT 0,
	laid TEXT CHECK (laid IS NULL OR json_valid(laid)),
	PRIMARY KEY (batch, key)
) STRICT, WITHOUT ROWID;
CREATE INDEX batch_documents_waiting ON batch_documents (batch, key) WHERE state = 'waits';
CREATE INDEX batch_documents_file ON batch_documents (file);
CREATE INDEX batch_documents_paper ON batch_documents (paper) WHERE paper IS NOT NULL;
