package store

import "database/sql"

// DB opens the connection pool to the tests.
func (s *Store) DB() *sql.DB { return s.db }
