package fit

// This file makes findings of what the rules found: one cause, one finding.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/rig"
)

// findings tells all troubles, in the order they were found.
func (r *resolver) findings() []Finding {
	var out []Finding
	for i := 0; i < len(r.troubles); i++ {
		t := &r.troubles[i]
		if t.idle() {
			continue
		}
		rule := &Rules[t.rule]
		var told telling
		f := Finding{Code: rule.Code, Severity: rule.Severity}
		switch {
		case rule.whole != nil:
			told = rule.say(r, t)
		case t.truth == known.Unknown:
			if n := len(out); n > 0 && out[n-1].Code == Rules[fitUnknown].Code && out[n-1].Socket == t.s.path {
				continue // said together with what else is not known there
			}
			f.Code, f.Severity = Rules[fitUnknown].Code, Rules[fitUnknown].Severity
			told = telling{says: fact.Of(FitUnknown, t.s.piece.ID, t.s.path), missing: r.missing(t.s), advice: []fact.Fact{fact.Of(LookItUp)}}
		default:
			l := look{resolver: r, s: t.s, notes: true}
			rule.holds(&l)
			told = rule.tell(&l)
		}
		f.Says, f.Because, f.Missing, f.Advice = told.says, told.because, told.missing, told.advice
		at := r.spot(t)
		f.Socket, f.Item = at.Socket, at.Item
		out = append(out, f)
	}
	return out
}

// missing is the facts that would tell whether the part in s works there: those that
// the rules which do not know ask for themselves.
func (r *resolver) missing(s *sock) []rig.Fact {
	l := look{resolver: r, s: s, notes: true}
	for i := range r.troubles {
		if t := &r.troubles[i]; t.s == s && t.truth == known.Unknown && Rules[t.rule].holds != nil {
			Rules[t.rule].holds(&l)
		}
	}
	var out []rig.Fact
	for _, f := range l.missed {
		if !slices.Contains(out, f) {
			out = append(out, f)
		}
	}
	return out
}
