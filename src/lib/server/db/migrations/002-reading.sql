-- What is drawn on a document's pages (rules, boxes, form fields), as JSON by page. Null: not yet read.
ALTER TABLE papers ADD COLUMN drawn TEXT;
