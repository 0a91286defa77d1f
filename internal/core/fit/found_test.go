package fit

import (
	"slices"
	"testing"

	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest"
)

// A module that came in one of the board's slots is of the board's generation and runs at
// that one's voltage, in any slot; a new one of which nothing is said may be of another.
func TestFoundModuleIsOfTheBoard(t *testing.T) {
	for _, c := range []struct {
		lay   string
		board quantity.Millivolts
		to    rig.Path
		want  State
	}{
		{"@m16:A2", 1200, rig.On("A2"), Live},
		{"@m16:A2", 1200, rig.On("B2"), Live},
		{"@m16:A2", 0, rig.On("B2"), Live},
		{"@m16:A2", 1350, rig.On("B2"), Unsure}, // a voltage that is not the generation's own
		{"+m16:A2", 1200, rig.On("A2"), Unsure},
	} {
		b := coretest.Copy(coretest.Lay(t, coretest.Board(), c.lay))
		b.Piece("m16").Part.Module.Generation = ""
		b.Sheet.Memory.Millivolts = c.board
		if b.Found == nil {
			f := b.Setup.Clone()
			b.Found = &f
		}
		b.Setup = rig.Setup{Placements: []rig.Placement{{Item: "m16", Socket: c.to}}}
		a := Resolve(b)
		got := State("")
		for i := range a.Sockets {
			if a.Sockets[i].Socket == c.to {
				got = a.Sockets[i].State
			}
		}
		if got != c.want {
			t.Errorf("%s of a silent label, in %s of a board at %d mV: %s, want %s", c.lay, c.to, c.board, got, c.want)
		}
	}
}

// A profile beyond the board's table that the machine came with is no trial of the job,
// until modules or the profile change.
func TestProfileAsFound(t *testing.T) {
	for _, c := range []struct {
		lay   string
		asSet bool
		want  bool
	}{
		{"@fast:A2 @fast':B2 profile=on", true, false},
		{"@fast:A2 @fast':B2 profile=on", false, true},
		{"@fast:A2 fast':B2 profile=on", true, true},
		{"@fast:A2 +fast':B2 profile=on", true, true},
	} {
		b := coretest.Lay(t, coretest.Board(), c.lay)
		if c.asSet {
			b.Found.Settings = b.Settings
		}
		a := Resolve(b)
		if got := slices.ContainsFunc(a.Findings, func(f Finding) bool { return f.Code == "profile-trial" }); got != c.want {
			t.Errorf("%s, set so when it came %v: a trial %v, want %v", c.lay, c.asSet, got, c.want)
		}
	}
}
