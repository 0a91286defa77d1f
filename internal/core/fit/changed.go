package fit

import (
	"cmp"
	"reflect"
	"slices"

	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Turn is how a socket differs between two answers.
type Turn string

// The turns of a socket.
const (
	NowIn   Turn = "in"     // another part lies in it
	NowOut  Turn = "out"    // its part is gone
	NowLess Turn = "worse"  // the same part, or none, and it does less
	NowMore Turn = "better" // the same part, or none, and it does more
)

// Values lists the turns for the formats.
func (Turn) Values() []string {
	return []string{string(NowIn), string(NowOut), string(NowLess), string(NowMore)}
}

// Turned is one socket in which two answers differ. Was is nil where the socket was not
// there, Now where it is no longer.
type Turned struct {
	Socket   rig.Path
	Turn     Turn
	Was, Now *SocketState
}

// use orders states by how much a socket does in them.
func (s State) use() int { return slices.Index([]State{Stopped, Off, Unsure, Free, Live}, s) }

// Turns lists the sockets in which an answer differs from the one before, in the order of the
// sheet, then those that are gone. Of a socket that a carrier brings or takes along nothing
// is said while nothing lies in it: the carrier says it.
func Turns(before, after *Answer) []Turned {
	var out []Turned
	for i := range after.Sockets {
		now := &after.Sockets[i]
		was := before.Socket(now.Socket)
		switch {
		case was == nil && now.Item != "":
			out = append(out, Turned{now.Socket, NowIn, nil, now})
		case was == nil:
		case now.Item != was.Item && now.Item != "":
			out = append(out, Turned{now.Socket, NowIn, was, now})
		case now.Item != was.Item:
			out = append(out, Turned{now.Socket, NowOut, was, now})
		case now.State != was.State || !reflect.DeepEqual(now.Link, was.Link):
			turn := NowMore
			if cmp.Or(cmp.Compare(now.State.use(), was.State.use()), cmp.Compare(now.rate(), was.rate())) < 0 {
				turn = NowLess
			}
			out = append(out, Turned{now.Socket, turn, was, now})
		}
	}
	for i := range before.Sockets {
		if was := &before.Sockets[i]; was.Item != "" && after.Socket(was.Socket) == nil {
			out = append(out, Turned{was.Socket, NowOut, was, nil})
		}
	}
	return out
}

// rate is the most its link moves.
func (s *SocketState) rate() quantity.Rate {
	if s.Link == nil {
		return 0
	}
	return s.Link.Rate.High
}
