package fit_test

import (
	"slices"
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// A slim optical drive has its own plug and bay, and needs a port and a lead like a disk;
// an SSD that takes its place needs what lets it in, and is then the system drive that the
// optical one never is.
func TestOptical(t *testing.T) {
	slim := &part.Part{ID: "dvd", Name: "dvd", Drive: &part.Drive{Form: part.FormSlim, HeightMM: 9.5}}
	full := &part.Part{ID: "bd", Name: "bd", Drive: &part.Drive{Form: part.Form5i25}}
	ssd := &part.Part{ID: "ssd", Name: "ssd", Drive: &part.Drive{Form: part.Form2i5, Protocol: link.SATA, Gen: 3, HeightMM: 7, CapacityBytes: quantity.DriveBytes(480)}}
	caddy := &part.Part{ID: "caddy", Name: "caddy", Fitting: &part.Fitting{Kind: part.Caddy, Holds: part.Form2i5, Fits: part.FormSlim}}
	plug := &part.Part{ID: "plug", Name: "plug", Fitting: &part.Fitting{Kind: part.PowerAdapter, From: part.PlugSlim, To: part.PlugSATA, Crimped: quantity.Yes}}
	bay := machine.Socket{ID: "S1", Kind: machine.SATA, Root: "cpu", Protocols: []link.Protocol{link.SATA}, SATAGen: 3,
		Mount: machine.Mount{Drives: []part.Form{part.FormSlim}, BayMM: 9.5, Power: part.PlugSlim}, Lead: quantity.Yes}
	disk := bay
	disk.Drives, disk.Power, disk.BayMM = []part.Form{part.Form2i5}, "", 9.5
	has := func(k machine.Socket, p *part.Part, with ...*part.Part) []fit.Code {
		sheet := machine.Sheet{Roots: []machine.Root{{ID: "cpu", Name: "cpu", Kind: machine.CPU}}, Sockets: []machine.Socket{k}}
		sheet.Chassis.Feeds3V3 = quantity.No
		sheet.Chassis.Plugs = []machine.PlugCount{{Kind: part.PlugSATA, Count: 2}, {Kind: part.PlugSlim, Count: 1}}
		b := rig.Rig{Sheet: &sheet, Pieces: []rig.Piece{{ID: "it", Part: p, New: true}}, Setup: rig.Setup{Placements: []rig.Placement{{Item: "it", Socket: rig.On("S1")}}}}
		b.Wish.SystemBytes = quantity.DriveBytes(240)
		for _, f := range with {
			b.Pieces = append(b.Pieces, rig.Piece{ID: rig.ItemID(f.ID), Part: f, New: true})
		}
		r := fit.Resolve(&b)
		var out []fit.Code
		for _, f := range r.Findings {
			if f.Code != "memory-none" {
				out = append(out, f.Code)
			}
		}
		return out
	}
	for _, c := range []struct {
		name string
		got  []fit.Code
		want []fit.Code
	}{
		{"in its bay", has(bay, slim), []fit.Code{"wish-system"}},
		{"12.7 mm in a bay of 9.5", has(bay, &part.Part{ID: "x", Name: "x", Drive: &part.Drive{Form: part.FormSlim, HeightMM: 12.7}}), []fit.Code{"bay-height", "wish-system"}},
		{"of unknown height", has(bay, &part.Part{ID: "x", Name: "x", Drive: &part.Drive{Form: part.FormSlim}}), []fit.Code{"fit-unknown", "wish-system"}},
		{"of full size in it", has(bay, full), []fit.Code{"bay-form", "plug-wrong", "wish-system"}},
		{"slim in a disk's bay", has(disk, slim), []fit.Code{"bay-form", "plug-wrong", "wish-system"}},
		{"an SSD bare in it", has(bay, ssd), []fit.Code{"bay-form", "plug-wrong", "wish-system"}},
		{"an SSD with a caddy alone", has(bay, ssd, caddy), []fit.Code{"plug-wrong", "wish-system"}},
		{"an SSD with caddy and plug", has(bay, ssd, caddy, plug), nil},
	} {
		slices.Sort(c.got)
		for _, w := range c.want {
			if !slices.Contains(c.got, w) {
				t.Errorf("%s: %v, want %v", c.name, c.got, c.want)
				break
			}
		}
		if len(c.got) != len(c.want) {
			t.Errorf("%s: %v, want %v", c.name, c.got, c.want)
		}
	}
}
