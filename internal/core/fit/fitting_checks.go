package fit

// This file holds the rules about what a drive needs besides its socket: a data
// lead, a power plug, a bracket or caddy, a spacer, screws.
//
// A fitting goes into no socket. Every fitting among a job's pieces is at hand;
// what a drive that came out of the machine was held and plugged with is too.

import (
	"slices"
	"strconv"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
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

// bracketed reports that one of the brackets at hand lets the drive in s into a
// larger bay: sockets before it in the sheet take theirs first.
func (r *resolver) bracketed(s *sock) bool {
	d := s.drive()
	if s.outside() || !slices.ContainsFunc(s.Drives, func(f part.Form) bool { return f == part.Form3i5 }) || d.Form == part.Form3i5 {
		return false
	}
	have := r.fittings(func(f *part.Fitting) bool { return f.Kind == part.Bracket && f.Holds == d.Form })
	for i := range r.sockets {
		k := &r.sockets[i]
		if k.ID == s.ID || have == 0 {
			break
		}
		if e := k.drive(); e != nil && k.inBay() && e.Form == d.Form && len(k.Drives) > 0 && !slices.Contains(k.Drives, e.Form) {
			have--
		}
	}
	return have > 0
}

// lacking is the new drives in bays for which something is surely missing, and
// those for which the sheet leaves it open.
type lacking struct{ missing, unsure []*sock }

// lack goes through the new drives in bays: there says whether the bay has the
// thing, take whether one at hand will do, and uses it up.
func (r *resolver) lack(there func(*sock) quantity.Answer, take func(*sock) bool) lacking {
	var out lacking
	for i := range r.sockets {
		s := &r.sockets[i]
		if !s.inBay() || !s.piece.New || s.state == Stopped {
			continue
		}
		switch a := there(s); {
		case a == quantity.Yes, take(s):
		case a == quantity.No:
			out.missing = append(out.missing, s)
		default:
			out.unsure = append(out.unsure, s)
		}
	}
	return out
}

// leads finds the drives that want a data lead, once for both rules about them.
func (r *resolver) leads() lacking {
	if r.wantLead == nil {
		l := r.dealLeads()
		r.wantLead = &l
	}
	return *r.wantLead
}

// dealLeads gives the leads at hand to the drives. One with an end that is named is
// used where that end is asked for before any other.
func (r *resolver) dealLeads() lacking {
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
	kept := map[machine.SocketID]bool{} // for bays that ask for an end
	for i := range r.sockets {
		if s := &r.sockets[i]; s.inBay() && s.piece.New && s.Lead != quantity.Yes && s.LeadEnd != "" && ends[s.LeadEnd] > 0 {
			ends[s.LeadEnd]--
			kept[s.ID] = true
		}
	}
	return r.lack(func(s *sock) quantity.Answer {
		if s.Kind == machine.U2 {
			return quantity.Yes // its cable belongs to the port
		}
		return s.Lead
	}, func(s *sock) bool {
		if s.LeadEnd != "" {
			return kept[s.ID]
		}
		for _, e := range []part.LeadEnd{"", part.StraightEnd, part.AngledEnd} {
			if ends[e] > 0 {
				ends[e]--
				return true
			}
		}
		return false
	})
}

func leadMissing(r *resolver) []Finding {
	var out []Finding
	for _, s := range r.leads().missing {
		end := ""
		because := []Reason{{FromSheet, "no data lead lies at " + string(s.ID)}}
		if s.LeadEnd != "" {
			end = " with its end " + string(s.LeadEnd)
			because = append(because, Reason{FromSheet, "the bay has room for a lead" + end})
		}
		out = append(out, Finding{Socket: s.path, Item: s.piece.ID, Says: "no data lead" + end + " for " + r.name(s) + " on " + string(s.ID),
			Because: append(because, Reason{FromPlan, "none is among the parts at hand"}),
			Cures:   []Cure{{Says: "bring a SATA data lead of at most 1 m" + end}}})
	}
	return out
}

func leadUnknown(r *resolver) []Finding {
	var out []Finding
	for _, s := range r.leads().unsure {
		out = append(out, Finding{Socket: s.path, Item: s.piece.ID, Says: "whether a data lead for " + r.name(s) + " lies at " + string(s.ID) + " is unknown",
			Because: []Reason{r.unsaid(s, "whether a data lead lies at "+string(s.ID))},
			Cures:   []Cure{{Says: "take one along: SATA, at most 1 m"}}})
	}
	return out
}

// holders finds the drives whose bay lacks its bracket or caddy.
func (r *resolver) holders() lacking {
	have := map[part.FittingKind]int{}
	for _, k := range []part.FittingKind{part.Bracket, part.Caddy} {
		have[k] = r.fittings(func(f *part.Fitting) bool { return f.Kind == k })
	}
	return r.lack(func(s *sock) quantity.Answer {
		if s.Holder == "" || s.Holder == machine.HeldByScrews {
			return quantity.Yes
		}
		return s.HasHolder
	}, func(s *sock) bool {
		k := part.FittingKind(s.Holder)
		have[k]--
		return have[k] >= 0
	})
}

func holderMissing(r *resolver) []Finding {
	l := r.holders()
	var out []Finding
	say := func(s *sock, says string, because Reason) {
		what := string(s.Holder)
		out = append(out, Finding{Socket: s.path, Item: s.piece.ID, Says: says, Because: []Reason{{FromSheet, "the bay on " + string(s.ID) + " holds its drive in a " + what}, because},
			Cures: []Cure{{Says: "bring the " + what + " of this very model"}}})
	}
	for _, s := range l.missing {
		say(s, "the "+string(s.Holder)+" for "+r.name(s)+" on "+string(s.ID)+" is missing", Reason{FromSheet, "it is not in the machine"})
	}
	for _, s := range l.unsure {
		say(s, "whether the "+string(s.Holder)+" for "+r.name(s)+" on "+string(s.ID)+" is there is unknown", r.unsaid(s, "whether the "+string(s.Holder)+" is in the machine"))
	}
	return out
}

func screwThread(r *resolver, s *sock) func() Finding {
	d := s.drive()
	if d == nil || s.Thread == "" || d.Form.Thread() == "" || d.Form.Thread() == s.Thread {
		return nil
	}
	want := d.Form.Thread()
	if r.fittings(func(f *part.Fitting) bool { return f.Thread == want }) > 0 {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " takes " + string(want) + " screws; those kept with the bay on " + string(s.ID) + " are " + string(s.Thread),
			Because: []Reason{{FromSheet, "the screws with the bay are " + string(s.Thread)},
				{FromStandard, "a " + d.Form.String() + " drive has holes for " + string(want) + "; a 6-32 screw strips an M3 hole, and an M3 screw is loose in a 6-32 one"}},
			Cures: []Cure{{Says: "bring four " + string(want) + " screws, 3 mm deep at most"}},
		}
	}
}

