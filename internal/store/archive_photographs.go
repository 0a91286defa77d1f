package store

// This file takes the photographs of a job into an archive with it, and back.

import (
	"archive/zip"
	"bufio"
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"io"

	"deepbay/internal/core/job"
)

// photograph is one in an archive; its JPEG lies beside the line that tells of it.
type photograph struct {
	ID     PictureID `json:"id"` // the digest of its bytes
	Number int       `json:"number"`
	Says   string    `json:"says"`
	At     string    `json:"at"`
	By     string    `json:"by"`
	Width  int       `json:"width"`
	Height int       `json:"height"`

	jpeg []byte
}

// seal is the digest of what stands beside it.
func (p *photograph) seal(of job.ID) string {
	return sealPicture(string(of), &KeptPicture{ID: p.ID, Says: p.Says, By: p.By, Width: p.Width, Height: p.Height}, p.At)
}

func albumName(id job.ID) string { return "photographs/" + string(id) + ".jsonl" }

func photographName(id job.ID, p PictureID) string {
	return "photographs/" + string(id) + "/" + string(p) + ".jpg"
}

// archivePhotographs writes the photographs of a job. One that is damaged is an error: an
// archive holds everything or is none.
func (s *Store) archivePhotographs(ctx context.Context, tx *sql.Tx, z *zip.Writer, id job.ID) (int, error) {
	rows, err := tx.QueryContext(ctx, `SELECT id, number, says, at, by, width, height, seal, jpeg FROM photographs WHERE job = ? ORDER BY number`, id)
	if err != nil {
		return 0, err
	}
	defer rows.Close()
	var lines bytes.Buffer
	n := 0
	for rows.Next() {
		var p photograph
		var kept string
		if err := rows.Scan(&p.ID, &p.Number, &p.Says, &p.At, &p.By, &p.Width, &p.Height, &kept, &p.jpeg); err != nil {
			return 0, err
		}
		if kept != p.seal(id) || seal(p.jpeg) != string(p.ID) {
			return 0, s.damaged("picture", pictureName(string(id), p.ID), errDoc)
		}
		text, err := json.Marshal(p)
		if err != nil {
			return 0, err
		}
		lines.Write(append(text, '\n'))
		if err := entry(z, photographName(id, p.ID), p.jpeg); err != nil {
			return 0, err
		}
		n++
	}
	if err := rows.Err(); err != nil || n == 0 {
		return 0, err
	}
	return n, entry(z, albumName(id), lines.Bytes())
}

// unpackPhotographs reads the photographs of a job, and holds each against its digest.
func unpackPhotographs(read func(string, func(io.Reader) error) error, k Archived) ([]photograph, error) {
	var out []photograph
	err := read(albumName(k.ID), func(r io.Reader) error {
		in := bufio.NewScanner(r)
		for in.Scan() {
			var p photograph
			if err := json.Unmarshal(in.Bytes(), &p); err != nil {
				return fmt.Errorf("line %d: %w", len(out)+1, err)
			}
			out = append(out, p)
		}
		return in.Err()
	})
	if err != nil {
		return nil, err
	}
	if len(out) != k.Photographs {
		return nil, fmt.Errorf("job %q has %d photographs there, and there were %d", k.ID, len(out), k.Photographs)
	}
	for i := range out {
		p := &out[i]
		err := read(photographName(k.ID, p.ID), func(r io.Reader) (err error) {
			if p.jpeg, err = io.ReadAll(r); err == nil && seal(p.jpeg) != string(p.ID) {
				err = errDoc
			}
			return err
		})
		if err != nil {
			return nil, err
		}
	}
	return out, nil
}

// photographsBack puts photographs beside their job again; those that are there stay.
func photographsBack(ctx context.Context, tx *sql.Tx, id job.ID, photos []photograph) error {
	for i := range photos {
		p := &photos[i]
		if _, err := tx.ExecContext(ctx, `INSERT INTO photographs (job, id, number, says, at, by, width, height, seal, jpeg) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (job, id) DO NOTHING`,
			id, p.ID, p.Number, p.Says, p.At, p.By, p.Width, p.Height, p.seal(id), p.jpeg); err != nil {
			return err
		}
	}
	return nil
}
