package server

// This file listens, and stops in good order.

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"strings"
	"time"
)

func isLoopback(host string) bool {
	if strings.EqualFold(host, "localhost") {
		return true
	}
	ip := net.ParseIP(strings.Trim(host, "[]"))
	return ip != nil && ip.IsLoopback()
}

// Listen opens a loopback address, "127.0.0.1:8480" or "localhost:0", and
// refuses every other.
func Listen(ctx context.Context, address string) (net.Listener, error) {
	host, _, err := net.SplitHostPort(address)
	if err != nil {
		return nil, fmt.Errorf("%q is not an address: write host and port, such as 127.0.0.1:8480", address)
	}
	if !isLoopback(host) {
		return nil, fmt.Errorf("%q is refused: Deep Bay listens on this machine only (127.0.0.1, ::1 or localhost), because there is no access control yet and whoever reaches it could change every job", address)
	}
	l, err := (&net.ListenConfig{}).Listen(ctx, "tcp", address)
	if err != nil {
		return nil, fmt.Errorf("cannot listen on %s: %w; is Deep Bay running already? Name another port with --listen", address, err)
	}
	return l, nil
}

// Serve answers on l until ctx ends, then lets running requests finish.
func Serve(ctx context.Context, l net.Listener, h http.Handler, log *slog.Logger) error {
	s := &http.Server{
		Handler:           untilStopped(ctx, h),
		ReadHeaderTimeout: 5 * time.Second,
		ReadTimeout:       20 * time.Second,
		WriteTimeout:      30 * time.Second,
		IdleTimeout:       2 * time.Minute,
		MaxHeaderBytes:    32 << 10,
		ErrorLog:          slog.NewLogLogger(log.Handler(), slog.LevelWarn),
	}
	done := make(chan error, 1)
	go func() { done <- s.Serve(l) }()
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	log.Info("stopping")
	grace, cancel := context.WithTimeout(context.WithoutCancel(ctx), 10*time.Second)
	defer cancel()
	if err := s.Shutdown(grace); err != nil {
		return err
	}
	if err := <-done; !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return nil
}
