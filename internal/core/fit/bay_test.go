package fit_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// bayBoard is four ports. Tied, each has the bay of its own that forms say; apart, the bays are
// listed: two for 2.5-inch drives, of which S1 and S2 reach the first, and one for any that
// is fed by a slim plug.
func bayBoard(apart bool) *machine.Sheet {
	s := &machine.Sheet{Roots: []machine.Root{{ID: "cpu", Name: "cpu", Kind: machine.CPU}}}
	s.Chassis.Feeds3V3, s.Chassis.Plugs = quantity.No, []machine.PlugCount{{Kind: part.PlugSATA, Count: 4}, {Kind: part.PlugSlim, Count: 1}}
	for i, forms := range [][]part.Form{{part.Form3i5}, {part.Form2i5}, {part.Form2i5}, nil} {
		k := machine.Socket{ID: machine.SocketID(fmt.Sprint("S", i+1)), Kind: machine.SATA, Root: "cpu", Protocols: []link.Protocol{link.SATA}, SATAGen: 3, Lead: quantity.No}
		if !apart && forms != nil {
			k.Drives, k.BayMM = forms, 26.1
		}
		s.Sockets = append(s.Sockets, k)
	}
	s.Sockets[0].Lead = quantity.Yes
	if apart {
		s.Bays = []machine.Bay{
			{ID: "low", Ports: []machine.SocketID{"S1", "S2"}, Mount: machine.Mount{Drives: []part.Form{part.Form2i5}, BayMM: 9.5}},
			{ID: "mid", Ports: []machine.SocketID{"S2"}, Mount: machine.Mount{Drives: []part.Form{part.Form2i5}, BayMM: 9.5}},
			{ID: "top", Ports: []machine.SocketID{"S3"}, Mount: machine.Mount{Drives: []part.Form{part.Form2i5, part.Form3i5}, BayMM: 26.1}},
		}
	}
	return s
}

// In which bay a drive lies follows from where it was found, what was told, and what fits.
func TestBays(t *testing.T) {
	parts := map[byte]*part.Part{
		's': {ID: "ssd", Name: "ssd", Drive: &part.Drive{Form: part.Form2i5, Protocol: link.SATA, Gen: 3, HeightMM: 7, CapacityBytes: quantity.DriveBytes(500)}},
		'd': {ID: "disk", Name: "disk", Drive: &part.Drive{Form: part.Form3i5, Protocol: link.SATA, Gen: 3, HeightMM: 26.1, CapacityBytes: quantity.DriveBytes(2000)}},
	}
	for _, c := range []struct {
		name           string
		apart          bool
		found, planned string // s1@S1 d1@S2 s2@S3=low: the first letter is the part, after = is told
		want           string // bays, and what stops
	}{
		{"a new drive lies in the bay of its port", false, "", "d1@S1", "d1:S1"},
		{"one too large for it does not go elsewhere by itself", false, "", "d1@S2", "d1:S2 bay-form"},
		{"but where it is told", false, "", "d1@S2=S1", "d1:S1"},
		{"its lead moved, a drive stays in its bay", false, "d1@S1", "d1@S2", "d1:S1"},
		{"and moves with it where another wants that bay", false, "s1@S2", "s1@S4 s2@S2", "s1:S4 s2:S2 fit-unknown"},
		{"two found drives change leads, not bays", false, "d1@S1 s1@S2", "d1@S2 s1@S1", "d1:S1 s1:S2"},
		{"a bay holds what it was told, the other drive has none of its own", false, "", "s1@S3=S2 s2@S2", "s1:S2 s2:S3"},

		{"of listed bays that which the port's leads reach", true, "", "s1@S2", "s1:low"},
		{"the next where that is taken", true, "", "s1@S1 s2@S2", "s1:low s2:mid"},
		{"and the narrower one is left to whom only it fits", true, "", "s1@S3 d1@S1", "s1:low d1:top"},
		{"with the lead of another port", true, "", "d1@S4", "d1:top"},
		{"the last finds none", true, "", "s1@S1 s2@S2 s3@S3 s4@S4", "s1:low s2:mid s3:top bay-form"},
		{"one that nothing takes", true, "", "d1@S1 d2@S2", "d1:top d2:low bay-form bay-height"},
		{"found drives stay where they lay", true, "s1@S3", "s1@S3 d1@S4", "s1:top d1:low bay-form bay-height"},
		{"those whose lead is moved make room", true, "s1@S3", "s1@S4 d1@S3", "s1:low d1:top"},
		{"unless it is told", true, "s1@S3", "s1@S3=mid d1@S4", "d1:top s1:mid"},
		{"where they were found may be told, too", true, "s1@S2=mid", "s1@S4", "s1:mid"},
	} {
		b := rig.Rig{Sheet: bayBoard(c.apart), Found: &rig.Setup{}}
		read := func(text string, into *rig.Setup, found bool) {
			for _, word := range strings.Fields(text) {
				word, bay, _ := strings.Cut(word, "=")
				id, at, _ := strings.Cut(word, "@")
				into.Placements = append(into.Placements, rig.Placement{Item: rig.ItemID(id), Socket: rig.On(machine.SocketID(at))})
				if bay != "" {
					into.Bays = append(into.Bays, rig.Lying{Item: rig.ItemID(id), Bay: machine.BayID(bay)})
				}
				if b.Piece(rig.ItemID(id)) == nil {
					b.Pieces = append(b.Pieces, rig.Piece{ID: rig.ItemID(id), Part: parts[id[0]], New: !found})
				}
			}
		}
		read(c.found, b.Found, true)
		read(c.planned, &b.Setup, false)
		a := fit.Resolve(&b)
		var got []string
		for _, l := range a.Bays() {
			got = append(got, fmt.Sprint(l.Item, ":", l.Bay))
		}
		for _, f := range a.Findings {
			if (f.Severity == fit.Stops || f.Code == "fit-unknown") && f.Code != "memory-none" && !slices.Contains(got, string(f.Code)) {
				got = append(got, string(f.Code))
			}
		}
		want := strings.Fields(c.want)
		slices.Sort(got)
		slices.Sort(want)
		if !slices.Equal(got, want) {
			t.Errorf("%s: %q, want %q", c.name, got, want)
		}
	}
}
