package power_test

import (
	"slices"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
)

// mini is a small machine with one M.2 socket, one port, two slots, a setting,
// and half a gigabyte kept by graphics.
func mini() *rig.Rig {
	module := &part.Part{Name: "Module", Module: &part.Module{Generation: memory.DDR4, Form: memory.SODIMM, SizeBytes: 16 * quantity.GiB, RateMTps: 2666, Ranks: 1}}
	return &rig.Rig{
		Sheet: &machine.Sheet{
			Roots:  []machine.Root{{ID: "cpu", Name: "processor", Kind: machine.CPU}},
			Groups: []machine.Group{{ID: "g", Root: "cpu", Lanes: 4}},
			Sockets: []machine.Socket{
				{ID: "M2", Kind: machine.M2, Group: "g", Gen: 4, Lanes: 4, Protocols: []link.Protocol{link.PCIe}, Key: "M", LengthsMM: []quantity.Millimetres{80}},
				{ID: "S1", Kind: machine.SATA, Root: "cpu", SATAGen: 3, Protocols: []link.Protocol{link.SATA}, Mount: machine.Mount{Drives: []part.Form{part.Form2i5}}},
				{ID: "D1", Kind: machine.SODIMM, Root: "cpu", Channel: "A"}, {ID: "D2", Kind: machine.SODIMM, Root: "cpu", Channel: "B"},
			},
			Settings: []machine.Setting{{ID: "mode", Name: "Mode", Options: []machine.Option{{Value: "ahci", Name: "AHCI"}, {Value: "raid", Name: "RAID"}}, Default: "ahci"}},
			Memory:   machine.Memory{Generation: memory.DDR4, Reserved: 512 * quantity.MiB, Speeds: []machine.Speed{{PerChannel: 1, MTps: 2666}}},
		},
		Pieces: []rig.Piece{
			{ID: "m", Part: module},
			{ID: "n", New: true, Part: &part.Part{Name: "Drive", Drive: &part.Drive{Form: part.FormM2, Protocol: link.PCIe, Gen: 4, Lanes: 4, CapacityBytes: quantity.DriveBytes(2000), M2: &part.M2{Keys: []part.Key{"M"}, LengthMM: 80}}}},
			{ID: "s", Part: &part.Part{Name: "Disk", Drive: &part.Drive{Form: part.Form2i5, Protocol: link.SATA, Gen: 2, CapacityBytes: quantity.DriveBytes(500)}}},
		},
		Setup: rig.Setup{Placements: []rig.Placement{{Item: "m", Socket: rig.ParsePath("D1")}, {Item: "n", Socket: rig.ParsePath("M2")}, {Item: "s", Socket: rig.ParsePath("S1")}}},
	}
}

// line is a line as people read it.
type line struct {
	ID, Screen, About, Expected, Seen, Says, Reason string
	Shows                                           [][2]string
	Verdict                                         power.Verdict
}

func compared(b *rig.Rig, r *fit.Answer, readings []power.Reading, reasons map[power.LineID]string) []line {
	var out []line
	for _, l := range say.English(b).Lines(power.Compare(b, r, power.Seen{Readings: readings, Reasons: reasons})) {
		x := line{l.ID.String(), string(l.Screen), l.About.String(), l.Expected.String(), l.Seen.String(), l.Says.String(), string(l.Reason), nil, l.Verdict}
		for _, s := range l.Shows {
			x.Shows = append(x.Shows, [2]string{s.Where.String(), s.Text.String()})
		}
		out = append(out, x)
	}
	return out
}

