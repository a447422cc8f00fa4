-- Folders of the office. Who belongs to a closed one is in folder_members; an open one is everybody's, each by their level.
-- A name is its key: packets' events name it.
CREATE TABLE folders (
	name TEXT PRIMARY KEY,
	open INTEGER NOT NULL DEFAULT 1 CHECK (open IN (0, 1)),
	made_at TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE TABLE folder_members (
	folder TEXT NOT NULL REFERENCES folders (name),
	account TEXT NOT NULL REFERENCES accounts (id),
	power TEXT NOT NULL CHECK (power IN ('sees', 'prepares', 'judges')),
	PRIMARY KEY (folder, account)
) STRICT, WITHOUT ROWID;
CREATE INDEX folder_members_by_account ON folder_members (account);

ALTER TABLE packets ADD COLUMN folder TEXT NOT NULL DEFAULT '';
UPDATE packets SET folder = coalesce(
	(SELECT p.json ->> '$.sending.folder' FROM events e JOIN plans p ON p.digest = e.body ->> '$.plan'
	 WHERE e.packet = packets.id AND e.n = 0), '');

INSERT OR IGNORE INTO folders (name, open, made_at)
SELECT name, 1, strftime('%Y-%m-%dT%H:%M:%fZ', 'now') FROM (
	SELECT folder AS name FROM packets
	UNION SELECT folder FROM templates
	UNION SELECT plan ->> '$.sending.folder' FROM drafts
	UNION SELECT json ->> '$.sending.folder' FROM plans p JOIN templates t ON t.plan = p.digest
) WHERE coalesce(name, '') <> '';

-- How many are in each state, folder by folder, so that each account is told of what it may see.
DROP TRIGGER count_new;
DROP TRIGGER count_moved;
DROP TABLE packet_counts;
CREATE TABLE packet_counts (
	folder TEXT NOT NULL,
	status TEXT NOT NULL,
	n INTEGER NOT NULL,
	PRIMARY KEY (folder, status)
) STRICT, WITHOUT ROWID;
INSERT INTO packet_counts (folder, status, n) SELECT folder, status, count(*) FROM packets GROUP BY folder, status;
CREATE TRIGGER count_new AFTER INSERT ON packets BEGIN
	INSERT INTO packet_counts (folder, status, n) VALUES (new.folder, new.status, 1)
	ON CONFLICT (folder, status) DO UPDATE SET n = n + 1;
END;
CREATE TRIGGER count_moved AFTER UPDATE OF status, folder ON packets
WHEN old.status <> new.status OR old.folder <> new.folder BEGIN
	UPDATE packet_counts SET n = n - 1 WHERE folder = old.folder AND status = old.status;
	INSERT INTO packet_counts (folder, status, n) VALUES (new.folder, new.status, 1)
	ON CONFLICT (folder, status) DO UPDATE SET n = n + 1;
END;

-- An address is the same in capitals.
DROP INDEX people_packets;
CREATE INDEX people_packets ON packet_people (email COLLATE NOCASE, packet);
DROP INDEX people_turn;
CREATE INDEX people_turn ON packet_people (email COLLATE NOCASE, standing);

-- Somebody who sees little of much gets their lists folder by folder, in order.
CREATE INDEX packets_open_in ON packets (folder, since) WHERE ended_at IS NULL;
CREATE INDEX packets_ended_in ON packets (folder, ended_at) WHERE ended_at IS NOT NULL;
CREATE INDEX packets_mine_ended ON packets (owner, ended_at) WHERE ended_at IS NOT NULL;
