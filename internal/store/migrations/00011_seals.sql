-- +goose Up
-- A digest of what stands beside a document, as its own is of the document: a revision, a
-- time, a count or a name that changed on the disk is seen as such. Entries of journals
-- from before have none.
ALTER TABLE jobs ADD COLUMN seal TEXT;
ALTER TABLE sheets ADD COLUMN seal TEXT;
ALTER TABLE parts ADD COLUMN seal TEXT;
ALTER TABLE stock ADD COLUMN seal TEXT;
ALTER TABLE journal ADD COLUMN seal TEXT;
ALTER TABLE sheet_journal ADD COLUMN seal TEXT;
ALTER TABLE shelf_journal ADD COLUMN seal TEXT;
DROP INDEX jobs_list;
CREATE INDEX jobs_list ON jobs (open DESC, updated DESC, id, revision, seal);

-- +goose Down
DROP INDEX jobs_list;
CREATE INDEX jobs_list ON jobs (open DESC, updated DESC, id, revision);
ALTER TABLE jobs DROP COLUMN seal;
ALTER TABLE sheets DROP COLUMN seal;
ALTER TABLE parts DROP COLUMN seal;
ALTER TABLE stock DROP COLUMN seal;
ALTER TABLE journal DROP COLUMN seal;
ALTER TABLE sheet_journal DROP COLUMN seal;
ALTER TABLE shelf_journal DROP COLUMN seal;
