-- What has ended is found by all that stands in it, one row a packet under its number. The words themselves are not kept again.
CREATE VIRTUAL TABLE packets_full USING fts5 (words, content = '', contentless_delete = 1, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3');
-- Its documents then, and what was answered, a line each: where something was found is told from these.
CREATE TABLE packet_words (
	n INTEGER PRIMARY KEY,
	papers TEXT NOT NULL,
	answers TEXT NOT NULL
) STRICT;
-- The words of documents by page, once for each document: its pages have numbers that follow one another.
CREATE VIRTUAL TABLE pages_text USING fts5 (words, plain UNINDEXED, tokenize = 'unicode61 remove_diacritics 2');
CREATE TABLE paper_texts (
	digest TEXT PRIMARY KEY,
	first INTEGER NOT NULL,
	pages INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
-- Whatever has ended before is read by jobs.
INSERT OR IGNORE INTO jobs (kind, key, payload, due_at)
SELECT 'words', id || ':words', json_object('packet', id), ended_at FROM packets WHERE ended_at IS NOT NULL;
