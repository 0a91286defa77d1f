package store

// This file sees to it that a document is what was kept: each has a digest beside it.

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"sync"
)

// Damaged is a record that is not what was kept. It takes no other down.
type Damaged struct {
	What string // "job", "sheet" or "part"
	ID   string
	Why  string
}

// Error names it, and what to do.
func (d *Damaged) Error() string {
	return fmt.Sprintf("%s %q is damaged: %s; bring an older revision or a backup back", d.What, d.ID, d.Why)
}

func seal(doc []byte) string {
	sum := sha256.Sum256(doc)
	return hex.EncodeToString(sum[:])
}

// unseal reads a document and notes what is damaged; one from before there were digests has none.
func (s *Store) unseal(what, id string, doc []byte, sum sql.NullString, into any) error {
	err := open(doc, sum, into)
	if err == nil {
		return nil
	}
	d := &Damaged{what, id, err.Error()}
	s.damage.notice(d)
	return d
}

// open reads a document that is what its digest says.
func open(doc []byte, sum sql.NullString, into any) error {
	if sum.Valid && sum.String != seal(doc) {
		return errors.New("its bytes are others than those that were kept")
	}
	return json.Unmarshal(doc, into)
}

// noticed is the damage that was met since the file was opened.
type noticed struct {
	mu  sync.Mutex
	all []Damaged
}

func (n *noticed) notice(d *Damaged) {
	n.mu.Lock()
	defer n.mu.Unlock()
	if !slices.Contains(n.all, *d) {
		n.all = append(n.all, *d)
	}
}

// Damage is what was found damaged since the file was opened; Check looks for all there is.
func (s *Store) Damage() []Damaged {
	s.damage.mu.Lock()
	defer s.damage.mu.Unlock()
	return slices.Clone(s.damage.all)
}

// sealAll gives digests to documents from before there were any.
func (s *Store) sealAll(ctx context.Context) error {
	return s.write(ctx, func(tx *sql.Tx) error { return sealAll(ctx, tx) })
}

func sealAll(ctx context.Context, tx *sql.Tx) error {
	for _, table := range []string{"jobs", "sheets", "parts"} {
		rows, err := tx.QueryContext(ctx, `SELECT id, doc FROM `+table+` WHERE sum IS NULL`)
		if err != nil {
			return err
		}
		sums := map[string]string{}
		for rows.Next() {
			var id string
			var doc []byte
			if err := rows.Scan(&id, &doc); err != nil {
				rows.Close()
				return err
			}
			sums[id] = seal(doc)
		}
		rows.Close()
		if err := rows.Err(); err != nil {
			return err
		}
		for id, sum := range sums {
			if _, err := tx.ExecContext(ctx, `UPDATE `+table+` SET sum = ? WHERE id = ? AND sum IS NULL`, sum, id); err != nil {
				return err
			}
		}
	}
	return nil
}
