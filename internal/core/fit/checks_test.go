package fit

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Two equal modules in the sheet's slots: nothing to say about memory.
const fine = " m16:A2 m16':B2"

// Each rule has a case in which it speaks and one, its neighbour, in which it
// does not. Whole answers are compared: a finding too many is a failure too.
var ruleCases = []struct {
	rule Code
	lay  string
	wish rig.Wish
	want string
}{
	{"kind-mismatch", "ssd:U" + fine, rig.Wish{}, "stops kind-mismatch U ssd"},
	{"kind-mismatch", "so:A1" + fine, rig.Wish{}, "stops kind-mismatch A1 so"},
	{"kind-mismatch", "ssd:P1" + fine, rig.Wish{}, ""},
	{"memory-generation", "ddr5:A2", rig.Wish{}, "stops memory-generation A2 ddr5\nstops memory-none"},
	{"memory-generation", "m16:A2", rig.Wish{}, ""},
	{"memory-registered", "reg:A1" + fine, rig.Wish{}, "stops memory-registered A1 reg"},
	{"memory-registered", "m16r2:A2", rig.Wish{}, ""},
	{"m2-key", "nvme:K" + fine, rig.Wish{}, "stops m2-key K nvme"},
	{"m2-key", "sata2:K" + fine, rig.Wish{}, ""},
	{"m2-length", "long:U" + fine, rig.Wish{}, "stops m2-length U long"},
	{"m2-length", "nvme:U" + fine, rig.Wish{}, ""},
	{"bay-form", "hdd:P1" + fine, rig.Wish{}, "stops bay-form P1 hdd"},
	{"bay-form", "hdd:P5" + fine, rig.Wish{}, ""},
	{"socket-off", "nvme3:L hdd:P6" + fine, rig.Wish{}, "stops socket-off P6 hdd\nnotes port-lost P5"},
	{"socket-off", "nvme:U hdd:P6" + fine, rig.Wish{}, ""},
	{"protocol", "sata2:U" + fine, rig.Wish{}, "stops protocol U sata2"},
	{"protocol", "nvme3:L sata-only=on" + fine, rig.Wish{}, "stops protocol L nvme3\nnotes port-lost P5\nnotes port-lost P6"},
	{"protocol", "sata2:L" + fine, rig.Wish{}, "notes port-lost P5\nnotes port-lost P6"},
	{"fit-unknown", "mystery:U" + fine, rig.Wish{}, "warns fit-unknown U mystery"},
	{"fit-unknown", "nvme3:Q" + fine, rig.Wish{}, "warns fit-unknown Q nvme3"},
	{"fit-unknown", "ssd:P7" + fine, rig.Wish{}, "warns fit-unknown P7 ssd"},
	{"fit-unknown", "ssd:P5" + fine, rig.Wish{}, ""},
	{"link-unknown", "nvme:G" + fine, rig.Wish{}, "warns link-unknown G nvme"},
	{"link-unknown", "nogen:U" + fine, rig.Wish{}, "warns link-unknown U nogen"},
	{"link-unknown", "plain:X2" + fine, rig.Wish{}, "warns link-unknown X2 plain"},
	{"link-unknown", "nvme:U" + fine, rig.Wish{}, ""},
	{"link-below-drive", "nvme:U cap=on" + fine, rig.Wish{}, "warns link-below-drive U nvme"},
	{"link-below-drive", "nvme3:U cap=on" + fine, rig.Wish{}, ""},
	{"uplink-below-link", "nvme:F" + fine, rig.Wish{}, "warns uplink-below-link F nvme"},
	{"uplink-below-link", "nvme3:L" + fine, rig.Wish{}, "notes port-lost P5\nnotes port-lost P6"},
	{"link-below-socket", "nvme3:U" + fine, rig.Wish{}, "notes link-below-socket U nvme3"},
	{"link-below-socket", "nvme:U" + fine, rig.Wish{}, ""},
	{"module-trial", "m64:A2", rig.Wish{}, "warns module-trial A2 m64"},
	{"module-trial", "m16:A2", rig.Wish{}, ""},
	{"module-proven", "m32:A2", rig.Wish{}, "notes module-proven A2 m32"},
	{"module-proven", "m16:A2", rig.Wish{}, ""},
	{"port-lost", "close=on" + fine, rig.Wish{}, "notes port-lost P1"},
	{"port-lost", "sata2:K half=on" + fine, rig.Wish{}, "notes port-lost P1"},
	{"port-lost", "sata2:K" + fine, rig.Wish{}, ""},
	{"memory-none", "nvme:U", rig.Wish{}, "stops memory-none"},
	{"memory-none", "nvme:U m16:A2", rig.Wish{}, ""},
	{"memory-channels", "m16:A1 m16':A2", rig.Wish{}, "warns memory-channels\nnotes memory-speed A1 m16\nnotes memory-speed A2 m16'"},
	{"memory-channels", "m16:A2 m16':B2", rig.Wish{}, ""},
	{"memory-order", "m16:A1 m16':B1", rig.Wish{}, "warns memory-order"},
	{"memory-order", "m16:A2 m16':B2", rig.Wish{}, ""},
	{"memory-order-unstated", "m16:A1 m16':A2 m16'':B2", rig.Wish{}, "notes memory-order-unstated\nnotes memory-unequal\nnotes memory-speed A1 m16\nnotes memory-speed A2 m16'\nnotes memory-speed B2 m16''"},
	{"memory-order-unstated", "m16:A2", rig.Wish{}, ""},
	{"memory-unequal", "m16:A2 m32:B2", rig.Wish{}, "notes module-proven B2 m32\nnotes memory-unequal\nnotes memory-mixed"},
	{"memory-unequal", "m16:A2 m16':B2", rig.Wish{}, ""},
	{"memory-speed", "m16:A2 m8:B2", rig.Wish{}, "notes memory-unequal\nnotes memory-speed A2 m16\nnotes memory-mixed"},
	{"memory-speed", "fast:A2 profile=off", rig.Wish{}, "notes memory-speed A2 fast"},
	{"memory-speed", "fast:A2 profile=on", rig.Wish{}, ""},
	{"memory-unknown", "nosize:A2", rig.Wish{}, "warns memory-unknown"},
	{"memory-unknown", "norate:A2", rig.Wish{}, "warns memory-unknown"},
	{"memory-unknown", "noranks:A1 m16:A2 m16':B1 m16'':B2", rig.Wish{}, "warns memory-unknown\nnotes memory-mixed"},
	{"memory-unknown", "noranks:A2", rig.Wish{}, ""}, // one a channel: the board's table does not ask for ranks
	{"slot-length", "thin:X3" + fine, rig.Wish{}, "stops slot-length X3 thin"},
	{"slot-length", "two:X2" + fine, rig.Wish{}, ""},
	{"slot-covered", "gpu:X1 nic:X2" + fine, rig.Wish{}, "warns card-narrow X1 gpu\nstops slot-covered X2 nic"},
	{"slot-covered", "thin:X1 full:X3" + fine, rig.Wish{}, "stops card-bracket X3 full"},
	{"slot-covered", "gpu:X1" + fine, rig.Wish{}, ""},
	{"card-length", "longgpu:X1" + fine, rig.Wish{}, "stops card-length X1 longgpu"},
	{"card-length", "thin:X1" + fine, rig.Wish{}, ""},
	{"card-bracket", "full:X1" + fine, rig.Wish{}, "stops card-bracket X1 full"},
	{"card-bracket", "nic:X1" + fine, rig.Wish{}, ""},
	{"position-dead", "quad:X1 nvme:X1/2" + fine, rig.Wish{}, "stops position-dead X1/2 nvme"},
	{"position-dead", "quad:X1 nvme:X1/3 split=8+8" + fine, rig.Wish{}, ""},
	{"position-dead", "quad:X1 nic:X2 nvme:X1/3 split=4+4+4+4" + fine, rig.Wish{}, "stops position-dead X1/3 nvme"}, // eight lanes are left
	{"position-dead", "quad:X1 nic:X2 nvme:X1/2 split=4+4+4+4" + fine, rig.Wish{}, ""},
	{"position-dead", "joined:X1 nvme:X1/4" + fine, rig.Wish{}, ""},
	{"card-narrow", "nic:X3" + fine, rig.Wish{}, "warns card-narrow X3 nic"},
	{"card-narrow", "nic:X2" + fine, rig.Wish{}, ""},
	{"carrier-shared", "joined:X1 nvme:X1/1 nvme':X1/2 nvme'':X1/3" + fine, rig.Wish{}, "notes carrier-shared X1 joined"},
	{"carrier-shared", "joined:X1 nvme:X1/1 nvme':X1/2" + fine, rig.Wish{}, ""},
	{"m2-height", "tall:T" + fine, rig.Wish{}, "stops m2-height T tall"},
	{"m2-height", "tall:U" + fine, rig.Wish{}, ""},
	{"m2-under", "both:T" + fine, rig.Wish{}, "stops m2-under T both"},
	{"m2-under", "nvme:T" + fine, rig.Wish{}, ""},
	{"module-height", "spread:A1" + fine, rig.Wish{}, "stops module-height A1 spread"},
	{"module-height", "spread:A2", rig.Wish{}, ""},
	{"memory-voltage", "volt:A1" + fine, rig.Wish{}, "stops memory-voltage A1 volt"},
	{"memory-voltage", "m16:A2", rig.Wish{}, ""},
	{"bay-height", "thick:P1" + fine, rig.Wish{}, "stops bay-height P1 thick"},
	{"bay-height", "ssd:P1" + fine, rig.Wish{}, ""},
	{"power-disable", "pwdis:P5" + fine, rig.Wish{}, "stops power-disable P5 pwdis"},
	{"power-disable", "hdd:P5" + fine, rig.Wish{}, ""},
	{"m2-hot", "gen5:T" + fine, rig.Wish{}, "warns link-below-drive T gen5\nwarns m2-hot T gen5"},
	{"m2-hot", "warm:T" + fine, rig.Wish{}, "notes m2-warm T warm"},
	{"m2-warm", "warm:T" + fine, rig.Wish{}, "notes m2-warm T warm"},
	{"m2-warm", "warm:U" + fine, rig.Wish{}, ""}, // whether U brings a heatsink is not stated
	{"fit-unknown", "nvme:O" + fine, rig.Wish{}, "warns fit-unknown O nvme"},
	{"fit-unknown", "nvme:O cpu=new" + fine, rig.Wish{}, ""},
	{"socket-off", "nvme:O cpu=old" + fine, rig.Wish{}, "stops socket-off O nvme"},
	{"memory-ecc", "ecc:A2", rig.Wish{}, "notes memory-ecc"},
	{"memory-ecc", "ecc:A2 noecc:B2", rig.Wish{}, "notes memory-ecc\nnotes memory-mixed"},
	{"memory-ecc", "noecc:A2", rig.Wish{}, ""},
	{"memory-mixed", "noecc:A2 m16:B2", rig.Wish{}, "notes memory-mixed"},
	{"memory-mixed", "m16:A2 m16':B2", rig.Wish{}, ""},
	{"memory-system", "m16:A2", rig.Wish{SystemMax: 4 * gib}, "warns memory-system"},
	{"memory-system", "m16:A2", rig.Wish{SystemMax: 16 * gib}, ""},
	{"power-plugs", "ssd:P1 ssd':P5 ssd'':P6 ssd''':P7" + fine, rig.Wish{}, "warns fit-unknown P7 ssd'''\nstops power-plugs"},
	{"power-plugs", "ssd:P1 ssd':P5 ssd'':P6" + fine, rig.Wish{}, ""},
	{"start-pcie", "nvme:U" + fine, rig.Wish{SystemBytes: 500 * quantity.GB, SystemFast: true, Text: "old firmware"}, "warns start-pcie"},
	{"start-pcie", "nvme:U" + fine, rig.Wish{SystemBytes: 500 * quantity.GB, SystemFast: true}, ""},
	{"memory-trial", "m32:A1 m32':A2 m32'':B1 m32''':B2", rig.Wish{}, "notes module-proven A1 m32\nnotes module-proven A2 m32'\nnotes module-proven B1 m32''\nnotes module-proven B2 m32'''\n" +
		"notes memory-speed A1 m32\nnotes memory-speed A2 m32'\nnotes memory-speed B1 m32''\nnotes memory-speed B2 m32'''\nwarns memory-trial"},
	{"memory-trial", "m16:A2", rig.Wish{}, ""},
	{"not-placed", "+nvme" + fine, rig.Wish{}, "warns not-placed nvme"},
	{"not-placed", "nvme" + fine, rig.Wish{}, ""},        // taken out on purpose
	{"not-placed", "+lead +sled" + fine, rig.Wish{}, ""}, // fittings go into no socket
	{"m2-width", "wide25:W" + fine, rig.Wish{}, "stops m2-width W wide25"},
	{"m2-width", "long:W" + fine, rig.Wish{}, "warns uplink-below-link W long"},
	{"fit-unknown", "wide25:Q" + fine, rig.Wish{}, "warns fit-unknown Q wide25"},
	{"m2-cover", "tall110:W nic:X2" + fine, rig.Wish{}, "stops m2-cover W tall110"},
	{"m2-cover", "tall110:W gpu:X1" + fine, rig.Wish{}, "stops m2-cover W tall110"}, // two openings wide
	{"m2-cover", "tall110:W thin:X1" + fine, rig.Wish{}, "warns uplink-below-link W tall110"},
	{"m2-warm", "cool5:T" + fine, rig.Wish{}, "warns link-below-drive T cool5\nnotes m2-warm T cool5"},
	{"bay-form", "ssd:P9" + fine, rig.Wish{}, ""},
	{"plug-wrong", "ssd:PO" + fine, rig.Wish{}, "stops plug-wrong PO ssd"},
	{"plug-wrong", "ssd:PO toslim" + fine, rig.Wish{}, ""},
	{"box-supply", "dock:R1 hdd:R1/1" + fine, rig.Wish{}, "stops box-supply R1/1 hdd"},
	{"box-supply", "fed:R1 hdd:R1/1" + fine, rig.Wish{}, "notes outside R1/1 hdd"},
	{"box-supply", "dock:R1 ssd:R1/1" + fine, rig.Wish{}, "notes outside R1/1 ssd"},
	{"outside", "box:R1 nvme:R1/1" + fine, rig.Wish{}, "notes outside R1/1 nvme"},
	{"outside", "box:R1" + fine, rig.Wish{}, ""},
	{"box-narrow", "fastbox:R1" + fine, rig.Wish{}, "warns box-narrow R1 fastbox"},
	{"box-narrow", "fastbox:R2" + fine, rig.Wish{}, ""},
	{"link-unknown", "box:R3" + fine, rig.Wish{}, "warns link-unknown R3 box"},
	{"slot-power", "hungry:X1" + fine, rig.Wish{}, "warns slot-power X1 hungry"},
	{"slot-power", "plugged:X1" + fine, rig.Wish{}, ""},
	{"screw-thread", "ssd:P8" + fine, rig.Wish{}, "warns screw-thread P8 ssd\nnotes bay-loose P8 ssd"},
	{"screw-thread", "thick:P8 m3" + fine, rig.Wish{}, ""},
	{"bay-loose", "ssd:P8 m3" + fine, rig.Wish{}, "notes bay-loose P8 ssd"},
	{"bay-loose", "ssd:P8 m3 spacer" + fine, rig.Wish{}, ""},
	{"memory-clocked", "clocked:A2", rig.Wish{}, "warns memory-clocked A2 clocked"},
	{"memory-clocked", "clocked:A2 unclocked:B2", rig.Wish{}, "notes memory-mixed\nwarns memory-clocked A2 clocked"},
	{"memory-clocked", "unclocked:A2", rig.Wish{}, ""},
	{"lead-missing", "+thick:P8 +m3 +sled +ssd:P9 +frame +lead" + fine, rig.Wish{}, "warns lead-missing P9 ssd"}, // its end does not suit
	{"lead-missing", "+ssd:P9 +frame +bent" + fine, rig.Wish{}, ""},
	{"lead-unknown", "+ssd:P1" + fine, rig.Wish{}, "notes lead-unknown P1 ssd"},
	{"lead-unknown", "+ssd:P1 hdd" + fine, rig.Wish{}, ""}, // the disk that came out left its lead
	{"lead-unknown", "+ssd:P1 +ssd':P5 +lead" + fine, rig.Wish{}, "notes lead-unknown P5 ssd'"},
	{"holder-missing", "+ssd:P9 +bent" + fine, rig.Wish{}, "warns holder-missing P9 ssd"}, // nobody says whether it is there
	{"holder-missing", "+thick:P8 +m3" + fine, rig.Wish{}, "warns holder-missing P8 thick"},
	{"holder-missing", "+thick:P8 +m3 +sled" + fine, rig.Wish{}, ""},
	{"kind-mismatch", "box:U" + fine, rig.Wish{}, "stops kind-mismatch U box"},
	{"kind-mismatch", "riser:X1" + fine, rig.Wish{}, "stops kind-mismatch X1 riser"},
	{"kind-mismatch", "lead:P1" + fine, rig.Wish{}, "stops kind-mismatch P1 lead"},
	{"fit-unknown", "riser:U nic:U/1" + fine, rig.Wish{}, "warns fit-unknown U/1 nic"}, // room for a card there is not described
	{"link-below-drive", "tou2:U u2:U/1" + fine, rig.Wish{}, "warns link-below-drive U/1 u2"},
	{"link-below-drive", "u2:V" + fine, rig.Wish{}, "warns uplink-below-link V u2"},
	{"bay-form", "ssd:V" + fine, rig.Wish{}, "stops bay-form V ssd"},
	{"position-dead", "ports:X2 ssd:X2/1" + fine, rig.Wish{}, ""},
	{"fit-unknown", "ports:X2 ssd:X2/2" + fine, rig.Wish{}, "warns fit-unknown X2/2 ssd"}, // which bays its second port reaches
	{"power-plugs", "ssd:P1 ssd':P5 ssd'':P6 ssd''':P9 tomolex" + fine, rig.Wish{}, ""},
	{"wish-memory", "m16:A2", rig.Wish{MemoryBytes: 32 * gib}, "warns wish-memory"},
	{"wish-memory", "m16:A2 +m16'", rig.Wish{MemoryBytes: 32 * gib}, "warns not-placed m16'"}, // it follows from that
	{"wish-memory", "m16:A2 m16':B2", rig.Wish{MemoryBytes: 32 * gib}, ""},
	{"wish-system", "ssd:P1" + fine, rig.Wish{SystemBytes: 500 * quantity.GB}, "warns wish-system"},
	{"wish-system", "sata2:K" + fine, rig.Wish{SystemBytes: 500 * quantity.GB, SystemFast: true}, "warns wish-system"},
	{"wish-system", "nvme:U" + fine, rig.Wish{SystemBytes: 500 * quantity.GB, SystemFast: true, Keep: []rig.ItemID{"nvme"}}, "warns wish-system"},
	{"wish-system", "nvme:U" + fine, rig.Wish{SystemBytes: 500 * quantity.GB, SystemFast: true}, ""},
	{"wish-keep", "hdd" + fine, rig.Wish{Keep: []rig.ItemID{"hdd"}}, "stops wish-keep hdd"},
	{"wish-keep", "nvme3:L hdd:P6" + fine, rig.Wish{Keep: []rig.ItemID{"hdd"}}, "stops socket-off P6 hdd\nnotes port-lost P5"}, // said once
	{"wish-keep", "hdd:P5" + fine, rig.Wish{Keep: []rig.ItemID{"hdd"}}, ""},
}

