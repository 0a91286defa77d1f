package store

// This file keeps pictures: pages of manuals, beside the sheet of their machine.

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/picture"
)

// MostPictures is how many lie beside one sheet: the pages of a manual that somebody looks at.
const MostPictures = 24

// ErrManyPictures is returned where a sheet has as many pictures as it may have.
var ErrManyPictures = fmt.Errorf("%d pictures lie beside the sheet, and there is room for no more", MostPictures)

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

// Pictures lists the pictures beside a sheet, in the order in which they came, but for
// damaged ones; see Damage. All rows are looked at, for one whose sheet is another since it
// was kept is found nowhere else.
func (s *Store) Pictures(ctx context.Context, of machine.ID) ([]KeptPicture, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT sheet, id, says, at, by, width, height, seal FROM pictures ORDER BY number, id`)
	if err != nil {
		return nil, fmt.Errorf("pictures of sheet %q: %w", of, err)
	}
	defer rows.Close()
	out := []KeptPicture{}
	for rows.Next() {
		var sheet machine.ID
		var k KeptPicture
		var at, kept string
		if err := rows.Scan(&sheet, &k.ID, &k.Says, &at, &k.By, &k.Width, &k.Height, &kept); err != nil {
			return nil, fmt.Errorf("pictures of sheet %q: %w", of, err)
		}
		k.At, err = time.Parse(timeLayout, at)
		switch {
		case err != nil || kept != sealPicture(sheet, &k, at):
			s.damaged("picture", pictureName(sheet, k.ID), errRow)
		case sheet == of:
			out = append(out, k)
		}
	}
	return out, rows.Err()
}

// pictureName is what a damaged picture is called: its sheet, and enough of its id.
func pictureName(of machine.ID, id PictureID) string {
	return string(of) + ": " + string(id[:min(8, len(id))])
}

func sealPicture(of machine.ID, k *KeptPicture, at string) string {
	return sealRow(of, string(k.ID), k.Says, at, k.By, k.Width, k.Height)
}

// Picture is what is seen on one, as JPEG.
func (s *Store) Picture(ctx context.Context, of machine.ID, id PictureID) ([]byte, error) {
	var b []byte
	err := s.db.QueryRowContext(ctx, `SELECT jpeg FROM pictures WHERE sheet = ? AND id = ?`, of, id).Scan(&b)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return nil, fmt.Errorf("picture %q of sheet %q: %w", id, of, ErrNotFound)
	case err != nil:
		return nil, fmt.Errorf("picture %q of sheet %q: %w", id, of, err)
	case seal(b) != string(id):
		return nil, s.damaged("picture", pictureName(of, id), errDoc)
	}
	return b, nil
}

// PictureWrite is a picture on its way to a sheet, or away from it.
type PictureWrite struct {
	Sheet   machine.ID
	Says    string
	Picture picture.Picture
	Stamp   job.Stamp
	Request
}

// KeepPicture puts a picture beside a sheet; one that is there is said otherwise. The id it
// has from then on is answered.
func (s *Store) KeepPicture(ctx context.Context, w PictureWrite) (PictureID, error) {
	k := KeptPicture{ID: PictureID(seal(w.Picture.JPEG)), Says: w.Says, By: w.Stamp.By, Width: w.Picture.Width, Height: w.Picture.Height}
	at := w.Stamp.At.UTC().Format(timeLayout)
	err := s.write(ctx, func(tx *sql.Tx) error {
		if err := applied(ctx, tx, w.Request); err != nil {
			return err
		}
		var there, others int
		err := tx.QueryRowContext(ctx, `SELECT (SELECT count(*) FROM sheets WHERE id = ?1), (SELECT count(*) FROM pictures WHERE sheet = ?1 AND id <> ?2)`, w.Sheet, k.ID).Scan(&there, &others)
		switch {
		case err != nil:
			return err
		case there == 0:
			return ErrNotFound
		case others >= MostPictures:
			return ErrManyPictures
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO pictures (sheet, id, number, says, at, by, width, height, seal, jpeg)
			VALUES (?1, ?2, (SELECT COALESCE(max(number), 0) + 1 FROM pictures WHERE sheet = ?1), ?3, ?4, ?5, ?6, ?7, ?8, ?9)
			ON CONFLICT (sheet, id) DO UPDATE SET says = ?3, at = ?4, by = ?5, width = ?6, height = ?7, seal = ?8, jpeg = ?9`,
			w.Sheet, k.ID, k.Says, at, k.By, k.Width, k.Height, sealPicture(w.Sheet, &k, at), w.Picture.JPEG); err != nil {
			return err
		}
		return claim(ctx, tx, w.Request, string(k.ID), 0, w.Stamp.At)
	})
	if err != nil {
		return "", fmt.Errorf("picture of sheet %q: %w", w.Sheet, err)
	}
	s.damage.mend("picture", pictureName(w.Sheet, k.ID))
	return k.ID, nil
}

// DropPicture takes a picture away from a sheet. One that is not there is no error: it was
// to be away.
func (s *Store) DropPicture(ctx context.Context, of machine.ID, id PictureID) error {
	err := s.write(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, `DELETE FROM pictures WHERE sheet = ? AND id = ?`, of, id)
		return err
	})
	if err != nil {
		return fmt.Errorf("picture %q of sheet %q: %w", id, of, err)
	}
	s.damage.mend("picture", pictureName(of, id))
	return nil
}
