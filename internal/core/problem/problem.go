// Package problem carries what is wrong with a document: where (a JSON pointer,
// RFC 6901), what, and the cure. A list is reported whole, not only its first entry.
package problem

import (
	"strings"

	"deepbay/internal/core/fact"
)

// Problem is one thing that keeps a document from being used.
type Problem struct {
	Pointer string `json:"pointer"` // RFC 6901, "" is the whole document
	Says    string `json:"says"`    // what is wrong, one sentence without the place
	Cure    string `json:"cure,omitempty"`

	Fact fact.Fact `json:"-"` // what is wrong where it is a fact: say puts it into Says
}

// String prints place, fault and cure on one line.
func (p Problem) String() string {
	at := p.Pointer
	if at == "" {
		at = "/"
	}
	s := at + ": " + p.Says
	if p.Cure != "" {
		s += "; " + p.Cure
	}
	return s
}

// List is all that is wrong. A List is an error; an empty one is not.
type List []Problem

// Error joins the problems, one a line.
func (l List) Error() string {
	lines := make([]string, len(l))
	for i, p := range l {
		lines[i] = p.String()
	}
	return strings.Join(lines, "\n")
}

// Err is the list as an error, nil when nothing is wrong.
func (l List) Err() error {
	if len(l) == 0 {
		return nil
	}
	return l
}

// Add appends one problem.
func (l *List) Add(pointer, says, cure string) {
	*l = append(*l, Problem{Pointer: pointer, Says: says, Cure: cure})
}

// Fault appends one problem that is a fact.
func (l *List) Fault(pointer string, f fact.Fact, cure string) {
	*l = append(*l, Problem{Pointer: pointer, Fact: f, Cure: cure})
}

// Under returns the problems with prefix put before each pointer.
func (l List) Under(prefix string) List {
	out := make(List, len(l))
	for i, p := range l {
		p.Pointer = prefix + p.Pointer
		out[i] = p
	}
	return out
}
