package store

// This file makes backups, checks files and brings backups back.

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"os"
	"path/filepath"
	"slices"

	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"

	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/shelf"
)

// Checked is what a data file holds, and what is wrong with it.
type Checked struct {
	Version             int
	Jobs, Sheets, Parts int
	Revisions           int // in the journals
	Faults              []string
}

// Sound reports that nothing was found wrong.
func (c *Checked) Sound() bool { return len(c.Faults) == 0 }

// mostFaults are told of one file.
const mostFaults = 100

// Check looks at every page, row and document of a data file. It changes nothing but the
// log beside it. The error is of a file that cannot be looked at at all.
func Check(ctx context.Context, path string) (Checked, error) {
	db, log, err := asItIs(ctx, path)
	if err != nil {
		return Checked{}, err
	}
	defer db.Close()
	out := Checked{}
	if log.Cut {
		out.fault("the log ends in the middle of a write, which was never answered unless the log was cut")
	}
	if err := db.QueryRowContext(ctx, `SELECT max(version_id) FROM goose_db_version`).Scan(&out.Version); err != nil {
		out.fault("its version cannot be read: " + err.Error())
	}
	out.each(ctx, db, `PRAGMA integrity_check`, func(rows *sql.Rows) (string, error) {
		var says string
		if err := rows.Scan(&says); err != nil || says == "ok" {
			return "", err
		}
		return "damaged pages: " + says, nil
	})
	out.each(ctx, db, `SELECT "table", rowid FROM pragma_foreign_key_check`, func(rows *sql.Rows) (string, error) {
		var table string
		var row sql.NullInt64
		return fmt.Sprintf("row %d of %s refers to nothing", row.Int64, table), rows.Scan(&table, &row)
	})
	sum := ", NULL"
	if out.Version >= 9 {
		sum = ", sum"
	}
	documents(ctx, &out, db, `SELECT id, doc`+sum+` FROM jobs`, "job", &out.Jobs, func(j *job.Job) error { return j.Validate().Err() })
	documents(ctx, &out, db, `SELECT id, doc`+sum+` FROM sheets`, "sheet", &out.Sheets, func(s *machine.Sheet) error { return s.Validate().Err() })
	documents(ctx, &out, db, `SELECT id, doc`+sum+` FROM parts`, "part", &out.Parts, func(p *part.Part) error { return p.Validate().Err() })
	documents(ctx, &out, db, `SELECT job || ' at revision ' || revision, doc`+sum+` FROM journal`, "job", &out.Revisions, func(*job.Job) error { return nil })
	if out.Version >= 3 {
		documents(ctx, &out, db, `SELECT sheet || ' at revision ' || revision, doc`+sum+` FROM sheet_journal`, "sheet", &out.Revisions, func(*machine.Sheet) error { return nil })
	}
	if out.Version >= 10 {
		documents(ctx, &out, db, `SELECT part || ' at revision ' || revision, doc, sum FROM shelf_journal`, "part", &out.Revisions, func(*shelf.Stock) error { return nil })
	}
	if out.Version >= 11 {
		for _, table := range slices.Sorted(maps.Keys(sealed)) {
			if err := eachRow(ctx, db, table, func(columns []any, seal sql.NullString) {
				if unsealRow(seal, columns...) != nil {
					out.fault(fmt.Sprintf("%v in %s: %v", columns[0], table, errRow))
				}
			}); err != nil {
				out.fault(err.Error())
			}
		}
	}
	if out.Version >= 12 {
		// The command writes nothing, and is an INSERT all the same: where nothing can be
		// written the index is looked at as the other pages are.
		if _, err := db.ExecContext(ctx, `INSERT INTO found (found, rank) VALUES ('integrity-check', 1)`); err != nil && !errors.Is(asDisk(err), ErrReadOnly) {
			out.fault("the index of what is printed: " + err.Error())
		}
		out.each(ctx, db, `SELECT j.id, j.doc, j.sum, j.open, COALESCE(m.stage, ''), COALESCE(m.marks, '') FROM jobs j LEFT JOIN marked m ON m.job = j.id`, func(rows *sql.Rows) (string, error) {
			var doc []byte
			var sum sql.NullString
			var id, stage, printed string
			var isOpen bool
			var j job.Job
			if err := rows.Scan(&id, &doc, &sum, &isOpen, &stage, &printed); err != nil {
				return "", err
			}
			if open(doc, sum, &j) != nil || marksHold(printed, &j) && isOpen == (stage == "OPEN") { // else it was said to be damaged
				return "", nil
			}
			return fmt.Sprintf("what job %s is found by is not what is printed on it", id), nil
		})
	}
	if out.Version >= 17 {
		if _, err := db.ExecContext(ctx, `INSERT INTO log (log, rank) VALUES ('integrity-check', 1)`); err != nil && !errors.Is(asDisk(err), ErrReadOnly) {
			out.fault("the index of the logbook: " + err.Error())
		}
	}
	for since, kind := range map[int]*albums{14: ofSheets, 15: ofJobs} {
		if out.Version < since {
			continue
		}
		out.each(ctx, db, kind.sql(`SELECT OWNER, id, says, at, by, width, height, seal, jpeg FROM ALBUM`), func(rows *sql.Rows) (string, error) {
			var of string
			var k KeptPicture
			var at, kept string
			var b []byte
			if err := rows.Scan(&of, &k.ID, &k.Says, &at, &k.By, &k.Width, &k.Height, &kept, &b); err != nil {
				return "", err
			}
			switch {
			case kept != sealPicture(of, &k, at):
				return fmt.Sprintf("picture %q of %s %s: %v", k.Says, kind.noun, of, errRow), nil
			case seal(b) != string(k.ID):
				return fmt.Sprintf("picture %q of %s %s: %v", k.Says, kind.noun, of, errDoc), nil
			}
			return "", nil
		})
	}
	if out.Version >= 16 {
		out.each(ctx, db, `SELECT doc, sum FROM practice`, func(rows *sql.Rows) (string, error) {
			var doc []byte
			var sum string
			if err := rows.Scan(&doc, &sum); err != nil || seal(doc) == sum {
				return "", err
			}
			return fmt.Sprintf("the shop's practice: %v", errDoc), nil
		})
	}
	out.each(ctx, db, `SELECT id FROM jobs j WHERE NOT EXISTS (SELECT 1 FROM journal WHERE job = j.id AND revision = j.revision)`, func(rows *sql.Rows) (string, error) {
		var id string
		err := rows.Scan(&id)
		return fmt.Sprintf("the journal of job %q lacks its last revision", id), err
	})
	return out, ctx.Err()
}

