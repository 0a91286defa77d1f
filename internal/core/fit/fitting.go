package fit

// This file holds the rules about what a drive needs besides its socket: a data
// lead, a power plug, a bracket or caddy, a spacer, screws.
//
// A fitting goes into no socket. Every fitting among a job's pieces is at hand;
// what a drive that came out of the machine was held and plugged with is too. What is
// at hand is dealt out in the order of the sheet's sockets.

import (
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
	return k.inBay() && k.drive().Form == form && len(k.berth.Drives) > 0 && !slices.Contains(k.berth.Drives, form)
}

// bracketed reports that one of the brackets or caddies at hand lets the drive in s into a
// bay for others. A bracket that does not say for which bay is for 3.5-inch ones.
func (r *resolver) bracketed(s *sock) bool {
	d := s.drive()
	if s.outside() || d.Form.Optical() {
		return false
	}
	have := r.fittings(func(f *part.Fitting) bool {
		fits := f.Fits
		if fits == "" && f.Kind == part.Bracket {
			fits = part.Form3i5
		}
		return (f.Kind == part.Bracket || f.Kind == part.Caddy) && f.Holds == d.Form && fits != d.Form && slices.Contains(s.berth.Drives, fits)
	})
	return r.before(s, func(k *sock) bool { return misfit(k, d.Form) }) < have
}

func bayForm(l *look) known.Truth {
	d := l.s.drive()
	switch {
	case l.s.kept(): // it lies there
		return known.Yes
	case l.s.Kind != machine.SATA && l.s.Kind != machine.U2:
		return known.Yes
	case l.s.berth.full:
		return known.No
	case l.s.Kind == machine.U2 && len(l.s.berth.Drives) == 0 && d.Form == part.FormU2: // its own plug: as usual
		return known.Yes
	}
	t := among(l, value[part.Form]{d.Form, l.label(rig.Protocol)}, l.s.berth.Drives, l.s.bayFact(rig.BayTakes))
	if t == known.No && l.bracketed(l.s) {
		return known.Yes
	}
	return t
}

func tellBayForm(l *look) telling {
	id, form := l.s.piece.ID, l.s.drive().Form
	if l.s.berth.full {
		return telling{says: fact.Of(NoBayFree, id), because: l.taken()}
	}
	bay, takes := l.s.bayName(), l.s.berth.Drives
	return telling{says: fact.Of(BayIsFor, id, form, bay, takes),
		because: []Reason{{FromPart, fact.Of(DriveIsA, id, form)}, {FromSheet, fact.Of(BayTakesForms, bay, takes)}}}
}

// plugAt is the plug of a drive: slim optical ones have their own (SATA, slimline power).
func plugAt(d *part.Drive) part.Plug {
	if d.Form == part.FormSlim {
		return part.PlugSlim
	}
	return part.PlugSATA
}

// fedOtherwise reports a drive at a bay whose plug is not the drive's.
func (s *sock) fedOtherwise() bool {
	if !s.inBay() {
		return false
	}
	_, adapter := Adapter(s.drive(), s.berth.Mount)
	return adapter
}

// adapted reports that one of the power adapters at hand makes the plug at this bay that
// of the drive in it.
func (r *resolver) adapted(s *sock) bool {
	want, _ := Adapter(s.drive(), s.berth.Mount)
	have := r.fittings(func(f *part.Fitting) bool {
		return f.Kind == want.Kind && f.From == want.From && f.To == want.To
	})
	return r.before(s, func(k *sock) bool {
		if !k.fedOtherwise() {
			return false
		}
		too, _ := Adapter(k.drive(), k.berth.Mount)
		return too == want
	}) < have
}

// needs12V reports a drive that lives from 12 V besides 5 V (SFF-8301, SFF-8551); a slimline
// plug carries none (SATA, slimline power).
func needs12V(d *part.Drive) bool { return d.Form == part.Form3i5 || d.Form == part.Form5i25 }

func plugRight(l *look) known.Truth {
	if !l.s.fedOtherwise() || l.s.kept() || l.s.berth.full {
		return known.Yes
	}
	return known.Of(!(l.s.berth.Power == part.PlugSlim && needs12V(l.s.drive())) && l.adapted(l.s))
}