func TestChecks(t *testing.T) {
	speaks, silent := map[Code]int{}, map[Code]int{}
	for _, c := range ruleCases {
		b := lay(t, board(), c.lay)
		b.Wish = c.wish
		if c.wish.Text == "old firmware" {
			b.Sheet.Firmware.StartsPCIe = quantity.No
		}
		r := Resolve(b)
		if got := brief(&r); got != c.want {
			t.Errorf("%s with %q:\n%s\nwant:\n%s", c.rule, c.lay, got, c.want)
		}
		if strings.Contains(c.want, " "+string(c.rule)) {
			speaks[c.rule]++
		} else {
			silent[c.rule]++
		}
		for _, f := range r.Findings {
			if f.Says == "" || len(f.Because) == 0 {
				t.Errorf("%s says %q because of %d reasons: a finding has both", f.Code, f.Says, len(f.Because))
			}
		}
	}
	for _, c := range Checks {
		if speaks[c.Code] == 0 || silent[c.Code] == 0 {
			t.Errorf("%s: %d cases in which it speaks, %d in which it does not; each rule has both", c.Code, speaks[c.Code], silent[c.Code])
		}
		if c.Doc == "" || !strings.Contains(c.Doc, "Example:") || (c.socket == nil) == (c.whole == nil) {
			t.Errorf("%s lacks its words, its example or its function", c.Code)
		}
	}
}

