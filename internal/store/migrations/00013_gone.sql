-- +goose Up
-- That there was a job which is no longer here. Of a deleted one nothing else is told; of
-- an archived one also which it was.
CREATE TABLE gone (
    number    INTEGER PRIMARY KEY,
    at        TEXT NOT NULL,
    by        TEXT NOT NULL,
    why       TEXT NOT NULL CHECK (why IN ('deleted', 'archived')),
    revisions INTEGER NOT NULL,
    job       TEXT NOT NULL CHECK (why = 'archived' OR job = ''),
    title     TEXT NOT NULL CHECK (why = 'archived' OR title = '')
) STRICT;

-- Jobs that leave with their journals; it has rows within a transaction only.
CREATE TABLE leaving (job TEXT PRIMARY KEY) STRICT;
DROP TRIGGER journal_stays;
-- +goose StatementBegin
CREATE TRIGGER journal_stays BEFORE DELETE ON journal WHEN NOT EXISTS (SELECT 1 FROM leaving WHERE job = old.job) BEGIN
    SELECT RAISE (ABORT, 'the journal is append-only');
END;
-- +goose StatementEnd

-- +goose Down
DROP TRIGGER journal_stays;
-- +goose StatementBegin
CREATE TRIGGER journal_stays BEFORE DELETE ON journal BEGIN
    SELECT RAISE (ABORT, 'the journal is append-only');
END;
-- +goose StatementEnd
DROP TABLE leaving;
DROP TABLE gone;
