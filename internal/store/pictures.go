package store

// This file keeps pictures: pages of manuals beside the sheet of their machine, photographs beside
// the job at whose steps they were taken.

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"time"

	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/picture"
)

// MostPictures is how many lie in one album: the pages of a manual that somebody looks at.
// MostPhotographs is how many lie beside a job.
const (
	MostPictures    = 24
	MostPhotographs = 60
)

// ErrManyPictures is returned where an album has as many pictures as it may have.
var ErrManyPictures = errors.New("there are as many pictures as there is room for")

// Album is where pictures lie: beside a sheet, or beside a job.
type Album struct {
	kind *albums
	id   string
}

// albums is a kind of album: its table, the column that names whose it is, and where those are.
type albums struct {
	table, column, owners, noun string
	most                        int
}

var (
	ofSheets = &albums{"pictures", "sheet", "sheets", "sheet", MostPictures}
	ofJobs   = &albums{"photographs", "job", "jobs", "job", MostPhotographs}
)

// Pages is the pages of a manual, beside the sheet of its machine.
func Pages(of machine.ID) Album { return Album{ofSheets, string(of)} }

// Photographs is what was seen at the steps of a job.
func Photographs(of job.ID) Album { return Album{ofJobs, string(of)} }

func (a Album) err(what string, err error) error {
	return fmt.Errorf("%s of %s %q: %w", what, a.kind.noun, a.id, err)
}

// sql puts the names of the album's table into a statement.
func (a *albums) sql(q string) string {
	return strings.NewReplacer("ALBUM", a.table, "OWNERS", a.owners, "OWNER", a.column).Replace(q)
}

// PictureID names a picture by its bytes.
type PictureID string

// KeptPicture is what is known of a picture.
type KeptPicture struct {
	ID            PictureID
	Says          string // what it shows: "page 34, the slots"
	At            time.Time
	By            string
	Width, Height int
}

// Pictures lists the pictures of an album, in the order in which they came, but for
// damaged ones; see Damage. All rows are looked at, for one whose owner is another since it
// was kept is found nowhere else.
func (s *Store) Pictures(ctx context.Context, of Album) ([]KeptPicture, error) {
	rows, err := s.db.QueryContext(ctx, of.kind.sql(`SELECT OWNER, id, says, at, by, width, height, seal FROM ALBUM ORDER BY number, id`))
	if err != nil {
		return nil, of.err("pictures", err)
	}
	defer rows.Close()
	out := []KeptPicture{}
	for rows.Next() {
		var owner string
		var k KeptPicture
		var at, kept string
		if err := rows.Scan(&owner, &k.ID, &k.Says, &at, &k.By, &k.Width, &k.Height, &kept); err != nil {
			return nil, of.err("pictures", err)
		}
		k.At, err = time.Parse(timeLayout, at)
		switch {
		case err != nil || kept != sealPicture(owner, &k, at):
			s.damaged("picture", pictureName(owner, k.ID), errRow)
		case owner == of.id:
			out = append(out, k)
		}
	}
	return out, rows.Err()
}

// pictureName is what a damaged picture is called: whose it is, and enough of its id.
func pictureName(of string, id PictureID) string {
	return of + ": " + string(id[:min(8, len(id))])
}

func sealPicture(of string, k *KeptPicture, at string) string {
	return sealRow(of, string(k.ID), k.Says, at, k.By, k.Width, k.Height)
}

// Picture is what is seen on one, as JPEG.
func (s *Store) Picture(ctx context.Context, of Album, id PictureID) ([]byte, error) {
	var b []byte
	err := s.db.QueryRowContext(ctx, of.kind.sql(`SELECT jpeg FROM ALBUM WHERE OWNER = ? AND id = ?`), of.id, id).Scan(&b)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return nil, of.err("picture", ErrNotFound)
	case err != nil:
		return nil, of.err("picture", err)
	case seal(b) != string(id):
		return nil, s.damaged("picture", pictureName(of.id, id), errDoc)
	}
	return b, nil
}

// PictureWrite is a picture on its way into an album.
type PictureWrite struct {
	Album   Album
	Says    string
	Picture picture.Picture
	Stamp   job.Stamp
	Request
}

// KeepPicture puts a picture into an album; one that is there is said otherwise. The id it
// has from then on is answered.
func (s *Store) KeepPicture(ctx context.Context, w PictureWrite) (PictureID, error) {
	k := KeptPicture{ID: PictureID(seal(w.Picture.JPEG)), Says: w.Says, By: w.Stamp.By, Width: w.Picture.Width, Height: w.Picture.Height}
	at, of := w.Stamp.At.UTC().Format(timeLayout), w.Album
	err := s.write(ctx, func(tx *sql.Tx) error {
		if err := applied(ctx, tx, w.Request); err != nil {
			return err
		}
		var there, others int
		err := tx.QueryRowContext(ctx, of.kind.sql(`SELECT (SELECT count(*) FROM OWNERS WHERE id = ?1), (SELECT count(*) FROM ALBUM WHERE OWNER = ?1 AND id <> ?2)`), of.id, k.ID).Scan(&there, &others)
		switch {
		case err != nil:
			return err
		case there == 0:
			return ErrNotFound
		case others >= of.kind.most:
			return ErrManyPictures
		}
		if _, err := tx.ExecContext(ctx, of.kind.sql(`INSERT INTO ALBUM (OWNER, id, number, says, at, by, width, height, seal, jpeg)
			VALUES (?1, ?2, (SELECT COALESCE(max(number), 0) + 1 FROM ALBUM WHERE OWNER = ?1), ?3, ?4, ?5, ?6, ?7, ?8, ?9)
			ON CONFLICT (OWNER, id) DO UPDATE SET says = ?3, at = ?4, by = ?5, width = ?6, height = ?7, seal = ?8, jpeg = ?9`),
			of.id, k.ID, k.Says, at, k.By, k.Width, k.Height, sealPicture(of.id, &k, at), w.Picture.JPEG); err != nil {
			return err
		}
		return claim(ctx, tx, w.Request, string(k.ID), 0, w.Stamp.At)
	})
	if err != nil {
		return "", of.err("picture", err)
	}
	s.damage.mend("picture", pictureName(of.id, k.ID))
	return k.ID, nil
}

// DropPicture takes a picture out of an album. One that is not there is no error: it was
// to be away.
func (s *Store) DropPicture(ctx context.Context, of Album, id PictureID) error {
	err := s.write(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, of.kind.sql(`DELETE FROM ALBUM WHERE OWNER = ? AND id = ?`), of.id, id)
		return err
	})
	if err != nil {
		return of.err("picture", err)
	}
	s.damage.mend("picture", pictureName(of.id, id))
	return nil
}
