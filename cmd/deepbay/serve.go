package main

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"io"
	"log/slog"
	"net"
	"os"
	"path/filepath"
	"runtime/debug"
	"time"

	"github.com/spf13/cobra"

	"deepbay/demo/shop"
	"deepbay/internal/server"
	"deepbay/internal/store"
	"deepbay/web"
)

const defaultAddress = "127.0.0.1:8480"

func serveCommand() *cobra.Command {
	var data, listen, probes string
	var verbose bool
	var backups schedule
	c := &cobra.Command{
		Use:   "serve --data FILE",
		Short: "Serve a shop of your own; FILE is made when it does not exist",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			var keep *schedule
			if backups.dir != "" {
				keep = &backups
			}
			return serve(c.Context(), data, listen, probes, verbose, false, keep, c.OutOrStdout(), c.ErrOrStderr())
		},
	}
	c.Flags().StringVar(&data, "data", "", "data file")
	c.Flags().StringVar(&listen, "listen", defaultAddress, "loopback address and port")
	c.Flags().StringVar(&probes, "probes", "", "address and port at which machines on the bench send themselves in, as they reach it; none without it")
	c.Flags().BoolVar(&verbose, "verbose", false, "log every request")
	c.Flags().StringVar(&backups.dir, "backups", "", "folder for backups, best on another disk; none are made without it")
	c.Flags().DurationVar(&backups.every, "every", 24*time.Hour, "time between backups")
	c.Flags().IntVar(&backups.keep, "keep", 14, "how many backups are kept")
	return c
}

func demoCommand() *cobra.Command {
	var listen, probes string
	var verbose bool
	c := &cobra.Command{
		Use:   "demo",
		Short: "Serve a clean copy of the demo shop, gone when the program ends",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			dir, err := os.MkdirTemp("", "deepbay-demo-")
			if err != nil {
				return err
			}
			defer os.RemoveAll(dir)
			return serve(c.Context(), filepath.Join(dir, "demo.db"), listen, probes, verbose, true, nil, c.OutOrStdout(), c.ErrOrStderr())
		},
	}
	c.Flags().StringVar(&listen, "listen", defaultAddress, "loopback address and port")
	c.Flags().StringVar(&probes, "probes", "", "address and port at which machines on the bench send themselves in, as they reach it; none without it")
	c.Flags().BoolVar(&verbose, "verbose", false, "log every request")
	return c
}

// serve opens the store, listens and answers until ctx ends. The address is
// looked at first, so that a refused one leaves no file behind.
func serve(ctx context.Context, data, listen, probes string, verbose, fill bool, backups *schedule, stdout, stderr io.Writer) error {
	level := slog.LevelInfo
	if verbose {
		level = slog.LevelDebug
	}
	log := slog.New(slog.NewTextHandler(stderr, &slog.HandlerOptions{Level: level}))
	l, err := server.Listen(ctx, listen)
	if err != nil {
		return err
	}
	defer l.Close()
	s, err := store.Open(ctx, data)
	if err != nil {
		return err
	}
	defer s.Close()
	if s.Log().Cut {
		log.Warn("the log beside the data file ends in the middle of a write: if the power failed, that write was never answered; if the log was cut, what was in the rest of it is gone", "file", data+"-wal", "writes", s.Log().Commits)
	}
	go checkpoints(ctx, s, log)
	if fill {
		if err := shop.Fill(ctx, s); err != nil {
			return fmt.Errorf("demo shop: %w", err)
		}
	}
	go catchUp(ctx, s, log)
	files, err := web.Files()
	if err != nil {
		return err
	}
	o := server.Options{Data: s, Files: files, Now: time.Now, Log: log, Version: version, Program: fingerprint(log)}
	if backups != nil {
		if backups.every < time.Minute || backups.keep < 1 {
			return fmt.Errorf("backups every %s, %d kept: make them at least a minute apart, and keep one or more", backups.every, backups.keep)
		}
		if err := os.MkdirAll(backups.dir, 0o700); err != nil {
			return fmt.Errorf("folder for backups: %w", err)
		}
		backups.data, backups.log = data, log
		go backups.run(ctx)
		o.Backup = backups.state
	}
	if probes != "" {
		o.Doors = &server.Doors{Base: "http://" + probes}
	}
	h, err := server.New(o)
	if err != nil {
		return err
	}
	if probes != "" {
		at, err := net.Listen("tcp", probes)
		if err != nil {
			return fmt.Errorf("address for machines on the bench: %w", err)
		}
		o.Doors.Base = "http://" + at.Addr().String()
		ctx, stop := context.WithCancel(ctx)
		defer stop()
		go func() {
			if err := server.Serve(ctx, at, o.Doors.Handler(time.Now), log); err != nil {
				log.Error("machines on the bench are not listened to any more", "error", err)
			}
		}()
		fmt.Fprintf(stdout, "Machines on the bench: %s\n", o.Doors.Base)
	}
	fmt.Fprintf(stdout, "Deep Bay: http://%s\n", l.Addr())
	return server.Serve(ctx, l, h, log)
}

// checkpointEvery is how old a plain copy of the data file, without its log, may be.
const checkpointEvery = time.Minute

// checkpoints puts what is in the log into the data file now and then.
func checkpoints(ctx context.Context, s *store.Store, log *slog.Logger) {
	tick := time.NewTicker(checkpointEvery)
	defer tick.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
			if err := s.Checkpoint(ctx); err != nil && ctx.Err() == nil {
				log.Warn("the log is not put into the data file", "error", err)
			}
			debug.FreeOSMemory() // what a burst needed is given back
		}
	}
}

// fingerprint names exactly this program, by its bytes; "" where they cannot be read.
func fingerprint(log *slog.Logger) string {
	path, err := os.Executable()
	if err == nil {
		var f *os.File
		if f, err = os.Open(path); err == nil {
			defer f.Close()
			h := sha256.New()
			if _, err = io.Copy(h, f); err == nil {
				return hex.EncodeToString(h.Sum(nil))
			}
		}
	}
	log.Warn("this program cannot read itself: what it says of jobs is not kept", "error", err)
	return ""
}

// catchUp takes what the journals have into the logbook, where that is new to this file, while
// others read and write.
func catchUp(ctx context.Context, s *store.Store, log *slog.Logger) {
	for left := 1; left > 0 && ctx.Err() == nil; {
		var err error
		if left, err = s.CatchUp(ctx, server.LogWords(nil), 20_000); err != nil {
			if ctx.Err() == nil {
				log.Warn("the logbook lacks lines", "error", err)
			}
			return
		}
	}
}