// Every line of both screens, to the letter.
func TestLines(t *testing.T) {
	b := mini()
	r := fit.Resolve(b)
	var got []string
	for _, l := range compared(b, &r, nil, nil) {
		shows := ""
		for _, s := range l.Shows {
			shows += "; " + s[0] + ": " + s[1]
		}
		got = append(got, l.Screen+" | "+l.ID+" | "+l.About+" | "+l.Expected+shows)
	}
	want := `set-up | message | What the first screens say | it starts; a notice that memory or settings changed is right once
set-up | total | Memory total | 16 GiB; in megabytes: 16,384 MB
set-up | rate | Memory speed | 2666 MT/s; as a clock, on older screens: 1333 MHz
set-up | slot/D1 | Slot D1 | 16 GiB
set-up | slot/D2 | Slot D2 | empty
set-up | drive/M2 | Drive on M2 | 2 TB; decimal: 2.00 TB (2,000,398,934,016 bytes); binary: 1.82 TiB; as many systems print it: 1.81 TB
set-up | drive/S1 | Disk on S1 | 500 GB; decimal: 500.11 GB (500,107,862,016 bytes); binary: 465.76 GiB; as many systems print it: 465 GB
set-up | setting/mode | Mode | AHCI
boot-list | boot/M2 | Drive on M2, in the boot list | unknown
boot-list | boot/S1 | Disk on S1, in the boot list | unknown
installer | installer/M2 | Drive on M2, in the installer's list | 1.81 TB
installer | installer/S1 | Disk on S1, in the installer's list | 465 GB
system | fitted | Memory that the system says is there | 16 GiB
system | usable | Memory the system can use | up to 15.50 GiB
system | disk/M2 | Drive on M2, in the system's list of disks | 1.81 TB
system | errors/M2 | Errors counted on M2, where Drive is | none
system | heat/M2 | Temperature of Drive on M2, at work | at most 75 °C
system | link/M2 | Link of Drive on M2 | Gen 4 x4; at most: 7.88 GB/s before packet overhead
system | disk/S1 | Disk on S1, in the system's list of disks | 465 GB
system | errors/S1 | Errors counted on S1, where Disk is | none
system | link/S1 | Link of Disk on S1 | SATA 3 Gb/s; at most: 300 MB/s after coding`
	if strings.Join(got, "\n") != want {
		t.Errorf("got\n%s\nwant\n%s", strings.Join(got, "\n"), want)
	}
}

// A card is a line of its own, a carrier is not, and the drives on it are, under
// the names of their positions.
func TestCards(t *testing.T) {
	b := mini()
	b.Sheet.Sockets = append(b.Sheet.Sockets,
		machine.Socket{ID: "X1", Kind: machine.Slot, Root: "cpu", Gen: 3, Lanes: 16, Protocols: []link.Protocol{link.PCIe}},
		machine.Socket{ID: "X2", Kind: machine.Slot, Root: "cpu", Gen: 3, Lanes: 8, Protocols: []link.Protocol{link.PCIe}})
	b.Pieces = append(b.Pieces,
		rig.Piece{ID: "g", Part: &part.Part{Name: "Graphics", Card: &part.Card{Gen: 4, Lanes: 16}}},
		rig.Piece{ID: "c", Part: &part.Part{Name: "Carrier", Card: &part.Card{Gen: 4, Lanes: 8, Carrier: &part.Carrier{Positions: []part.Position{{Lanes: 4}, {FirstLane: 4, Lanes: 4}}}}}})
	b.Placements = []rig.Placement{{Item: "m", Socket: rig.ParsePath("D1")}, {Item: "g", Socket: rig.ParsePath("X1")}, {Item: "c", Socket: rig.ParsePath("X2")}, {Item: "n", Socket: rig.ParsePath("X2/1")}}
	r := fit.Resolve(b)
	var got []string
	for _, l := range compared(b, &r, nil, nil) {
		if strings.Contains(l.ID, "X") && l.Verdict != power.NotAsked {
			got = append(got, l.ID+" "+l.About+": "+l.Expected)
		}
	}
	want := "drive/X2/1 Drive on X2/1: 2 TB\nlink/X1 Link of Graphics in X1: Gen 3 x16\nlink/X2/1 Link of Drive on X2/1: Gen 3 x4"
	if strings.Join(got, "\n") != want {
		t.Errorf("%s\nwant\n%s", strings.Join(got, "\n"), want)
	}
	// The second position is not served by a slot that is not split: nothing is shown there.
	b.Placements[3].Socket = rig.ParsePath("X2/2")
	r = fit.Resolve(b)
	for _, l := range compared(b, &r, nil, nil) {
		if l.ID == "drive/X2/2" && l.Expected != "not there" || l.ID == "link/X2/2" {
			t.Errorf("%+v", l)
		}
	}
}

