-- +goose Up
-- The list of jobs reads this index alone, whatever the size of the documents.
DROP INDEX jobs_open;
CREATE INDEX jobs_list ON jobs (open DESC, updated DESC, id, revision);

-- +goose Down
DROP INDEX jobs_list;
CREATE INDEX jobs_open ON jobs (open, updated);
