-- +goose Up
-- Anything printed on a job's machine and its parts, one a line, in capitals and without
-- blanks, dashes and dots; jobs are numbered in the order in which they came.
CREATE TABLE marked (
    number INTEGER PRIMARY KEY,
    job    TEXT NOT NULL UNIQUE REFERENCES jobs (id) ON DELETE CASCADE,
    stage  TEXT NOT NULL CHECK (stage IN ('OPEN', 'CLOSED')),
    marks  TEXT NOT NULL
) STRICT;
INSERT INTO marked (job, stage, marks)
    SELECT id, CASE open WHEN 1 THEN 'OPEN' ELSE 'CLOSED' END, marks FROM jobs ORDER BY updated, id;
ALTER TABLE jobs DROP COLUMN marks;

-- The index of every three letters that stand together there.
CREATE VIRTUAL TABLE found USING fts5 (stage, marks, content = 'marked', content_rowid = 'number', tokenize = 'trigram');
INSERT INTO found (found) VALUES ('rebuild');
-- +goose StatementBegin
CREATE TRIGGER marked_new AFTER INSERT ON marked BEGIN
    INSERT INTO found (rowid, stage, marks) VALUES (new.number, new.stage, new.marks);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER marked_gone AFTER DELETE ON marked BEGIN
    INSERT INTO found (found, rowid, stage, marks) VALUES ('delete', old.number, old.stage, old.marks);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER marked_anew AFTER UPDATE ON marked BEGIN
    INSERT INTO found (found, rowid, stage, marks) VALUES ('delete', old.number, old.stage, old.marks);
    INSERT INTO found (rowid, stage, marks) VALUES (new.number, new.stage, new.marks);
END;
-- +goose StatementEnd

-- Which parts a job has, so that the shelf says where each is used.
CREATE TABLE uses (
    part   TEXT NOT NULL,
    number INTEGER NOT NULL REFERENCES marked (number) ON DELETE CASCADE,
    PRIMARY KEY (part, number)
) STRICT, WITHOUT ROWID;
CREATE INDEX uses_number ON uses (number, part);
INSERT OR IGNORE INTO uses (part, number)
    SELECT json_extract(p.value, '$.id'), m.number
    FROM jobs j JOIN marked m ON m.job = j.id,
         json_each(CASE WHEN json_valid(j.doc) THEN j.doc ELSE '{}' END, '$.parts') p
    WHERE json_extract(p.value, '$.id') IS NOT NULL;

-- What lists say has a digest, too.
ALTER TABLE said ADD COLUMN sum TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE said DROP COLUMN sum;
DROP TABLE uses;
DROP TABLE found;
ALTER TABLE jobs ADD COLUMN marks TEXT NOT NULL DEFAULT '';
UPDATE jobs SET marks = (SELECT marks FROM marked WHERE job = id);
DROP TABLE marked;