func (c *Checked) fault(says string) {
	if len(c.Faults) < mostFaults {
		c.Faults = append(c.Faults, says)
	}
}

// each goes through rows; says is what is wrong with one, "" for nothing.
func (c *Checked) each(ctx context.Context, db *sql.DB, query string, says func(*sql.Rows) (string, error)) {
	rows, err := db.QueryContext(ctx, query)
	if err != nil {
		c.fault(err.Error())
		return
	}
	defer rows.Close()
	for rows.Next() {
		s, err := says(rows)
		if err != nil {
			s = err.Error()
		}
		if s != "" {
			c.fault(s)
		}
	}
	if err := rows.Err(); err != nil {
		c.fault(err.Error())
	}
}

func documents[T any](ctx context.Context, c *Checked, db *sql.DB, query, what string, n *int, valid func(*T) error) {
	c.each(ctx, db, query, func(rows *sql.Rows) (string, error) {
		var id string
		var doc []byte
		var sum sql.NullString
		var v T
		if err := rows.Scan(&id, &doc, &sum); err != nil {
			return "", err
		}
		*n++
		err := open(doc, sum, &v)
		if err == nil {
			err = valid(&v)
		}
		if err != nil {
			return fmt.Sprintf("%s %s: %v", what, id, err), nil
		}
		return "", nil
	})
}