// Which positions of a plain carrier are seen: four drives on lanes 0, 4, 8 and
// 12, and two on 0 and 4, in every set-up of the slot.
func TestPositions(t *testing.T) {
	for _, c := range []struct {
		slot  quantity.Lanes
		split []quantity.Lanes
		four  []int
		two   []int
	}{
		{16, nil, []int{1}, []int{1}},
		{16, []quantity.Lanes{8, 8}, []int{1, 3}, []int{1}},
		{16, []quantity.Lanes{8, 4, 4}, []int{1, 3, 4}, []int{1}},
		{16, []quantity.Lanes{4, 4, 8}, []int{1, 2, 3}, []int{1, 2}},
		{16, []quantity.Lanes{4, 4, 4, 4}, []int{1, 2, 3, 4}, []int{1, 2}},
		{8, nil, []int{1}, []int{1}},
		{8, []quantity.Lanes{4, 4}, []int{1, 2}, []int{1, 2}},
		{8, []quantity.Lanes{4, 4, 4, 4}, []int{1, 2}, []int{1, 2}}, // an x16 slot that fell to eight lanes
		{8, []quantity.Lanes{8, 8}, []int{1}, []int{1}},
		{4, nil, []int{1}, []int{1}},
		{4, []quantity.Lanes{4, 4, 4, 4}, []int{1}, []int{1}},
	} {
		for positions, want := range map[int][]int{4: c.four, 2: c.two} {
			var got []int
			for k := range positions {
				if _, live := segment(c.slot, c.split, 4*k); live {
					got = append(got, k+1)
				}
			}
			if !slices.Equal(got, want) {
				t.Errorf("%d positions in %v %v: %v seen, want %v", positions, c.slot, c.split, got, want)
			}
		}
	}
}

