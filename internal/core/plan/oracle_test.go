package plan

import (
	"fmt"
	"math"
	"math/rand"
	"slices"
	"sync"

	"deepbay/internal/core/access"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// This file says again what a plan comes to, from the text of the criteria and the
// answer people read, sharing nothing with the planner's own scorer.

// oracle judges a plan: false where it cannot be carried out as it was asked for.
func oracle(in *Input, placed []rig.Placement, choices []rig.Choice) (Score, bool) {
	r := rig.Rig{Sheet: in.Found.Sheet, Pieces: in.Pieces, Setup: rig.Setup{Placements: placed, Settings: choices}, Processor: in.Found.Processor, Wish: in.Wish, Found: &in.Found.Setup, Unlooked: in.Found.Unlooked, Shown: in.Found.Shown}
	now, before := fit.Resolve(&r), fit.Resolve(&in.Found)
	var s Score
	for _, f := range now.Findings {
		n := int64(1 + len(f.Also))
		switch f.Code {
		case "wish-keep", "not-placed", "start-pcie": // asked for by roles, or the same in every plan
		case "link-below-drive", "uplink-below-link", "card-narrow": // counted as rates
		case "wish-memory", "wish-system", "plugs-unknown":
			return s, false
		case "memory-channels", "memory-order":
			s[Memory]++
		case "m2-warm":
			s[Cooling] += n
		case "m2-hot":
			s[Cooling] += 2 * n
		default:
			switch f.Severity {
			case fit.Stops:
				return s, false
			case fit.Warns:
				s[Warnings] += n
			}
		}
	}
	for i := range r.Sheet.Processors { // whichever is fitted, a port that is kept stays on
		if p := r.Sheet.Processors[i].ID; r.Processor == "" && len(in.Ports) > 0 {
			with := r
			with.Processor = p
			if a := fit.Resolve(&with); slices.ContainsFunc(in.Ports, func(id machine.SocketID) bool { return a.Socket(rig.On(id)).State == fit.Off }) {
				return s, false
			}
		}
	}
	for _, k := range now.Sockets {
		was := before.Socket(k.Socket)
		if k.Item != "" && k.State != fit.Live {
			return s, false
		}
		if k.State == fit.Off && !k.Socket.Nested() {
			if slices.Contains(in.Ports, k.Socket.Top()) {
				return s, false
			}
			if k.Item == "" && was.State != fit.Off {
				s[InUse]++
			}
		}
	}
	together, alone := map[rig.ItemID]float64{}, map[rig.ItemID]float64{}
	for _, f := range now.Flows {
		together[f.Item], alone[f.Item] = f.Together.Low.MBps(), f.Alone.Low.MBps()
		s[Rates] -= int64(f.Together.Low.MBps() + 1e-6)
	}
	fastest := 0.0
	for _, p := range in.Pieces {
		d, c := p.Part.Drive, p.Part.Card
		from, at := in.Found.Where(p.ID), r.Where(p.ID)
		lost := !from.IsZero() && at.IsZero()
		bridge := !from.IsZero() && !at.IsZero() && in.Found.Inside(from) != r.Inside(at)
		switch {
		case d != nil && (lost || bridge):
			s[Data]++
		case lost:
			s[InUse]++
		}
		if p.New && d != nil && in.Wish.SystemBytes > 0 && d.CapacityBytes >= in.Wish.SystemBytes && (d.Protocol == link.PCIe || !in.Wish.SystemFast) {
			fastest = max(fastest, alone[p.ID])
		}
		if c != nil && c.Carrier == nil && !at.IsZero() {
			had := c.Link().LineRate().MBps()
			if !p.New {
				had = rateOf(before, p.ID)
			}
			s[Graphics] += int64(max(0, had-rateOf(now, p.ID)) + 1e-6)
		}
		if slices.Contains(in.Scratch, p.ID) {
			s[Roles] -= int64(alone[p.ID] + 1e-6)
		}
		if !at.IsZero() {
			s[Cost] += int64(in.Prices[p.ID])
		}
	}
	s[System] = -int64(fastest + 1e-6)
	slowest, known := math.Inf(1), len(in.Array) > 0
	for _, id := range in.Array {
		rate, ok := together[id]
		slowest, known = min(slowest, rate), known && ok
	}
	if known {
		s[Roles] -= int64(len(in.Array)) * int64(slowest+1e-6)
	}
	s[Memory] -= 4 * int64(now.Memory.Peak.Low.MBps()+1e-6)
	touched := map[rig.Path]bool{} // a place is opened for once for what leaves it and once for what comes
	for _, p := range in.Pieces {
		from, at := in.Found.Where(p.ID), r.Where(p.ID)
		if from == at {
			continue
		}
		if !at.IsZero() && r.Inside(at) {
			s[Opened]++
		}
		if !from.IsZero() && r.Inside(from) && r.In(from) == "" {
			touched[from] = true
		}
	}
	s[Opened] += int64(len(touched))
	var within bool
	if s[Layers], within = comesOff(in, &r); !within {
		return s, false
	}
	for i := range in.Found.Sheet.Settings {
		set := &in.Found.Sheet.Settings[i]
		if in.asks(set) && r.Choice(set) != in.Found.Choice(set) {
			s[Settings]++
		}
	}
	return s, true
}

// comesOff is what lies over all that changes in a machine, weighed: a socket to which something
// comes or from which it goes; of a drive in a bay the bay, and the port to which it comes; of a
// drive that keeps its bay both ports. False where some of it is out of reach.
func comesOff(in *Input, now *rig.Rig) (weight int64, ok bool) {
	was, lies := rig.Setup{Bays: fit.Bays(&in.Found)}, rig.Setup{Bays: fit.Bays(now)}
	stack := access.Of(&in.Found, was.Bays, in.Barred)
	if len(in.Found.Sheet.Layers) == 0 {
		return 0, true
	}
	sata := func(r *rig.Rig, at rig.Path) bool { k := r.Socket(at); return k != nil && k.Kind == machine.SATA }
	var goals []layer.Goal
	var names []string
	for _, p := range in.Pieces {
		from, to := in.Found.Where(p.ID), now.Where(p.ID)
		left, comes := was.Told(p.ID), lies.Told(p.ID)
		if from == to && left == comes {
			continue
		}
		stays := left != "" && left == comes && sata(&in.Found, from) && sata(now, to)
		reach := map[layer.Named]bool{}
		if !from.IsZero() && in.Found.Inside(from) {
			if port := layer.Named(from.Top()); left == "" || from.Nested() || stays {
				reach[port] = true
			} else {
				reach[layer.Named(left)] = true
			}
		}
		if !to.IsZero() && in.Found.Inside(to) {
			reach[layer.Named(to.Top())] = true
			if comes != "" && !to.Nested() && !stays {
				reach[layer.Named(comes)] = true
			}
		}
		for at := range reach {
			if !slices.Contains(names, string(at)) {
				names, goals = append(names, string(at)), append(goals, stack.To(at))
			}
		}
	}
	slices.Sort(names)
	key := weighing{in.Found.Sheet, fmt.Sprint(in.Found.Placements, in.Barred, names)}
	if w, ok := weighed.Load(key); ok {
		return w.(int64), w.(int64) >= 0
	}
	open, ok := stack.Least(goals, nil)
	for _, i := range open {
		weight += int64(stack.Layers[i].Weight())
	}
	if !ok {
		weight = -1
	}
	weighed.Store(key, weight)
	return weight, ok
}

// weighed keeps what comesOff worked out, for thousands of plans of one question.
var weighed sync.Map

// weighing names one question about layers; that it holds the sheet keeps another from its address.
type weighing struct {
	sheet *machine.Sheet
	asked string
}

func rateOf(r fit.Answer, id rig.ItemID) float64 {
	for _, s := range r.Sockets {
		if s.Item == id && s.Link != nil && s.Link.Known() {
			return s.Link.Rate.Low.MBps()
		}
	}
	return 0
}

// crowded makes a question in which places are short: a chipset behind a narrow
// uplink, sockets of several rates, some closed by a setting or by each other, and
// several like drives.
func crowded(rng *rand.Rand) Input {
	pick := func(n ...int) int { return n[rng.Intn(len(n))] }
	s := &machine.Sheet{ID: "crowded", Name: "Crowded", Roots: []machine.Root{{ID: "cpu", Name: "processor", Kind: machine.CPU},
		{ID: "pch", Name: "chipset", Kind: machine.Chipset, Uplink: &machine.Uplink{To: "cpu", Gen: quantity.Gen(pick(1, 2, 3)), Lanes: quantity.Lanes(pick(1, 2, 4))}}},
		Groups:  []machine.Group{{ID: "near", Root: "cpu", Lanes: 16}, {ID: "far", Root: "pch", Lanes: 32}},
		Chassis: machine.Chassis{Plugs: []machine.PlugCount{{Kind: part.PlugSATA, Count: 2 + rng.Intn(3)}}}}
	allFar := rng.Intn(2) == 0
	for i := range 2 + rng.Intn(4) {
		k := machine.Socket{ID: machine.SocketID(fmt.Sprint("M", i+1)), Kind: machine.M2, Group: "far", Protocols: []link.Protocol{link.PCIe}, Gen: quantity.Gen(pick(0, 2, 3, 3, 4)), Lanes: quantity.Lanes(pick(2, 4, 4)),
			Key: part.KeyM, LengthsMM: []quantity.Millimetres{80}, FirstLane: 4 * i}
		if !allFar && rng.Intn(2) == 0 {
			k.Group = "near"
		}
		if rng.Intn(3) == 0 {
			k.Heatsink = quantity.Answer(1 + rng.Intn(2))
		}
		s.Sockets = append(s.Sockets, k)
	}
	m2s := len(s.Sockets)
	for i := range rng.Intn(3) {
		s.Sockets = append(s.Sockets, machine.Socket{ID: machine.SocketID(fmt.Sprint("P", i+1)), Kind: machine.SATA, Root: "pch", SATAGen: quantity.Gen(pick(2, 3)), Protocols: []link.Protocol{link.SATA}, Mount: machine.Mount{Drives: []part.Form{part.Form2i5}}})
	}
	s.Sockets = append(s.Sockets, machine.Socket{ID: "D1", Kind: machine.DIMM, Root: "cpu", Channel: "A"})
	s.Memory = machine.Memory{Generation: memory.DDR4, Speeds: []machine.Speed{{PerChannel: 1, MTps: 3200}}}
	for i := range rng.Intn(4) {
		id := machine.SettingID(fmt.Sprint("set", i+1))
		s.Settings = append(s.Settings, machine.Setting{ID: id, Name: string(id), Default: "a", Options: []machine.Option{{Value: "a", Name: "a"}, {Value: "b", Name: "b"}}})
		for range 1 + rng.Intn(3) {
			e := machine.Effect{Socket: s.Sockets[rng.Intn(m2s)].ID, Off: true}
			if rng.Intn(4) == 0 {
				e = machine.Effect{Socket: e.Socket, MaxLanes: 1}
			}
			s.Rules = append(s.Rules, machine.Rule{ID: fmt.Sprint("r", len(s.Rules)), When: []machine.Condition{{Setting: id, Is: []string{"a", "a", "b"}[rng.Intn(3)]}}, Then: []machine.Effect{e}})
		}
	}
	if rng.Intn(2) == 0 {
		a, b := s.Sockets[rng.Intn(len(s.Sockets)-1)].ID, s.Sockets[rng.Intn(len(s.Sockets)-1)].ID
		if a != b {
			s.Rules = append(s.Rules, machine.Rule{ID: "shares", When: []machine.Condition{{Socket: a, Holds: machine.HoldsAnything}}, Then: []machine.Effect{{Socket: b, Off: true}}})
		}
	}
	in := Input{Found: rig.Rig{Sheet: s}, May: map[rig.ItemID]Role{}, Prices: nil}
	drive := func() *part.Part {
		d := &part.Drive{Form: part.FormM2, Protocol: link.PCIe, Gen: quantity.Gen(pick(3, 4, 4)), Lanes: 4, CapacityBytes: quantity.DriveBytes(500), ReadMBps: float64(pick(0, 900, 3400, 7000)),
			M2: &part.M2{Keys: []part.Key{part.KeyM}, LengthMM: 80, TwoSided: quantity.No, Heatsink: quantity.No}}
		return &part.Part{ID: part.ID(fmt.Sprint("d", rng.Int63())), Name: "drive", Drive: d}
	}
	like, ssd := drive(), &part.Part{ID: "ssd", Name: "ssd", Drive: &part.Drive{Form: part.Form2i5, Protocol: link.SATA, Gen: 3, CapacityBytes: quantity.DriveBytes(500)}}
	for i := range 1 + rng.Intn(4) {
		p := like
		switch rng.Intn(5) {
		case 0:
			p = drive()
		case 1:
			p = ssd
		}
		piece := rig.Piece{ID: rig.ItemID(fmt.Sprint("i", i+1)), Part: p, New: rng.Intn(3) > 0}
		in.Pieces = append(in.Pieces, piece)
		if piece.New {
			continue
		}
		for _, k := range s.Sockets {
			if at := rig.On(k.ID); rig.Suits(p, &k) && in.Found.In(at) == "" {
				in.Found.Placements = append(in.Found.Placements, rig.Placement{Item: piece.ID, Socket: at})
				break
			}
		}
		if in.Found.Where(piece.ID).IsZero() {
			in.Pieces[i].New = true
		}
	}
	module := &part.Part{ID: "m", Name: "module", Module: &part.Module{Generation: memory.DDR4, Form: memory.DIMM, SizeBytes: 8 * quantity.GiB, RateMTps: 3200, Ranks: 1}}
	in.Pieces = append(in.Pieces, rig.Piece{ID: "module", Part: module})
	in.Found.Placements = append(in.Found.Placements, rig.Placement{Item: "module", Socket: rig.On("D1")})
	in.Found.Pieces = in.Pieces
	if rng.Intn(2) == 0 {
		in.Wish.SystemBytes, in.Wish.SystemFast = quantity.DriveBytes(250), rng.Intn(2) == 0
	}
	if rng.Intn(3) == 0 {
		in.Order = []Criterion{Criterion(rng.Intn(int(criteria))), Settings}
	}
	for i := range rng.Intn(5) { // what lies over them; one may have been tried, and does not come off
		l := layer.Layer{ID: layer.ID(fmt.Sprint("l", i+1)), Kind: layer.Cage, Minutes: layer.Minutes(1 + rng.Intn(4)), Risk: layer.Low}
		for _, k := range s.Sockets {
			if rng.Intn(3) == 0 {
				l.Hides = append(l.Hides, layer.Named(k.ID))
			}
		}
		if i > 0 && rng.Intn(3) == 0 {
			l.After = append(l.After, s.Layers[rng.Intn(i)].ID)
		}
		if rng.Intn(3) == 0 {
			l.Side = []layer.Side{layer.Top, layer.Bottom}[rng.Intn(2)]
		}
		if s.Layers = append(s.Layers, l); rng.Intn(12) == 0 {
			in.Barred = append(in.Barred, l.ID)
		}
	}
	for _, p := range in.Pieces[:len(in.Pieces)-1] {
		switch rng.Intn(8) {
		case 0:
			in.Scratch = append(in.Scratch, p.ID)
		case 1:
			in.Array = append(in.Array, p.ID)
		case 2:
			in.May[p.ID] = []Role{Stay, Leave}[rng.Intn(2)]
		}
	}
	return in
}
