-- +goose Up
-- Every line of the three journals, as it is found in the logbook: numbered by its time, so that
-- the latest are at hand. It can be made anew at any time from the journals.
CREATE TABLE logged (
    number   INTEGER PRIMARY KEY, -- milliseconds since 1970, times 2^16, and a count
    kind     TEXT NOT NULL CHECK (kind IN ('job', 'sheet', 'part')),
    thing    TEXT NOT NULL,
    revision INTEGER NOT NULL,
    who      TEXT NOT NULL, -- one word, as it is looked for
    tag      TEXT NOT NULL, -- kind, thing and model, a word each
    words    TEXT NOT NULL, -- what it says, and what its thing was called
    UNIQUE (kind, thing, revision)
) STRICT;
CREATE VIRTUAL TABLE log USING fts5 (who, tag, words, content = 'logged', content_rowid = 'number', tokenize = 'unicode61');
-- Every word that is in it, for beginnings of words: one that begins so is asked for as a whole.
CREATE TABLE logwords (word TEXT PRIMARY KEY) STRICT, WITHOUT ROWID;
-- +goose StatementBegin
CREATE TRIGGER logged_new AFTER INSERT ON logged BEGIN
    INSERT INTO log (rowid, who, tag, words) VALUES (new.number, new.who, new.tag, new.words);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER logged_gone AFTER DELETE ON logged BEGIN
    INSERT INTO log (log, rowid, who, tag, words) VALUES ('delete', old.number, old.who, old.tag, old.words);
END;
-- +goose StatementEnd
-- The lines that are not there yet.
CREATE TABLE unlogged (
    kind     TEXT NOT NULL,
    thing    TEXT NOT NULL,
    revision INTEGER NOT NULL,
    PRIMARY KEY (kind, thing, revision)
) STRICT, WITHOUT ROWID;
INSERT INTO unlogged (kind, thing, revision)
    SELECT 'job', job, revision FROM journal UNION ALL SELECT 'sheet', sheet, revision FROM sheet_journal UNION ALL SELECT 'part', part, revision FROM shelf_journal;
-- +goose StatementBegin
CREATE TRIGGER journal_comes AFTER INSERT ON journal BEGIN
    INSERT OR IGNORE INTO unlogged (kind, thing, revision) VALUES ('job', new.job, new.revision);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER sheet_journal_comes AFTER INSERT ON sheet_journal BEGIN
    INSERT OR IGNORE INTO unlogged (kind, thing, revision) VALUES ('sheet', new.sheet, new.revision);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER shelf_journal_comes AFTER INSERT ON shelf_journal BEGIN
    INSERT OR IGNORE INTO unlogged (kind, thing, revision) VALUES ('part', new.part, new.revision);
END;
-- +goose StatementEnd
-- A line leaves with that of its journal.
-- +goose StatementBegin
CREATE TRIGGER journal_leaves AFTER DELETE ON journal BEGIN
    DELETE FROM logged WHERE kind = 'job' AND thing = old.job AND revision = old.revision;
    DELETE FROM unlogged WHERE kind = 'job' AND thing = old.job AND revision = old.revision;
END;
-- +goose StatementEnd

-- What each finished job adds to the figures of the shop, and their sums by month.
CREATE TABLE figures (
    job      TEXT NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    month    TEXT NOT NULL,
    of       TEXT NOT NULL,
    name     TEXT NOT NULL,
    n        INTEGER NOT NULL,
    took     INTEGER NOT NULL, -- milliseconds, as is expected
    expected INTEGER NOT NULL,
    PRIMARY KEY (job, of, name)
) STRICT, WITHOUT ROWID;
CREATE TABLE sums (
    month    TEXT NOT NULL,
    of       TEXT NOT NULL,
    name     TEXT NOT NULL,
    n        INTEGER NOT NULL,
    took     INTEGER NOT NULL,
    expected INTEGER NOT NULL,
    PRIMARY KEY (month, of, name)
) STRICT, WITHOUT ROWID;
-- +goose StatementBegin
CREATE TRIGGER figures_new AFTER INSERT ON figures BEGIN
    INSERT INTO sums (month, of, name, n, took, expected) VALUES (new.month, new.of, new.name, new.n, new.took, new.expected)
        ON CONFLICT (month, of, name) DO UPDATE SET n = n + new.n, took = took + new.took, expected = expected + new.expected;
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER figures_gone AFTER DELETE ON figures BEGIN
    UPDATE sums SET n = n - old.n, took = took - old.took, expected = expected - old.expected WHERE month = old.month AND of = old.of AND name = old.name;
    DELETE FROM sums WHERE month = old.month AND of = old.of AND name = old.name AND n <= 0;
END;
-- +goose StatementEnd

-- Finished jobs on one model are at hand.
CREATE INDEX jobs_model ON jobs ((CASE WHEN json_valid(doc) THEN json_extract(doc, '$.sheet.id') END), open, updated);

-- +goose Down
DROP INDEX jobs_model;
DROP TABLE sums;
DROP TABLE figures;
DROP TRIGGER journal_leaves;
DROP TRIGGER shelf_journal_comes;
DROP TRIGGER sheet_journal_comes;
DROP TRIGGER journal_comes;
DROP TABLE unlogged;
DROP TABLE logwords;
DROP TABLE log;
DROP TABLE logged;
