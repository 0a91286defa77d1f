package fit

import (
	"testing"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/coretest"
)

// TestReasonsNameTheirSource leaves out what sheet and label say: nothing that was taken
// as usual, or follows from a standard, is said to be stated by them.
func TestReasonsNameTheirSource(t *testing.T) {
	silent := func(s *machine.Sheet) { s.Memory.Registered, s.Memory.Millivolts = quantity.Unknown, 0 }
	for _, c := range []struct {
		lay   string
		sheet func(*machine.Sheet)
		why   fact.Code
		want  Source
	}{
		{"reg:A1", func(*machine.Sheet) {}, BoardTakesReg, FromSheet},
		{"reg:A1", silent, BoardTakesReg, FromUsual},
		{"reg:A1", silent, ModuleIsReg, FromPart},
		{"volt:A1", silent, BoardFeeds, FromUsual},
		{"sata2:U", silent, DriveSpeaks, FromPart},
		{"sata2:U", silent, WiredFor, FromSheet},
		{"quad:X1 sata2:X1/1", silent, WiredFor, FromStandard},
		{"box:R1 tall110:R1/1", silent, PostsAt, FromPart},
		{"tall110:U", silent, PostsAt, FromSheet},
		{"tall110:U U?posts=42_60", silent, PostsAt, FromLooked},
	} {
		b := coretest.Lay(t, coretest.Board(), c.lay)
		c.sheet(b.Sheet)
		got, a := Source(""), Resolve(b)
		for _, f := range a.Findings {
			for _, why := range f.Because {
				if why.Fact.Code == c.why {
					got = why.From
				}
			}
		}
		if got != c.want {
			t.Errorf("%s: %s is said to be from %q, want %q", c.lay, c.why, got, c.want)
		}
	}
}
