-- +goose Up
CREATE TABLE sheets (
    id   TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    doc  TEXT NOT NULL CHECK (json_valid(doc))
) STRICT;

CREATE TABLE parts (
    id   TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    doc  TEXT NOT NULL CHECK (json_valid(doc))
) STRICT;

CREATE TABLE jobs (
    id       TEXT PRIMARY KEY,
    revision INTEGER NOT NULL CHECK (revision > 0),
    open     INTEGER NOT NULL CHECK (open IN (0, 1)),
    updated  TEXT NOT NULL,
    -- everything printed on the machine and its parts, one a line, in capitals
    -- and without blanks, dashes and dots, for searching
    marks    TEXT NOT NULL,
    doc      TEXT NOT NULL CHECK (json_valid(doc))
) STRICT;
CREATE INDEX jobs_open ON jobs (open, updated);

-- What was done, when, by whom, and the job as it was afterwards. The job as it
-- was before is the entry of the revision before.
CREATE TABLE journal (
    job      TEXT NOT NULL REFERENCES jobs (id),
    revision INTEGER NOT NULL,
    at       TEXT NOT NULL,
    by       TEXT NOT NULL,
    says     TEXT NOT NULL,
    -- names the request; the same request twice is applied once
    key      TEXT UNIQUE,
    doc      TEXT NOT NULL CHECK (json_valid(doc)),
    PRIMARY KEY (job, revision)
) STRICT;

-- +goose StatementBegin
CREATE TRIGGER journal_keeps BEFORE UPDATE ON journal BEGIN
    SELECT RAISE (ABORT, 'the journal is append-only');
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER journal_stays BEFORE DELETE ON journal BEGIN
    SELECT RAISE (ABORT, 'the journal is append-only');
END;
-- +goose StatementEnd

-- +goose Down
DROP TABLE journal;
DROP TABLE jobs;
DROP TABLE parts;
DROP TABLE sheets;
