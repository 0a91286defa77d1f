-- +goose Up
-- What was carried out, by the key of the request: sent again it is answered as the first
-- time. asked is a digest of what was asked for; the same key with another is refused.
CREATE TABLE requests (
    key      TEXT PRIMARY KEY,
    asked    TEXT NOT NULL,
    thing    TEXT NOT NULL,
    revision INTEGER NOT NULL,
    at       TEXT NOT NULL
) STRICT;
CREATE INDEX requests_at ON requests (at);
INSERT INTO requests (key, asked, thing, revision, at) SELECT key, '', job, revision, at FROM journal WHERE key IS NOT NULL;
INSERT OR IGNORE INTO requests (key, asked, thing, revision, at) SELECT key, '', sheet, revision, at FROM sheet_journal WHERE key IS NOT NULL;

-- +goose Down
DROP TABLE requests;
