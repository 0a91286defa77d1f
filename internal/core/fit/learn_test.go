package fit

import (
	"math/rand"
	"reflect"
	"slices"
	"testing"

	"deepbay/internal/core/rig"
	"deepbay/internal/coretest"
)

// answers are some that a fact can have.
func answers(a rig.Ask) []string {
	switch a.Kind {
	case rig.AskNumber:
		switch a.Unit {
		case rig.InMTps:
			return []string{"2133", "5600"}
		case rig.InOpenings, rig.InRanks:
			return []string{"1", "2"}
		}
		return []string{"2.5", "300"}
	case rig.AskSize:
		return []string{"8 GiB", "500 GB"}
	}
	out := []string{}
	for _, o := range a.Options {
		out = append(out, o.Value)
	}
	if a.Kind == rig.AskSeveral && len(out) > 1 {
		out = append(out, out[0]+" "+out[1])
	}
	return out
}

// missed is every fact that some finding misses.
func missed(a *Answer) []rig.Fact {
	var out []rig.Fact
	for i := range a.Findings {
		out = rig.With(out, a.Findings[i].Missing...)
	}
	return out
}

// faults counts what makes sheet and parts contradict themselves.
func faults(r *rig.Rig) int {
	n := len(r.Sheet.Validate())
	for i := range r.Pieces {
		n += len(r.Pieces[i].Part.Validate())
	}
	return n
}

// TestWhatIsMissingCanBeAnswered takes facts away from random machines: whatever is then
// missing can be asked for, every answer is taken, is no longer missing, and only
// narrows; what is known stays as it was.
func TestWhatIsMissingCanBeAnswered(t *testing.T) {
	asked := map[rig.Attr]int{}
	for seed := range int64(*narrowed) {
		rng := rand.New(rand.NewSource(seed))
		b := coretest.Machine(rng)
		less := coretest.Copy(&b)
		for range 4 {
			if all := coretest.Removable(less); len(all) > 0 {
				all[rng.Intn(len(all))].Value.SetZero()
			}
		}
		before, was := Resolve(less), settle(less, allRules)
		for _, f := range missed(&before) {
			ask, ok := less.HowToAsk(f)
			if !ok || len(answers(ask)) == 0 {
				t.Fatalf("seed %d: %+v is missing and cannot be asked for", seed, f)
			}
			asked[f.Attr]++
			for _, is := range answers(ask) {
				learnt := less.Learn([]rig.Learned{{Fact: f, Is: is}})
				if !less.CanBe(rig.Learned{Fact: f, Is: is}) || !slices.Contains(learnt.Looked, f) || len(learnt.Against) > 0 {
					t.Fatalf("seed %d: %q is not taken as an answer to %+v, or as one against %+v", seed, is, f, learnt.Against)
				}
				if faults(&learnt) > faults(less) {
					continue // a job refuses such an answer
				}
				after := Resolve(&learnt)
				if slices.Contains(missed(&after), f) {
					t.Errorf("seed %d: %+v is %q, and still missing", seed, f, is)
				}
				if f.Attr == rig.HasSink && f.Item != "" {
					continue // until a heatsink is told of, a card is bare, as usual: see exempt
				}
				if says := widened(settle(&learnt, allRules), was); says != "" {
					t.Errorf("seed %d: with %+v as %q: %s", seed, f, is, says)
				}
			}
		}
		if now := Resolve(less); !reflect.DeepEqual(now, before) {
			t.Fatalf("seed %d: what was learnt in a copy changed the machine", seed)
		}
	}
	t.Logf("asked for: %v", asked)
	if len(asked) < 12 {
		t.Errorf("only %d sorts of facts were missing", len(asked))
	}
}