// A drive in a USB box is looked for in the system, by its size; the link that is
// seen is the box's.
func TestBox(t *testing.T) {
	b := mini()
	b.Sheet.Sockets = append(b.Sheet.Sockets, machine.Socket{ID: "R1", Kind: machine.USB, Root: "cpu", Protocols: []link.Protocol{link.USB}, USB: link.USB10})
	b.Pieces = append(b.Pieces, rig.Piece{ID: "x", Part: &part.Part{Name: "Box", Enclosure: &part.Enclosure{USB: link.USB20, Positions: []part.Position{{Lanes: 4, Gen: 3}}}}})
	b.Placements = []rig.Placement{{Item: "m", Socket: rig.ParsePath("D1")}, {Item: "x", Socket: rig.ParsePath("R1")}, {Item: "n", Socket: rig.ParsePath("R1/1")}}
	r := fit.Resolve(b)
	var got []string
	for _, l := range compared(b, &r, nil, nil) {
		if strings.Contains(l.ID, "R1") && l.Verdict != power.NotAsked {
			got = append(got, l.Screen+" "+l.ID+" "+l.About+": "+l.Expected+", "+l.Shows[0][1])
		}
	}
	want := "system link/R1 Link of Box on R1: USB 3.2 Gen 2, 10000\nsystem drive/R1/1 Drive on R1/1: 2 TB, 2.00 TB (2,000,398,934,016 bytes)"
	if strings.Join(got, "\n") != want {
		t.Errorf("%s\nwant\n%s", strings.Join(got, "\n"), want)
	}
	for typed, want := range map[string]power.Verdict{"10000": power.Agrees, "USB 10 Gb/s": power.Agrees, "10000 Mb/s": power.Agrees, "480": power.Differs, "5000": power.Differs, "Gen 3 x4": power.Differs, "99": "", "USB fast": ""} {
		reading, err := power.Read(power.ParseLineID("link/R1"), typed)
		if (err == nil) != (want != "") {
			t.Errorf("%q: %v", typed, err)
			continue
		}
		for _, l := range compared(b, &r, []power.Reading{reading}, nil) {
			if err == nil && l.ID == "link/R1" && (l.Verdict != want || l.Seen != typed) {
				t.Errorf("%q: %s, seen %q", typed, l.Verdict, l.Seen)
			}
		}
	}
}

