package store

// This file takes the pictures of an album into an archive, and back.

import (
	"bufio"
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"io"
	"time"
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
func (p *photograph) seal(of Album) string {
	return sealPicture(of.id, &KeptPicture{ID: p.ID, Says: p.Says, By: p.By, Width: p.Width, Height: p.Height}, p.At)
}

func (a Album) listName() string { return a.kind.table + "/" + a.id + ".jsonl" }

func (a Album) pictureName(p PictureID) string {
	return a.kind.table + "/" + a.id + "/" + string(p) + ".jpg"
}

// archivePictures writes the pictures of an album. One that is damaged is an error: an archive
// holds everything or is none.
func (s *Store) archivePictures(ctx context.Context, tx *sql.Tx, z *packer, of Album) (int, error) {
	rows, err := tx.QueryContext(ctx, of.kind.sql(`SELECT id, number, says, at, by, width, height, seal, jpeg FROM ALBUM WHERE OWNER = ? ORDER BY number`), of.id)
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
		if kept != p.seal(of) || seal(p.jpeg) != string(p.ID) {
			return 0, s.damaged("picture", pictureName(of.id, p.ID), errDoc)
		}
		text, err := json.Marshal(p)
		if err != nil {
			return 0, err
		}
		lines.Write(append(text, '\n'))
		if err := entry(z, of.pictureName(p.ID), p.jpeg); err != nil {
			return 0, err
		}
		n++
	}
	if err := rows.Err(); err != nil || n == 0 {
		return 0, err
	}
	return n, entry(z, of.listName(), lines.Bytes())
}

// pictures reads the pictures of an album, and holds each against its digest.
func (p *packed) pictures(of Album, count int) ([]photograph, error) {
	if count == 0 {
		return nil, nil
	}
	var out []photograph
	err := p.read(of.listName(), func(r io.Reader) error {
		in := bufio.NewScanner(r)
		for in.Scan() {
			var k photograph
			err := json.Unmarshal(in.Bytes(), &k)
			if err == nil {
				_, err = time.Parse(timeLayout, k.At)
			}
			if err != nil {
				return fmt.Errorf("line %d: %w", len(out)+1, err)
			}
			out = append(out, k)
		}
		return in.Err()
	})
	if err != nil {
		return nil, err
	}
	if len(out) != count {
		return nil, &BadFile{p.path, of.listName(), fmt.Errorf("it has %d pictures, and there were %d", len(out), count)}
	}
	for i := range out {
		k := &out[i]
		err := p.read(of.pictureName(k.ID), func(r io.Reader) (err error) {
			if k.jpeg, err = io.ReadAll(r); err == nil && seal(k.jpeg) != string(k.ID) {
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

// picturesBack puts pictures into their album again; those that are there stay.
func picturesBack(ctx context.Context, tx *sql.Tx, of Album, pictures []photograph) error {
	for i := range pictures {
		p := &pictures[i]
		if _, err := tx.ExecContext(ctx, of.kind.sql(`INSERT INTO ALBUM (OWNER, id, number, says, at, by, width, height, seal, jpeg) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (OWNER, id) DO NOTHING`),
			of.id, p.ID, p.Number, p.Says, p.At, p.By, p.Width, p.Height, p.seal(of), p.jpeg); err != nil {
			return err
		}
	}
	return nil
}
