package plan

// This file says what no plan from here on stays below.

import (
	"math"
	"slices"

	"deepbay/internal/core/memory"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// kin groups pieces that go into the same sockets: together they need as many.
func (s *search) kinship() {
	for i := range s.choices {
		c := &s.choices[i]
		if len(c.options) > 0 && c.options[len(c.options)-1].socket.IsZero() {
			continue // it may also lie on the mat
		}
		g := slices.IndexFunc(s.kin, func(k []int) bool { return sameOptions(&s.choices[k[0]], c) })
		if g < 0 {
			s.kin = append(s.kin, nil)
			g = len(s.kin) - 1
		}
		s.kin[g] = append(s.kin[g], i)
	}
	s.kin = slices.DeleteFunc(s.kin, func(k []int) bool { return len(k) < 2 })
}

// wanting counts, for pieces that need the same sockets, the further settings that
// must change so that there are enough of them; false when there never are.
func (s *search) wanting(kin []int) (int64, bool) {
	need := 0
	for _, i := range kin {
		if s.choices[i].now < 0 {
			need++
		}
	}
	if need == 0 {
		return 0, true
	}
	open, closed, costly := 0, 0, 0
	clear(s.opens)
	var last rig.Path
	for n := range s.choices[kin[0]].options {
		o := &s.choices[kin[0]].options[n]
		if _, taken := s.taken[o.socket]; taken || o.socket == last {
			continue
		}
		if o.holder >= 0 {
			if h := &s.choices[o.holder]; h.now >= 0 && h.options[h.now].socket != o.on {
				continue
			}
		}
		last = o.socket
		if s.overloads(kin, n) {
			costly++
			continue
		}
		unmet := false
		for _, j := range o.must {
			if s.must[j] == 0 {
				s.opens[j]++
				unmet = true
			}
		}
		if unmet {
			closed++
		} else {
			open++
		}
	}
	switch {
	case need <= open:
		return 0, true
	case need > open+closed+costly:
		return 0, false
	case need > open+closed:
		return 0, true
	}
	most := slices.Max(s.opens)
	return int64((need - open + most - 1) / most), true
}

// overloads reports that any of these pieces in their n-th place would be held back
// by the uplink there: worse by the rates, which count more than settings. Who asks
// how many settings a good plan needs leaves such places out.
func (s *search) overloads(kin []int, n int) bool {
	r := s.choices[kin[0]].options[n].behind
	if r < 0 || s.uplinks[r] == 0 || !s.ratesFirst {
		return false
	}
	least := int64(math.MaxInt64)
	for _, i := range kin {
		if c := &s.choices[i]; c.now < 0 {
			least = min(least, whole(c.options[n].rate))
		}
	}
	before := s.load(r)
	return least > 0 && before+least > s.uplinks[r]
}

// load is what passes an uplink so far, with all that will pass it wherever it goes.
// Whole MB/s, as scores count them: fractions added up would make the bound too high.
func (s *search) load(r int) int64 {
	sum := s.passing[r]
	for i := range s.choices {
		if c := &s.choices[i]; c.now < 0 && c.surely == r {
			sum += whole(c.rate)
		}
	}
	return sum
}

// lower is what no plan that goes on from here stays below; false when none does.
func (s *search) lower() (Score, bool) {
	var out Score
	system, slowest, members := 0.0, math.Inf(1), int64(0)
	for i := range s.choices {
		c := &s.choices[i]
		bound, rate := &c.best, c.rate
		if c.now >= 0 {
			bound, rate = &c.options[c.now].bound, c.options[c.now].rate
		}
		out = out.plus(*bound)
		if c.system {
			system = max(system, rate)
		}
		if c.scratch {
			out[Roles] -= whole(rate)
		}
		if c.array {
			slowest = min(slowest, rate)
			members++
		}
	}
	out[System] = -whole(system)
	if members > 0 {
		out[Roles] -= members * whole(slowest)
	}
	for r := range s.passing { // together they move no more than the uplink carries
		if over := s.load(r) - s.uplinks[r]; s.uplinks[r] > 0 && over > 0 {
			out[Rates] += over
		}
	}
	for _, n := range s.must {
		out[Settings] += int64(min(1, n))
	}
	more := int64(0)
	for _, kin := range s.kin {
		n, enough := s.wanting(kin)
		if !enough {
			return out, false
		}
		more = max(more, n)
	}
	out[Settings] += more
	if s.half.memory {
		out[Memory] = -4 * whole(s.peak())
	}
	return out, true
}

// peak is the most that memory can come to: every channel filled that can be, at
// the rate of the slowest module that is surely in.
func (s *search) peak() float64 {
	slowest, count := quantity.MTps(0), 0
	for i := range s.choices {
		c := &s.choices[i]
		m := c.piece.Part.Module
		if m == nil || c.now >= 0 && c.options[c.now].socket.IsZero() {
			continue
		}
		count++
		surely := c.now >= 0 || len(c.options) > 0 && !c.options[len(c.options)-1].socket.IsZero()
		rate := max(m.RateMTps, m.ProfileMTps)
		if surely && rate.Known() && (slowest == 0 || rate < slowest) {
			slowest = rate
		}
	}
	if slowest == 0 {
		for i := range s.choices {
			if m := s.choices[i].piece.Part.Module; m != nil {
				slowest = max(slowest, m.RateMTps, m.ProfileMTps)
			}
		}
	}
	return memory.Effective([]memory.Region{{Bytes: quantity.GiB, Ways: min(count, s.channels)}}, slowest).MBps()
}

// hopeless reports that nothing from here on is worth the way.
func (s *search) hopeless(bound *Score) bool {
	if s.best == nil {
		return false
	}
	c := compare(s.order, bound, s.best)
	return c > 0 || c == 0 && !s.ordered
}
