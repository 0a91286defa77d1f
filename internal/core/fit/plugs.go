package fit

// This file is the power plugs: what parts draw from, how many there are, and of which
// kinds nobody knows.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
)

// plugKinds is the power plugs in the order they are counted.
var plugKinds = [...]part.Plug{part.PlugSATA, part.PlugSlim, part.PlugMolex, part.Plug6, part.Plug8, part.Plug16}

// plugs is so many of each kind.
type plugs [len(plugKinds)]int

func plugIndex(p part.Plug) int { return slices.Index(plugKinds[:], p) }

// Draw is what parts draw from: plugs by kind, how many of the SATA ones must carry 12 V,
// and which plugs are there because a bay is said to be fed by them.
type Draw struct {
	plugs
	with12V int
	reached plugs
}

// add counts one part in its place, a drive at a port in its bay.
func (n *Draw) add(p *part.Part, k *machine.Socket, bay *machine.Mount, outside bool) {
	d := p.Drive
	switch {
	case outside:
	case d != nil && (k.Kind == machine.SATA || k.Kind == machine.U2):
		plug := plugOf(bay) // what the lead ends in; an adapter makes the drive's of it
		n.plugs[plugIndex(plug)]++
		if plug == part.PlugSATA && needs12V(d) {
			n.with12V++
		}
		if bay.Power != "" {
			n.reached[plugIndex(plug)]++
		}
	case p.Card != nil:
		for _, plug := range p.Card.Plugs {
			n.plugs[plugIndex(plug)]++
		}
	}
}

// DrawOf is what a part draws from in a place, a drive in whatever bay it lies: the least of
// that.
func DrawOf(b *rig.Rig, p *part.Part, at *rig.Place) Draw {
	outside := b.Outside(at.Path)
	var n Draw
	n.add(p, &at.Socket, &at.Mount, outside)
	if p.Drive != nil && b.InBay(at.Path, &at.Socket) {
		for _, bay := range b.Sheet.EveryBay() {
			var m Draw
			m.add(p, &at.Socket, &bay.Mount, outside)
			n = n.Least(m)
		}
	}
	return n
}

// Least is the lower of two, plug by plug.
func (n Draw) Least(o Draw) Draw {
	for k := range n.plugs {
		n.plugs[k] = min(n.plugs[k], o.plugs[k])
	}
	n.with12V = min(n.with12V, o.with12V)
	return n
}

// Plus is both together.
func (n Draw) Plus(o Draw) Draw {
	for k := range n.plugs {
		n.plugs[k] += o.plugs[k]
	}
	n.with12V += o.with12V
	return n
}

// Met is whether a machine has so many plugs, wherever else its parts lie.
func (n Draw) Met(b *rig.Rig) known.Truth {
	r := resolver{b: b, sheet: b.Sheet}
	for _, bay := range b.Sheet.EveryBay() {
		if bay.Power != "" {
			n.reached[plugIndex(bay.Power)]++
		}
	}
	c := r.plugCount(n)
	if c.short != (plugs{}) {
		return known.No
	}
	if c.open != [len(plugKinds)]bool{} {
		return known.Unknown
	}
	return known.Yes
}

// drawn is what the parts fitted here draw.
func (r *resolver) drawn() Draw {
	var n Draw
	for i := range r.sockets {
		if s := &r.sockets[i]; s.piece != nil {
			n.add(s.piece.Part, s.Socket, s.berth.Mount, s.outside())
		}
	}
	return n
}

// inUse is how many plugs of a kind the machine had in use when it came: as its sheet
// says, else by what was found in it. Those are not among the free ones, and come free
// with the part that leaves.
func (r *resolver) inUse(p *machine.PlugCount, found *Draw) int {
	if p.InUse > 0 {
		return p.InUse
	}
	return found.plugs[plugIndex(p.Kind)]
}