// What people type, and what it comes to beside what is expected.
func TestReadings(t *testing.T) {
	b := mini()
	r := fit.Resolve(b)
	for _, c := range []struct {
		line  string
		typed string
		want  power.Verdict // "" when it cannot be read
	}{
		{"total", "16 GB", power.Agrees}, {"total", "16384 MB", power.Agrees}, {"total", "16 GiB", power.Agrees}, {"total", "8 GB", power.Differs}, {"total", "lots", ""},
		{"usable", "15.4 GB", power.Agrees}, {"usable", "15.5 GB", power.Agrees}, {"usable", "16 GB", power.Agrees}, {"usable", "14.8 GB", power.Differs}, {"usable", "17 GB", power.Differs},
		{"rate", "2666", power.Agrees}, {"rate", "2667 MT/s", power.Agrees}, {"rate", "1333 MHz", power.Agrees}, {"rate", "2400", power.Differs}, {"rate", "fast", ""}, {"rate", "-1", ""},
		{"slot/D1", "16 GB", power.Agrees}, {"slot/D1", "empty", power.Differs}, {"slot/D2", "empty", power.Agrees}, {"slot/D2", "16 GB", power.Differs},
		{"drive/M2", "2 TB", power.Agrees}, {"drive/M2", "1.81 TB", power.Agrees}, {"drive/M2", "1.8 TB", power.Agrees}, {"drive/M2", "1863 GB", power.Agrees}, {"drive/M2", "2000.3 GB", power.Agrees},
		{"drive/M2", "1 TB", power.Differs}, {"drive/M2", "1.7 TB", power.Differs}, {"drive/M2", "not there", power.Differs}, {"drive/M2", "big", ""},
		{"drive/S1", "465 GB", power.Agrees}, {"drive/S1", "465.8 GB", power.Agrees}, {"drive/S1", "500 GB", power.Agrees}, {"drive/S1", "480 GB", power.Differs},
		{"link/M2", "Gen 4 x4", power.Agrees}, {"link/M2", "gen4x4", power.Agrees}, {"link/M2", "16 GT/s x4", power.Agrees}, {"link/M2", "8 GT/s x4", power.Differs},
		{"link/M2", "Gen 4 x2", power.Differs}, {"link/M2", "Gen 9 x4", ""}, {"link/M2", "Gen 4 x99", ""}, {"link/M2", "7 Gb/s", ""},
		{"link/S1", "3 Gb/s", power.Agrees}, {"link/S1", "SATA Gen 2", power.Agrees}, {"link/S1", "6 Gb/s", power.Differs},
		// As screens print it.
		{"total", "16", power.Agrees}, {"total", "16384", power.Agrees}, {"total", "16,384 MB", power.Agrees}, {"total", "8", power.Differs}, {"total", "512", ""}, {"total", "17179869184", power.Agrees},
		{"total", "16.0 GB (15.9 GB usable)", power.Agrees}, {"usable", "16.0 GB (15.4 GB usable)", power.Agrees}, {"usable", "16.0 GB (14.1 GB usable)", power.Differs},
		{"slot/D1", "16384", power.Agrees}, {"drive/M2", "2", ""}, {"drive/M2", "2000398934016", power.Agrees},
		{"rate", "2.67 GHz", power.Agrees}, {"rate", "1.33 GHz", power.Agrees}, {"rate", "2.4 GHz", power.Differs}, {"rate", "DDR4-2666", power.Agrees}, {"rate", "DDR4 2400", power.Differs}, {"rate", "PC4-21300", power.Agrees}, {"rate", "DDR4-99", ""}, {"rate", "NaN", ""},
		{"link/M2", "PCIe 4.0 x4", power.Agrees}, {"link/M2", "PCIe 3.0 x4", power.Differs}, {"link/M2", "PCI Express 4.0 x4", power.Agrees}, {"link/M2", "PCIe Gen4 x4", power.Agrees},
		{"link/M2", "Speed 16GT/s (ok), Width x4 (ok)", power.Agrees}, {"link/M2", "16.0 GT/s PCIe x4", power.Agrees}, {"link/M2", "x4 Gen 4", power.Agrees}, {"link/M2", "x4", ""}, {"link/M2", "Gen 4 banana", ""}, {"link/M2", "4 x4", power.Agrees},
		{"link/S1", "SATA II", power.Agrees}, {"link/S1", "SATA 3.0 Gb/s", power.Agrees}, {"link/S1", "SATA III", power.Differs}, {"link/S1", "3.0 Gbps", power.Agrees},
		{"setting/mode", "AHCI", power.Agrees}, {"setting/mode", "raid", power.Differs},
		{"no/such", "x", ""}, {"total", " ", ""},
	} {
		reading, err := power.Read(power.ParseLineID(c.line), c.typed)
		if (err == nil) != (c.want != "") {
			t.Errorf("%s %q: error %v", c.line, c.typed, err)
			continue
		}
		if err != nil {
			continue
		}
		lines := compared(b, &r, []power.Reading{reading}, nil)
		l := lines[slices.IndexFunc(lines, func(l line) bool { return l.ID == c.line })]
		if l.Verdict != c.want {
			t.Errorf("%s %q: %s, want %s", c.line, c.typed, l.Verdict, c.want)
		}
		if l.Seen == "" || (l.Verdict == power.Differs) != strings.Contains(l.Says, ", expected "+l.Expected) {
			t.Errorf("%s %q: seen %q, says %q", c.line, c.typed, l.Seen, l.Says)
		}
	}
}

