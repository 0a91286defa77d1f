-- +goose Up
-- What was done to a sheet, as a fact that is worded when it is read. Entries from before
-- it was kept have their sentence.
ALTER TABLE sheet_journal ADD COLUMN deed TEXT CHECK (deed IS NULL OR json_valid(deed));

-- +goose Down
ALTER TABLE sheet_journal DROP COLUMN deed;
