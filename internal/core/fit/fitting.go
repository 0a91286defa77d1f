package fit

// This file holds the rules about what a drive needs besides its socket: a data
// lead, a power plug, a bracket or caddy, a spacer, screws.
//
// A fitting goes into no socket. Every fitting among a job's pieces is at hand;
// what a drive that came out of the machine was held and plugged with is too. What is
// at hand is dealt out in the order of the sheet's sockets.

import (
	"cmp"
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// fittings counts the fittings at hand that satisfy a question.
func (r *resolver) fittings(asked func(*part.Fitting) bool) int {
	n := 0
	for i := range r.b.Pieces {
		if f := r.b.Pieces[i].Part.Fitting; f != nil && asked(f) {
			n++
		}
	}
	return n
}

// inBay reports a drive in a bay of the machine, on a port with leads.
func (s *sock) inBay() bool {
	return s.drive() != nil && (s.Kind == machine.SATA || s.Kind == machine.U2) && !s.outside()
}

// before counts the sockets before s in the sheet of which something is true.
func (r *resolver) before(s *sock, is func(*sock) bool) int {
	n := 0
	for i := range r.sockets {
		k := &r.sockets[i]
		if k.path == s.path {
			break
		}
		if is(k) {
			n++
		}
	}
	return n
}

// misfit reports a drive of a form in a bay for others.
func misfit(k *sock, form part.Form) bool {
	return k.inBay() && k.drive().Form == form && len(k.Drives) > 0 && !slices.Contains(k.Drives, form)
}

// bracketed reports that one of the brackets at hand lets the drive in s into a
// larger bay.
func (r *resolver) bracketed(s *sock) bool {
	d := s.drive()
	if s.outside() || d.Form == part.Form3i5 || !slices.Contains(s.Drives, part.Form3i5) {
		return false
	}
	have := r.fittings(func(f *part.Fitting) bool { return f.Kind == part.Bracket && f.Holds == d.Form })
	return r.before(s, func(k *sock) bool { return misfit(k, d.Form) }) < have
}

func bayForm(l *look) known.Truth {
	d := l.s.drive()
	switch {
	case l.s.Kind != machine.SATA && l.s.Kind != machine.U2:
		return known.Yes
	case l.s.Kind == machine.U2 && len(l.s.Drives) == 0 && d.Form == part.FormU2: // its own plug: as usual
		return known.Yes
	}
	t := among(l, value[part.Form]{d.Form, l.label(rig.Protocol)}, l.s.Drives, l.sheetOf(rig.BayTakes))
	if t == known.No && l.bracketed(l.s) {
		return known.Yes
	}
	return t
}

func tellBayForm(l *look) telling {
	id, at, form := l.s.piece.ID, l.s.path, l.s.drive().Form
	return telling{says: fact.Of(BayIsFor, id, form, at, l.s.Drives),
		because: []Reason{{FromPart, fact.Of(DriveIsA, id, form)}, {FromSheet, fact.Of(LeadsReach, at, l.s.Drives)}}}
}

// adapted reports that one of the power adapters at hand makes the plug at this bay a
// SATA plug.
func (r *resolver) adapted(s *sock) bool {
	have := r.fittings(func(f *part.Fitting) bool {
		return f.Kind == part.PowerAdapter && f.From == s.Power && f.To == part.PlugSATA
	})
	return r.before(s, func(k *sock) bool { return k.inBay() && k.Power == s.Power }) < have
}

// needs12V reports a drive that lives from 12 V besides 5 V (SFF-8301); a slimline plug
// carries none (SATA, slimline power).
func needs12V(d *part.Drive) bool { return d.Form == part.Form3i5 }

func plugRight(l *look) known.Truth {
	if !l.s.inBay() || l.s.Power == "" || l.s.Power == part.PlugSATA {
		return known.Yes
	}
	return known.Of(!(l.s.Power == part.PlugSlim && needs12V(l.s.drive())) && l.adapted(l.s))
}

func tellPlug(l *look) telling {
	id, at, plug := l.s.piece.ID, l.s.path, l.s.Power
	out := telling{says: fact.Of(PlugIsOther, id, at, plug),
		because: []Reason{{FromSheet, fact.Of(BayFedBy, at, plug)}, {FromStandard, fact.Of(DrivesFedThrough)}}}
	if plug == part.PlugSlim && needs12V(l.s.drive()) {
		out.because = append(out.because, Reason{FromStandard, fact.Of(SlimHasNo12V)})
		return out // no adapter makes up for that
	}
	out.advice = []fact.Fact{fact.Of(BringAdapter, plug)}
	return out
}

// lack goes through the new drives in bays: there says whether the bay has the
// thing, take whether one at hand will do, and uses it up. found is told of each that
// lacks it, or may.
func (r *resolver) lack(there func(*sock) quantity.Answer, take func(*sock) bool, found func(*sock, known.Truth)) {
	for i := range r.sockets {
		s := &r.sockets[i]
		if !s.inBay() || !s.piece.New || s.state == Stopped {
			continue
		}
		if a := there(s); a != known.Yes && !take(s) {
			found(s, a)
		}
	}
}

// dealLeads gives the leads at hand to the drives. One with an end that is named is
// used where that end is asked for before any other.
func (r *resolver) dealLeads(found func(*sock, known.Truth)) {
	ends := map[part.LeadEnd]int{}
	for i := range r.b.Pieces {
		p := &r.b.Pieces[i]
		switch f := p.Part.Fitting; {
		case f != nil && f.Kind == part.DataLead:
			ends[f.End]++
		case p.Part.Drive != nil && !p.New && (p.Part.Drive.Form == part.Form2i5 || p.Part.Drive.Form == part.Form3i5):
			if s := r.at(p.ID); s == nil || s.Kind != machine.SATA {
				ends[""]++ // the one it was plugged with
			}
		}
	}
	kept := map[rig.Path]bool{} // for bays that ask for an end
	for i := range r.sockets {
		if s := &r.sockets[i]; s.inBay() && s.piece.New && s.Lead != known.Yes && s.LeadEnd != "" && ends[s.LeadEnd] > 0 {
			ends[s.LeadEnd]--
			kept[s.path] = true
		}
	}
	r.lack(func(s *sock) quantity.Answer {
		if s.Kind == machine.U2 {
			return known.Yes // its cable belongs to the port
		}
		return s.Lead
	}, func(s *sock) bool {
		if s.LeadEnd != "" {
			return kept[s.path]
		}
		for _, e := range []part.LeadEnd{"", part.StraightEnd, part.AngledEnd} {
			if ends[e] > 0 {
				ends[e]--
				return true
			}
		}
		return false
	}, found)
}

// newInBays reports that some drive may lack something: the rest need not be dealt.
func (r *resolver) newInBays() bool {
	for i := range r.sockets {
		if s := &r.sockets[i]; s.inBay() && s.piece.New {
			return true
		}
	}
	return false
}

func leadMissing(r *resolver, found func(trouble)) { r.leads(known.No, found) }
func leadUnknown(r *resolver, found func(trouble)) { r.leads(known.Unknown, found) }

func (r *resolver) leads(which known.Truth, found func(trouble)) {
	if r.newInBays() {
		r.dealLeads(func(s *sock, t known.Truth) {
			if t == which {
				found(trouble{truth: known.No, s: s, item: -1})
			}
		})
	}
}

func sayLeadMissing(r *resolver, t *trouble) telling {
	id, at, end := t.s.piece.ID, t.s.path, t.s.LeadEnd
	out := telling{says: fact.Of(NoLead, id, at), because: []Reason{{FromSheet, fact.Of(NoLeadAt, at)}}, advice: []fact.Fact{fact.Of(BringLead)}}
	if end != "" {
		out.says, out.advice[0] = fact.Of(NoLeadEnd, id, at, end), fact.Of(BringLeadEnd, end)
		out.because = append(out.because, Reason{FromSheet, fact.Of(BayWantsEnd, end)})
	}
	out.because = append(out.because, Reason{FromPlan, fact.Of(NoneAtHand)})
	return out
}

func sayLeadUnknown(r *resolver, t *trouble) telling {
	return telling{says: fact.Of(LeadUnknown, t.s.piece.ID, t.s.path), missing: []rig.Fact{t.s.fact(rig.HasLead)}, advice: []fact.Fact{fact.Of(TakeLead)}}
}

// holderMissing finds the drives whose bay lacks its bracket or caddy, or may.
func holderMissing(r *resolver, found func(trouble)) {
	if !r.newInBays() {
		return
	}
	have := map[part.FittingKind]int{}
	for _, k := range []part.FittingKind{part.Bracket, part.Caddy} {
		have[k] = r.fittings(func(f *part.Fitting) bool { return f.Kind == k })
	}
	r.lack(func(s *sock) quantity.Answer {
		if s.Holder == "" || s.Holder == machine.HeldByScrews {
			return known.Yes
		}
		return s.HasHolder
	}, func(s *sock) bool {
		k := part.FittingKind(s.Holder)
		have[k]--
		return have[k] >= 0
	}, func(s *sock, t known.Truth) { found(trouble{truth: known.No, s: s, item: -1, n: int(t)}) })
}

func sayHolder(r *resolver, t *trouble) telling {
	id, at, what := t.s.piece.ID, t.s.path, t.s.Holder
	out := telling{says: fact.Of(HolderMissing, what, id, at), because: []Reason{{FromSheet, fact.Of(BayHoldsIn, at, what)}}, advice: []fact.Fact{fact.Of(BringHolder, what)}}
	if known.Truth(t.n) == known.No {
		out.because = append(out.because, Reason{FromSheet, fact.Of(NotInMachine)})
		return out
	}
	out.says, out.missing = fact.Of(HolderUnknown, what, id, at), []rig.Fact{t.s.fact(rig.HasHolder)}
	return out
}

func threadRight(l *look) known.Truth {
	d := l.s.drive()
	want := d.Form.Thread()
	if l.s.Thread == "" || want == "" || want == l.s.Thread || l.fittings(func(f *part.Fitting) bool { return f.Thread == want }) > 0 {
		return known.Yes
	}
	return known.No
}

func tellThread(l *look) telling {
	form := l.s.drive().Form
	want := form.Thread()
	return telling{says: fact.Of(ThreadOther, l.s.piece.ID, want, l.s.path, l.s.Thread),
		because: []Reason{{FromSheet, fact.Of(ScrewsAre, l.s.Thread)}, {FromStandard, fact.Of(HolesAreFor, form, want)}}, advice: []fact.Fact{fact.Of(BringScrews, want)}}
}

// A 7 mm drive is brought to the height of a 9.5 mm sled by a spacer of 2.5 mm
// (SFF-8201 heights).
const (
	flatDrive = quantity.Millimetres(7)
	tallSled  = quantity.Millimetres(9.5)
)

func bayTight(l *look) known.Truth {
	d := l.s.drive()
	if d.Form != part.Form2i5 || l.s.Holder != machine.HeldByCaddy || d.HeightMM != flatDrive || l.s.BayMM != tallSled ||
		l.fittings(func(f *part.Fitting) bool { return f.Kind == part.Spacer }) > 0 {
		return known.Yes
	}
	return known.No
}

func tellLoose(l *look) telling {
	id, at := l.s.piece.ID, l.s.path
	return telling{says: fact.Of(SitsLoose, id, l.s.drive().HeightMM, l.s.BayMM, at),
		because: []Reason{{FromPart, fact.Of(PartHigh, id, l.s.drive().HeightMM)}, {FromSheet, fact.Of(BayMadeFor, at, l.s.BayMM)}, {FromStandard, fact.Of(PlugsMeet)}},
		advice:  []fact.Fact{fact.Of(BringSpacer)}}
}

// plugKinds is the power plugs in the order they are counted.
var plugKinds = [...]part.Plug{part.PlugSATA, part.PlugSlim, part.PlugMolex, part.Plug6, part.Plug8, part.Plug16}

// plugs is so many of each kind.
type plugs [len(plugKinds)]int

func plugIndex(p part.Plug) int { return slices.Index(plugKinds[:], p) }

// plugOf is the plug that reaches a bay.
func plugOf(k *machine.Socket) part.Plug { return cmp.Or(k.Power, part.PlugSATA) }

// draw is what parts draw from: plugs by kind, and how many of the SATA ones must carry 12 V.
type draw struct {
	plugs
	with12V int
}

// add counts one part in its place.
func (n *draw) add(p *part.Part, k *machine.Socket, outside bool) {
	d := p.Drive
	switch {
	case outside:
	case d != nil && (k.Kind == machine.SATA || k.Kind == machine.U2):
		plug := plugOf(k)
		n.plugs[plugIndex(plug)]++
		if plug == part.PlugSATA && needs12V(d) {
			n.with12V++
		}
	case p.Card != nil:
		for _, plug := range p.Card.Plugs {
			n.plugs[plugIndex(plug)]++
		}
	}
}

// drawn is what the parts fitted here draw.
func (r *resolver) drawn() draw {
	var n draw
	for i := range r.sockets {
		if s := &r.sockets[i]; s.piece != nil {
			n.add(s.piece.Part, s.Socket, s.outside())
		}
	}
	return n
}

// inUse is how many plugs of a kind the machine had in use when it came: as its sheet
// says, else by what was found in it. Those are not among the free ones, and come free
// with the part that leaves.
func (r *resolver) inUse(p *machine.PlugCount, found *draw) int {
	if p.InUse > 0 {
		return p.InUse
	}
	return found.plugs[plugIndex(p.Kind)]
}

// foundDraw is what was drawn when the machine came.
func (r *resolver) foundDraw() draw {
	var n draw
	if r.b.Found == nil {
		return r.drawn()
	}
	was := rig.Rig{Sheet: r.b.Sheet, Pieces: r.b.Pieces, Setup: *r.b.Found}
	for _, p := range was.Placements {
		if q, k := was.Piece(p.Item), was.Socket(p.Socket); q != nil && k != nil {
			n.add(q.Part, k, was.Outside(p.Socket))
		}
	}
	return n
}

// mostAdapters are tried in every combination; more are taken in their order.
const mostAdapters = 8

// powerPlugs counts what drives and cards draw from, kind by kind, with the power
// adapters at hand put in where plugs are short; a kind whose number the sheet
// does not state is not judged.
func powerPlugs(r *resolver, found func(trouble)) {
	short, _ := r.shortPlugs()
	for i, n := range short {
		if n > 0 {
			found(trouble{truth: known.No, item: -1, n: i})
		}
	}
}

// shortPlugs is how many plugs of each kind are missing, with the adapters put in that
// leave the fewest missing; and how many there are.
func (r *resolver) shortPlugs() (short, have plugs) {
	if len(r.sheet.Chassis.Plugs) == 0 {
		return short, have
	}
	need, was := r.drawn(), draw{}
	var stated [len(plugKinds)]bool
	enough := true
	for i := range r.sheet.Chassis.Plugs {
		p := &r.sheet.Chassis.Plugs[i]
		k := plugIndex(p.Kind)
		stated[k] = true
		if enough = enough && need.plugs[k] <= p.Count; !enough && was == (draw{}) {
			was = r.foundDraw()
		}
		have[k] = p.Count
	}
	if enough {
		return short, have
	}
	for i := range r.sheet.Chassis.Plugs {
		p := &r.sheet.Chassis.Plugs[i]
		have[plugIndex(p.Kind)] = p.Count + r.inUse(p, &was)
	}
	missing := func(have plugs, sata12 int) (out plugs, sum int) {
		for k := range have {
			if stated[k] {
				out[k] = max(0, need.plugs[k]-have[k])
			}
		}
		if stated[0] {
			out[0] = max(out[0], need.with12V-sata12)
		}
		for _, n := range out {
			sum += n
		}
		return out, sum
	}
	short, least := missing(have, have[0])
	adapters := r.freeAdapters()
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
			ok = ok && (with[from] >= 0 || !stated[from])
		}
		if got, sum := missing(with, sata12); ok && sum < least {
			short, least = got, sum
		}
	}
	return short, have
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
		if s := &r.sockets[i]; s.inBay() && s.Power != "" && s.Power != part.PlugSATA {
			if k := slices.IndexFunc(out, func(f *part.Fitting) bool { return f.From == s.Power && f.To == part.PlugSATA }); k >= 0 {
				out = slices.Delete(out, k, k+1)
			}
		}
	}
	return out[:min(len(out), mostAdapters)]
}

func sayPlugs(r *resolver, t *trouble) telling {
	need, kind := r.drawn(), plugKinds[t.n]
	short, have := r.shortPlugs()
	n := need.plugs[t.n]
	i := slices.IndexFunc(r.sheet.Chassis.Plugs, func(p machine.PlugCount) bool { return p.Kind == kind })
	p := &r.sheet.Chassis.Plugs[i]
	return telling{says: fact.Of(PlugsShort, n, kind, max(0, n-short[t.n])),
		because: []Reason{{FromSheet, fact.Of(MachineHasPlugs, have[t.n], kind, fact.Typed(p.From))}, {FromPlan, fact.Of(PartsDraw, fact.Count{N: n, Of: Parts})}},
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
		if s := &r.sockets[i]; s.inBay() && plugOf(s.Socket) == kind {
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
