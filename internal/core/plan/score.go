package plan

// This file says what a plan comes to: whether it can be carried out, and its score.

import (
	"math"
	"slices"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// half is what a search decides about: drives and cards, or memory, or both where a
// rule of the sheet ties them together. Scores of halves that nothing ties add up.
type half struct {
	io, memory bool
	pieces     []rig.Piece // that it places
	settings   []*machine.Setting
	open       places  // what the other half reaches: it is open anyway
	within     *places // of memory beside the other half: it reaches nothing else, and the layers are counted there
}

// split divides the question where nothing ties its halves together; tied says that something does.
func split(in *Input, tied bool) []half {
	sheet := in.Found.Sheet
	memory := func(id machine.SocketID) bool {
		k := sheet.Socket(id)
		return k != nil && k.Kind.Memory()
	}
	type touched struct{ io, memory bool }
	bySetting := map[machine.SettingID]touched{}
	for i := range sheet.Rules {
		r := &sheet.Rules[i]
		var t touched
		see := func(id machine.SocketID) {
			if id != "" {
				t.memory, t.io = t.memory || memory(id), t.io || !memory(id)
			}
		}
		for _, e := range r.Then {
			t.memory = t.memory || e.Profile
			see(e.Socket)
		}
		for _, c := range r.When {
			see(c.Socket)
		}
		for _, c := range r.When {
			if c.Setting != "" {
				u := bySetting[c.Setting]
				bySetting[c.Setting] = touched{u.io || t.io, u.memory || t.memory}
			}
		}
		tied = tied || t.io && t.memory
	}
	for _, t := range bySetting {
		tied = tied || t.io && t.memory
	}
	halves := []half{{io: true}, {memory: true}}
	if tied {
		halves = []half{{io: true, memory: true}}
	}
	for i := range halves {
		h := &halves[i]
		for _, p := range in.Pieces {
			if p.Part.Fitting == nil && (p.Part.Module != nil && h.memory || p.Part.Module == nil && h.io) {
				h.pieces = append(h.pieces, p)
			}
		}
		for j := range sheet.Settings {
			s := &sheet.Settings[j]
			if t, asked := bySetting[s.ID]; asked && (t.io && h.io || t.memory && h.memory) {
				h.settings = append(h.settings, s)
			}
		}
	}
	return halves
}

// scorer judges plans of one half.
type scorer struct {
	in        *Input
	half      half
	cover     *cover
	off       map[rig.Path]bool                         // as found
	refs      map[rig.ItemID]known.Range[quantity.Rate] // the rate a card is measured against
	unsettled bool                                      // something unstated was met
}

// corner is what a plan comes to where not all is known.
type corner uint8

const (
	asTold  corner = iota // what is sure: what may not work does not, what is not stated is not promised
	atBest                // every answer turns out well, every rate is at its highest
	atWorst               // as told, and every loss that may be is one
)

// rate is the end of a range that a corner reads.
func (c corner) rate(r known.Range[quantity.Rate]) quantity.Rate {
	if c == atBest {
		return r.High
	}
	return r.Low
}

// judge asks what a rig comes to, and notes whether something unstated was met.
func (s *scorer) judge(placed []rig.Placement, choices []rig.Choice, at corner) fit.Verdict {
	b := s.in.rig(placed, choices)
	verdict := fit.Judge
	if at == atBest {
		verdict = fit.Hope
	}
	v := verdict(&b)
	s.unsettled = s.unsettled || !v.Settled()
	return v
}

// spoke is how often a rule counts.
func (c corner) spoke(v *fit.Verdict, rule int) int {
	if c == atBest && v.Open != nil {
		return v.Found[rule] - v.Open[rule]
	}
	return v.Found[rule]
}

func newScorer(in *Input, h half) *scorer {
	s := &scorer{in: in, half: h, cover: in.covers(), off: map[rig.Path]bool{}, refs: map[rig.ItemID]known.Range[quantity.Rate]{}}
	var found fit.Verdict // what was off and how fast cards were is asked of drives and cards only
	if h.io {
		found = fit.Judge(&in.Found)
	}
	for _, o := range found.Sockets {
		if o.State == fit.Off {
			s.off[o.Socket] = true
		}
	}
	for _, p := range h.pieces {
		c := p.Part.Card
		if c == nil || c.Carrier != nil {
			continue
		}
		s.refs[p.ID] = known.Exactly(c.Link().LineRate())
		if !p.New {
			i := slices.IndexFunc(found.Sockets, func(o fit.Outcome) bool { return o.Item == p.ID && o.Link != nil })
			if s.refs[p.ID] = known.Exactly[quantity.Rate](0); i >= 0 {
				s.refs[p.ID] = found.Sockets[i].Link.Rate
			}
		}
	}
	return s
}

// score judges a plan; false where it cannot be carried out as it was asked for.
func (s *scorer) score(placed []rig.Placement, choices []rig.Choice, at corner) (Score, bool) {
	v := s.judge(placed, choices, at)
	var out Score
	for i := range v.Found {
		n := at.spoke(&v, i)
		if n == 0 {
			continue
		}
		switch fit.Rules[i].Weighs {
		case fit.WeighsStop:
			return out, false
		case fit.WeighsStopMemory:
			if s.half.memory {
				return out, false
			}
		case fit.WeighsWishMemory:
			if s.half.memory && !s.in.without[want{kind: wantMemory}] {
				return out, false
			}
		case fit.WeighsWishSystem:
			if s.half.io && !s.in.without[want{kind: wantSystem}] {
				return out, false
			}
		}
		out.weigh(i, n)
	}
	for _, d := range v.Doubts {
		if at == atWorst || at == atBest && s.in.shares(d) {
			out.weigh(d.Rule, 1)
		}
	}
	for i := range v.Sockets {
		o := &v.Sockets[i]
		switch {
		case o.Item != "" && o.State != fit.Live:
			return out, false // not seen, or not known to be
		case (o.State == fit.Off || o.MayOff && at != atBest) && s.half.io && !o.Socket.Nested() && slices.Contains(s.in.Ports, o.Socket.Top()) && !s.in.without[want{kind: wantPort, socket: o.Socket}]:
			return out, false
		case o.Item == "" && (o.State == fit.Off || o.MayOff && at == atWorst) && s.half.io && !o.Socket.Nested() && !s.off[o.Socket]:
			out[InUse]++
		case o.Item != "" && s.refs[o.Item].High > 0:
			out[Graphics] += s.lost(o.Item, o.Link, at)
		}
	}
	if s.half.io {
		system, slowest, members := 0.0, math.Inf(1), 0
		for i := range v.Flows {
			f := &v.Flows[i]
			alone, together := at.rate(f.Alone).MBps(), at.rate(f.Together).MBps()
			if at == atBest {
				out[Rates] -= whole(f.Most.MBps())
			} else {
				out[Rates] -= whole(together)
			}
			if slices.Contains(s.in.Scratch, f.Item) {
				out[Roles] -= whole(alone)
			}
			if slices.Contains(s.in.Array, f.Item) {
				slowest = min(slowest, together)
				members++
			}
			if s.systemDrive(f.Item, at) {
				system = max(system, alone)
			}
		}
		out[System] = -whole(system)
		if members > 0 && members == len(s.in.Array) { // one of no known rate, and nothing is known of the array
			out[Roles] -= int64(members) * whole(slowest)
		}
	}
	if s.half.memory {
		if at == atBest && v.Memory.MTps.High >= fit.MostMTps {
			out[Memory] -= 4 * boundless
		} else {
			out[Memory] -= 4 * whole(at.rate(v.Memory.Peak).MBps())
		}
	}
	s.changes(&out, placed, choices, &v)
	return out, out[Layers] < never
}

// shares reports a loss that may be in the plan that others are held against as well:
// of a like part in the same place. What a card draws hangs on its label alone,
// wherever it is.
func (in *Input) shares(d fit.Doubt) bool {
	return slices.ContainsFunc(in.shared, func(e fit.Doubt) bool {
		return e.Rule == d.Rule && (e.Socket == d.Socket || d.Rule == drawRule) && samePart(in.piece(e.Item).Part, in.piece(d.Item).Part)
	})
}

// boundless is the peak of memory, MB/s, where nothing bounds its speed.
const boundless = 1 << 40

// weigh adds what a rule counts for that spoke so many times.
func (s *Score) weigh(rule, times int) {
	n := int64(times)
	switch fit.Rules[rule].Weighs {
	case fit.WeighsWarning:
		s[Warnings] += n
	case fit.WeighsWarm:
		s[Cooling] += n
	case fit.WeighsHot:
		s[Cooling] += 2 * n
	case fit.WeighsSlots:
		s[Memory] += n
	}
}

// lost is what a card loses of the rate it had, MB/s. A difference of two ranges is
// bounded by their ends.
func (s *scorer) lost(card rig.ItemID, l *fit.Link, at corner) int64 {
	had := s.refs[card]
	var has known.Range[quantity.Rate]
	if l != nil {
		has = l.Rate
	}
	switch {
	case at == asTold && !had.Exact():
		return 0
	case at == asTold && !has.Exact():
		has = known.Exactly[quantity.Rate](0)
	}
	low, high := had.Low-has.High, had.High-has.Low
	if at == atBest {
		return whole(max(0, low.MBps()))
	}
	return whole(max(0, high.MBps()))
}

// whole is a rate in full MB/s, rounded down past what floating point leaves.
func whole(mbps float64) int64 { return int64(mbps + 1e-6) }

// systemDrive reports a new drive that is what the wish asks of the system drive, or
// may be.
func (s *scorer) systemDrive(id rig.ItemID, at corner) bool {
	p := s.in.piece(id)
	if !p.New || p.Part.Drive == nil || !s.in.Wish.SystemBytes.Known() {
		return false
	}
	is := s.in.Wish.IsSystem(p.Part.Drive)
	s.unsettled = s.unsettled || is == known.Unknown
	return is == known.Yes || is == known.Unknown && at == atBest
}

// changes adds what the plan changes of the machine as it arrived.
func (s *scorer) changes(out *Score, placed []rig.Placement, choices []rig.Choice, v *fit.Verdict) {
	if s.cover != nil && s.half.within == nil {
		planned := s.in.rig(placed, choices)
		out[Layers] = s.cover.weight(s.cover.touched(s.half.pieces, &planned, v.Bays()).with(s.half.open))
	}
	for i := range s.half.pieces {
		p := &s.half.pieces[i]
		home, at := s.in.home(p.ID), rig.PlaceOf(placed, p.ID)
		if !at.IsZero() {
			out[Cost] += int64(s.in.Prices[p.ID])
		}
		switch {
		case home == at:
			continue
		case s.risks(p, home, at):
			out[Data]++
		case at.IsZero():
			out[InUse]++
		}
		if !at.IsZero() && s.in.Found.Inside(at) {
			out[Opened]++
		}
		if !home.IsZero() && s.in.Found.Inside(home) && rig.ItemIn(placed, home) == "" {
			out[Opened]++
		}
	}
	for _, set := range s.half.settings {
		if rig.Value(set, choices) != s.in.Found.Choice(set) {
			out[Settings]++
		}
	}
}

// risks reports a drive whose data may not be there as before: it comes out, or it
// goes from a port of the machine behind the bridge of a box, or back.
func (s *scorer) risks(p *rig.Piece, home, at rig.Path) bool {
	return p.Part.Drive != nil && !home.IsZero() && (at.IsZero() || s.in.Found.Inside(home) != s.in.Found.Inside(at))
}
