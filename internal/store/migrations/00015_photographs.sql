-- +goose Up
-- Photographs beside a job: what was seen at its steps. They leave with the job.
CREATE TABLE photographs (
    job    TEXT NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    id     TEXT NOT NULL,
    number INTEGER NOT NULL, -- in the order in which they came
    says   TEXT NOT NULL, -- the step at which it was taken
    at     TEXT NOT NULL,
    by     TEXT NOT NULL,
    width  INTEGER NOT NULL CHECK (width > 0),
    height INTEGER NOT NULL CHECK (height > 0),
    seal   TEXT NOT NULL,
    jpeg   BLOB NOT NULL,
    PRIMARY KEY (job, id)
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE photographs;
