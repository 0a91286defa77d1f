package fit

// This file holds the rules about drives in boxes on USB ports.

import (
	"deepbay/internal/core/link"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

func boxSupply(r *resolver, s *sock) func() Finding {
	d := s.drive()
	if d == nil || !s.outside() || d.Form != part.Form3i5 || s.parent.enclosure().OwnSupply != quantity.No {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " does not start in " + r.name(s.parent) + ": the box lives from the port",
			Because: []Reason{{FromPart, r.name(s.parent) + " has no supply of its own"},
				{FromStandard, "a USB port feeds 5 V; a 3.5-inch drive needs 12 V too, and up to 30 W while it starts"}},
			Cures: []Cure{{Says: "use a box with its own supply"}},
		}
	}
}

func boxNarrow(r *resolver, s *sock) func() Finding {
	e := s.enclosure()
	if e == nil || s.trained == nil || s.trained.USB == "" || s.trained.USB.LineRate() >= e.USB.LineRate() {
		return nil
	}
	return func() Finding {
		return Finding{Says: r.name(s) + " could do " + e.USB.String() + " and runs at " + s.trained.Text + " on " + string(s.ID), Because: s.because}
	}
}

// boxNarrowCures are the free ports on which the box is faster.
func boxNarrowCures(r *resolver, s *sock) []Cure {
	var out []Cure
	for _, c := range r.elsewhere(s) {
		if k := r.place(c.Moves[0].Socket); k.USB.Train(s.enclosure().USB).LineRate() > s.trained.USB.LineRate() {
			out = append(out, c)
		}
	}
	return out
}

// outsideCost says what a drive in a box loses against a place inside.
func outsideCost(r *resolver, s *sock) func() Finding {
	d := s.drive()
	if d == nil || !s.outside() || s.trained == nil || s.parent.trained == nil {
		return nil
	}
	return func() Finding {
		box, e := r.name(s.parent), s.parent.enclosure()
		inside, here := own(d), quantity.Rate(0)
		if u := s.parent.trained.USB; u != "" {
			here = u.Planning()
			if inside.Known() {
				here = min(here, inside)
			}
		}
		f := Finding{
			Says: r.name(s) + " moves about " + here.String() + " outside, in " + box + ", and up to " + inside.String() + " inside",
			Because: []Reason{{FromPart, "the link of " + box + " is " + s.parent.trained.Text + ", " + s.parent.trained.Rate},
				{FromStandard, "a bridge and its cable cost most with small files: each request waits for one more translation"}},
		}
		loss := func(a quantity.Answer, bad quantity.Answer, says, open string) {
			switch a {
			case bad:
				f.Because = append(f.Because, Reason{FromPart, box + " " + says})
			case quantity.Unknown:
				f.Because = append(f.Because, Reason{FromPart, "unknown, because the label of " + box + " does not say whether it " + open})
			}
		}
		loss(e.Queues, quantity.No, "takes one command at a time: small files run 2 to 10 times slower", "queues commands")
		loss(e.Trims, quantity.No, "does not pass on what was deleted (TRIM): a flash drive slows down with use", "passes on what was deleted (TRIM)")
		loss(e.Translates, quantity.Yes, "shows other sectors or encrypts: the drive is unreadable without it, so copy off before you take it out", "shows the drive's own sectors")
		for _, c := range r.elsewhere(s) {
			if k := r.place(c.Moves[0].Socket); !k.outside() {
				f.Cures = append(f.Cures, c)
			}
		}
		return f
	}
}

// own is what a drive moves by itself, 0 where its label does not say.
func own(d *part.Drive) quantity.Rate {
	rate := d.Link().Planning()
	if d.Protocol == link.SATA {
		rate = link.SATARate(d.Gen)
	}
	if rated := quantity.MBps(d.ReadMBps); rated.Known() && (!rate.Known() || rated < rate) {
		rate = rated
	}
	return rate
}
