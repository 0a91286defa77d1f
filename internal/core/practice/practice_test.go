package practice_test

import (
	"testing"

	"deepbay/internal/core/practice"
)

// Every question has schools of its own, the default first; what was not chosen, and what answers
// another question, is as usual.
func TestPractice(t *testing.T) {
	seen := map[practice.School]practice.Matter{}
	for _, r := range practice.Rows() {
		if len(r.Schools) < 2 {
			t.Errorf("%s is no question: %v", r.Matter, r.Schools)
		}
		for _, s := range r.Schools {
			if seen[s] != "" {
				t.Errorf("%s answers %s and %s", s, seen[s], r.Matter)
			}
			seen[s] = r.Matter
			p := practice.Practice{{Matter: r.Matter, School: s}}
			if p.Of(r.Matter) != s || p.Fault() >= 0 || p.Same(nil) != (s == r.Schools[0]) {
				t.Errorf("%v: %s, fault %d", p, p.Of(r.Matter), p.Fault())
			}
		}
	}
	for _, p := range []practice.Practice{
		{{Matter: practice.Earth, School: practice.Cups}},
		{{Matter: practice.Screws, School: practice.Cups}, {Matter: practice.Screws, School: practice.Cups}},
	} {
		if p.Fault() != len(p)-1 {
			t.Errorf("%v passes", p)
		}
	}
	if p := (practice.Practice{{Matter: practice.Earth, School: practice.Cups}}); p.Of(practice.Earth) != practice.Strap {
		t.Error("an answer to another question counts")
	}
}
