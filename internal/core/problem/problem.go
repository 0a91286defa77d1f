// Package problem carries what is wrong with a document: where (a JSON pointer,
// RFC 6901), what, and the cure. A list is reported whole, not only its first entry.
package problem

import (
	"strings"

	"deepbay/internal/core/fact"
)

// Problem is one thing that keeps a document from being used. What is wrong is a fact;
// say fills in the words, which is what programs and people are shown.
type Problem struct {
	Pointer string `json:"pointer"` // RFC 6901, "" is the whole document
	Says    string `json:"says"`    // what is wrong, one sentence without the place
	Cure    string `json:"cure,omitempty"`

	Fact   fact.Fact `json:"-"`
	Worded bool      `json:"-"` // Says and Cure are the words of say
}

// String prints place, fault and cure on one line; before it is worded, its fact.
func (p Problem) String() string {
	at := p.Pointer
	if at == "" {
		at = "/"
	}
	says := p.Says
	if says == "" {
		says = p.Fact.String()
	}
	if p.Cure != "" {
		says += "; " + p.Cure
	}
	return at + ": " + says
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
func (l *List) Add(pointer string, f fact.Fact) {
	*l = append(*l, Problem{Pointer: pointer, Fact: f})
}

// Say appends one problem in words, for those outside the core who have them from
// elsewhere, such as a schema.
func (l *List) Say(pointer, says, cure string) {
	*l = append(*l, Problem{Pointer: pointer, Says: says, Cure: cure})
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