// The chain behind the answer of the lower socket, to the letter.
func TestWhy(t *testing.T) {
	r := Resolve(lay(t, board(), "nvme:L hdd:P6"+fine))
	var got []string
	for _, f := range r.Findings {
		if f.Severity == Notes {
			continue
		}
		got = append(got, f.Says)
		for _, why := range f.Because {
			got = append(got, "  because "+why.Says+" ("+string(why.From)+")")
		}
		for _, c := range f.Cures {
			got = append(got, fmt.Sprintf("  cure %s %v", c.Says, c.Moves))
		}
	}
	want := `nvme could do 7.88 GB/s and runs at Gen 3 x4, 3.94 GB/s before packet overhead, in L
  because nvme is Gen 4 x4 (part)
  because L is Gen 3 x4, on the chipset behind its uplink of Gen 3 x4, which everything there shares (sheet)
  because a PCIe link runs at the lower generation and the narrower width of its two ends: Gen 3 x4 (standard)
  because 3.94 GB/s is the line rate after coding; with 256-byte packets about 3.60 GB/s is left for data (standard)
  cure put nvme into U [{nvme U  }]
  cure put nvme into T [{nvme T  }]
hdd is not seen on P6: the socket is off
  because when L holds anything, P5 is off and P6 is off (p. 18) (sheet)
  cure move the data lead of hdd to P9 [{hdd P9  }]
  cure put nvme into U [{nvme U  }]
  cure put nvme into F [{nvme F  }]
  cure put nvme into G [{nvme G  }]
  cure put nvme into T [{nvme T  }]`
	if strings.Join(got, "\n") != want {
		t.Errorf("got\n%s\nwant\n%s", strings.Join(got, "\n"), want)
	}
}