// What is foretold, if it is what is shown, agrees everywhere.
func TestExpectedAgreesWithItself(t *testing.T) {
	b := mini()
	r := fit.Resolve(b)
	want := power.Expect(b, &r)
	for _, l := range compared(b, &r, want.Readings, nil) {
		told := slices.ContainsFunc(want.Readings, func(r power.Reading) bool { return r.Line.String() == l.ID })
		if told != (l.Verdict == power.Agrees) {
			t.Errorf("%s: %s, %s", l.ID, l.Verdict, l.Says)
		}
	}
	if len(want.Readings) != 18 || want.Format != power.Format || want.Version != power.Version {
		t.Errorf("%d readings in %s %d", len(want.Readings), want.Format, want.Version)
	}
}

// An unknown speed is a line all the same: what is shown is noted, not judged.
func TestUnknownIsNoted(t *testing.T) {
	b := mini()
	b.Sheet.Memory.Speeds = nil
	r := fit.Resolve(b)
	lines := compared(b, &r, []power.Reading{{Line: power.ParseLineID("rate"), MTps: 2400, Origin: power.Typed}}, nil)
	if l := lines[2]; l.Expected != "at most 2666 MT/s" || l.Verdict != power.Noted || l.Seen != "2400 MT/s" {
		t.Errorf("%+v", l)
	}
	for _, x := range power.Expect(b, &r).Readings {
		if x.Line == power.ParseLineID("rate") {
			t.Errorf("foretold all the same: %+v", x)
		}
	}
}

// A part that is stopped is expected not to show, and a reason explains a difference.
func TestAbsentAndExplained(t *testing.T) {
	b := mini()
	b.Pieces[1].Part.Drive.Protocol = link.SATA
	r := fit.Resolve(b)
	gone, _ := power.Read(power.ParseLineID("drive/M2"), "not there")
	small, _ := power.Read(power.ParseLineID("total"), "8 GB")
	for _, l := range compared(b, &r, []power.Reading{gone, small}, map[power.LineID]string{power.ParseLineID("total"): "one module is at the counter"}) {
		switch {
		case l.ID == "drive/M2" && (l.Expected != "not there" || l.Verdict != power.Agrees):
			t.Errorf("%+v", l)
		case l.ID == "total" && (l.Verdict != power.Explained || l.Verdict.Open() || l.Reason == ""):
			t.Errorf("%+v", l)
		case l.ID == "link/M2":
			t.Errorf("a link of a drive that is not seen: %+v", l)
		}
	}
}

// TestArrayOfSystem: an array that the system makes is one disk in the running system alone; firmware
// and installer show its members each by itself. One of firmware's is the other way round.
func TestArrayOfSystem(t *testing.T) {
	j, err := demo.Job("sonar-mosaic-desktop")
	if err != nil {
		t.Fatal(err)
	}
	for _, by := range []rig.Maker{rig.ByFirmware, rig.BySystem} {
		j.Arrays = slices.Clone(j.Arrays)
		j.Arrays[0].By, j.Arrays[0].Mode = by, rig.Choice{}
		r := j.PlannedRig()
		a := fit.Resolve(&r)
		seen := map[string]bool{}
		for _, l := range power.Compare(&r, &a, power.Seen{}) {
			seen[l.ID.String()] = true
		}
		for id, want := range map[string]bool{"array/scratch/system": true, "array/scratch": by == rig.ByFirmware, "installer/array:scratch": by == rig.ByFirmware, "link/M2_3": by == rig.BySystem} {
			if seen[id] != want {
				t.Errorf("made by %s: %s is foretold: %v", by, id, seen[id])
			}
		}
	}
}
