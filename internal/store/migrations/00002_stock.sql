-- +goose Up
CREATE TABLE stock (
    part      TEXT PRIMARY KEY REFERENCES parts (id),
    count     INTEGER NOT NULL CHECK (count >= 0),
    price     INTEGER NOT NULL CHECK (price >= 0), -- hundredths, 0 is not stated
    condition TEXT NOT NULL,
    serials   TEXT NOT NULL CHECK (json_valid(serials))
) STRICT;

-- +goose Down
DROP TABLE stock;
