package shelf

// This file tells what changed on the shelf, for its history.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/machine"
)

// What happened to one kind of part on the shelf, by name.
const (
	Listed        fact.Code = "shelf/listed"  // described, and none there
	PutUp         fact.Code = "shelf/put-up"  // so many of it, the first there were
	Changed       fact.Code = "shelf/changed" // a list of what did
	CountUp       fact.Code = "shelf/count-up"
	CountDown     fact.Code = "shelf/count-down"
	PriceIs       fact.Code = "shelf/price-is"
	PriceGone     fact.Code = "shelf/price-gone"
	ConditionIs   fact.Code = "shelf/condition-is"
	ConditionGone fact.Code = "shelf/condition-gone"
	SerialsCame   fact.Code = "shelf/serials-came"
	SerialsWent   fact.Code = "shelf/serials-went"
	SerialsOrder  fact.Code = "shelf/serials-order" // the same ones, otherwise listed
	DescribedAs   fact.Code = "shelf/described-as"  // a list of what of the part's description changed
	BroughtBack   fact.Code = "shelf/brought-back"  // a revision
)

// First is what happened to a kind of part that was not on the shelf before.
func First(s *Stock) fact.Fact {
	if s.Count == 0 {
		return fact.Of(Listed)
	}
	return fact.Of(PutUp, s.Count)
}

// Diff is what differs from a to b, empty when nothing does.
func Diff(a, b *Stock) []fact.Fact {
	var out []fact.Fact
	if d := machine.Differs(&a.Part, &b.Part); len(d) > 0 {
		out = append(out, fact.Of(DescribedAs, d))
	}
	switch n := b.Count - a.Count; {
	case n > 0:
		out = append(out, fact.Of(CountUp, n, b.Count))
	case n < 0:
		out = append(out, fact.Of(CountDown, -n, b.Count))
	}
	if a.Price != b.Price {
		if b.Price > 0 {
			out = append(out, fact.Of(PriceIs, fact.Typed(b.Price.String())))
		} else {
			out = append(out, fact.Of(PriceGone))
		}
	}
	if a.Condition != b.Condition {
		if b.Condition != "" {
			out = append(out, fact.Of(ConditionIs, b.Condition))
		} else {
			out = append(out, fact.Of(ConditionGone))
		}
	}
	came, went := without(b.Serials, a.Serials), without(a.Serials, b.Serials)
	if len(came) > 0 {
		out = append(out, fact.Of(SerialsCame, came))
	}
	if len(went) > 0 {
		out = append(out, fact.Of(SerialsWent, went))
	}
	if len(came)+len(went) == 0 && !slices.Equal(a.Serials, b.Serials) {
		out = append(out, fact.Of(SerialsOrder))
	}
	return out
}

// without is what is in a list and not in another.
func without(list, other []string) []fact.Typed {
	var out []fact.Typed
	for _, s := range list {
		if !slices.Contains(other, s) {
			out = append(out, fact.Typed(s))
		}
	}
	return out
}
