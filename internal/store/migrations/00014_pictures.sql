-- +goose Up
-- Pictures beside a sheet: pages of its machine's manual. Each is named by the digest of its
-- bytes, so that a byte that changed is seen as such.
CREATE TABLE pictures (
    sheet  TEXT NOT NULL REFERENCES sheets (id),
    id     TEXT NOT NULL,
    number INTEGER NOT NULL, -- in the order in which they came
    says   TEXT NOT NULL,
    at     TEXT NOT NULL,
    by     TEXT NOT NULL,
    width  INTEGER NOT NULL CHECK (width > 0),
    height INTEGER NOT NULL CHECK (height > 0),
    seal   TEXT NOT NULL,
    jpeg   BLOB NOT NULL,
    PRIMARY KEY (sheet, id)
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE pictures;
