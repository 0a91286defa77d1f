-- +goose Up
-- A digest of each document as it was kept, so that a byte that changed is seen as such.
-- Entries of journals from before have none.
ALTER TABLE jobs ADD COLUMN sum TEXT;
ALTER TABLE sheets ADD COLUMN sum TEXT;
ALTER TABLE parts ADD COLUMN sum TEXT;
ALTER TABLE journal ADD COLUMN sum TEXT;
ALTER TABLE sheet_journal ADD COLUMN sum TEXT;

-- +goose Down
ALTER TABLE jobs DROP COLUMN sum;
ALTER TABLE sheets DROP COLUMN sum;
ALTER TABLE parts DROP COLUMN sum;
ALTER TABLE journal DROP COLUMN sum;
ALTER TABLE sheet_journal DROP COLUMN sum;
