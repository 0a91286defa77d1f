package build

// This file holds the rules about room, voltage and heat at one socket.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
)

// tooTall words a height that meets less room: the four rules about room differ
// only in what is measured.
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
	d := s.drive()
	if d == nil || d.M2 == nil {
		return nil
	}
	return r.tooTall(s, d.M2.TopMM, s.TopMM, " stands above its board by ", "", " has free above it ")
}

func m2Under(r *resolver, s *sock) func() Finding {
	d := s.drive()
	if d == nil || d.M2 == nil || d.M2.TwoSided == quantity.No {
		return nil
	}
	return r.tooTall(s, d.M2.BottomMM, s.BottomMM, " has parts below its board of ", "", " has free below it ")
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

// bare reports a PCIe drive of some generation that has no heatsink, its own or
// the socket's; where either is not stated nothing is claimed.
func bare(s *sock, from, to quantity.Gen) bool {
	d := s.drive()
	return d != nil && d.M2 != nil && d.Protocol == link.PCIe && d.Gen >= from && d.Gen <= to && d.M2.Heatsink == quantity.No && s.Heatsink == quantity.No
}

func m2Hot(r *resolver, s *sock) func() Finding {
	if !bare(s, 5, link.MaxGen) {
		return nil
	}
	return func() Finding {
		return r.heat(s, " needs a heatsink", "Gen 5 drives draw 4 to 11 W and need a heatsink")
	}
}

func m2Warm(r *resolver, s *sock) func() Finding {
	if !bare(s, 4, 4) {
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
		f.Because = append(f.Because, Reason{FromPart, r.name(s) + " draws up to " + strconv.FormatFloat(w, 'f', -1, 64) + " W"})
	}
	return f
}
