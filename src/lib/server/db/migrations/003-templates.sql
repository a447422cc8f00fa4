-- Plans kept for reuse. `plan` is the version in use; what is being changed is a draft that names its template.
CREATE TABLE templates (
	id TEXT PRIMARY KEY,
	owner TEXT NOT NULL REFERENCES accounts (id),
	title TEXT NOT NULL,
	description TEXT NOT NULL DEFAULT '',
	folder TEXT NOT NULL DEFAULT '',
	shared TEXT NOT NULL DEFAULT 'owner' CHECK (shared IN ('owner', 'chosen', 'office')),
	version INTEGER NOT NULL DEFAULT 0,
	plan TEXT REFERENCES plans (digest),
	uses INTEGER NOT NULL DEFAULT 0,
	last_used_at TEXT,
	created_at TEXT NOT NULL,
	changed_at TEXT NOT NULL,
	binned_at TEXT
) STRICT;
CREATE INDEX templates_by_use ON templates (last_used_at) WHERE binned_at IS NULL;

CREATE TABLE template_shares (
	template TEXT NOT NULL REFERENCES templates (id),
	account TEXT NOT NULL REFERENCES accounts (id),
	PRIMARY KEY (template, account)
) STRICT, WITHOUT ROWID;

CREATE TABLE template_versions (
	template TEXT NOT NULL REFERENCES templates (id),
	version INTEGER NOT NULL,
	plan TEXT NOT NULL REFERENCES plans (digest),
	account TEXT NOT NULL REFERENCES accounts (id),
	at TEXT NOT NULL,
	note TEXT NOT NULL,
	PRIMARY KEY (template, version)
) STRICT, WITHOUT ROWID;

-- A draft is a packet to be (with the plan it was made from, whose locks hold), or a template being changed.
ALTER TABLE drafts ADD COLUMN template TEXT REFERENCES templates (id);
ALTER TABLE drafts ADD COLUMN base TEXT REFERENCES plans (digest);
-- 1: the template was laid over it here, and may be taken off again; 0: it was made from the template.
ALTER TABLE drafts ADD COLUMN adopted INTEGER NOT NULL DEFAULT 0;
CREATE UNIQUE INDEX drafts_by_template ON drafts (template) WHERE template IS NOT NULL;

ALTER TABLE packets ADD COLUMN template TEXT;
CREATE INDEX packets_by_template ON packets (template, status, ended_at) WHERE template IS NOT NULL;

-- Letters kept for writing them again.
CREATE TABLE saved_texts (
	id TEXT PRIMARY KEY,
	title TEXT NOT NULL,
	subject TEXT NOT NULL,
	message TEXT NOT NULL,
	saved_at TEXT NOT NULL
) STRICT;

-- What a document was made from, where that was no PDF.
CREATE TABLE paper_sources (
	paper TEXT NOT NULL REFERENCES papers (digest),
	source TEXT NOT NULL REFERENCES blobs (digest),
	name TEXT NOT NULL,
	UNIQUE (paper, source)
) STRICT;