// asItIs opens a data file that is there without bringing it up to date, and tells of its log.
func asItIs(ctx context.Context, path string) (*sql.DB, Log, error) {
	fresh, log, err := inspect(ctx, path)
	if fresh {
		err = fmt.Errorf("data file %s: %w", path, fs.ErrNotExist)
	}
	if err != nil {
		return nil, log, err
	}
	db, err := connect(path, "busy_timeout(5000)")
	return db, log, err
}

// Backup writes a copy of a data file, whole and at one moment, also while a server has it
// open, and checks it before it gets its name. A file that is there already is not touched.
func Backup(ctx context.Context, path, to string) (Checked, error) {
	if _, err := os.Stat(to); err == nil {
		return Checked{}, fmt.Errorf("%s is there already: name another file", to)
	}
	db, _, err := asItIs(ctx, path)
	if err != nil {
		return Checked{}, err
	}
	defer db.Close()
	half := to + ".half"
	if err := os.Remove(half); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return Checked{}, err
	}
	defer os.Remove(half) //nolint:errcheck // it is gone when it has its name
	if _, err := db.ExecContext(ctx, `VACUUM INTO ?`, half); err != nil {
		return Checked{}, fmt.Errorf("backup to %s: %w", to, err)
	}
	found, err := Check(ctx, half)
	if err != nil {
		return found, fmt.Errorf("backup to %s: %w", to, err)
	}
	if !found.Sound() {
		return found, &Unsound{path, found}
	}
	return found, settle(half, to)
}

// settle puts a finished file on the disk and gives it its name.
func settle(half, to string) error {
	f, err := os.OpenFile(half, os.O_RDWR, 0)
	if err != nil {
		return err
	}
	err = f.Sync()
	if e := f.Close(); err == nil {
		err = e
	}
	if err != nil {
		return err
	}
	if err := os.Rename(half, to); err != nil {
		return err
	}
	dir, err := os.Open(filepath.Dir(to))
	if err != nil {
		return err
	}
	defer dir.Close()
	return dir.Sync()
}

// inUse reports a file that somebody has open. What cannot be opened at all nobody has.
func inUse(ctx context.Context, path string) bool {
	db, err := connect(path, "locking_mode(EXCLUSIVE)")
	if err != nil {
		return false
	}
	defer db.Close()
	_, err = db.ExecContext(ctx, `BEGIN EXCLUSIVE; COMMIT`)
	var busy *sqlite.Error
	return errors.As(err, &busy) && busy.Code()&0xff == sqlite3.SQLITE_BUSY
}

// Unsound is what keeps a backup from being brought back.
type Unsound struct {
	Path string
	Checked
}

// Error says the first fault.
func (u *Unsound) Error() string {
	return fmt.Sprintf("%s is not sound: %s (%d faults); nothing was changed", u.Path, u.Faults[0], len(u.Faults))
}

// Restore puts a backup in the place of a data file that no server has open. The backup is
// checked first; what was there is kept beside it, and its name returned, "" if there was
// nothing.
func Restore(ctx context.Context, from, path, suffix string) (was string, found Checked, err error) {
	found, err = Check(ctx, from)
	if err != nil {
		return "", found, err
	}
	if !found.Sound() {
		return "", found, &Unsound{from, found}
	}
	half := path + ".half"
	if err := copyFile(half, from); err != nil {
		return "", found, err
	}
	defer os.Remove(half) //nolint:errcheck // it is gone when it has its name
	if _, err := os.Stat(path); err == nil {
		if inUse(ctx, path) {
			return "", found, fmt.Errorf("data file %s is open in a server: stop it first; nothing was changed", path)
		}
		was = path + suffix
		for _, end := range []string{"", "-wal", "-shm"} {
			if err := os.Rename(path+end, was+end); err != nil && !errors.Is(err, fs.ErrNotExist) {
				return "", found, err
			}
		}
	}
	return was, found, settle(half, path)
}
