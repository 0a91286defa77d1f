package store

// This file looks at a data file before anything is written to it: whose it is, of which
// version, and whether it is whole. The layout of file and log is SQLite's own, which it
// promises to keep (https://sqlite.org/fileformat2.html).

import (
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
)

// applicationID marks a data file as Deep Bay's: "DBay".
const applicationID = 0x44426179

// Refused says why a file is not opened. The file is as it was.
type Refused struct {
	Path string
	Why  Reason
	Has  int // of a newer file: its version
}

// Reason is why a file is refused.
type Reason string

// The reasons.
const (
	IsEmpty   Reason = "empty"
	IsForeign Reason = "foreign"
	IsCut     Reason = "cut"
	IsNewer   Reason = "newer"
)

// Error says why, and what to do.
func (r *Refused) Error() string {
	s := "data file " + r.Path
	switch r.Why {
	case IsEmpty:
		return s + " is empty: bring a backup back, or take it away and start a new one; nothing was changed"
	case IsCut:
		return s + " is cut short: bring a backup back; nothing was changed"
	case IsNewer:
		return fmt.Sprintf("%s is of version %d, this program knows %d: use the newer program; nothing was changed", s, r.Has, Version)
	}
	return s + " is no Deep Bay data file: name another with --data FILE; nothing was changed"
}

// header is what the first page of a file says.
type header struct {
	pageSize    int
	pages       int
	application uint32
	version     int
}

const headerSize = 100

// parseHeader reads the first bytes of a first page; false is no SQLite file.
func parseHeader(b []byte) (header, bool) {
	if len(b) < headerSize || string(b[:16]) != "SQLite format 3\x00" {
		return header{}, false
	}
	h := header{pageSize: int(binary.BigEndian.Uint16(b[16:])), pages: int(binary.BigEndian.Uint32(b[28:])),
		application: binary.BigEndian.Uint32(b[68:]), version: int(binary.BigEndian.Uint32(b[60:]))}
	if h.pageSize == 1 {
		h.pageSize = 65536
	}
	return h, h.pageSize >= 512
}

// Log is what the write-ahead log beside a file holds.
type Log struct {
	Commits int  // transactions that are whole
	Cut     bool // it ends in the middle of one: that one was never answered, or the log was cut
	first   *header
}

// readLog goes through a log: the frames up to the last commit count, as SQLite will
// have it, and of those the last first page.
func readLog(path string) (Log, error) {
	var out Log
	f, err := os.Open(path)
	if errors.Is(err, fs.ErrNotExist) {
		return out, nil
	}
	if err != nil {
		return out, err
	}
	defer f.Close()
	var head [32]byte
	if _, err := io.ReadFull(f, head[:]); err != nil {
		out.Cut = !errors.Is(err, io.EOF)
		return out, nil
	}
	var order binary.ByteOrder = binary.LittleEndian
	switch binary.BigEndian.Uint32(head[:]) {
	case 0x377f0682:
	case 0x377f0683:
		order = binary.BigEndian
	default:
		out.Cut = true
		return out, nil
	}
	size := int(binary.BigEndian.Uint32(head[8:]))
	if size < 512 || size > 65536 {
		out.Cut = true
		return out, nil
	}
	var sum [2]uint32
	sum = checksum(order, sum, head[:24])
	if sum != [2]uint32{binary.BigEndian.Uint32(head[24:]), binary.BigEndian.Uint32(head[28:])} {
		out.Cut = true
		return out, nil
	}
	frame := make([]byte, 24+size)
	var pending *header // of the transaction that is read
	open := false
	for {
		_, err := io.ReadFull(f, frame)
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			open = true
			break
		}
		if string(frame[8:16]) != string(head[16:24]) {
			break // left over from an earlier round of the log
		}
		sum = checksum(order, sum, frame[:8])
		sum = checksum(order, sum, frame[24:])
		if sum != [2]uint32{binary.BigEndian.Uint32(frame[16:]), binary.BigEndian.Uint32(frame[20:])} {
			open = true
			break
		}
		open = true
		if binary.BigEndian.Uint32(frame) == 1 {
			if h, ok := parseHeader(frame[24:]); ok {
				pending = &h
			}
		}
		if pages := binary.BigEndian.Uint32(frame[4:]); pages > 0 { // a commit
			out.Commits++
			if open = false; pending != nil {
				out.first = pending
			}
			if out.first != nil {
				out.first.pages = int(pages)
			}
		}
	}
	out.Cut = open
	return out, nil
}

