package fit

import (
	"deepbay/internal/core/known"
	"deepbay/internal/core/rig"
)

// Truths is what one rule answers in a rig, place by place; a rule about the whole answers
// once. A rule that finds nothing wrong answers yes.
func Truths(b *rig.Rig, code Code) []known.Truth {
	r := settle(b, allRules)
	rule := &Rules[RuleOf(code)]
	var out []known.Truth
	switch {
	case rule.holds != nil:
		for i := range r.sockets {
			if s := &r.sockets[i]; s.piece != nil && rule.of&s.kind != 0 {
				l := look{resolver: r, s: s}
				out = append(out, rule.holds(&l))
			}
		}
	case rule.whole != nil:
		rule.whole(r, func(t trouble) { out = append(out, t.truth) })
		if out == nil {
			out = append(out, known.Yes)
		}
	}
	return out
}
