-- What has ended can be put out of the way or into the bin; the records are put in order by any of their columns.
ALTER TABLE packets ADD COLUMN type TEXT NOT NULL DEFAULT '';
ALTER TABLE packets ADD COLUMN own_reference TEXT NOT NULL DEFAULT '';
ALTER TABLE packets ADD COLUMN put TEXT CHECK (put IN ('archive', 'bin'));
ALTER TABLE packets ADD COLUMN put_at TEXT;
-- what the template was called then; bytes of the sealed copies and the evidence sheet
ALTER TABLE packets ADD COLUMN template_title TEXT NOT NULL DEFAULT '';
ALTER TABLE packets ADD COLUMN size INTEGER NOT NULL DEFAULT 0;
-- a draft in the bin is sent by nothing and stands in no list but that one
ALTER TABLE drafts ADD COLUMN binned_at TEXT;
DROP INDEX drafts_by_owner;
CREATE INDEX drafts_by_owner ON drafts (owner, saved_at) WHERE binned_at IS NULL;
CREATE INDEX drafts_binned ON drafts (owner, binned_at) WHERE binned_at IS NOT NULL;
CREATE INDEX drafts_binned_at ON drafts (binned_at) WHERE binned_at IS NOT NULL;

-- `put` is '' for what stands in the records. One row a packet and column.
CREATE TABLE packet_order (
	put TEXT NOT NULL,
	sort TEXT NOT NULL,
	value TEXT NOT NULL,
	n INTEGER NOT NULL REFERENCES packet_numbers (n),
	PRIMARY KEY (put, sort, value, n)
) STRICT, WITHOUT ROWID;
CREATE INDEX packet_order_of ON packet_order (n, sort);
DROP INDEX packets_ended_title;
DROP INDEX packets_ended_sent;
DROP INDEX packets_ended_in;
DROP INDEX packets_mine_ended;
CREATE INDEX packets_ended_in ON packets (folder, ended_at) WHERE ended_at IS NOT NULL AND put IS NULL;
CREATE INDEX packets_mine_ended ON packets (owner, ended_at) WHERE ended_at IS NOT NULL AND put IS NULL;
CREATE INDEX packets_put ON packets (put, put_at) WHERE put IS NOT NULL;

-- Of what was sent before: the type and own reference stand in the plan that held last.
CREATE TEMP TABLE last_plans AS
SELECT p.id, (SELECT e.body ->> '$.plan' FROM events e WHERE e.packet = p.id AND e.body ->> '$.plan' IS NOT NULL ORDER BY e.n DESC LIMIT 1) AS plan
FROM packets p;
UPDATE packets SET (type, own_reference, template_title) = (
	SELECT coalesce(l.json ->> '$.sending.type', ''), coalesce(l.json ->> '$.sending.ownReference', ''),
	coalesce((SELECT v.json ->> '$.title' FROM template_versions w JOIN plans v ON v.digest = w.plan
		WHERE w.template = l.json ->> '$.from[0].template' AND w.version = l.json ->> '$.from[0].version'), '')
	FROM last_plans t JOIN plans l ON l.digest = t.plan WHERE t.id = packets.id);
UPDATE packets SET size = (SELECT coalesce(sum(length(b.bytes)), 0) FROM blobs b WHERE b.digest = packets.sealed ->> '$.evidence'
	OR b.digest IN (SELECT value FROM json_each(packets.sealed -> '$.papers')));
INSERT INTO packet_order (put, sort, value, n)
SELECT '', o.key, o.value, m.n
FROM packets p JOIN packet_numbers m ON m.packet = p.id JOIN last_plans t ON t.id = p.id JOIN plans l ON l.digest = t.plan,
json_each(json_object(
	'ended', p.ended_at,
	'title', ordered(p.title),
	'sent', p.sent_at,
	'reference', p.reference,
	'own reference', ordered(p.own_reference),
	'type', ordered(p.type),
	'folder', ordered(p.folder),
	'people', ordered(p.thread ->> '$[0][0].name'),
	'how', p.status,
	'term', coalesce(p.term_end, ordered('')),
	'template', ordered(p.template_title),
	'sender', ordered((SELECT e.body ->> '$.sender.name' FROM events e WHERE e.packet = p.id AND e.n = 0)),
	'size', printf('%015d', p.size),
	'kept', ordered('')
)) AS o
WHERE p.ended_at IS NOT NULL;
DROP TABLE last_plans;

-- How many lie where, what is put away apart.
DROP TRIGGER count_new;
DROP TRIGGER count_moved;
DROP TABLE packet_counts;
CREATE TABLE packet_counts (
	folder TEXT NOT NULL,
	status TEXT NOT NULL,
	batched INTEGER NOT NULL,
	put TEXT NOT NULL,
	n INTEGER NOT NULL,
	PRIMARY KEY (folder, status, batched, put)
) STRICT, WITHOUT ROWID;
INSERT INTO packet_counts (folder, status, batched, put, n)
SELECT folder, status, batch IS NOT NULL, '', count(*) FROM packets GROUP BY folder, status, batch IS NOT NULL;
CREATE TRIGGER count_new AFTER INSERT ON packets BEGIN
	INSERT INTO packet_counts (folder, status, batched, put, n)
	VALUES (new.folder, new.status, new.batch IS NOT NULL, coalesce(new.put, ''), 1)
	ON CONFLICT (folder, status, batched, put) DO UPDATE SET n = n + 1;
END;
CREATE TRIGGER count_moved AFTER UPDATE OF status, folder, batch, put ON packets
WHEN old.status <> new.status OR old.folder <> new.folder OR (old.batch IS NULL) <> (new.batch IS NULL) OR old.put IS NOT new.put BEGIN
	UPDATE packet_counts SET n = n - 1
	WHERE folder = old.folder AND status = old.status AND batched = (old.batch IS NOT NULL) AND put = coalesce(old.put, '');
	INSERT INTO packet_counts (folder, status, batched, put, n)
	VALUES (new.folder, new.status, new.batch IS NOT NULL, coalesce(new.put, ''), 1)
	ON CONFLICT (folder, status, batched, put) DO UPDATE SET n = n + 1;
END;
CREATE TRIGGER count_gone AFTER DELETE ON packets BEGIN
	UPDATE packet_counts SET n = n - 1
	WHERE folder = old.folder AND status = old.status AND batched = (old.batch IS NOT NULL) AND put = coalesce(old.put, '');
END;
