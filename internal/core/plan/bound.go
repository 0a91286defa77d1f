package plan

// This file says what no plan from here on stays below.

import (
	"cmp"
	"math"
	"slices"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/quantity"
)

// kin is pieces that go into the same places: together they need as many.
type kin struct {
	members []int
	places  []place  // the fastest first
	uneven  []uneven // criteria besides the rates in which places differ

	// At a moment of the search, of the members without a place:
	need     int
	best     int64 // what they move together, each in its best place
	together int64 // in as many places of those left, the fastest
	slowest  int64 // of these
}

// uneven is a criterion in which some places cost more than others.
type uneven struct {
	of    Criterion
	least int64 // in the best place
	order []int // the places, the best first
	costs []int64
}

// moves is the most that members without a place can move together, whole MB/s.
func (k *kin) moves() int64 { return min(k.best, k.together) }

// place is a socket for kin, on whichever holders bring it: the options of the first
// member that are it, and the most that any member moves there alone, whole MB/s.
type place struct {
	options []int
	rate    int64
}

func (s *search) kinship() {
	for i := range s.choices {
		c := &s.choices[i]
		if len(c.options) > 0 && c.options[len(c.options)-1].socket.IsZero() {
			continue // it may also lie on the mat
		}
		g := slices.IndexFunc(s.kin, func(k kin) bool { return sameOptions(&s.choices[k.members[0]], c) })
		if g < 0 {
			s.kin = append(s.kin, kin{})
			g = len(s.kin) - 1
		}
		s.kin[g].members = append(s.kin[g].members, i)
	}
	s.kin = slices.DeleteFunc(s.kin, func(k kin) bool { return len(k.members) < 2 })
	for g := range s.kin {
		k := &s.kin[g]
		first := &s.choices[k.members[0]]
		for n := range first.options { // those of one socket stand together
			if n == 0 || first.options[n].socket != first.options[n-1].socket {
				k.places = append(k.places, place{})
			}
			p := &k.places[len(k.places)-1]
			p.options = append(p.options, n)
			for _, i := range k.members {
				p.rate = max(p.rate, whole(s.choices[i].options[n].rate))
			}
		}
		slices.SortStableFunc(k.places, func(a, b place) int { return cmp.Compare(b.rate, a.rate) })
		for _, i := range k.members {
			s.choices[i].related = true
		}
		for c := range criteria {
			if c != Rates && c != System && c != Roles {
				s.unevenIn(k, c)
			}
		}
	}
}

// unevenIn notes a criterion in which not all places cost kin the same.
func (s *search) unevenIn(k *kin, c Criterion) {
	u := uneven{of: c, least: math.MaxInt64}
	for n := range k.places {
		cost := int64(math.MaxInt64)
		for _, i := range k.members {
			for _, o := range k.places[n].options {
				cost = min(cost, s.choices[i].options[o].bound[c])
			}
		}
		u.least = min(u.least, cost)
		u.costs, u.order = append(u.costs, cost), append(u.order, n)
	}
	for _, i := range k.members {
		if s.choices[i].best[c] != u.least {
			return // members differ, and what each counts for itself is all that is known
		}
	}
	slices.SortStableFunc(u.order, func(a, b int) int { return cmp.Compare(u.costs[a], u.costs[b]) })
	if len(u.order) > 0 && u.costs[u.order[len(u.order)-1]] > u.least {
		k.uneven = append(k.uneven, u)
	}
}

// more is what members without a place cost by a criterion, beyond each in its best
// place: the cheap places may be too few.
func (s *search) more(k *kin, u *uneven) int64 {
	sum, left := int64(0), k.need
	for _, n := range u.order {
		if left == 0 {
			break
		}
		if s.available(k, &k.places[n]) {
			sum += u.costs[n] - u.least
			left--
		}
	}
	return sum
}

