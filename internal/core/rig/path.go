package rig

import (
	"cmp"
	"strconv"
	"strings"

	"deepbay/internal/core/machine"
)

// MaxDepth is how deep sockets nest: far deeper than anybody builds. A part that
// lies deeper brings no sockets.
const MaxDepth = 7

// Path names a place: a socket of the board, or a position of what lies in another
// place, counted from 1. In files it reads "PCIE1/2". Paths are compared with ==;
// the zero Path is no place: a piece that has it lies on the mat.
type Path struct {
	top   machine.SocketID
	pos   [MaxDepth]uint8
	depth uint8
}

// On is the place of a socket of the board.
func On(id machine.SocketID) Path { return Path{top: id} }

// ParsePath reads a path as files write it. A text that is none names a socket that
// no board has, so whoever looks it up says so with its place.
func ParsePath(s string) Path {
	top, rest, nested := strings.Cut(s, "/")
	p := Path{top: machine.SocketID(top)}
	for nested {
		var n string
		n, rest, nested = strings.Cut(rest, "/")
		v, err := strconv.ParseUint(n, 10, 8)
		if err != nil || v == 0 || p.depth == MaxDepth || n[0] == '0' || n[0] == '+' {
			return Path{top: machine.SocketID(s)}
		}
		p = p.Position(int(v))
	}
	return p
}

// String is the path as files write it, "" for the mat.
func (p Path) String() string {
	if p.depth == 0 {
		return string(p.top)
	}
	s := string(p.top)
	for _, n := range p.pos[:p.depth] {
		s += "/" + strconv.Itoa(int(n))
	}
	return s
}

// MarshalText writes the path as files do.
func (p Path) MarshalText() ([]byte, error) { return []byte(p.String()), nil }

// UnmarshalText reads any text; see ParsePath.
func (p *Path) UnmarshalText(b []byte) error {
	*p = ParsePath(string(b))
	return nil
}

// IsZero reports the mat; encoding/json leaves such a path out where omitzero says so.
func (p Path) IsZero() bool { return p == Path{} }

// Top is the socket of the board that the place is in, itself for one of the board.
func (p Path) Top() machine.SocketID { return p.top }

// Depth is how many parts hold the place: 0 for a socket of the board.
func (p Path) Depth() int { return int(p.depth) }

// Nested reports a place that a part brings.
func (p Path) Nested() bool { return p.depth > 0 }

// Holder is the place of the part that brings this one, zero for a socket of the board.
func (p Path) Holder() Path {
	if p.depth == 0 {
		return Path{}
	}
	p.depth--
	p.pos[p.depth] = 0
	return p
}

// Within reports a place that is another, or lies in what that holds.
func (p Path) Within(q Path) bool {
	for !p.IsZero() {
		if p == q {
			return true
		}
		p = p.Holder()
	}
	return false
}

// Last is the position in its holder, 0 for a socket of the board.
func (p Path) Last() int {
	if p.depth == 0 {
		return 0
	}
	return int(p.pos[p.depth-1])
}

// Position is the place a part in p brings as its n-th, counted from 1.
func (p Path) Position(n int) Path {
	p.pos[p.depth] = uint8(n)
	p.depth++
	return p
}

// Compare orders places of one socket of the board: what holds before what is held,
// positions by their number.
func (p Path) Compare(q Path) int {
	for i := range min(p.depth, q.depth) {
		if c := cmp.Compare(p.pos[i], q.pos[i]); c != 0 {
			return c
		}
	}
	return cmp.Compare(p.depth, q.depth)
}