// What is said to be unknown names the fact that is missing.
func TestUnknownNamesTheFact(t *testing.T) {
	for lay1, want := range map[string]string{
		"mystery:U":         "unknown, because the label of mystery does not say whether it speaks PCIe or SATA",
		"nvme3:Q":           "unknown, because the sheet does not say what Q speaks",
		"ssd:P7":            "unknown, because the sheet does not say which drives the bay on P7 takes",
		"nvme:G":            "unknown, because the sheet does not say the generation of G",
		"norate:A2":         "speed unknown, because the label of norate does not state its speed",
		"nosize:A2":         "total unknown, because the label of nosize does not state its size",
		"m16:A2 noranks:A1": "speed unknown, because a module's label does not state its ranks",
	} {
		r := Resolve(lay(t, board(), lay1))
		all := ""
		for _, f := range r.Findings {
			for _, why := range f.Because {
				all += why.Says + "\n"
			}
		}
		if !strings.Contains(all, want) {
			t.Errorf("%s: no reason says %q in\n%s", lay1, want, all)
		}
	}
}

func TestMemoryAnswer(t *testing.T) {
	for _, c := range []struct{ lay, want string }{
		{"m8:A1 m8':A2", "16 GiB, 2400 MT/s, single channel, 19.20 GB/s"},
		{"m16r2:A2 m16r2':B2", "32 GiB, 3200 MT/s, dual channel, 51.20 GB/s"},
		{"m16r2:A2 m16r2':B2 m8:A1 m8':B1", "48 GiB, 2400 MT/s, dual channel, 38.40 GB/s"},
		{"m16r2:A1 m16r2':A2 m16r2'':B1 m16r2''':B2", "64 GiB, 2666 MT/s, dual channel, 42.67 GB/s"},
		{"m16:A2 m8:B2", "24 GiB, 2400 MT/s, 16 GiB dual, 8 GiB single channel, 28.80 GB/s"},
		{"m8:A1 m8':A2 m16:B2", "32 GiB, 2400 MT/s, dual channel, 38.40 GB/s"}, // only the channel's total counts
		{"fast:A2 fast':B2 profile=on", "32 GiB, 3600 MT/s, dual channel, 57.60 GB/s"},
		{"fast:A2 m16:B2 profile=on", "32 GiB, 3200 MT/s, dual channel, 51.20 GB/s"},
		{"nosize:A2", "unknown, 3200 MT/s, unknown, because a module's size is not stated, unknown"},
		{"nvme:U", "no memory, unknown, no channel filled, unknown"},
	} {
		r := Resolve(lay(t, board(), c.lay))
		m := r.Memory
		if got := m.Total + ", " + m.Speed + ", " + m.Spread + ", " + m.Peak; got != c.want {
			t.Errorf("%s: %s\nwant %s", c.lay, got, c.want)
		}
	}
}

