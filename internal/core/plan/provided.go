package plan

// This file says on what a plan hangs: the shortest list of things to look at, and how
// they must turn out for the plan to be sure, and better than one that is.

import (
	"cmp"
	"slices"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/rig"
)

// mostAsked is how many facts are tried out; what hangs on more is named without.
const mostAsked = 12

// provided lists what a plan hangs on, the cheapest to look at first, each with an
// answer: with all of them, told together, the plan is sure and better than the other,
// which may be nil. No one of them can be left out; a shorter list of others there may
// be. Answers are empty where none were found under which it is so.
func (in *Input) provided(p, other *Plan) []rig.Learned {
	facts := in.hangs(p, other)
	if len(facts) <= mostAsked {
		t := outlook{in, p, other}
		if told := t.answers(facts); t.holds(told) {
			for i := len(told) - 1; i >= 0; i-- {
				if less := slices.Delete(slices.Clone(told), i, i+1); t.holds(less) {
					told = less
				}
			}
			return told
		}
	}
	out := make([]rig.Learned, len(facts))
	for i, f := range facts {
		out[i].Fact = f
	}
	return out
}

// outlook is a plan with what may be learnt.
type outlook struct {
	in       *Input
	p, other *Plan
}

// learnt is the question as it is with some answers.
func (t *outlook) learnt(told []rig.Learned) *Input {
	in := *t.in
	in.Found = in.Found.Learn(told)
	pieces := rig.Rig{Sheet: t.in.Found.Sheet, Pieces: t.in.Pieces}
	pieces = pieces.Learn(told)
	in.Pieces = pieces.Pieces
	return &in
}

// turnsOut is what a plan comes to with some answers.
type turnsOut struct {
	sure, may   bool
	told, hoped Score
}

func (t *outlook) turn(told []rig.Learned, p *Plan) turnsOut {
	in := t.learnt(told)
	s := newScorer(in, in.whole())
	var out turnsOut
	out.told, out.sure = s.score(p.Placements, p.Choices, asTold)
	out.hoped, out.may = s.score(p.Placements, p.Choices, atBest)
	return out
}

// better orders ways to turn out: sure before possible, then by what they come to.
func (t *outlook) better(a, b turnsOut) bool {
	switch {
	case a.sure != b.sure:
		return a.sure
	case a.may != b.may:
		return a.may
	case compare(t.in.Order, &a.told, &b.told) != 0:
		return compare(t.in.Order, &a.told, &b.told) < 0
	}
	return compare(t.in.Order, &a.hoped, &b.hoped) < 0
}

// holds reports that with some answers the plan is sure, and better than the other.
func (t *outlook) holds(told []rig.Learned) bool {
	mine := t.turn(told, t.p)
	if !mine.sure || t.other == nil {
		return mine.sure
	}
	other := t.turn(told, t.other)
	return !other.sure || compare(t.in.Order, &mine.told, &other.told) < 0
}

// answers gives each fact the answer with which the plan is best.
func (t *outlook) answers(facts []rig.Fact) []rig.Learned {
	var told []rig.Learned
	for _, f := range facts {
		ask, ok := t.in.Found.HowToAsk(f)
		if !ok {
			b := t.in.rig(t.p.Placements, t.p.Choices)
			if ask, ok = b.HowToAsk(f); !ok {
				continue
			}
		}
		var best turnsOut
		chosen := ""
		for _, is := range candidates(ask) {
			if now := t.turn(append(told, rig.Learned{Fact: f, Is: is}), t.p); chosen == "" || t.better(now, best) {
				best, chosen = now, is
			}
		}
		if chosen != "" {
			told = append(told, rig.Learned{Fact: f, Is: chosen})
		}
	}
	return told
}

// candidates are the answers that are tried: every option, or a small and a large number.
func candidates(a rig.Ask) []string {
	switch {
	case a.Kind == rig.AskSize:
		return []string{"1 GB", "16 GiB", "64 GiB", "2 TB"}
	case a.Unit == rig.InMillimetres:
		return []string{"0.1", "1000"}
	case a.Unit == rig.InMTps:
		return []string{"20000", "3200"}
	case a.Kind == rig.AskNumber:
		return []string{"1", "2", "4"}
	}
	out := make([]string, len(a.Options))
	for i, o := range a.Options {
		out[i] = o.Value
	}
	return out
}

// whole is a question undivided.
func (in *Input) whole() half {
	h := half{io: true, memory: true, pieces: in.Pieces}
	for i := range in.Found.Sheet.Settings {
		if s := &in.Found.Sheet.Settings[i]; in.asks(s) {
			h.settings = append(h.settings, s)
		}
	}
	return h
}

// hangs lists what a plan hangs on and another does not: the facts that its findings
// miss, the cheapest to look at first.
func (in *Input) hangs(p, other *Plan) []rig.Fact {
	var neither []rig.Fact // what both hang on
	if other != nil {
		neither = in.missing(other, false)
	}
	out := slices.DeleteFunc(in.missing(p, other == nil), func(f rig.Fact) bool { return slices.Contains(neither, f) })
	slices.SortStableFunc(out, func(a, b rig.Fact) int { return cmp.Compare(trouble(a), trouble(b)) })
	return out
}

// missing is the facts that would settle a plan's findings, or only those that decide
// whether it can be carried out.
func (in *Input) missing(p *Plan, deciding bool) []rig.Fact {
	b := in.rig(p.Placements, p.Choices)
	a := fit.Resolve(&b)
	var out []rig.Fact
	for i := range a.Findings {
		f := &a.Findings[i]
		switch w := fit.Rules[fit.RuleOf(f.Code)].Weighs; {
		case w == fit.WeighsNothing, deciding && w >= fit.WeighsSlots:
			continue
		}
		out = rig.With(out, f.Missing...)
	}
	return out
}

// trouble is how much work it is to look at something: a label in the hand, a screen,
// a page of the manual, the machine opened.
func trouble(f rig.Fact) int {
	switch {
	case f.Item != "" && f.Attr != rig.RoomForCard:
		return 0
	case f.Setting != "":
		return 1
	case f.Attr == rig.HoldsNow || f.Attr == rig.RoomForCard:
		return 3
	}
	return 2
}
