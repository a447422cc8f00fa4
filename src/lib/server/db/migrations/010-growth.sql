-- Every way a list is asked for has an index of its own, in the order it is shown.
CREATE INDEX packets_mine ON packets (owner, since) WHERE ended_at IS NULL;
CREATE INDEX packets_declined ON packets (ended_at) WHERE status = 'declined';
CREATE INDEX packets_told ON packets (term_end) WHERE term_told = 1;
CREATE INDEX wordings_by_time ON packet_wordings (at);
CREATE INDEX people_packets ON packet_people (email, packet);

-- Whether somebody whose turn it is can't be reached.
ALTER TABLE packets ADD COLUMN unreachable INTEGER NOT NULL DEFAULT 0;
UPDATE packets SET unreachable = 1
WHERE ended_at IS NULL AND id IN (SELECT packet FROM packet_people WHERE standing = 'unreachable');
CREATE INDEX packets_unreachable ON packets (since) WHERE unreachable = 1;
DROP INDEX people_unreachable;

-- A packet's number in the full text, so that its words are found and replaced without reading all others.
CREATE TABLE packet_numbers (n INTEGER PRIMARY KEY, packet TEXT NOT NULL UNIQUE) STRICT;
INSERT INTO packet_numbers (packet) SELECT id FROM packets ORDER BY sent_at, id;
CREATE TEMP TABLE old_text AS SELECT id, words FROM packets_text;
DROP TABLE packets_text;
CREATE VIRTUAL TABLE packets_text USING fts5 (words, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3');
INSERT INTO packets_text (rowid, words) SELECT n.n, o.words FROM old_text o JOIN packet_numbers n ON n.packet = o.id;
DROP TABLE old_text;

CREATE INDEX sessions_by_end ON sessions (expires_at);
CREATE INDEX passes_by_end ON passes (expires_at);
CREATE INDEX passes_by_person ON passes (packet, person);
CREATE INDEX sources_by_paper ON paper_sources (paper);