// foundDraw is what was drawn when the machine came.
func (r *resolver) foundDraw() Draw {
	if r.b.Found == nil {
		return r.drawn()
	}
	return laid(&rig.Rig{Sheet: r.b.Sheet, Pieces: r.b.Pieces, Setup: *r.b.Found}).drawn()
}

// mostAdapters are tried in every combination; more are taken in their order.
const mostAdapters = 8

// powerPlugs counts what drives and cards draw from, kind by kind, with the power
// adapters at hand put in where plugs are short. Of a kind whose number the sheet does not
// state there may be enough: that is plugsUnknown's.
func powerPlugs(r *resolver, found func(trouble)) {
	for i, n := range r.weighed().short {
		if n > 0 {
			found(trouble{truth: known.No, item: -1, n: i})
		}
	}
}

// plugsUnknown finds the kinds of plugs of which there may be too few.
func plugsUnknown(r *resolver, found func(trouble)) {
	for i, open := range r.weighed().open {
		if open {
			found(trouble{truth: known.No, item: -1, n: i})
		}
	}
}

func sayPlugsUnknown(r *resolver, t *trouble) telling {
	n, kind := r.weighed().need.plugs[t.n], plugKinds[t.n]
	return telling{says: fact.Of(PlugsOpen, n, kind), missing: []rig.Fact{{Attr: rig.FreePlugs(kind)}},
		because: []Reason{{FromPlan, fact.Of(PartsDraw, fact.Count{N: n, Of: Parts})}}}
}

// count is what plugs of each kind come to: how many are there, how many surely missing,
// and of which kinds it hangs on a number that is not stated.
type count struct {
	need  Draw
	have  plugs
	short plugs
	open  [len(plugKinds)]bool
}

// weighed is the count for what is fitted here, made once.
func (r *resolver) weighed() *count {
	if r.plugs == nil {
		c := r.plugCount(r.drawn())
		r.plugs = &c
	}
	return r.plugs
}

// plugCount weighs plugs against what is drawn, with the adapters put in that leave the
// fewest missing.
func (r *resolver) plugCount(need Draw) (out count) {
	out.need = need
	var stated [len(plugKinds)]bool
	enough := true
	more := r.suppliedPlugs()
	for i := range r.sheet.Chassis.Plugs {
		p := &r.sheet.Chassis.Plugs[i]
		k := plugIndex(p.Kind)
		stated[k], out.have[k] = true, p.Count+more[k]
	}
	for k, n := range need.plugs {
		enough = enough && n <= max(out.have[k], need.reached[k])
	}
	if enough {
		return out
	}
	was := r.foundDraw()
	for i := range r.sheet.Chassis.Plugs {
		p := &r.sheet.Chassis.Plugs[i]
		out.have[plugIndex(p.Kind)] = p.Count + r.inUse(p, &was) + more[plugIndex(p.Kind)]
	}
	least, most := out.have, out.have // of kinds that are not stated, those that were in use are there
	for k := range least {
		if !stated[k] {
			least[k], most[k] = max(was.plugs[k], need.reached[k])+more[k], aplenty
		}
	}
	adapters := r.freeAdapters()
	out.short = leastShort(&need, most, adapters)
	worst := leastShort(&need, least, adapters)
	for k := range worst {
		if worst[k] <= out.short[k] {
			continue
		}
		if !stated[k] {
			out.open[k] = true
			continue
		}
		for _, f := range adapters { // of which it hangs whether they can be put in
			if from := plugIndex(f.From); !stated[from] {
				out.open[from] = true
			}
		}
	}
	return out
}

// aplenty is more plugs than are ever drawn from.
const aplenty = 1000