// take counts the places left for kin by their rate: members that must share fewer
// fast places than there are of them move less. False where there are too few places.
func (s *search) take(k *kin) bool {
	k.need, k.best, k.together, k.slowest = 0, 0, 0, 0
	for _, i := range k.members {
		if c := &s.choices[i]; c.now < 0 {
			k.need++
			k.best += whole(c.rate)
		}
	}
	left := k.need
	for n := 0; n < len(k.places) && left > 0; n++ {
		if p := &k.places[n]; s.available(k, p) {
			left--
			k.together += p.rate
			k.slowest = p.rate
		}
	}
	return left == 0
}

// settings counts the further settings that must change so that there are places
// enough: one for each that is closed, or for several at once. Who takes a place that
// is slower than it must be, or one whose uplink is full, is behind by the rates
// already: where those count more than settings, and all criteria are looked at
// together (not so for a floor), such places do not save one.
func (s *search) wanting(k *kin, floor bool) int64 {
	open, closed := 0, 0
	clear(s.opens)
	for n := range k.places {
		p := &k.places[n]
		switch {
		case !s.available(k, p), s.ratesFirst && !floor && s.behind(k, p):
		case s.unmet(k, p):
			closed++
		default:
			open++
		}
	}
	if k.need <= open || k.need > open+closed {
		return 0
	}
	most := slices.Max(s.opens)
	return int64((k.need - open + most - 1) / most)
}

// behind reports a place with which no plan moves as much as the bound says. Where an
// uplink that all must pass holds them back, a slower place may lose nothing.
func (s *search) behind(k *kin, p *place) bool {
	if r := s.choices[k.members[0]].surely; r >= 0 && s.uplinks[r] > 0 && s.loads[r] > s.uplinks[r] {
		return false
	}
	return k.together <= k.best && p.rate < k.slowest || k.together >= k.best && s.slower(k, p) || s.overloads(k, p)
}

// reachable reports an option that is free and whose holder is there or still to come.
func (s *search) reachable(o *option) bool {
	if s.taken[o.seat] {
		return false
	}
	if o.holder < 0 {
		return true
	}
	h := &s.choices[o.holder]
	return h.now < 0 || h.options[h.now].socket == o.on
}

func (s *search) available(k *kin, p *place) bool {
	first := &s.choices[k.members[0]]
	for _, n := range p.options {
		if s.reachable(&first.options[n]) {
			return true
		}
	}
	return false
}

// unmet reports a place that needs a setting changed which no placed piece needs
// changed, and counts it for each such setting.
func (s *search) unmet(k *kin, p *place) bool {
	first := &s.choices[k.members[0]]
	for _, n := range p.options {
		o := &first.options[n]
		if s.reachable(o) && !slices.ContainsFunc(o.must, func(j int) bool { return s.must[j] == 0 }) {
			return false
		}
	}
	clear(s.counted)
	for _, n := range p.options {
		for _, j := range first.options[n].must {
			if s.must[j] == 0 && !s.counted[j] {
				s.counted[j] = true
				s.opens[j]++
			}
		}
	}
	return true
}

// slower reports a place in which every member still without one moves less than it
// could elsewhere.
func (s *search) slower(k *kin, p *place) bool {
	for _, i := range k.members {
		c := &s.choices[i]
		if c.now >= 0 {
			continue
		}
		for _, n := range p.options {
			if whole(c.options[n].rate) >= whole(c.rate) {
				return false
			}
		}
	}
	return true
}

// overloads reports that any of these pieces in a place would be held back by the
// uplink there. A piece that passes that uplink wherever it goes is counted with it
// already.
func (s *search) overloads(k *kin, p *place) bool {
	n := p.options[0]
	r := s.choices[k.members[0]].options[n].behind
	if r < 0 || s.uplinks[r] == 0 || s.choices[k.members[0]].surely == r {
		return false
	}
	least := int64(math.MaxInt64)
	for _, i := range k.members {
		if c := &s.choices[i]; c.now < 0 {
			for _, n := range p.options {
				least = min(least, whole(c.options[n].rate))
			}
		}
	}
	return least > 0 && s.loads[r]+least > s.uplinks[r]
}