func tellPlug(l *look) telling {
	id, bay, plug := l.s.piece.ID, l.s.bayName(), plugOf(l.s.berth.Mount)
	fed := DrivesFedThrough
	if plugAt(l.s.drive()) == part.PlugSlim {
		fed = SlimFedThrough
	}
	out := telling{says: fact.Of(PlugIsOther, id, bay, plug, plugAt(l.s.drive())),
		because: []Reason{{FromSheet, fact.Of(BayFedBy, bay, plug)}, {FromStandard, fact.Of(fed)}}}
	if plug == part.PlugSlim && needs12V(l.s.drive()) {
		out.because = append(out.because, Reason{FromStandard, fact.Of(SlimHasNo12V)})
		return out // no adapter makes up for that
	}
	out.advice = []fact.Fact{fact.Of(BringAdapter, plug, plugAt(l.s.drive()))}
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
		case p.Part.Drive != nil && !p.New && rig.Suits(p.Part, &machine.Socket{Kind: machine.SATA}):
			if s := r.at(p.ID); s == nil || s.Kind != machine.SATA {
				ends[""]++ // the one it was plugged with
			}
		}
	}
	ready := r.readyLeads()
	kept := map[rig.Path]bool{} // for bays that ask for an end
	for i := range r.sockets {
		if s := &r.sockets[i]; s.inBay() && s.piece.New && ready[s.path].is != known.Yes && s.berth.LeadEnd != "" && ends[s.berth.LeadEnd] > 0 {
			ends[s.berth.LeadEnd]--
			kept[s.path] = true
		}
	}
	r.lack(func(s *sock) quantity.Answer {
		if s.Kind == machine.U2 {
			return known.Yes // its cable belongs to the port
		}
		return ready[s.path].is
	}, func(s *sock) bool {
		if s.berth.LeadEnd != "" {
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

// ready is whether a data lead lies ready for a drive, and at which port its other end is.
type ready struct {
	is   known.Truth
	at   rig.Path
	asks []rig.Fact // what would tell, where it is not known
}

// readyLeads is what lies ready for the new drives: the lead of their port where it reaches
// their bay, else that of another port which does and is not used, whose end at the board is
// moved.
func (r *resolver) readyLeads() map[rig.Path]ready {
	out, used := map[rig.Path]ready{}, map[machine.SocketID]bool{}
	new := func(s *sock) bool { return s.inBay() && s.piece.New }
	for i := range r.sockets {
		if s := &r.sockets[i]; new(s) {
			got := ready{is: known.No}
			if s.berth.reached(s.path) {
				switch k := r.leadAt(s); k.Lead {
				case known.Yes:
					got.is, got.at = known.Yes, s.path
				case known.Unknown:
					got.is, got.asks = known.Unknown, []rig.Fact{k.fact(rig.HasLead)}
				}
			}
			out[s.path] = got
		}
	}
	for i := range r.sockets {
		s := &r.sockets[i]
		if !new(s) || out[s.path].is == known.Yes {
			continue
		}
		for _, id := range s.berth.ports {
			k := r.socket(id)
			if k.piece != nil || used[id] || k.path == s.path {
				continue
			}
			if has := r.leadAt(k); has.Lead == known.Yes {
				out[s.path], used[id] = ready{is: known.Yes, at: k.path}, true
				break
			} else if has.Lead == known.Unknown {
				out[s.path] = ready{is: known.Unknown, asks: append(out[s.path].asks, has.fact(rig.HasLead))}
			}
		}
	}
	return out
}

// leadAt is the port whose lead lies at a port: where a drive took it along to another, that
// port, for it has its lead now.
func (r *resolver) leadAt(s *sock) *sock {
	if r.b.Found == nil || s.path.Nested() {
		return s
	}
	if q := r.at(r.b.Found.In(s.path)); q != nil && q.kept() {
		return q
	}
	return s
}

// LeadsFrom tells of which new drives the lead lies ready at another port than theirs.
func LeadsFrom(b *rig.Rig) []rig.Placement {
	r := laid(b)
	var out []rig.Placement
	for path, got := range r.readyLeads() {
		if !got.at.IsZero() && got.at != path {
			out = append(out, rig.Placement{Item: r.place(path).piece.ID, Socket: got.at})
		}
	}
	return out
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
	id, at, end := t.s.piece.ID, t.s.path, t.s.berth.LeadEnd
	out := telling{says: fact.Of(NoLead, id, at), because: []Reason{{FromSheet, fact.Of(NoLeadAt, at)}}, advice: []fact.Fact{fact.Of(BringLead)}}
	if end != "" {
		out.says, out.advice[0] = fact.Of(NoLeadEnd, id, at, end), fact.Of(BringLeadEnd, end)
		out.because = append(out.because, Reason{FromSheet, fact.Of(BayWantsEnd, end)})
	}
	out.because = append(out.because, Reason{FromPlan, fact.Of(NoneAtHand)})
	return out
}

func sayLeadUnknown(r *resolver, t *trouble) telling {
	return telling{says: fact.Of(LeadUnknown, t.s.piece.ID, t.s.path), missing: r.readyLeads()[t.s.path].asks, advice: []fact.Fact{fact.Of(TakeLead)}}
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
		if b := s.berth; s.kept() || b.Holder == "" || b.Holder == machine.HeldByScrews || s.drive().Form.Optical() { // those are held by their own rails
			return known.Yes
		}
		return s.berth.HasHolder
	}, func(s *sock) bool {
		k := part.FittingKind(s.berth.Holder)
		have[k]--
		return have[k] >= 0
	}, func(s *sock, t known.Truth) { found(trouble{truth: known.No, s: s, item: -1, n: int(t)}) })
}

func sayHolder(r *resolver, t *trouble) telling {
	id, bay, what := t.s.piece.ID, t.s.bayName(), t.s.berth.Holder
	out := telling{says: fact.Of(HolderMissing, what, id, bay), because: []Reason{{FromSheet, fact.Of(BayHoldsIn, bay, what)}}, advice: []fact.Fact{fact.Of(BringHolder, what)}}
	if known.Truth(t.n) == known.No {
		out.because = append(out.because, Reason{FromSheet, fact.Of(NotInMachine)})
		return out
	}
	out.says, out.missing = fact.Of(HolderUnknown, what, id, bay), []rig.Fact{t.s.bayFact(rig.HasHolder)}
	return out
}

func threadRight(l *look) known.Truth {
	d := l.s.drive()
	want := d.Form.Thread()
	if l.s.kept() || l.s.berth.Thread == "" || want == "" || want == l.s.berth.Thread || l.fittings(func(f *part.Fitting) bool { return f.Thread == want }) > 0 {
		return known.Yes
	}
	return known.No
}

func tellThread(l *look) telling {
	form := l.s.drive().Form
	want := form.Thread()
	return telling{says: fact.Of(ThreadOther, l.s.piece.ID, want, l.s.bayName(), l.s.berth.Thread),
		because: []Reason{{FromSheet, fact.Of(ScrewsAre, l.s.berth.Thread)}, {FromStandard, fact.Of(HolesAreFor, form, want)}}, advice: []fact.Fact{fact.Of(BringScrews, want)}}
}

// A 7 mm drive is brought to the height of a 9.5 mm sled by a spacer of 2.5 mm
// (SFF-8201 heights).
const (
	flatDrive = quantity.Millimetres(7)
	tallSled  = quantity.Millimetres(9.5)
)

func bayTight(l *look) known.Truth {
	d := l.s.drive()
	if l.s.kept() || d.Form != part.Form2i5 || l.s.berth.Holder != machine.HeldByCaddy || d.HeightMM != flatDrive || l.s.berth.BayMM != tallSled ||
		l.fittings(func(f *part.Fitting) bool { return f.Kind == part.Spacer }) > 0 {
		return known.Yes
	}
	return known.No
}

func tellLoose(l *look) telling {
	id, bay, tall := l.s.piece.ID, l.s.bayName(), l.s.berth.BayMM
	return telling{says: fact.Of(SitsLoose, id, l.s.drive().HeightMM, tall, bay),
		because: []Reason{{FromPart, fact.Of(PartHigh, id, l.s.drive().HeightMM)}, {FromSheet, fact.Of(BayMadeFor, bay, tall)}, {FromStandard, fact.Of(PlugsMeet)}},
		advice:  []fact.Fact{fact.Of(BringSpacer)}}
}
