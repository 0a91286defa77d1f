package fit

// This file holds the rules about room, voltage and heat at one socket.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// tooTall words a measure that meets less room: the rules about room differ only
// in what is measured.
func (r *resolver) tooTall(s *sock, is, has quantity.Millimetres, what, before, after string) func() Finding {
	if !has.Known() || is <= has {
		return nil
	}
	return func() Finding {
		where := before + string(s.ID) + after
		return Finding{
			Says:    r.name(s) + what + is.String() + "; " + where + has.String(),
			Because: []Reason{{FromPart, r.name(s) + what + is.String()}, {FromSheet, where + has.String()}},
		}
	}
}

func m2Height(r *resolver, s *sock) func() Finding {
	m := s.m2()
	if m == nil {
		return nil
	}
	return r.tooTall(s, m.TopMM, s.TopMM, " stands above its board by ", "", " has free above it ")
}

// m2Cover asks for room under the card above; room that is there without one is
// m2Height's question.
func m2Cover(r *resolver, s *sock) func() Finding {
	m := s.m2()
	if m == nil || !s.UnderMM.Known() || m.TopMM <= s.UnderMM {
		return nil
	}
	k := r.over(s.Under, s)
	if k == nil {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " stands above its board by " + m.TopMM.String() + "; under " + r.name(k) + " " + string(s.ID) + " has " + s.UnderMM.String(),
			Because: []Reason{{FromPart, r.name(s) + " stands above its board by " + m.TopMM.String()},
				{FromSheet, string(s.ID) + " lies under the card at rear opening " + strconv.Itoa(s.Under) + ", which leaves " + s.UnderMM.String()},
				{FromPlan, r.name(k) + " is in " + string(k.ID)}},
			Cures: append(r.elsewhere(k), Cure{Says: "use a flatter heatsink"}),
		}
	}
}

func m2Width(r *resolver, s *sock) func() Finding {
	m := s.m2()
	if m == nil {
		return nil
	}
	return r.tooTall(s, m.WidthMM, s.WidthMM, " is as wide as ", "", " has room for ")
}

func m2Under(r *resolver, s *sock) func() Finding {
	m := s.m2()
	if m == nil || m.TwoSided == quantity.No {
		return nil
	}
	return r.tooTall(s, m.BottomMM, s.BottomMM, " has parts below its board of ", "", " has free below it ")
}

func moduleHeight(r *resolver, s *sock) func() Finding {
	m := s.module()
	if m == nil {
		return nil
	}
	return r.tooTall(s, m.HeightMM, s.TopMM, " is as tall as ", "under the cooler ", " has ")
}

func bayHeight(r *resolver, s *sock) func() Finding {
	d := s.drive()
	if d == nil {
		return nil
	}
	return r.tooTall(s, d.HeightMM, s.BayMM, " is as tall as ", "the bay on ", " takes ")
}

func memoryVoltage(r *resolver, s *sock) func() Finding {
	m, fed := s.module(), r.sheet.Memory.Millivolts
	if m == nil || !fed.Known() || len(m.Millivolts) == 0 || slices.Contains(m.Millivolts, fed) {
		return nil
	}
	return func() Finding {
		runs := make([]string, len(m.Millivolts))
		for i, v := range m.Millivolts {
			runs[i] = v.String()
		}
		return Finding{
			Says:    r.name(s) + " runs at " + strings.Join(runs, " or ") + "; this board feeds " + fed.String(),
			Because: []Reason{{FromPart, r.name(s) + " runs at " + strings.Join(runs, " or ")}, {FromSheet, "the board feeds " + fed.String()}},
			Cures:   []Cure{{Says: "use modules for " + fed.String()}},
		}
	}
}

