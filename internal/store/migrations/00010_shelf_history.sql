-- +goose Up
ALTER TABLE parts ADD COLUMN revision INTEGER NOT NULL DEFAULT 1 CHECK (revision > 0);

-- Every version of what is on the shelf: the part with its count, price, condition and
-- serial numbers.
CREATE TABLE shelf_journal (
    part     TEXT NOT NULL REFERENCES parts (id),
    revision INTEGER NOT NULL,
    at       TEXT NOT NULL,
    by       TEXT NOT NULL,
    says     TEXT NOT NULL,
    deed     TEXT CHECK (deed IS NULL OR json_valid(deed)),
    doc      TEXT NOT NULL CHECK (json_valid(doc)),
    sum      TEXT,
    PRIMARY KEY (part, revision)
) STRICT;
INSERT INTO shelf_journal (part, revision, at, by, says, doc)
    SELECT p.id, 1, strftime('%Y-%m-%dT%H:%M:%SZ', 'now'), 'Deep Bay', 'kept from before there was a history',
        json_object('part', json(p.doc), 'count', COALESCE(s.count, 0), 'priceCents', COALESCE(s.price, 0),
            'condition', COALESCE(s.condition, ''), 'serials', json(COALESCE(s.serials, '[]')))
    FROM parts p LEFT JOIN stock s ON s.part = p.id;

-- +goose StatementBegin
CREATE TRIGGER shelf_journal_keeps BEFORE UPDATE ON shelf_journal BEGIN
    SELECT RAISE (ABORT, 'the journal is append-only');
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER shelf_journal_stays BEFORE DELETE ON shelf_journal BEGIN
    SELECT RAISE (ABORT, 'the journal is append-only');
END;
-- +goose StatementEnd

-- +goose Down
DROP TABLE shelf_journal;
ALTER TABLE parts DROP COLUMN revision;
