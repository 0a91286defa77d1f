-- +goose Up
-- What the shop does where practitioners differ: one document.
CREATE TABLE practice (
    one      INTEGER PRIMARY KEY CHECK (one = 1),
    revision INTEGER NOT NULL CHECK (revision > 0),
    doc      TEXT NOT NULL,
    at       TEXT NOT NULL,
    by       TEXT NOT NULL,
    sum      TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE practice;
