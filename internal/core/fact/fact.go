// Package fact is what the core says before it is put into words: a code and values
// with their units. The room say turns facts into sentences; no other room holds one.
//
//	fact.Of(fact.Code("part-link"), rig.ItemID("item-4"), link.Link{Gen: 4, Lanes: 4})
//	// in English: "Ternlight 500 is Gen 4 x4"
package fact

import (
	"errors"
	"fmt"
	"strings"
	"unicode"
)

// Code names one thing that can be said. It is stable, and every code has its
// sentence in say.
type Code string

// Fact is something said: which, and about what.
type Fact struct {
	Code Code
	Args []any // names, paths, quantities, ranges, lists of them; say knows each type
}

// Of makes a fact.
func Of(c Code, args ...any) Fact { return Fact{c, args} }

// Is reports whether anything is said.
func (f Fact) Is() bool { return f.Code != "" }

// String is for programmers; people are told by say.
func (f Fact) String() string {
	s := string(f.Code)
	for _, a := range f.Args {
		s += fmt.Sprintf(" %v", a)
	}
	return s
}

// Fold is text as it is looked for: letters in capitals and digits, without blanks, dashes and
// dots, so that a label read off in any spelling is found.
func Fold(s string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) || unicode.IsDigit(r) {
			return unicode.ToUpper(r)
		}
		return -1
	}, s)
}

// Fault is a fact as an error: why something cannot be read or done.
type Fault struct{ Fact }

// Error is for programmers; people are told by say.
func (f Fault) Error() string { return f.Fact.String() }

// Said is why.
func (f Fault) Said() Fact { return f.Fact }

// Err makes an error of a fact.
func Err(c Code, args ...any) error { return Fault{Of(c, args...)} }

// From is the fact behind an error of the core, none where there is no such.
func From(err error) Fact {
	var f interface{ Said() Fact }
	if errors.As(err, &f) {
		return f.Said()
	}
	return Fact{}
}

// Count is a number of things; say knows the thing's word in singular and plural.
type Count struct {
	N  int
	Of Noun
}

// Noun is a thing that is counted.
type Noun string

// Typed is words that somebody typed, or names: they are not ours, and stay as they are.
type Typed string
