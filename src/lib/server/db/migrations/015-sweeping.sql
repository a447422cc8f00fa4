-- Files that people handed in: 1 where an answer of the ended packet is that file, null until somebody has looked.
ALTER TABLE handed_in ADD COLUMN used INTEGER;
CREATE INDEX handed_in_unjudged ON handed_in (packet) WHERE used IS NULL;
CREATE INDEX handed_in_by_digest ON handed_in (digest);
CREATE INDEX papers_by_thumbnail ON papers (thumbnail);
CREATE INDEX papers_by_original ON papers (original) WHERE original IS NOT NULL;
CREATE INDEX paper_sources_by_source ON paper_sources (source);