// A 7 mm drive is brought to the height of a 9.5 mm sled by a spacer of 2.5 mm
// (SFF-8201 heights).
const (
	flatDrive = quantity.Millimetres(7)
	tallSled  = quantity.Millimetres(9.5)
)

func bayLoose(r *resolver, s *sock) func() Finding {
	d := s.drive()
	if d == nil || d.Form != part.Form2i5 || s.Holder != machine.HeldByCaddy || d.HeightMM != flatDrive || s.BayMM != tallSled ||
		r.fittings(func(f *part.Fitting) bool { return f.Kind == part.Spacer }) > 0 {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " is " + d.HeightMM.String() + " high and sits loose in the caddy for " + s.BayMM.String() + " on " + string(s.ID),
			Because: []Reason{{FromPart, r.name(s) + " is " + d.HeightMM.String() + " high"}, {FromSheet, "the bay on " + string(s.ID) + " is made for " + s.BayMM.String()},
				{FromStandard, "the plugs of a drive and its sled meet only at the height they are made for"}},
			Cures: []Cure{{Says: "bring a spacer of 2.5 mm"}},
		}
	}
}

// powerPlugs counts what drives and cards draw from, kind by kind, with the power
// adapters at hand put in where plugs are short; a kind whose number the sheet
// does not state is not judged.
func powerPlugs(r *resolver) []Finding {
	need, have := map[part.Plug]int{}, map[part.Plug]int{}
	for i := range r.sockets {
		s := &r.sockets[i]
		switch {
		case s.piece == nil:
		case s.inBay() && s.Power != "":
			need[s.Power]++
		case s.inBay():
			need[part.PlugSATA]++
		case s.card() != nil:
			for _, k := range s.card().Plugs {
				need[k]++
			}
		}
	}
	for _, p := range r.sheet.Chassis.Plugs {
		have[p.Kind] = p.Count
	}
	for i := range r.b.Pieces {
		f := r.b.Pieces[i].Part.Fitting
		if f == nil || f.Kind != part.PowerAdapter {
			continue
		}
		if stated, ok := have[f.To]; (!ok || need[f.To] > stated) && have[f.From] > need[f.From] {
			need[f.From]++
			if ok {
				have[f.To] += f.Feeds()
			}
		}
	}
	var out []Finding
	for _, p := range r.sheet.Chassis.Plugs {
		if n := need[p.Kind]; n > have[p.Kind] {
			out = append(out, Finding{Says: plural(n, string(p.Kind)+" power plug") + " needed, " + strconv.Itoa(have[p.Kind]) + " free",
				Because: []Reason{{FromSheet, "the machine has " + plural(p.Count, string(p.Kind)+" power plug") + from(p.From)}, {FromPlan, plural(n, "part") + " of the plan draw from one"}},
				Cures: []Cure{{Says: "leave a part out, or bring a crimped adapter from a plug that is free"},
					{Says: "a lead of this very supply model with more plugs; leads of other models are wired differently"}}})
		}
	}
	return out
}

func from(where string) string {
	if where == "" {
		return ""
	}
	return ", on " + where
}

// plugWrong is a bay whose plug is not a SATA plug, and no adapter at hand makes it one.
func plugWrong(r *resolver, s *sock) func() Finding {
	if !s.inBay() || s.Power == "" || s.Power == part.PlugSATA ||
		r.fittings(func(f *part.Fitting) bool {
			return f.Kind == part.PowerAdapter && f.From == s.Power && f.To == part.PlugSATA
		}) > 0 {
		return nil
	}
	return func() Finding {
		return Finding{
			Says:    r.name(s) + " has a SATA power plug; the lead that reaches " + string(s.ID) + " ends in " + string(s.Power),
			Because: []Reason{{FromSheet, "the bay on " + string(s.ID) + " is fed by a " + string(s.Power) + " plug"}, {FromStandard, "drives of 2.5 and 3.5 inch are fed through the SATA power plug"}},
			Cures:   []Cure{{Says: "bring a crimped adapter from " + string(s.Power) + " to sata; moulded ones are a known cause of fire"}},
		}
	}
}
