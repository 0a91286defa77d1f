package store

// This file sees to it that a document is what was kept: each has a digest beside it.

import (
	"bytes"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
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

// sealRow is the digest of what stands beside a document, in the order of sealed: of half
// the length, for it lies in the index of lists.
func sealRow(columns ...any) string {
	b := make([]byte, 0, 256)
	for _, c := range columns {
		start := len(b)
		switch c := c.(type) {
		case string:
			b = append(b, c...)
		case int:
			b = strconv.AppendInt(b, int64(c), 10)
		default:
			b = fmt.Append(b, c)
		}
		b = append(strconv.AppendInt(append(b, ':'), int64(len(b)-start), 10), ';')
	}
	sum := sha256.Sum256(b)
	return hex.EncodeToString(sum[:16])
}

// sealed are the columns whose digest each table keeps.
var sealed = map[string]string{
	"jobs":          "id, revision, open, updated",
	"sheets":        "id, revision",
	"parts":         "id, revision",
	"stock":         "part, count, price, condition, serials",
	"journal":       "job, revision, at, by, deed",
	"sheet_journal": "sheet, revision, at, by, deed",
	"shelf_journal": "part, revision, at, by, deed",
}

// errDoc is of a document, and errRow of a row, that is not what was kept.
var (
	errDoc = errors.New("its bytes are others than those that were kept")
	errRow = errors.New("what stands beside it is other than what was kept")
)

// unsealRow holds a row against its digest; one from before there were any has none.
func unsealRow(seal sql.NullString, columns ...any) error {
	if seal.Valid && seal.String != sealRow(columns...) {
		return errRow
	}
	return nil
}

// unseal reads a document and notes what is damaged; one from before there were digests has none.
func (s *Store) unseal(what, id string, doc []byte, sum sql.NullString, into any) error {
	err := open(doc, sum, into)
	if err == nil {
		return nil
	}
	return s.damaged(what, id, err)
}

// damaged notes a record that is not what was kept.
func (s *Store) damaged(what, id string, why error) *Damaged {
	d := &Damaged{what, id, why.Error()}
	s.damage.notice(d)
	return d
}

// ErrNewer is of a document that a newer Deep Bay wrote: it can be read here, and is not
// written back poorer.
var ErrNewer = errors.New("a newer Deep Bay wrote it, with things that this one does not know: change it there; nothing was changed")

// whole is nil where a document that is about to be replaced by the next version of it has
// nothing that would be lost by that.
func whole[T any](doc []byte) error {
	var head struct {
		Version int `json:"version"`
	}
	if err := json.Unmarshal(doc, &head); err == nil && head.Version > 1 {
		return ErrNewer
	}
	var v T
	d := json.NewDecoder(bytes.NewReader(doc))
	d.DisallowUnknownFields()
	if err := d.Decode(&v); err != nil && strings.Contains(err.Error(), "unknown field") {
		return ErrNewer
	}
	return nil
}

// open reads a document that is what its digest says.
func open(doc []byte, sum sql.NullString, into any) error {
	if sum.Valid && sum.String != seal(doc) {
		return errDoc
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

// mend forgets the damage of a record that was written anew.
func (n *noticed) mend(what, id string) {
	n.mu.Lock()
	defer n.mu.Unlock()
	n.all = slices.DeleteFunc(n.all, func(d Damaged) bool { return d.What == what && d.ID == id })
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
	for _, table := range []string{"jobs", "sheets", "parts", "stock"} {
		if err := sealRows(ctx, tx, table); err != nil {
			return err
		}
	}
	return nil
}

func sealRows(ctx context.Context, tx *sql.Tx, table string) error {
	seals := map[any]string{}
	err := eachRow(ctx, tx, table, func(columns []any, seal sql.NullString) {
		if !seal.Valid {
			seals[columns[0]] = sealRow(columns...)
		}
	})
	key, _, _ := strings.Cut(sealed[table], ",")
	for id, seal := range seals {
		if _, err := tx.ExecContext(ctx, `UPDATE `+table+` SET seal = ? WHERE `+key+` = ?`, seal, id); err != nil {
			return err
		}
	}
	return err
}

// rowSeal is the digest of a row: what was read of it is known as long as that stays.
type rowSeal struct{ id, seal string }

// sealsOf reads digests, all of them before anything else is asked: a question that waits
// for another connection while it holds one could wait for ever.
func (s *Store) sealsOf(ctx context.Context, query string) (out []rowSeal, err error) {
	rows, err := s.db.QueryContext(ctx, query)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var r rowSeal
		if err := rows.Scan(&r.id, &r.seal); err != nil {
			return nil, err
		}
		out = append(out, r)
	}
	return out, rows.Err()
}

// queries is the file, or a transaction in it.
type queries interface {
	QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error)
}

// eachRow goes through what a table has sealed.
func eachRow(ctx context.Context, q queries, table string, do func(columns []any, seal sql.NullString)) error {
	rows, err := q.QueryContext(ctx, `SELECT `+sealed[table]+`, seal FROM `+table)
	if err != nil {
		return err
	}
	defer rows.Close()
	columns := make([]any, 1+strings.Count(sealed[table], ","))
	for rows.Next() {
		var seal sql.NullString
		into := []any{}
		for i := range columns {
			into = append(into, &columns[i])
		}
		if err := rows.Scan(append(into, &seal)...); err != nil {
			return err
		}
		do(columns, seal)
	}
	return rows.Err()
}