// Every cure that is offered with its moves does cure its finding.
func TestCuresCure(t *testing.T) {
	tried := 0
	for _, c := range ruleCases {
		b := lay(t, board(), c.lay)
		b.Wish = c.wish
		r := Resolve(b)
		for _, f := range r.Findings {
			for _, cure := range f.Cures {
				if len(cure.Moves) == 0 {
					continue
				}
				tried++
				after := Resolve(apply(b, cure.Moves))
				for _, g := range after.Findings {
					if g.Code == f.Code && g.Item == f.Item && g.Socket == f.Socket {
						t.Errorf("%s with %q: after %q it still stands: %s", f.Code, c.lay, cure.Says, g.Says)
					}
				}
			}
		}
	}
	if tried < 30 {
		t.Errorf("only %d cures were tried", tried)
	}
}

// apply makes the machine after some moves.
func apply(b *rig.Rig, moves []rig.Move) *rig.Rig {
	out := *b
	after, _, err := b.Moved(moves)
	if err != nil {
		panic(err) // a cure that cannot be carried out
	}
	out.Setup = after
	return &out
}

// What drives can move alone and all at once, and what holds them.
func TestFlows(t *testing.T) {
	for text, want := range map[string]string{
		"nvme:U":           "U: 7.06 GB/s alone",
		"nvme3:L ssd:P1":   "L: 3.53 GB/s alone, 2.93 GB/s with all 2 drives at work, held by the uplink of the chipset\nP1: 600 MB/s alone",
		"nvme3:L nvme3':F": "L: 3.53 GB/s alone, 1.76 GB/s with all 2 drives at work, held by the uplink of the chipset\nF: 3.53 GB/s alone, 1.76 GB/s with all 2 drives at work, held by the uplink of the chipset",
		"nvme3:L nvme3':U": "U: 3.53 GB/s alone\nL: 3.53 GB/s alone",
		"joined:X2 nvme:X2/1 nvme':X2/2 nvme'':X2/4": "X2/1: 7.06 GB/s alone, 4.71 GB/s with all 3 drives at work, held by the link of the carrier in X2" + "\n" + "X2/2: 7.06 GB/s alone, 4.71 GB/s with all 3 drives at work, held by the link of the carrier in X2" + "\n" + "X2/4: 7.06 GB/s alone, 4.71 GB/s with all 3 drives at work, held by the link of the carrier in X2",
		"quad:X1 nvme:X1/1 nvme':X1/2 split=4+4+4+4": "X1/1: 7.06 GB/s alone\nX1/2: 7.06 GB/s alone",
		"mystery:U hdd":                       "",
		"box:R1 nvme:R1/1":                    "R1/1: 900 MB/s alone, 900 MB/s with all 1 drives at work, held by the USB link of R1",
		"dock:R3 ssd:R3/1":                    "R3/1: at most 600 MB/s: what the USB link of R3 carries is not stated",
		"ports:X3 ssd:X3/1 nvme3:L":           "L: 3.53 GB/s alone, 2.93 GB/s with all 2 drives at work, held by the uplink of the chipset\nX3/1: 600 MB/s alone",
		"riser:F quad:F/1 nvme3:F/1/1 ssd:P1": "P1: 600 MB/s alone\nF/1/1: 3.53 GB/s alone, 2.93 GB/s with all 2 drives at work, held by the uplink of the chipset",
	} {
		var got []string
		for _, f := range Resolve(lay(t, board(), text)).Flows {
			got = append(got, f.Socket.String()+": "+f.Says)
		}
		if strings.Join(got, "\n") != want {
			t.Errorf("%s:\n%s\nwant\n%s", text, strings.Join(got, "\n"), want)
		}
	}
	unstated := board()
	unstated.Roots[1].Uplink.Gen = 0
	f := Resolve(lay(t, unstated, "nvme3:L ssd:P1")).Flows
	if len(f) != 2 || f[0].Says != "at most 3.53 GB/s: what the uplink of the chipset carries is not stated" || f[0].Held != "the uplink of the chipset" {
		t.Errorf("behind an unstated uplink: %+v", f)
	}
}

