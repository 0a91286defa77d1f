package server_test

import (
	"context"
	"errors"
	"testing"

	"deepbay/internal/core/part"
	"deepbay/internal/server"
	"deepbay/internal/store"
)

// broken is a store whose disk is gone.
type broken struct{ server.Data }

func (broken) Sheets(context.Context) ([]store.SheetName, error) {
	return nil, errors.New("the disk is gone")
}

func (broken) Parts(context.Context) ([]part.Part, error) { panic("a rule went mad") }

// unwritable is a store of which every write ends in an error.
type unwritable struct {
	server.Data
	with error
	free int64
}

func (u unwritable) Put(context.Context, store.Write) (int, error) { return 0, u.with }

func (u unwritable) Space() (store.Space, error) { return store.Space{Bytes: 1, Free: u.free}, nil }

// slow is a store of which no write ends before the gate opens.
type slow struct {
	server.Data
	gate chan struct{}
}

func (s slow) Put(ctx context.Context, w store.Write) (int, error) {
	<-s.gate
	return s.Data.Put(ctx, w)
}

func contextWithCancel(t *testing.T) (context.Context, context.CancelFunc) {
	return context.WithCancel(t.Context())
}
