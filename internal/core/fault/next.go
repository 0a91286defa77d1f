package fault

// This file chooses the next check: the one that tells the explanations apart best for what it
// costs.

import (
	"cmp"
	"maps"
	"math"
	"slices"

	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// followed is how many explanations the next check is to tell apart.
const followed = 40

// worthLooking is how much a check without opening the machine must tell, in bits, to go before
// one that tells more for its minutes.
const worthLooking = 0.1

// cheap is how long such a check may take to go before any other, in minutes.
const cheap = 3

// next is the check that tells explanations apart best for what it costs. What needs no opening
// goes before what does, where it tells anything worth the minutes.
func (q *question) next(left []theory) *Next {
	left = left[:min(len(left), followed)]
	var best *Next
	var bestScore float64
	bestFirst := false // the best is such a look
	for _, k := range q.checks(left) {
		shows, gain := q.foresees(k, left)
		if gain < 1e-3 {
			continue
		}
		n := &Next{Check: k, Minutes: q.Cost(k, q.Open), Inside: looks[k.Look].inside, Shows: shows}
		score := gain / float64(max(q.weight(k, n), 0.1))
		first := !n.Inside && gain >= worthLooking && n.Minutes <= cheap
		if best == nil || first && !bestFirst || first == bestFirst && score > bestScore {
			best, bestScore, bestFirst = n, score, first
		}
	}
	return best
}

// shared is the part of the opening of a machine that the first look into it bears: others follow
// while it stands open.
const shared = 0.1

// weight is what a check costs in the choice, in minutes.
func (q *question) weight(k Inspection, n *Next) layer.Minutes {
	if of := looks[k.Look]; k.Look.LeavesOpen() && !q.Open {
		return of.minutes + shared*(n.Minutes-of.minutes)
	}
	return n.Minutes
}

// class is what explanations that foretell the same of a check come to.
type class struct {
	Foreseen
	logs float64 // the sum of w log w of their weights
	best float64
}

// foresees is what a check may show, and how much it tells, in bits.
func (q *question) foresees(k Inspection, left []theory) ([]Foreseen, float64) {
	var classes []class
	sum, logs := 0.0, 0.0
	for _, t := range left {
		f, ok := q.foresee(k, t)
		if !ok {
			return nil, 0 // of one of them nothing is foretold: what it shows would tell little
		}
		i := slices.IndexFunc(classes, func(c class) bool { return c.Is == f.Is && same(c.Reading, f.Reading) })
		if i < 0 {
			i = len(classes)
			classes = append(classes, class{Foreseen: f})
		}
		c := &classes[i]
		w := t.weight
		c.Share += w
		c.logs += w * math.Log2(w)
		if w > c.best {
			c.best, c.Leaves = w, t.faults
		}
		sum += w
		logs += w * math.Log2(w)
	}
	entropy := func(sum, logs float64) float64 { return math.Log2(sum) - logs/sum }
	gain := entropy(sum, logs)
	out := make([]Foreseen, len(classes))
	for i, c := range classes {
		gain -= c.Share / sum * entropy(c.Share, c.logs)
		out[i] = c.Foreseen
		out[i].Share /= sum
	}
	slices.SortStableFunc(out, func(a, b Foreseen) int { return cmp.Compare(b.Share, a.Share) })
	return out, gain
}

// same reports two readings that a person would read alike.
func same(a, b *power.Reading) bool {
	if a == nil || b == nil {
		return a == b
	}
	return *a == *b
}

// foresee is what a check shows if an explanation is right; false is that it cannot be told.
func (q *question) foresee(k Inspection, t theory) (Foreseen, bool) {
	if k.Look != ReadLine {
		return Foreseen{Is: q.outcome(k, t.faults)}, true
	}
	r, known, inSight := t.shown.foretells(k.Line)
	if !inSight {
		r = power.Reading{Line: k.Line, Absent: true, Origin: power.Foretold}
	}
	return Foreseen{Reading: &r}, known
}

// checks lists what could tell explanations apart: what their entries say of checks, and the
// lines that nobody read. None is listed that was made already.
func (q *question) checks(left []theory) []Inspection {
	list := map[Inspection]bool{}
	for _, t := range left {
		for _, f := range t.faults {
			for l := range q.kinds[f.Kind].shows {
				if k, ok := q.checkOf(l, f); ok {
					list[k] = true
				}
			}
		}
	}
	for _, id := range q.unread {
		for _, t := range left {
			if slices.ContainsFunc(t.do, func(x change) bool { return q.touches(x, id) }) {
				list[Inspection{Look: ReadLine, Line: id}] = true
				break
			}
		}
	}
	for _, a := range q.Answers {
		delete(list, a.Check)
	}
	return slices.SortedFunc(maps.Keys(list), func(a, b Inspection) int { return cmp.Compare(a.String(), b.String()) })
}

// checkOf is a kind of check for a fault; false is that it cannot be made there.
func (q *question) checkOf(l Look, f Fault) (Inspection, bool) {
	if looks[l].whole {
		return Inspection{Look: l}, true
	}
	if f.At.IsZero() {
		return Inspection{}, false
	}
	k, p := Inspection{Look: l, At: f.At}, q.partOf(f.At)
	switch l {
	case Listen:
		return k, p != nil && p.Drive != nil && p.Drive.Media == part.Platter
	case Swap:
		k.With = q.like(f.At)
		return k, !k.With.IsZero()
	case OtherPlace:
		k.With = q.free(f.At)
		return k, !k.With.IsZero()
	case Spare: // only where there is nothing to change places with
		return k, q.like(f.At).IsZero() && q.free(f.At).IsZero()
	}
	return k, true
}

// like is a place with a like piece that is well, the zero Path where there is none: what is
// swapped with it tells whether a fault goes with the piece. One on another memory channel
// tells more.
func (q *question) like(at rig.Path) rig.Path {
	k, p := q.socket(at), q.partOf(at)
	var near rig.Path
	for _, f := range q.live(func(o *machine.Socket, r *part.Part) bool {
		return k != nil && p != nil && o.Kind == k.Kind && (r.Module == nil) == (p.Module == nil) && (r.Card == nil) == (p.Card == nil) && rig.Suits(r, k) && rig.Suits(p, o)
	}) {
		well := !slices.ContainsFunc(q.differs, func(r power.Reading) bool { return r.Line.Socket == f.At })
		switch {
		case f.At == at || !well || f.At.Within(at) || at.Within(f.At):
		case q.sameChannel(at, f.At):
			near = cmp.Or(near, f.At)
		default:
			return f.At
		}
	}
	return near
}

// free is a free place that a piece goes into, the zero Path where there is none.
func (q *question) free(at rig.Path) rig.Path {
	k, p := q.socket(at), q.partOf(at)
	var near rig.Path
	for _, o := range q.places {
		switch {
		case k == nil || p == nil || o.Kind != k.Kind || o.Path == at || o.Path.Within(at) || q.rig.In(o.Path) != "" || !rig.Suits(p, &o.Socket):
		case q.sameChannel(at, o.Path):
			near = cmp.Or(near, o.Path)
		default:
			return o.Path
		}
	}
	return near
}

// Listed is every check that could be made for what agrees with the evidence, in the order of the
// catalogue: what somebody does who works off a list, whatever the checks before showed. Next is
// measured against it.
func (c *Case) Listed(e Evidence) []Inspection {
	q := c.ask(e)
	left := q.theories()
	list := q.checks(left)
	slices.SortStableFunc(list, func(a, b Inspection) int {
		return cmp.Compare(slices.Index(lookOrder, a.Look), slices.Index(lookOrder, b.Look))
	})
	return slices.DeleteFunc(list, func(k Inspection) bool { // a line that shows the same whatever is wrong is on no list
		shows, _ := q.foresees(k, left)
		return len(shows) < 2
	})
}
