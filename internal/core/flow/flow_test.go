package flow

import (
	"math"
	"math/rand"
	"testing"

	"deepbay/internal/core/quantity"
)

func TestShares(t *testing.T) {
	one := func(demands ...float64) (out []Flow) {
		for _, d := range demands {
			out = append(out, Flow{quantity.MBps(d), []int{0}})
		}
		return out
	}
	for _, c := range []struct {
		name     string
		capacity []float64
		flows    []Flow
		want     []float64
		held     []int
	}{
		{"drive, SATA and network", []float64{3500}, one(3500, 550, 295), []float64{2655, 550, 295}, []int{0, Free, Free}},
		{"two drives", []float64{3500}, one(3500, 3500), []float64{1750, 1750}, []int{0, 0}},
		{"four of four kinds", []float64{3500}, one(3500, 3500, 550, 1180), []float64{983.33, 983.33, 550, 983.33}, []int{0, 0, Free, 0}},
		{"room for all", []float64{3500}, one(1000, 550), []float64{1000, 550}, []int{Free, Free}},
		{"a link that is not known holds nobody", []float64{0}, one(3500, 3500), []float64{3500, 3500}, []int{Free, Free}},
		{"two links: one behind both, one behind the second", []float64{100, 30},
			[]Flow{{quantity.MBps(90), []int{0}}, {quantity.MBps(90), []int{0, 1}}, {quantity.MBps(90), []int{0, 1}}}, []float64{70, 15, 15}, []int{0, 1, 1}},
		{"nothing asked", []float64{100}, one(0, 50), []float64{0, 50}, []int{Free, Free}},
		{"nobody", []float64{100}, nil, nil, nil},
	} {
		capacity := make([]quantity.Rate, len(c.capacity))
		for i, x := range c.capacity {
			capacity[i] = quantity.MBps(x)
		}
		got := Shares(capacity, c.flows)
		for i, s := range got {
			if math.Abs(s.Rate.MBps()-c.want[i]) > 0.01 || s.Held != c.held[i] {
				t.Errorf("%s: flow %d gets %.2f held by %d, want %.2f by %d", c.name, i, s.Rate.MBps(), s.Held, c.want[i], c.held[i])
			}
		}
	}
}

// On random trees: no flow above its demand, no link above its capacity, and no
// flow can be given more but from one that has as much or less: each that is held
// passes a full link on which nobody has more than it.
func TestFair(t *testing.T) {
	const seed = 233
	rng := rand.New(rand.NewSource(seed))
	for round := range 500 {
		capacity := make([]quantity.Rate, 1+rng.Intn(6))
		for i := range capacity {
			capacity[i] = quantity.Rate(1 + rng.Intn(1000))
		}
		flows := make([]Flow, 1+rng.Intn(12))
		for i := range flows {
			flows[i] = Flow{Demand: quantity.Rate(1 + rng.Intn(600)), Links: rng.Perm(len(capacity))[:1+rng.Intn(len(capacity))]}
		}
		got := Shares(capacity, flows)
		load := make([]quantity.Rate, len(capacity))
		most := make([]quantity.Rate, len(capacity))
		for i, f := range flows {
			for _, l := range f.Links {
				load[l] += got[i].Rate
				most[l] = max(most[l], got[i].Rate)
			}
		}
		for i, f := range flows {
			if got[i].Rate > f.Demand+0.01 {
				t.Fatalf("seed %d, round %d: flow %d has %v of %v", seed, round, i, got[i].Rate, f.Demand)
			}
			if h := got[i].Held; h == Free && got[i].Rate < f.Demand-0.01 || h != Free && (load[h] < capacity[h]-0.01 || got[i].Rate < most[h]-0.01) {
				t.Fatalf("seed %d, round %d: flow %d has %v, held by %d, and could have more", seed, round, i, got[i].Rate, h)
			}
		}
		for l := range capacity {
			if load[l] > capacity[l]+0.01 {
				t.Fatalf("seed %d, round %d: link %d carries %v of %v", seed, round, l, load[l], capacity[l])
			}
		}
	}
}