func powerDisable(r *resolver, s *sock) func() Finding {
	d := s.drive()
	if d == nil || s.Kind != machine.SATA || d.PowerDisable != quantity.Yes || r.sheet.Chassis.Feeds3V3 != quantity.Yes {
		return nil
	}
	return func() Finding {
		return Finding{
			Says: r.name(s) + " does not start on this supply: 3.3 V on its plug holds it off",
			Because: []Reason{{FromPart, r.name(s) + " has the power-disable pin"}, {FromSheet, "the supply's SATA plugs carry 3.3 V"},
				{FromStandard, "SATA 3.3: 3.3 V on contact 3 holds the drive off"}},
			Cures: []Cure{{Says: "feed it from a lead without 3.3 V: a crimped 4-pin-peripheral adapter, or a newer lead of this very supply"}},
		}
	}
}

// coolWatts is what a bare drive may draw at full load before it is judged by its
// watts and not by its generation: drives up to so much do without a heatsink in
// moving air, from hotWatts on none does. Fairly sure figures of the trade.
const (
	coolWatts = 6
	hotWatts  = 8
)

// warmth grades a PCIe drive that has no heatsink, its own or the socket's: 2
// needs one, 1 may slow down, 0 is fine. Where either heatsink is not stated
// nothing is claimed.
func warmth(s *sock) int {
	d := s.drive()
	if d == nil || d.M2 == nil || d.Protocol != link.PCIe || d.M2.Heatsink != quantity.No || s.Heatsink != quantity.No {
		return 0
	}
	switch {
	case d.Watts >= hotWatts, d.Gen >= 5 && (d.Watts == 0 || d.Watts > coolWatts):
		return 2
	case d.Watts > coolWatts, d.Gen >= 4:
		return 1
	}
	return 0
}

func m2Hot(r *resolver, s *sock) func() Finding {
	if warmth(s) != 2 {
		return nil
	}
	return func() Finding {
		return r.heat(s, " needs a heatsink", "Gen 5 drives draw 4 to 11 W; above 6 W one is needed")
	}
}

func m2Warm(r *resolver, s *sock) func() Finding {
	if warmth(s) != 1 {
		return nil
	}
	return func() Finding {
		return r.heat(s, " may slow down under long writes without a heatsink", "Gen 4 drives draw 4 to 7 W; a heatsink is recommended")
	}
}

func (r *resolver) heat(s *sock, says, why string) Finding {
	f := Finding{
		Says: r.name(s) + " in " + string(s.ID) + says,
		Because: []Reason{{FromPart, r.name(s) + " brings no heatsink"}, {FromSheet, string(s.ID) + " has none"},
			{FromStandard, why + " (typical figures)"}},
		Cures: []Cure{{Says: "fit a heatsink, if the height allows"}},
	}
	if w := s.drive().Watts; w > 0 {
		f.Because = append(f.Because, Reason{FromPart, r.name(s) + " draws up to " + watts(w)})
	}
	return f
}

// slotWatts is what a slot of a length feeds its card (PCI Express CEM): 75 W for
// x16, 25 W for x4 and x8, 10 W for x1.
func slotWatts(long quantity.Lanes) float64 {
	switch {
	case long >= 16:
		return 75
	case long >= 4:
		return 25
	}
	return 10
}

// plugWatts is what a card draws from a plug (PCI Express CEM); the other plugs
// feed drives.
var plugWatts = map[part.Plug]float64{part.Plug6: 75, part.Plug8: 150, part.Plug16: 600}

func slotPower(r *resolver, s *sock) func() Finding {
	c := s.card()
	if c == nil || c.Watts == 0 || !s.Physical.Known() {
		return nil
	}
	fed := slotWatts(s.Physical)
	because := []Reason{{FromPart, r.name(s) + " draws up to " + watts(c.Watts)}, {FromStandard, "a slot " + s.Physical.String() + " long feeds up to " + watts(fed)}}
	for _, p := range c.Plugs {
		fed += plugWatts[p]
		because = append(because, Reason{FromStandard, "its " + string(p) + " plug feeds up to " + watts(plugWatts[p])})
	}
	if c.Watts <= fed {
		return nil
	}
	return func() Finding {
		return Finding{Says: r.name(s) + " draws up to " + watts(c.Watts) + "; " + string(s.ID) + " and its plugs feed " + watts(fed), Because: because}
	}
}

func watts(w float64) string { return strconv.FormatFloat(w, 'f', -1, 64) + " W" }
