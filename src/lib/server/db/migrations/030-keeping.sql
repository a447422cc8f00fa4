-- How long what has ended is kept, what holds it, and what has been disposed of.
CREATE TABLE retention_rules (
	id TEXT PRIMARY KEY,
	name TEXT NOT NULL,
	by TEXT NOT NULL CHECK (by IN ('template', 'type', 'folder')),
	of TEXT NOT NULL COLLATE NOCASE,
	years INTEGER NOT NULL,
	begins TEXT NOT NULL CHECK (begins IN ('end', 'term', 'date')),
	key TEXT NOT NULL,
	year_end INTEGER NOT NULL CHECK (year_end IN (0, 1)),
	ends TEXT NOT NULL CHECK (ends IN ('review', 'dispose')),
	UNIQUE (by, of)
) STRICT;
-- its last day; by which rule, or '' where somebody has said so
ALTER TABLE packets ADD COLUMN kept_until TEXT;
ALTER TABLE packets ADD COLUMN kept_by TEXT NOT NULL DEFAULT '';
CREATE INDEX packets_kept ON packets (kept_until) WHERE kept_until IS NOT NULL;

-- A legal hold: on packets that are named, on whatever somebody takes part in, on whatever a search finds.
CREATE TABLE holds (
	id TEXT PRIMARY KEY,
	name TEXT NOT NULL,
	why TEXT NOT NULL,
	of TEXT NOT NULL CHECK (of IN ('packets', 'person', 'search')),
	-- the address, or the words
	what TEXT NOT NULL,
	by TEXT NOT NULL,
	at TEXT NOT NULL,
	lifted_by TEXT,
	lifted_at TEXT,
	lifted_why TEXT
) STRICT;
CREATE TABLE hold_packets (
	packet TEXT NOT NULL,
	hold TEXT NOT NULL REFERENCES holds (id),
	PRIMARY KEY (packet, hold)
) STRICT, WITHOUT ROWID;

-- The first of two who agree that something goes.
CREATE TABLE disposal_wishes (
	packet TEXT PRIMARY KEY REFERENCES packets (id) ON DELETE CASCADE,
	account TEXT NOT NULL REFERENCES accounts (id),
	why TEXT NOT NULL,
	at TEXT NOT NULL
) STRICT, WITHOUT ROWID;
-- What went, each time under a number; what it was called is gone with it. The certificate is a file among the blobs.
CREATE TABLE disposals (
	number INTEGER PRIMARY KEY,
	at TEXT NOT NULL,
	by TEXT NOT NULL,
	second TEXT NOT NULL,
	why TEXT NOT NULL,
	lines TEXT NOT NULL CHECK (json_valid(lines)),
	certificate TEXT REFERENCES blobs (digest)
) STRICT;
CREATE TABLE disposed (
	packet TEXT PRIMARY KEY,
	disposal INTEGER NOT NULL REFERENCES disposals (number),
	events INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
CREATE TRIGGER disposed_stays BEFORE UPDATE ON disposed BEGIN SELECT RAISE (ABORT, 'what is gone is gone'); END;
CREATE TRIGGER disposed_is_kept BEFORE DELETE ON disposed BEGIN SELECT RAISE (ABORT, 'what is gone is gone'); END;

-- An event of what has been disposed of loses its words; its hash stays, and with it the chain's and the tree's.
DROP TRIGGER events_stay;
CREATE TRIGGER events_stay BEFORE UPDATE ON events
WHEN NOT (new.body = '' AND new.seq = old.seq AND new.packet = old.packet AND new.n = old.n AND new.hash = old.hash
	AND EXISTS (SELECT 1 FROM disposed WHERE packet = old.packet))
BEGIN SELECT RAISE (ABORT, 'events are never changed'); END;

-- Asked for when something goes.
CREATE INDEX hold_packets_of ON hold_packets (hold);
CREATE INDEX disposals_certificate ON disposals (certificate) WHERE certificate IS NOT NULL;
CREATE INDEX intake_rows_of ON intake_rows (packet);
CREATE INDEX hook_deliveries_packet ON hook_deliveries (packet);
CREATE INDEX intake_people_email ON intake_people (email COLLATE NOCASE);
CREATE INDEX identities_known_of ON identities_known (packet);
CREATE INDEX cases_by_email ON cases (email COLLATE NOCASE) WHERE packet IS NULL;
CREATE INDEX cases_plan ON cases (plan);
CREATE INDEX drafts_base ON drafts (base) WHERE base IS NOT NULL;

-- Which packet's sealed copies and evidence sheet a file is.
CREATE TABLE sealed_files (
	digest TEXT NOT NULL,
	packet TEXT NOT NULL REFERENCES packets (id),
	PRIMARY KEY (digest, packet)
) STRICT, WITHOUT ROWID;
CREATE INDEX sealed_files_of ON sealed_files (packet);
INSERT OR IGNORE INTO sealed_files (digest, packet)
SELECT j.value, p.id FROM packets p, json_each(p.sealed -> '$.papers') j
UNION ALL SELECT p.sealed ->> '$.evidence', p.id FROM packets p WHERE p.sealed ->> '$.evidence' IS NOT NULL;

-- What is taken out of these is overwritten at once; the contentless one is merged when something goes (server/keeping).
INSERT INTO packets_text (packets_text, rank) VALUES ('secure-delete', 1);
INSERT INTO pages_text (pages_text, rank) VALUES ('secure-delete', 1);