// leastShort is how many plugs of each kind are missing with the adapters put in that
// leave the fewest missing.
func leastShort(need *Draw, have plugs, adapters []*part.Fitting) plugs {
	missing := func(have plugs, sata12 int) (out plugs, sum int) {
		for k := range have {
			out[k] = max(0, need.plugs[k]-have[k])
		}
		out[0] = max(out[0], need.with12V-sata12)
		for _, n := range out {
			sum += n
		}
		return out, sum
	}
	short, least := missing(have, have[0])
	for set := 1; set < 1<<len(adapters) && least > 0; set++ {
		with, sata12, ok := have, have[0], true
		for i, f := range adapters {
			if set>>i&1 == 0 {
				continue
			}
			from, to := plugIndex(f.From), plugIndex(f.To)
			with[from]--
			with[to] += f.Feeds()
			if to == 0 && f.From != part.PlugSlim {
				sata12 += f.Feeds()
			}
			ok = ok && with[from] >= 0
		}
		if got, sum := missing(with, sata12); ok && sum < least {
			short, least = got, sum
		}
	}
	return short
}

// freeAdapters is the power adapters that are not taken by bays with another plug, in an
// order that does not hang on that of the pieces.
func (r *resolver) freeAdapters() []*part.Fitting {
	var out []*part.Fitting
	for i := range r.b.Pieces {
		if f := r.b.Pieces[i].Part.Fitting; f != nil && f.Kind == part.PowerAdapter && plugIndex(f.From) >= 0 && plugIndex(f.To) >= 0 {
			out = append(out, f)
		}
	}
	slices.SortStableFunc(out, func(a, b *part.Fitting) int {
		return (plugIndex(a.From)-plugIndex(b.From))*100 + (plugIndex(a.To)-plugIndex(b.To))*10 + a.Feeds() - b.Feeds()
	})
	for i := range r.sockets {
		if s := &r.sockets[i]; s.inBay() && s.berth.Power != "" && s.berth.Power != part.PlugSATA {
			if k := slices.IndexFunc(out, func(f *part.Fitting) bool { return f.From == s.berth.Power && f.To == part.PlugSATA }); k >= 0 {
				out = slices.Delete(out, k, k+1)
			}
		}
	}
	return out[:min(len(out), mostAdapters)]
}

func sayPlugs(r *resolver, t *trouble) telling {
	c, kind := r.weighed(), plugKinds[t.n]
	n := c.need.plugs[t.n]
	i := slices.IndexFunc(r.sheet.Chassis.Plugs, func(p machine.PlugCount) bool { return p.Kind == kind })
	p := &r.sheet.Chassis.Plugs[i]
	return telling{says: fact.Of(PlugsShort, n, kind, max(0, n-c.short[t.n])),
		because: []Reason{{FromSheet, fact.Of(MachineHasPlugs, c.have[t.n], kind, fact.Typed(p.From))}, {FromPlan, fact.Of(PartsDraw, fact.Count{N: n, Of: Parts})}},
		advice:  []fact.Fact{fact.Of(BringCrimped), fact.Of(LeadOfSupply)}}
}

// leadWatts compares what drives with a stated draw come to with what the leads of their
// kind of plug may carry, where the sheet states that.
func leadWatts(r *resolver, found func(trouble)) {
	for i := range r.sheet.Chassis.Plugs {
		if p := &r.sheet.Chassis.Plugs[i]; p.Watts > 0 && r.drawnWatts(p.Kind) > p.Watts {
			found(trouble{truth: known.No, item: -1, n: i})
		}
	}
}

// drawnWatts is the draw of the drives at one kind of plug, as far as it is stated.
func (r *resolver) drawnWatts(kind part.Plug) float64 {
	sum := 0.0
	for i := range r.sockets {
		if s := &r.sockets[i]; s.inBay() && plugOf(s.berth.Mount) == kind {
			sum += s.drive().Watts
		}
	}
	return sum
}

func sayLeadWatts(r *resolver, t *trouble) telling {
	p := &r.sheet.Chassis.Plugs[t.n]
	draw := Watts(r.drawnWatts(p.Kind))
	return telling{says: fact.Of(LeadCarries, p.Kind, Watts(p.Watts), draw),
		because: []Reason{{FromSheet, fact.Of(LeadsMay, p.Kind, Watts(p.Watts))}, {FromPart, fact.Of(DrivesDraw, draw)}}, advice: []fact.Fact{fact.Of(FewerOnLead)}}
}
