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
		return (f.Kind == part.Bracket || f.Kind == part.Caddy) && f.Holds == d.Form && fits != d.Form && slices.Contains(s.Drives, fits)
	})
	return r.before(s, func(k *sock) bool { return misfit(k, d.Form) }) < have
}

func bayForm(l *look) known.Truth {
	d := l.s.drive()
	switch {
	case l.b.KeepsBay(l.s.piece.ID): // it lies there
		return known.Yes
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

// plugAt is the plug of a drive: slim optical ones have their own (SATA, slimline power).
func plugAt(d *part.Drive) part.Plug {
	if d.Form == part.FormSlim {
		return part.PlugSlim
	}
	return part.PlugSATA
}

// fedOtherwise reports a drive at a bay whose plug is not the drive's.
func (s *sock) fedOtherwise() bool { return s.inBay() && plugOf(s.Socket) != plugAt(s.drive()) }

// adapted reports that one of the power adapters at hand makes the plug at this bay that
// of the drive in it.
func (r *resolver) adapted(s *sock) bool {
	from, to := plugOf(s.Socket), plugAt(s.drive())
	have := r.fittings(func(f *part.Fitting) bool { return f.Kind == part.PowerAdapter && f.From == from && f.To == to })
	return r.before(s, func(k *sock) bool { return k.fedOtherwise() && plugOf(k.Socket) == from && plugAt(k.drive()) == to }) < have
}

// needs12V reports a drive that lives from 12 V besides 5 V (SFF-8301, SFF-8551); a slimline
// plug carries none (SATA, slimline power).
func needs12V(d *part.Drive) bool { return d.Form == part.Form3i5 || d.Form == part.Form5i25 }

func plugRight(l *look) known.Truth {
	if !l.s.fedOtherwise() || l.b.KeepsBay(l.s.piece.ID) {
		return known.Yes
	}
	return known.Of(!(l.s.Power == part.PlugSlim && needs12V(l.s.drive())) && l.adapted(l.s))
}

func tellPlug(l *look) telling {
	id, at, plug := l.s.piece.ID, l.s.path, plugOf(l.s.Socket)
	fed := DrivesFedThrough
	if plugAt(l.s.drive()) == part.PlugSlim {
		fed = SlimFedThrough
	}
	out := telling{says: fact.Of(PlugIsOther, id, at, plug, plugAt(l.s.drive())),
		because: []Reason{{FromSheet, fact.Of(BayFedBy, at, plug)}, {FromStandard, fact.Of(fed)}}}
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
		if s.Holder == "" || s.Holder == machine.HeldByScrews || s.drive().Form.Optical() { // those are held by their own rails
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
	if l.b.KeepsBay(l.s.piece.ID) || l.s.Thread == "" || want == "" || want == l.s.Thread || l.fittings(func(f *part.Fitting) bool { return f.Thread == want }) > 0 {
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
	if l.b.KeepsBay(l.s.piece.ID) || d.Form != part.Form2i5 || l.s.Holder != machine.HeldByCaddy || d.HeightMM != flatDrive || l.s.BayMM != tallSled ||
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
