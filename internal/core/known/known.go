// Package known is judgement on what is known: three values, and ranges of numbers
// between the lowest and the highest that what is known allows.
//
// A missing fact is never a yes and never a no. More knowledge only narrows: taking a
// fact away never makes an answer surer, and every range then contains the old one.
//
//	slot, card := known.Exactly(quantity.Lanes(8)), known.Between(quantity.Lanes(1), 16)
//	known.Min(slot, card) // 1 to 8
package known

import (
	"cmp"

	"deepbay/internal/core/quantity"
)

// Truth is yes, no, or not known; its zero is not known.
type Truth = quantity.Answer

// The three truths.
const (
	Unknown = quantity.Unknown
	No      = quantity.No
	Yes     = quantity.Yes
)

// Of is the truth of something that is sure.
func Of(b bool) Truth {
	if b {
		return Yes
	}
	return No
}

// And is no where one is no, yes where all are, else not known (Kleene). Sound and not
// complete: "x or not x" stays unknown.
func And(a ...Truth) Truth {
	out := Yes
	for _, t := range a {
		switch t {
		case No:
			return No
		case Unknown:
			out = Unknown
		}
	}
	return out
}

// Or is yes where one is yes, no where all are no, else not known.
func Or(a ...Truth) Truth {
	out := No
	for _, t := range a {
		switch t {
		case Yes:
			return Yes
		case Unknown:
			out = Unknown
		}
	}
	return out
}

// Not is the other; what is not known stays so.
func Not(t Truth) Truth {
	switch t {
	case Yes:
		return No
	case No:
		return Yes
	}
	return Unknown
}

// Range is the lowest and the highest that a number can be.
type Range[T cmp.Ordered] struct{ Low, High T }

// Exactly is the range of a number that is known.
func Exactly[T cmp.Ordered](v T) Range[T] { return Range[T]{v, v} }

// Between is the range from low to high.
func Between[T cmp.Ordered](low, high T) Range[T] { return Range[T]{low, high} }

// Exact reports that the number is known.
func (r Range[T]) Exact() bool { return r.Low == r.High }

// Min is the lower of two numbers.
func Min[T cmp.Ordered](a, b Range[T]) Range[T] {
	return Range[T]{min(a.Low, b.Low), min(a.High, b.High)}
}

// Max is the higher of two numbers.
func Max[T cmp.Ordered](a, b Range[T]) Range[T] {
	return Range[T]{max(a.Low, b.Low), max(a.High, b.High)}
}

// Cap is the number where at most so much of it is left: for certain, or perhaps.
func (r Range[T]) Cap(most T, t Truth) Range[T] {
	switch t {
	case Yes:
		return Min(r, Exactly(most))
	case Unknown:
		return Range[T]{min(r.Low, most), r.High}
	}
	return r
}

// Holds reports that a range contains another.
func (r Range[T]) Holds(o Range[T]) bool { return r.Low <= o.Low && o.High <= r.High }

// AtMost is whether a is no more than b.
func AtMost[T cmp.Ordered](a, b Range[T]) Truth {
	switch {
	case a.High <= b.Low:
		return Yes
	case a.Low > b.High:
		return No
	}
	return Unknown
}
