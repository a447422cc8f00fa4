-- What holds a document, a picture or a file: a draft, or a frozen plan. A file is reached through one of them only.
CREATE TABLE holders (
	digest TEXT NOT NULL,
	kind TEXT NOT NULL CHECK (kind IN ('draft', 'plan')),
	id TEXT NOT NULL,
	PRIMARY KEY (digest, kind, id)
) STRICT, WITHOUT ROWID;
CREATE INDEX holders_by_id ON holders (kind, id);

-- Which frozen plans are a packet's: the one that was sent, then one a correction.
CREATE TABLE packet_plans (
	plan TEXT NOT NULL,
	packet TEXT NOT NULL,
	PRIMARY KEY (plan, packet)
) STRICT, WITHOUT ROWID;
CREATE INDEX packet_plans_of ON packet_plans (packet);
INSERT OR IGNORE INTO packet_plans (plan, packet)
SELECT body ->> '$.plan', packet FROM events WHERE body ->> '$.type' IN ('PacketSent', 'PlanCorrected');
CREATE INDEX template_versions_by_plan ON template_versions (plan);

INSERT OR IGNORE INTO holders (digest, kind, id)
WITH whole (kind, holder, written) AS (SELECT 'draft', id, plan FROM drafts UNION ALL SELECT 'plan', digest, json FROM plans)
SELECT e.value ->> '$.digest', kind, holder FROM whole, json_each(written, '$.papers') e
UNION ALL SELECT e.value ->> '$.digest', kind, holder FROM whole, json_each(written, '$.attachments') e
UNION ALL SELECT e.value ->> '$.settings.picture', kind, holder FROM whole, json_each(written, '$.fields') e
	WHERE e.value ->> '$.settings.picture' IS NOT NULL
UNION ALL SELECT coalesce(e.value ->> '$.file', e.value ->> '$.digest'), kind, holder FROM whole, json_each(written, '$.answers') e
	WHERE e.type = 'object' AND coalesce(e.value ->> '$.file', e.value ->> '$.digest') IS NOT NULL;
