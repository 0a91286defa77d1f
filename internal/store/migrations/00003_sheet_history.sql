-- +goose Up
ALTER TABLE sheets ADD COLUMN revision INTEGER NOT NULL DEFAULT 1 CHECK (revision > 0);

-- Every version of a sheet, as a job's journal keeps every version of a job.
CREATE TABLE sheet_journal (
    sheet    TEXT NOT NULL REFERENCES sheets (id),
    revision INTEGER NOT NULL,
    at       TEXT NOT NULL,
    by       TEXT NOT NULL,
    says     TEXT NOT NULL,
    key      TEXT UNIQUE,
    doc      TEXT NOT NULL CHECK (json_valid(doc)),
    PRIMARY KEY (sheet, revision)
) STRICT;
INSERT INTO sheet_journal (sheet, revision, at, by, says, doc)
    SELECT id, 1, strftime('%Y-%m-%dT%H:%M:%SZ', 'now'), 'Deep Bay', 'kept from before there was a history', doc FROM sheets;

-- +goose StatementBegin
CREATE TRIGGER sheet_journal_keeps BEFORE UPDATE ON sheet_journal BEGIN
    SELECT RAISE (ABORT, 'the journal is append-only');
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER sheet_journal_stays BEFORE DELETE ON sheet_journal BEGIN
    SELECT RAISE (ABORT, 'the journal is append-only');
END;
-- +goose StatementEnd

-- +goose Down
DROP TABLE sheet_journal;
ALTER TABLE sheets DROP COLUMN revision;