// lower is what no plan that goes on from here stays below, all criteria taken
// together in their order; false when none goes on. Asked for a floor, it is what none
// stays below in any single criterion.
func (s *search) lower(floor bool) (Score, bool) {
	var out Score
	copy(s.loads, s.passing)
	system, slowest, members := 0.0, math.Inf(1), int64(0)
	for i := range s.choices {
		c := &s.choices[i]
		bound, rate := &c.best, c.rate
		if c.now >= 0 {
			bound, rate = &c.options[c.now].bound, c.options[c.now].rate
		}
		out = out.plus(*bound)
		if c.now < 0 && c.surely >= 0 && !c.related {
			s.loads[c.surely] += whole(rate)
		}
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
	out[Opened] += s.vacated()
	out[Layers] = s.uncovers(floor)
	out[System] = -whole(system)
	if members > 0 {
		out[Roles] -= members * whole(slowest)
	}
	for g := range s.kin {
		k := &s.kin[g]
		if !s.take(k) {
			return out, false
		}
		out[Rates] += k.best - k.moves()
		for n := range k.uneven {
			out[k.uneven[n].of] += s.more(k, &k.uneven[n])
		}
		if r := s.choices[k.members[0]].surely; r >= 0 {
			s.loads[r] += k.moves()
		}
	}
	for r, load := range s.loads { // together they move no more than the uplink carries
		if over := load - s.uplinks[r]; s.uplinks[r] > 0 && over > 0 {
			out[Rates] += over
		}
	}
	for _, n := range s.must {
		out[Settings] += int64(min(1, n))
	}
	more := int64(0)
	for g := range s.kin {
		more = max(more, s.wanting(&s.kin[g], floor))
	}
	out[Settings] += more
	if s.half.memory {
		out[Memory] = -4 * whole(s.peak())
	}
	return out, true
}

// vacated counts the places inside that pieces have left and nobody still to come can
// take: they are touched all the same.
func (s *search) vacated() int64 {
	n := int64(0)
	for i := range s.choices {
		c := &s.choices[i]
		if c.now < 0 || c.home.IsZero() || c.options[c.now].socket == c.home || !s.in.Found.Inside(c.home) {
			continue
		}
		if !s.taken[c.seat] && !slices.ContainsFunc(c.heirs, func(h int) bool { return s.choices[h].now < 0 }) {
			n++
		}
	}
	return n
}

// uncovers is what must come off at least: for what is placed, and for the piece of the others
// that is the hardest to reach. As a floor nothing is open for what the other half does.
func (s *search) uncovers(floor bool) int64 {
	if s.cover == nil || s.half.within != nil && !floor {
		return 0
	}
	var sure places
	if !floor {
		sure = s.half.open
	}
	for i := range s.choices {
		if c := &s.choices[i]; c.now >= 0 {
			sure = sure.with(c.options[c.now].reach)
		}
	}
	before := s.cover.asks.Tried
	defer func() { // sheets that nobody wrote for a machine take their time
		if n := s.cover.asks.Tried - before; n > 0 {
			s.spend(n)
		}
	}()
	most := s.cover.weight(sure)
	for i := range s.choices {
		c := &s.choices[i]
		if c.now >= 0 || len(c.easiest) == 0 {
			continue
		}
		least := int64(math.MaxInt64)
		for _, p := range c.easiest {
			least = min(least, s.cover.weight(sure.with(p)))
		}
		most = max(most, least)
	}
	return most
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
		if s.at == atBest && !m.RateMTps.Known() {
			rate = fit.MostMTps
		}
		if surely && rate.Known() && (slowest == 0 || rate < slowest) {
			slowest = rate
		}
	}
	if slowest == 0 {
		for i := range s.choices {
			if m := s.choices[i].piece.Part.Module; m != nil {
				if slowest = max(slowest, m.RateMTps, m.ProfileMTps); s.at == atBest && !m.RateMTps.Known() {
					slowest = fit.MostMTps
				}
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