// checksum is that of the log (section 4.2 of the file format).
func checksum(order binary.ByteOrder, s [2]uint32, b []byte) [2]uint32 {
	for ; len(b) >= 8; b = b[8:] {
		s[0] += order.Uint32(b) + s[1]
		s[1] += order.Uint32(b[4:]) + s[0]
	}
	return s
}

// inspect says whether a file may be opened: nil, or why not. fresh is a file that is not
// there yet. Nothing is written.
func inspect(ctx context.Context, path string) (fresh bool, log Log, err error) {
	info, err := os.Stat(path)
	if errors.Is(err, fs.ErrNotExist) {
		return true, log, nil
	}
	if err != nil {
		return false, log, err
	}
	if info.IsDir() {
		return false, log, errors.New("it is a folder")
	}
	if log, err = readLog(path + "-wal"); err != nil {
		return false, log, err
	}
	f, err := os.Open(path)
	if err != nil {
		return false, log, err
	}
	defer f.Close()
	first := make([]byte, headerSize)
	n, err := io.ReadFull(f, first)
	switch {
	case n == 0 && log.Commits == 0:
		return false, log, &Refused{Path: path, Why: IsEmpty}
	case err != nil && !errors.Is(err, io.EOF) && !errors.Is(err, io.ErrUnexpectedEOF):
		return false, log, err
	}
	h, ok := parseHeader(first[:n])
	if log.first != nil { // what the log has is newer
		h, ok = *log.first, true
	}
	switch {
	case !ok && n < headerSize && string(first[:min(n, 16)]) == "SQLite format 3\x00"[:min(n, 16)]:
		return false, log, &Refused{Path: path, Why: IsCut}
	case !ok:
		return false, log, &Refused{Path: path, Why: IsForeign}
	case log.Commits == 0 && info.Size() < int64(h.pages)*int64(h.pageSize):
		return false, log, &Refused{Path: path, Why: IsCut}
	case h.application == applicationID && h.version > Version:
		return false, log, &Refused{Path: path, Why: IsNewer, Has: h.version}
	case h.application == applicationID:
		return false, log, nil
	case h.application != 0:
		return false, log, &Refused{Path: path, Why: IsForeign}
	}
	return false, log, unmarked(ctx, path)
}

// unmarked tells a file from before files were marked from one of another program, by
// what is in a copy of it.
func unmarked(ctx context.Context, path string) error {
	dir, err := os.MkdirTemp("", "deepbay-look-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	copied := filepath.Join(dir, "copy.db")
	for _, end := range []string{"", "-wal"} {
		if err := copyFile(copied+end, path+end); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return err
		}
	}
	db, err := connect(copied)
	if err != nil {
		return err
	}
	defer db.Close()
	var names []string
	rows, err := db.QueryContext(ctx, `SELECT name FROM sqlite_master WHERE type = 'table'`)
	if err != nil {
		return &Refused{Path: path, Why: IsCut}
	}
	defer rows.Close()
	for rows.Next() {
		var name string
		if err := rows.Scan(&name); err != nil {
			return err
		}
		names = append(names, name)
	}
	if rows.Err() != nil {
		return &Refused{Path: path, Why: IsCut}
	}
	for _, want := range []string{"goose_db_version", "jobs", "sheets", "parts", "journal"} {
		if !slices.Contains(names, want) {
			return &Refused{Path: path, Why: IsForeign}
		}
	}
	var version int
	if err := db.QueryRowContext(ctx, `SELECT max(version_id) FROM goose_db_version`).Scan(&version); err != nil {
		return &Refused{Path: path, Why: IsCut}
	}
	if version > Version {
		return &Refused{Path: path, Why: IsNewer, Has: version}
	}
	return nil
}

func copyFile(to, from string) error {
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer in.Close()
	out, err := os.OpenFile(to, os.O_WRONLY|os.O_CREATE|os.O_TRUNC, 0o600)
	if err != nil {
		return err
	}
	if _, err := io.Copy(out, in); err != nil {
		out.Close()
		return err
	}
	return out.Close()
}
