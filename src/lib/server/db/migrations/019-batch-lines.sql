-- A batch is one line on the Desk: its packets name it, and what lists the others passes them over.
ALTER TABLE packets ADD COLUMN batch TEXT;
UPDATE packets SET batch = (SELECT batch FROM batch_packets WHERE packet = packets.id)
WHERE id IN (SELECT packet FROM batch_packets);
-- one that was sent with its batch has it already: moving it from index to index would cost as much as writing it
CREATE TRIGGER batch_joined AFTER INSERT ON batch_packets
WHEN (SELECT batch FROM packets WHERE id = new.packet) IS NOT new.batch BEGIN
	UPDATE packets SET batch = new.batch WHERE id = new.packet;
END;
CREATE TRIGGER batch_left AFTER DELETE ON batch_packets BEGIN
	UPDATE packets SET batch = NULL WHERE id = old.packet;
END;

DROP INDEX packets_open;
DROP INDEX packets_open_title;
DROP INDEX packets_open_until;
DROP INDEX packets_open_sent;
DROP INDEX packets_open_in;
DROP INDEX packets_mine;
DROP INDEX packets_unreachable;
CREATE INDEX packets_open ON packets (since) WHERE ended_at IS NULL AND batch IS NULL;
CREATE INDEX packets_open_title ON packets (title COLLATE NOCASE) WHERE ended_at IS NULL AND batch IS NULL;
CREATE INDEX packets_open_until ON packets (coalesce(deadline, '9999')) WHERE ended_at IS NULL AND batch IS NULL;
CREATE INDEX packets_open_sent ON packets (sent_at) WHERE ended_at IS NULL AND batch IS NULL;
CREATE INDEX packets_open_in ON packets (folder, since) WHERE ended_at IS NULL AND batch IS NULL;
CREATE INDEX packets_mine ON packets (owner, since) WHERE ended_at IS NULL AND batch IS NULL;
CREATE INDEX packets_unreachable ON packets (since) WHERE unreachable = 1 AND batch IS NULL;
CREATE INDEX packets_ending ON packets (deadline) WHERE status = 'out' AND deadline IS NOT NULL AND batch IS NULL;

-- How many lie where, those of batches (1) apart.
DROP TRIGGER count_new;
DROP TRIGGER count_moved;
DROP TABLE packet_counts;
CREATE TABLE packet_counts (
	folder TEXT NOT NULL,
	status TEXT NOT NULL,
	batched INTEGER NOT NULL,
	n INTEGER NOT NULL,
	PRIMARY KEY (folder, status, batched)
) STRICT, WITHOUT ROWID;
INSERT INTO packet_counts (folder, status, batched, n)
SELECT folder, status, batch IS NOT NULL, count(*) FROM packets GROUP BY folder, status, batch IS NOT NULL;
CREATE TRIGGER count_new AFTER INSERT ON packets BEGIN
	INSERT INTO packet_counts (folder, status, batched, n) VALUES (new.folder, new.status, new.batch IS NOT NULL, 1)
	ON CONFLICT (folder, status, batched) DO UPDATE SET n = n + 1;
END;
CREATE TRIGGER count_moved AFTER UPDATE OF status, folder, batch ON packets
WHEN old.status <> new.status OR old.folder <> new.folder OR (old.batch IS NULL) <> (new.batch IS NULL) BEGIN
	UPDATE packet_counts SET n = n - 1
	WHERE folder = old.folder AND status = old.status AND batched = (old.batch IS NOT NULL);
	INSERT INTO packet_counts (folder, status, batched, n) VALUES (new.folder, new.status, new.batch IS NOT NULL, 1)
	ON CONFLICT (folder, status, batched) DO UPDATE SET n = n + 1;
END;

-- How a batch stands, from these alone.
CREATE INDEX packets_of_batch ON packets (batch, status) WHERE batch IS NOT NULL;
CREATE INDEX packets_in_batch ON packets (batch, since) WHERE batch IS NOT NULL AND ended_at IS NULL;
CREATE INDEX packets_in_batch_until ON packets (batch, deadline) WHERE batch IS NOT NULL AND ended_at IS NULL;
CREATE INDEX packets_in_batch_unreachable ON packets (batch) WHERE batch IS NOT NULL AND unreachable = 1;
