package fit_test

import (
	"math/rand"
	"reflect"
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/coretest"
)

// Judge says without words what Resolve says with them, on random machines.
func TestJudge(t *testing.T) {
	for seed := range int64(600) {
		b := coretest.Machine(rand.New(rand.NewSource(seed)))
		r, v := fit.Resolve(&b), fit.Judge(&b)
		found := make([]int, len(fit.Checks))
		stops := 0
		for _, f := range r.Findings {
			for i := range fit.Checks {
				if fit.Checks[i].Code == f.Code {
					found[i]++
				}
			}
			if f.Severity == fit.Stops {
				stops++
			}
		}
		if !reflect.DeepEqual(found, v.Found) || stops != v.Stops {
			t.Fatalf("seed %d: %d stop and %v found, want %d and %v", seed, v.Stops, v.Found, stops, found)
		}
		for i, s := range r.Sockets {
			o := v.Sockets[i]
			link := s.Link
			if s.Item == "" {
				link = nil // what a free socket offers is words
			}
			if o.Socket != s.Socket || o.State != s.State || o.Item != s.Item || !reflect.DeepEqual(o.Link, link) {
				t.Fatalf("seed %d: %+v, want %+v", seed, o, s)
			}
		}
		for i, f := range r.Flows {
			f.Says = ""
			if v.Flows[i] != f {
				t.Fatalf("seed %d: %+v, want %+v", seed, v.Flows[i], f)
			}
		}
		if m := v.Memory; m.TotalBytes != r.Memory.TotalBytes || m.MTps != r.Memory.MTps || m.PeakMBps != r.Memory.PeakMBps || !reflect.DeepEqual(m.Channels, r.Memory.Channels) {
			t.Fatalf("seed %d: memory %+v, want %+v", seed, m, r.Memory)
		}
	}
}

// BenchmarkJudge is the planner's step, beside Resolve on the same fit.
func BenchmarkJudge(b *testing.B) {
	bld := fullWorkstation(b)
	b.ReportAllocs()
	for b.Loop() {
		fit.Judge(&bld)
	}
}
