-- +goose Up
-- What lists say of a revision of a job, and which program said it: kept so that a start
-- need not judge every job again. It can be made anew at any time.
CREATE TABLE said (
    job      TEXT PRIMARY KEY REFERENCES jobs (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    updated  TEXT NOT NULL,
    program  TEXT NOT NULL,
    doc      TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE said;
