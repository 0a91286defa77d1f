package store

import "database/sql"

// DB opens the connection that writes, and Readers those that read, to the tests.
func (s *Store) DB() *sql.DB { return s.w.db }

func (s *Store) Readers() *sql.DB { return s.db.DB }

// ReadArchive holds an archive against its digests, and counts its jobs.
func ReadArchive(path string) (int, error) {
	about, _, _, err := readArchive(path)
	return len(about.Jobs), err
}

// Look has the logbook look for few words that begin in one way, and at few lines at a time.
func Look(words, lines int) (back func()) {
	w, l := mostWords, mostLookedAt
	mostWords, mostLookedAt = words, lines
	return func() { mostWords, mostLookedAt = w, l }
}
