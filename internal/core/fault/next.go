package fault

// This file chooses the next check: the one that tells the explanations apart best for what it
// costs.

import (
	"cmp"
	"maps"
	"math"
	"math/bits"
	"slices"

	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// followed is how many explanations the next check is to tell apart; a state holds them as bits.
const followed = 40

// worthLooking is how much a check without opening the machine must tell, in bits, to go before
// one that tells more for its minutes.
const worthLooking = 0.1

// cheap is how long such a check may take to go before any other, in minutes.
const cheap = 3

// weighed is how many checks are followed to the end of the search, those that tell most for
// their minutes.
const weighed = 8

// next is the check after which the search is expected to end soonest. What needs no opening goes
// before what does, where it tells anything worth the minutes.
func (q *question) next(left []theory) *Next {
	c := q.choice(left)
	now := state{1<<len(c.left) - 1, q.Open}
	var best *option
	var least layer.Minutes
	for _, o := range c.likely(now, weighed) {
		if m := c.through(o, now); best == nil || m < least {
			best, least = o, m
		}
	}
	if best == nil {
		return nil
	}
	return &Next{Check: best.Inspection, Minutes: q.Cost(best.Inspection, q.Open), Inside: looks[best.Look].inside, Shows: c.foreseen(best)}
}

// choice is the checks that can be made, and the explanations that they are to tell apart.
type choice struct {
	*question
	left    []theory
	options []option
	ahead   map[state]layer.Minutes // what is left to do
}

// state is the explanations that are left, a bit each, of a machine that stands open or does not.
type state struct {
	left uint64
	open bool
}

// option is a check with what it may show, and the explanations of which it shows that.
type option struct {
	Inspection
	shows []Foreseen
	of    []uint64
}

// choice lists what tells explanations apart. A check of which for one of them nothing is foretold
// is not among it: what it shows would tell little.
func (q *question) choice(left []theory) *choice {
	c := &choice{question: q, left: left[:min(len(left), followed)], ahead: map[state]layer.Minutes{}}
checks:
	for _, k := range q.checks(c.left) {
		o := option{Inspection: k}
		for i, t := range c.left {
			f, ok := q.foresee(k, t)
			if !ok {
				continue checks
			}
			n := slices.IndexFunc(o.shows, func(g Foreseen) bool { return g.Is == f.Is && same(g.Reading, f.Reading) })
			if n < 0 {
				n = len(o.shows)
				o.shows, o.of = append(o.shows, f), append(o.of, 0)
			}
			o.of[n] |= 1 << i
		}
		if len(o.shows) > 1 {
			c.options = append(c.options, o)
		}
	}
	return c
}

// foreseen is what a check may show of all that is left, the likeliest first.
func (c *choice) foreseen(o *option) []Foreseen {
	all, _ := c.spread(1<<len(c.left) - 1)
	out := slices.Clone(o.shows)
	for i := range out {
		w, _ := c.spread(o.of[i])
		out[i].Share = w / all
		out[i].Leaves = c.left[bits.TrailingZeros64(o.of[i])].faults // they come with the likeliest first
	}
	slices.SortStableFunc(out, func(a, b Foreseen) int { return cmp.Compare(b.Share, a.Share) })
	return out
}

// spread is the weight of explanations, and what it would take to tell them all apart, in bits
// times their weight.
func (c *choice) spread(set uint64) (weight, unknown float64) {
	logs := 0.0
	for ; set != 0; set &= set - 1 {
		w := c.left[bits.TrailingZeros64(set)].weight
		weight += w
		logs += w * math.Log2(w)
	}
	return weight, weight*math.Log2(weight) - logs
}

// likely is the checks that tell most for their minutes, the best first, n at most.
func (c *choice) likely(at state, n int) []*option {
	type scored struct {
		*option
		score float64
		first bool // a look without opening goes before any other
	}
	var out []scored
	all, unknown := c.spread(at.left)
	for i := range c.options {
		o := &c.options[i]
		remains := 0.0
		for _, set := range o.of {
			if set &= at.left; set&(set-1) != 0 {
				_, u := c.spread(set)
				remains += u
			}
		}
		gain := (unknown - remains) / all
		if gain < 1e-3 {
			continue
		}
		m := c.Cost(o.Inspection, at.open)
		s := scored{o, gain / float64(max(m, 0.1)), !looks[o.Look].inside && gain >= worthLooking && m <= cheap}
		i := len(out)
		for i > 0 && (s.first && !out[i-1].first || s.first == out[i-1].first && s.score > out[i-1].score) {
			i--
		}
		if out = slices.Insert(out, i, s); len(out) > n {
			out = out[:n]
		}
	}
	var list []*option
	for _, s := range out {
		if s.first == out[0].first {
			list = append(list, s.option)
		}
	}
	return list
}

// through is the minutes that are expected to the end of the search if a check is made now, and
// after it always the one that tells most for its minutes.
func (c *choice) through(o *option, at state) layer.Minutes {
	m := c.Cost(o.Inspection, at.open)
	all, _ := c.spread(at.left)
	open := at.open
	if looks[o.Look].inside || o.Look == ReadLine {
		open = o.Look.LeavesOpen()
	}
	for _, set := range o.of {
		if set &= at.left; set != 0 {
			w, _ := c.spread(set)
			m += layer.Minutes(w/all) * c.rest(state{set, open})
		}
	}
	return m
}

// rest is the minutes that are expected from a state to the end of the search.
func (c *choice) rest(at state) layer.Minutes {
	m, known := c.ahead[at]
	if known {
		return m
	}
	all, _ := c.spread(at.left)
	if c.left[bits.TrailingZeros64(at.left)].weight < certain*all {
		if best := c.likely(at, 1); len(best) > 0 {
			m = c.through(best[0], at)
		}
	}
	c.ahead[at] = m
	return m
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
	list, told := q.checks(left), q.choice(left)
	slices.SortStableFunc(list, func(a, b Inspection) int {
		return cmp.Compare(slices.Index(lookOrder, a.Look), slices.Index(lookOrder, b.Look))
	})
	return slices.DeleteFunc(list, func(k Inspection) bool { // a line that shows the same whatever is wrong is on no list
		return !slices.ContainsFunc(told.options, func(o option) bool { return o.Inspection == k })
	})
}
