package server_test

import (
	"context"
	"errors"
	"testing"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/server"
)

// broken is a store whose disk is gone.
type broken struct{ server.Data }

func (broken) Sheets(context.Context) ([]machine.Sheet, error) {
	return nil, errors.New("the disk is gone")
}

func (broken) Parts(context.Context) ([]part.Part, error) { panic("a rule went mad") }

func contextWithCancel(t *testing.T) (context.Context, context.CancelFunc) {
	return context.WithCancel(t.Context())
}
