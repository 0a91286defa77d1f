package fit_test

import (
	"math/rand"
	"reflect"
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest"
	"deepbay/internal/coretest/jobs"
)

// Judge comes to what Resolve tells, on random machines.
func TestJudge(t *testing.T) {
	for seed := range int64(600) {
		b := coretest.Machine(rand.New(rand.NewSource(seed)))
		r, v := fit.Resolve(&b), fit.Judge(&b)
		found := make([]int, len(fit.Rules))
		for _, f := range r.Findings {
			found[fit.RuleOf(f.Code)] += 1 + len(f.Also)
		}
		if !reflect.DeepEqual(found, v.Found) {
			t.Fatalf("seed %d: %v found, want %v", seed, v.Found, found)
		}
		for i, s := range r.Sockets {
			o := v.Sockets[i]
			link := s.Link
			if s.Item == "" {
				link = nil // what a free socket offers is told only
			}
			if o.Socket != s.Socket || o.State != s.State || o.Item != s.Item || !reflect.DeepEqual(o.Link, link) {
				t.Fatalf("seed %d: %+v, want %+v", seed, o, s)
			}
		}
		if !reflect.DeepEqual(v.Flows, r.Flows) {
			t.Fatalf("seed %d: %+v, want %+v", seed, v.Flows, r.Flows)
		}
		m := r.Memory
		m.Because = nil
		if !reflect.DeepEqual(v.Memory, m) {
			t.Fatalf("seed %d: memory %+v, want %+v", seed, v.Memory, m)
		}
	}
}

// BenchmarkJudge is the planner's step, beside Resolve on the same fit.
func BenchmarkJudge(b *testing.B) {
	bld := jobs.Full(b)
	b.ReportAllocs()
	for b.Loop() {
		fit.Judge(&bld)
	}
}

// A module that is said to hold the others back does: with it taken out they run as fast
// as was said.
func TestSlowestModule(t *testing.T) {
	n := 0
	for seed := range int64(3000) {
		b := coretest.Machine(rand.New(rand.NewSource(seed)))
		a := fit.Resolve(&b)
		for _, f := range a.Findings {
			if f.Code != "memory-slowest" {
				continue
			}
			n++
			after, _, err := b.Moved([]rig.Move{{Item: f.Says.Args[0].(rig.ItemID)}})
			if err != nil {
				t.Fatal(err)
			}
			without := b
			without.Setup = after
			if now := fit.Resolve(&without).Memory.MTps; now != f.Says.Args[2] {
				t.Errorf("seed %d: %v without, %v was said", seed, now, f.Says.Args[2])
			}
		}
	}
	if n < 20 {
		t.Errorf("only %d modules held others back", n)
	}
}
