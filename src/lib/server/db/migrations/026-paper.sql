-- What went out to be signed in ink: its pages as they were then, and what was typed by whom it went to.
CREATE TABLE paper_outs (
	id TEXT PRIMARY KEY,
	packet TEXT NOT NULL,
	person TEXT NOT NULL,
	-- what it was made from: the same is not made twice
	made_from TEXT NOT NULL,
	-- SHA-256 of the pages, and of the file with its codes and first sheet, both among the blobs
	digest TEXT NOT NULL,
	file TEXT NOT NULL,
	-- its pages: documents, words, places, codes
	sheets TEXT NOT NULL,
	-- the documents by their digests then
	papers TEXT NOT NULL,
	-- what they had typed, printed on the pages
	typed TEXT NOT NULL,
	-- the fields that are printed on the pages
	stamped TEXT NOT NULL,
	at TEXT NOT NULL
) STRICT;
CREATE INDEX paper_outs_of ON paper_outs (packet, person, at);
CREATE INDEX paper_outs_file ON paper_outs (file);
CREATE INDEX paper_outs_digest ON paper_outs (digest);

-- What came back and waits for somebody of the office; made anew with its packet.
CREATE TABLE packet_returns (
	packet TEXT NOT NULL REFERENCES packets (id),
	person TEXT NOT NULL,
	name TEXT NOT NULL,
	doubts INTEGER NOT NULL,
	at TEXT NOT NULL,
	PRIMARY KEY (packet, person)
) STRICT, WITHOUT ROWID;
CREATE INDEX returns_by_time ON packet_returns (at);

-- What came back: pictures of pages, and PDFs of several until they are taken apart.
CREATE TABLE paper_pictures (
	id TEXT PRIMARY KEY,
	out TEXT NOT NULL REFERENCES paper_outs (id) ON DELETE CASCADE,
	name TEXT NOT NULL,
	media TEXT NOT NULL,
	digest TEXT NOT NULL,
	-- as it came (PDF), or as it is kept (JPEG)
	bytes BLOB NOT NULL,
	-- the page as it lies in its own frame (JPEG)
	laid BLOB,
	-- what was told of it at once, and once it was held against what went out
	flat TEXT,
	seen TEXT,
	at TEXT NOT NULL,
	-- into how many pages a PDF was taken apart
	parts INTEGER,
	-- when it was handed in; before that, whoever brought it can take it out
	handed_at TEXT
) STRICT;
CREATE INDEX paper_pictures_of ON paper_pictures (out);
