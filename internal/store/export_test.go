package store

import "database/sql"

// DB opens the connection that writes, and Readers those that read, to the tests.
func (s *Store) DB() *sql.DB { return s.w.db }

func (s *Store) Readers() *sql.DB { return s.db.DB }
