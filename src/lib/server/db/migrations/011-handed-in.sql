-- Files and pictures by who handed them in for which packet: an answer that is a file can be no other, and what was never
-- used can be swept.
CREATE TABLE handed_in (
	packet TEXT NOT NULL,
	person TEXT NOT NULL,
	digest TEXT NOT NULL,
	at TEXT NOT NULL,
	PRIMARY KEY (packet, person, digest)
) STRICT, WITHOUT ROWID;
-- What people are in the middle of.
INSERT OR IGNORE INTO handed_in (packet, person, digest, at)
SELECT s.packet, s.person, coalesce(a.value ->> '$.file', a.value ->> '$.digest'), s.saved_at
FROM saved_answers s, json_each(s.answers) a
WHERE a.type = 'object' AND coalesce(a.value ->> '$.file', a.value ->> '$.digest') IS NOT NULL;
