package main

import (
	"context"
	"errors"
	"log/slog"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"time"

	"deepbay/internal/server"
	"deepbay/internal/store"
)

// schedule makes backups of a data file now and then and keeps the newest.
type schedule struct {
	data, dir string
	every     time.Duration
	keep      int
	log       *slog.Logger

	mu    sync.Mutex
	last  time.Time // of the newest that is whole
	fault error     // of the last try
}

// stampOf is how the time stands in the name of a backup, which sorts as it follows.
const stampOf = "20060102-150405.000"

// prefix begins the names of the backups of this file; others in the folder are not touched.
func (s *schedule) prefix() string {
	return strings.TrimSuffix(filepath.Base(s.data), filepath.Ext(s.data)) + "-backup-"
}

// made is the backups there are, the oldest first, and when the newest was made.
func (s *schedule) made() ([]string, time.Time, error) {
	entries, err := os.ReadDir(s.dir)
	var out []string
	var last time.Time
	for _, e := range entries {
		stamp, ours := strings.CutPrefix(strings.TrimSuffix(e.Name(), ".db"), s.prefix())
		at, err := time.ParseInLocation(stampOf, stamp, time.UTC)
		if ours && err == nil && strings.HasSuffix(e.Name(), ".db") {
			out = append(out, filepath.Join(s.dir, e.Name()))
			if at.After(last) {
				last = at
			}
		}
	}
	slices.Sort(out)
	return out, last, err
}

// run makes a backup whenever one is due, until ctx ends.
func (s *schedule) run(ctx context.Context) {
	tick := time.NewTicker(min(time.Minute, s.every))
	defer tick.Stop()
	for {
		s.due(ctx, time.Now().UTC())
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}

// due makes a backup if the newest is older than it may be, and takes away those that are
// too many. A backup that fails takes none away.
func (s *schedule) due(ctx context.Context, now time.Time) {
	_, last, err := s.made()
	if err == nil && now.Sub(last) >= s.every {
		to := filepath.Join(s.dir, s.prefix()+now.Format(stampOf)+".db")
		if _, err = store.Backup(ctx, s.data, to); err == nil {
			last = now
		}
	}
	if err == nil {
		var all []string
		for all, _, err = s.made(); len(all) > s.keep; all = all[1:] {
			err = errors.Join(err, os.Remove(all[0]))
		}
	}
	if err != nil && ctx.Err() == nil {
		s.log.Error("no backup is made", "folder", s.dir, "error", err)
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.fault = err; !last.IsZero() { // of a folder that is gone the newest is remembered
		s.last = last
	}
}

// state is what people are told of backups.
func (s *schedule) state(now time.Time) *server.Backup {
	s.mu.Lock()
	defer s.mu.Unlock()
	return &server.Backup{Last: s.last, Old: s.fault != nil || now.Sub(s.last) > 2*s.every, Fault: s.fault}
}