func TestOffers(t *testing.T) {
	var got []string
	for _, o := range Offers(lay(t, board(), "+nvme hdd:P6"+fine), "nvme") {
		got = append(got, fmt.Sprintf("%s %s: %s %d", o.Socket, o.State, o.Says, len(o.Costs)))
	}
	want := []string{"U live: Gen 4 x4, 7.88 GB/s 0", "L live: costs hdd 1", "K stopped: no notch at the socket's key 1",
		"F live: Gen 4 x4, 7.88 GB/s 0", "Q unknown: unknown: the sheet or the label does not say enough 0", "G live: Gen ? x4 0",
		"T live: Gen 4 x4, 7.88 GB/s 0", "O unknown: Gen 4 x4, 7.88 GB/s 0", "W stopped: no post at the card's length 1"}
	if !slices.Equal(got, want) {
		t.Errorf("got\n%s\nwant\n%s", strings.Join(got, "\n"), strings.Join(want, "\n"))
	}
	nested := Offers(lay(t, board(), "+nvme quad:X1"+fine), "nvme")
	if last := nested[len(nested)-4:]; last[0].Socket.String() != "X1/1" || last[0].State != Live || last[1].Says != "the slot does not serve this position of the carrier" {
		t.Errorf("positions of a carrier are offered as %+v", last)
	}
	// A carrier is offered with what is on it.
	for _, o := range Offers(lay(t, board(), "quad:X1 nvme:X1/1"+fine), "quad") {
		if want := map[string]string{"X1": "Gen 4 x16, 1 of 4 positions served", "X2": "Gen 4 x8, 1 of 4 positions served", "X3": "the slot is too short for the card"}[o.Socket.String()]; o.Says != want {
			t.Errorf("a carrier is offered %s as %q, want %q", o.Socket, o.Says, want)
		}
	}
	if n := len(Offers(lay(t, board(), fine), "nobody")); n != 0 {
		t.Errorf("%d offers for nothing", n)
	}
}

func ExampleResolve() {
	sheet := board()
	r := Resolve(lay(nil, sheet, "nvme:U m16:A2 m16':B2"))
	fmt.Println(r.Socket(rig.On("U")).Says)
	fmt.Println(r.Memory.Total, "at", r.Memory.Speed+",", r.Memory.Spread)
	// Output:
	// Gen 4 x4, 7.88 GB/s
	// 32 GiB at 3200 MT/s, dual channel
}
