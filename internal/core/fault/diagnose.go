package fault

// This file reads the forecast backwards: which faults, alone or two together, agree with all
// that was seen, how likely each is, and which check tells them apart for the least work.

import (
	"cmp"
	"slices"

	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// Evidence is how a machine showed itself.
type Evidence struct {
	Readings []power.Reading
	Answers  []Answered // of checks, oldest first
	Open     bool       // the machine stands open
}

// Sign is one thing that was seen: a line, or what a check showed.
type Sign struct {
	Reading *power.Reading
	Answer  *Answered
}

// Leader is an explanation that agrees with all that was seen.
type Leader struct {
	Faults []Fault // one, or two that must come together
	Share  float64 // among all explanations that agree
	For    []Sign  // what it explains that a machine without it would not show
	Open   []Sign  // and what it would show besides, where nobody looked yet
}

// Out is a fault that what was seen rules out.
type Out struct {
	Fault Fault
	By    Sign
}

// Foreseen is what a check may show, and the share of explanations that it would leave.
type Foreseen struct {
	Is      Outcome        // of a check
	Reading *power.Reading // of a line to read
	Share   float64
	Leaves  []Fault // the likeliest of what is left
}

// Next is the check that tells the leaders apart best for what it costs.
type Next struct {
	Check   Inspection
	Minutes layer.Minutes
	Inside  bool // the machine must be opened for it
	Shows   []Foreseen
}

// Diagnosis is what is wrong with a machine, as far as what was seen tells.
type Diagnosis struct {
	Differs []Sign   // what a machine without a fault would not show
	Leaders []Leader // the likeliest first; none where nothing differs, or nothing in the catalogue agrees
	More    int      // explanations that agree and are not among the leaders
	Next    *Next    // nil where nothing tells them apart, or one is left
	Certain bool     // one explanation is left, or one that outweighs all others
	Out     []Out    // what was ruled out, the likeliest first
	Danger  bool     // work stops, and data comes first
}

// How far explanations are followed.
const (
	mostLeaders = 6
	mostOut     = 12
	certain     = 0.95
	together    = 0.1 // how much less likely two faults are than their shares make them
)

// theory is some faults with the changes in which they show.
type theory struct {
	faults []Fault
	do     []change
	shown  *shown
	weight float64
}

// Diagnose says what agrees with the evidence.
func (c *Case) Diagnose(e Evidence) Diagnosis {
	q := c.ask(e)
	d := Diagnosis{Differs: q.signs()}
	if slices.ContainsFunc(e.Readings, func(r power.Reading) bool { return r.Line.Kind == power.Message && r.Value == power.Alarm }) {
		d.Danger = true // nothing is tried on a machine like that
		return d
	}
	if len(d.Differs) == 0 {
		return d
	}
	rising := slices.ContainsFunc(q.differs, func(r power.Reading) bool { return r.Line.Kind == power.Counts })
	left := q.theories()
	sum := 0.0
	for _, t := range left {
		sum += t.weight
	}
	for i, t := range left {
		if i == mostLeaders {
			d.More = len(left) - i
			break
		}
		l := Leader{Faults: t.faults, Share: t.weight / sum, For: q.explains(t)}
		l.Open = q.besides(t)
		d.Leaders = append(d.Leaders, l)
		d.Danger = d.Danger || (l.Share >= .25 || rising) && slices.ContainsFunc(t.faults, func(f Fault) bool { return c.kinds[f.Kind].danger })
	}
	for _, a := range e.Answers {
		d.Danger = d.Danger || a.Is == Clicks
	}
	d.Certain = len(left) == 1 || len(left) > 0 && d.Leaders[0].Share >= certain
	if len(left) > 1 && !d.Certain {
		d.Next = q.next(left)
	}
	d.Out = q.ruledOut(left)
	return d
}

// question is a case with what was seen of it.
type question struct {
	*Case
	Evidence
	differs []power.Reading // what a machine without a fault would not show
	firm    []power.Reading // and what it would
	unread  []power.LineID  // lines that the machine should show and nobody read
}

func (c *Case) ask(e Evidence) *question {
	q := &question{Case: c, Evidence: e}
	for _, r := range e.Readings {
		if c.base.allows(r) {
			q.firm = append(q.firm, r)
		} else {
			q.differs = append(q.differs, r)
		}
	}
	read := readings(e.Readings)
	for _, id := range c.lines {
		_, known := c.base.line(id)
		if _, ok := read[id]; !ok && known {
			q.unread = append(q.unread, id)
		}
	}
	slices.SortFunc(q.unread, power.LineID.Compare)
	return q
}

// odd is the answers that a machine without a fault would not give.
func (q *question) odd() []Answered {
	return slices.DeleteFunc(slices.Clone(q.Answers), func(a Answered) bool {
		return a.Is == Unclear || len(looks[a.Check.Look].outcomes) == 0 || a.Is == looks[a.Check.Look].outcomes[0]
	})
}

func (q *question) signs() []Sign {
	var out []Sign
	for i := range q.differs {
		out = append(out, Sign{Reading: &q.differs[i]})
	}
	for _, a := range q.odd() {
		out = append(out, Sign{Answer: &a})
	}
	return out
}

// sums reports a line that several pieces have a share in.
func sums(id power.LineID) bool {
	switch id.Kind {
	case power.Total, power.Usable, power.Fitted, power.Rate, power.Message:
		return true
	}
	return id.Array != ""
}

// touches reports whether a change can alter what a line shows. It may say yes where it does
// not, never the other way.
func (c *Case) touches(x change, id power.LineID) bool {
	switch x.does {
	case says:
		return id.Kind == power.Message || power.Blind(x.value) || power.Systemless(x.value) && inSystem(id)
	case set, fitted:
		return id.Kind != power.Message
	case uses:
		return id.Kind == power.Usable
	case lift, move, halve, speaks:
		if p := c.partOf(x.at); p != nil && p.Module != nil && (id.Kind == power.Message || c.oneModule) {
			return true // without memory nothing starts
		}
		if sums(id) && id.Kind != power.Message || id.Socket.Within(x.at) || !x.to.IsZero() && id.Socket.Within(x.to) {
			return true
		}
		return c.ruled(x.at) || !x.to.IsZero() && (c.ruled(x.to) || c.sharesBays(x.at, id.Socket))
	}
	return id.Socket == x.at
}

// sharesBays reports two ports whose drives lie in bays: with a lead that is moved, others may find
// none.
func (c *Case) sharesBays(at, other rig.Path) bool {
	a, b := c.socket(at), c.socket(other)
	return a != nil && b != nil && a.Kind == machine.SATA && b.Kind == machine.SATA
}

// ruled reports a place on which a rule of the sheet hangs what happens elsewhere, or whose
// lanes others share.
func (c *Case) ruled(at rig.Path) bool {
	return slices.ContainsFunc(c.rig.Sheet.Rules, func(r machine.Rule) bool {
		return slices.ContainsFunc(r.When, func(w machine.Condition) bool { return w.Socket == at.Top() })
	})
}

// answered reports whether faults agree with all answers.
func (q *question) answered(faults []Fault) bool {
	for _, a := range q.Answers {
		if a.Is != Unclear && q.outcome(a.Check, faults) != a.Is {
			return false
		}
	}
	return true
}

func (q *question) agrees(s *shown) bool {
	for _, r := range q.differs {
		if !s.allows(r) {
			return false
		}
	}
	for _, r := range q.firm {
		if !s.allows(r) {
			return false
		}
	}
	return true
}

// effect is changes that several faults come to.
type effect struct {
	do      []change
	shown   *shown
	changes uint64 // of what differs: what it shows otherwise than a machine without a fault
	mask    uint64 // of what differs: what it explains
	alone   bool   // it agrees with all that was read
	mates   []mate
}

type mate struct {
	fault  Fault
	weight float64
}

// theories is the explanations that agree, the likeliest first.
func (q *question) theories() []theory {
	effects := q.effects()
	byFaults := map[[2]Fault]*theory{}
	add := func(e *effect, w float64, faults ...Fault) {
		if !q.answered(faults) {
			return
		}
		var k [2]Fault
		copy(k[:], faults)
		if t := byFaults[k]; t != nil {
			t.weight += w
			return
		}
		byFaults[k] = &theory{faults, e.do, e.shown, w}
	}
	for i := range effects {
		for _, m := range effects[i].mates {
			if effects[i].alone {
				add(&effects[i], m.weight, m.fault)
			}
		}
	}
	q.pairs(effects, add)
	out := make([]theory, 0, len(byFaults))
	for _, t := range byFaults {
		out = append(out, *t)
	}
	slices.SortFunc(out, func(a, b theory) int {
		return cmp.Or(cmp.Compare(b.weight, a.weight), len(a.faults)-len(b.faults), cmp.Compare(a.faults[0].String(), b.faults[0].String()), cmp.Compare(a.faults[len(a.faults)-1].String(), b.faults[len(b.faults)-1].String()))
	})
	return out
}

// effects is what faults that can have a part in it come to.
func (q *question) effects() []effect {
	var out []effect
	at := map[string]int{}
	for i := range q.all {
		s := &q.all[i]
		for _, v := range s.variants {
			if !q.mayExplain(v.do) {
				continue
			}
			k := key(v.do)
			n, ok := at[k]
			if !ok {
				n = len(out)
				at[k] = n
				e, useful := q.weigh(v.do)
				if !useful {
					at[k] = -1
					continue
				}
				out = append(out, e)
			} else if n < 0 {
				continue
			}
			out[n].mates = append(out[n].mates, mate{s.Fault, s.prior * v.share})
		}
	}
	return out
}

// mayExplain reports changes that touch something that differs; where nothing that was read
// does, and a check alone was odd, any may.
func (q *question) mayExplain(do []change) bool {
	if len(q.differs) == 0 {
		return true
	}
	for _, r := range q.differs {
		if slices.ContainsFunc(do, func(x change) bool { return q.touches(x, r.Line) }) {
			return true
		}
	}
	return false
}

// weigh finds what some changes explain; false is that they explain nothing, or contradict what
// no other fault could put right.
func (q *question) weigh(do []change) (effect, bool) {
	s := q.show(do)
	e := effect{do: do, shown: s}
	e.alone = q.agrees(s)
	for i, r := range q.differs[:min(len(q.differs), 64)] {
		if s.allows(r) {
			e.mask |= 1 << i
		}
		is, _, _ := s.foretells(r.Line)
		if was, _, _ := q.base.foretells(r.Line); is != was {
			e.changes |= 1 << i
		}
	}
	if e.alone {
		return e, true
	}
	for _, r := range q.firm {
		if !sums(r.Line) && !s.allows(r) {
			return e, false
		}
	}
	return e, e.mask|e.changes != 0
}

// pairs adds two faults that explain together what neither explains alone.
func (q *question) pairs(effects []effect, add func(*effect, float64, ...Fault)) {
	if len(q.differs) == 0 || len(q.differs) > 64 {
		return
	}
	every := uint64(1)<<len(q.differs) - 1
	for i := range effects {
		a := &effects[i]
		for k := i + 1; k < len(effects) && !a.alone; k++ {
			b := &effects[k]
			// Each must have a part in it, and what neither shows alone both must have a share in.
			if b.alone || a.mask|b.mask|a.changes&b.changes != every || (a.mask|a.changes)&^b.mask == 0 || (b.mask|b.changes)&^a.mask == 0 {
				continue
			}
			if !q.answers(a, b) {
				continue
			}
			both := effect{do: slices.Concat(a.do, b.do)}
			if both.shown = q.show(both.do); !q.agrees(both.shown) {
				continue
			}
			for _, x := range a.mates {
				for _, y := range b.mates {
					if x.fault != y.fault {
						add(&both, x.weight*y.weight*together, x.fault, y.fault)
					}
				}
			}
		}
	}
}

// answers reports whether any two faults of two effects agree with all answers.
func (q *question) answers(a, b *effect) bool {
	if len(q.Answers) == 0 {
		return true
	}
	for _, x := range a.mates {
		for _, y := range b.mates {
			if q.answered([]Fault{x.fault, y.fault}) {
				return true
			}
		}
	}
	return false
}

// explains is the signs that a theory accounts for.
func (q *question) explains(t theory) []Sign {
	var out []Sign
	for i := range q.differs {
		if slices.ContainsFunc(t.do, func(x change) bool { return q.touches(x, q.differs[i].Line) }) {
			out = append(out, Sign{Reading: &q.differs[i]})
		}
	}
	for _, a := range q.odd() {
		if q.outcome(a.Check, t.faults) == a.Is {
			out = append(out, Sign{Answer: &a})
		}
	}
	return out
}

// besides is what a theory would show that nobody read yet, and that a machine without it
// would not show.
func (q *question) besides(t theory) []Sign {
	var out []Sign
	for _, id := range q.unread {
		r, known, inSight := t.shown.foretells(id)
		if known && inSight && !q.base.allows(r) {
			out = append(out, Sign{Reading: &r})
		}
		if len(out) == 4 {
			break
		}
	}
	return out
}

// ruledOut is what the evidence rules out, of what could have had a part in it.
func (q *question) ruledOut(left []theory) []Out {
	var out []Out
	kept := map[Fault]bool{}
	for _, t := range left {
		for _, f := range t.faults {
			kept[f] = true
		}
	}
	order := slices.Clone(q.all)
	slices.SortStableFunc(order, func(a, b suspect) int { return cmp.Compare(b.prior, a.prior) })
	for i := range order {
		s := &order[i]
		if kept[s.Fault] || len(out) == mostOut {
			continue
		}
		if by, ok := q.against(s); ok {
			out = append(out, Out{s.Fault, by})
		}
	}
	return out
}

// partly reports changes that account for something that differs.
func (q *question) partly(do []change) bool {
	if !slices.ContainsFunc(q.differs, func(r power.Reading) bool {
		return slices.ContainsFunc(do, func(x change) bool { return q.touches(x, r.Line) })
	}) {
		return false
	}
	return slices.ContainsFunc(q.differs, q.show(do).allows)
}

// against is the first thing that contradicts a fault of which some change touches what differs.
func (q *question) against(s *suspect) (Sign, bool) {
	near := slices.ContainsFunc(s.variants, func(v variant) bool { return q.partly(v.do) })
	for i := range q.Answers {
		a := &q.Answers[i]
		_, about := s.kind.shows[a.Check.Look]
		if about && a.Is != Unclear && (a.Check.At.IsZero() || a.Check.At == s.At) && q.outcome(a.Check, []Fault{s.Fault}) != a.Is {
			return Sign{Answer: a}, true
		}
	}
	if !near {
		return Sign{}, false
	}
	for _, v := range s.variants {
		w := q.show(v.do)
		for _, list := range [][]power.Reading{q.firm, q.differs} {
			for i := range list {
				if !w.allows(list[i]) {
					return Sign{Reading: &list[i]}, true
				}
			}
		}
	}
	return Sign{}, false
}
