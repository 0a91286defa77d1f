package core

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/flow"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/shorthand"
)

// TestFacts walks the figures of the trade, table by table, and asks the core for
// each: what it answers anywhere comes from here. A figure is met when the answer,
// rounded as the table rounds it, is the same.
func TestFacts(t *testing.T) {
	for name, walk := range map[string]func(*testing.T){
		"PCIe rates": pcieRates, "packet efficiency": packets, "slots": slots, "uplinks": uplinks, "splits": splits,
		"M.2 keys": keys, "M.2 sizes": m2Sizes, "SATA and bays": bays, "USB": usb,
		"memory names": names, "labels": labels, "module sizes": moduleSizes, "channels": channels, "screens": screens, "capacities": capacities,
	} {
		t.Run(name, walk)
	}
}

// same compares as printed: with so many decimals.
func same(t *testing.T, what string, got, want float64, decimals int) {
	t.Helper()
	if math.Abs(got-want) > 0.5001*math.Pow10(-decimals) {
		t.Errorf("%s: %.*f, want %.*f", what, decimals+1, got, decimals, want)
	}
}

func pcieRates(t *testing.T) {
	for gen, rows := range map[quantity.Gen][5]float64{
		1: {250, 500, 1000, 2000, 4000}, 2: {500, 1000, 2000, 4000, 8000}, 3: {984.6, 1969.2, 3938.5, 7876.9, 15753.8},
		4: {1969.2, 3938.5, 7876.9, 15753.8, 31507.7}, 5: {3938.5, 7876.9, 15753.8, 31507.7, 63015.4}, 6: {8000, 16000, 32000, 64000, 128000},
	} {
		for i, want := range rows {
			l := link.Link{Gen: gen, Lanes: 1 << i}
			same(t, l.String(), l.LineRate().MBps(), want, 1)
		}
	}
	// A generation is not a width: an older device in a newer, narrower socket.
	if a, b := (link.Link{Gen: 4, Lanes: 2}), (link.Link{Gen: 3, Lanes: 4}); a.LineRate() != b.LineRate() {
		t.Errorf("%v and %v differ", a, b)
	}
	same(t, "Gen 3 in Gen 4 x2", link.Link{Gen: 3, Lanes: 4}.Train(link.Link{Gen: 4, Lanes: 2}).LineRate().MBps(), 1969, 0)
}

func packets(t *testing.T) {
	for payload, want := range map[int][5]float64{64: {76.19, 72.73, 2864, 5729, 11457}, 128: {86.49, 84.21, 3317, 6633, 13266}, 256: {92.75, 91.43, 3601, 7202, 14404}, 512: {96.24, 95.52, 3762, 7524, 15048}} {
		four := link.Efficiency{Payload: payload, Header: link.FourDW}
		same(t, fmt.Sprint(payload, " 3DW"), 100*link.Efficiency{Payload: payload, Header: link.ThreeDW}.Of(3), want[0], 2)
		same(t, fmt.Sprint(payload, " 4DW"), 100*four.Of(3), want[1], 2)
		for gen := quantity.Gen(3); gen <= 5; gen++ {
			same(t, fmt.Sprint(payload, " Gen ", gen), link.Link{Gen: gen, Lanes: 4}.Usable(four).MBps(), want[gen-1], 0)
		}
	}
	// Flit mode carries 236 of 256 bytes: 7,375 MB/s a lane before headers.
	flit := link.Link{Gen: 6, Lanes: 1}.Usable(link.Efficiency{Payload: 1 << 30, Header: link.ThreeDW})
	same(t, "Gen 6 x1, packets", flit.MBps(), 7375, 0)
}

// one resolves a sheet of one processor and some sockets with parts placed as given.
func one(sheet machine.Sheet, placed map[string]*part.Part) fit.Answer {
	sheet.Roots = []machine.Root{{ID: "cpu", Name: "processor", Kind: machine.CPU}}
	b := rig.Rig{Sheet: &sheet}
	for id, p := range placed {
		b.Pieces = append(b.Pieces, rig.Piece{ID: rig.ItemID(id), Part: p, New: true})
		b.Placements = append(b.Placements, rig.Placement{Item: rig.ItemID(id), Socket: rig.ParsePath(id)})
	}
	return fit.Resolve(&b)
}

func has(r fit.Answer, code fit.Code) bool {
	for _, f := range r.Findings {
		if f.Code == code {
			return true
		}
	}
	return false
}

func slots(t *testing.T) {
	for long, fed := range map[quantity.Lanes]float64{16: 75, 8: 25, 4: 25, 1: 10} {
		for plug, more := range map[part.Plug]float64{"": 0, part.Plug6: 75, part.Plug8: 150, part.Plug16: 600} {
			card := part.Card{Gen: 3, Lanes: 1}
			if plug != "" {
				card.Plugs = []part.Plug{plug}
			}
			for _, over := range []float64{0, 1} {
				c := card
				c.Watts = fed + more + over
				r := one(machine.Sheet{Sockets: []machine.Socket{{ID: "S", Kind: machine.Slot, Gen: 3, Lanes: 1, Physical: long, Protocols: []link.Protocol{link.PCIe}}}},
					map[string]*part.Part{"S": {Card: &c}})
				if has(r, "slot-power") != (over > 0) {
					t.Errorf("%v W in an %v slot with %q: %v", c.Watts, long, plug, over == 0)
				}
			}
		}
	}
}

func uplinks(t *testing.T) {
	for l, want := range map[link.Link][2]float64{{Gen: 2, Lanes: 4}: {2000, 1792}, {Gen: 3, Lanes: 4}: {3938, 3529}, {Gen: 3, Lanes: 8}: {7877, 7058},
		{Gen: 4, Lanes: 4}: {7877, 7058}, {Gen: 4, Lanes: 8}: {15754, 14115}, {Gen: 5, Lanes: 4}: {15754, 14115}} {
		same(t, l.String(), l.LineRate().MBps(), want[0], 0)
		same(t, l.String()+" to plan with", l.Planning().MBps(), want[1], 0)
	}
	for _, c := range []struct{ demands, shares []float64 }{
		{[]float64{3500, 550, 295}, []float64{2655, 550, 295}},
		{[]float64{3500, 3500}, []float64{1750, 1750}},
		{[]float64{3500, 3500, 550, 1180}, []float64{983, 983, 550, 983}},
	} {
		flows := make([]flow.Flow, len(c.demands))
		for i, d := range c.demands {
			flows[i] = flow.Flow{Demand: quantity.MBps(d), Links: []int{0}}
		}
		for i, s := range flow.Shares([]quantity.Rate{quantity.MBps(3500)}, flows) {
			same(t, fmt.Sprint("share ", i, " of ", c.demands), s.Rate.MBps(), c.shares[i], 0)
		}
	}
}

// carrier is a plain card of n positions of four lanes.
func carrier(n int, chip bool) *part.Part {
	c := part.Card{Gen: 4, Lanes: quantity.Lanes(4 * n), Carrier: &part.Carrier{Switch: chip}}
	for i := range n {
		c.Carrier.Positions = append(c.Carrier.Positions, part.Position{FirstLane: 4 * i, Lanes: 4, LengthsMM: []quantity.Millimetres{80}})
	}
	return &part.Part{Card: &c}
}

// nvme is an M.2 drive of Gen 4 x4, 80 mm.
func nvme() *part.Part {
	return &part.Part{Drive: &part.Drive{Form: part.FormM2, Protocol: link.PCIe, Gen: 4, Lanes: 4, M2: &part.M2{Keys: []part.Key{part.KeyM}, LengthMM: 80}}}
}

func splits(t *testing.T) {
	l := func(n ...quantity.Lanes) []quantity.Lanes { return n }
	for _, c := range []struct {
		wired, left quantity.Lanes // left after a neighbour took its share; 0 is all
		split       []quantity.Lanes
		four, two   string
	}{
		{16, 0, nil, "1", "1"}, {16, 0, l(8, 8), "1 3", "1"}, {16, 0, l(8, 4, 4), "1 3 4", "1"}, {16, 0, l(4, 4, 8), "1 2 3", "1 2"}, {16, 0, l(4, 4, 4, 4), "1 2 3 4", "1 2"},
		{8, 0, nil, "1", "1"}, {8, 0, l(4, 4), "1 2", "1 2"}, {4, 0, nil, "1", "1"},
		{16, 8, nil, "1", "1"}, {16, 8, l(4, 4, 4, 4), "1 2", "1 2"},
	} {
		for n, want := range map[int]string{4: c.four, 2: c.two} {
			for _, chip := range []bool{false, true} {
				sheet := machine.Sheet{Groups: []machine.Group{{ID: "g", Root: "cpu", Lanes: 16}},
					Sockets:  []machine.Socket{{ID: "S", Kind: machine.Slot, Group: "g", Gen: 4, Lanes: c.wired, Physical: 16, Protocols: []link.Protocol{link.PCIe}}},
					Settings: []machine.Setting{{ID: "x", Default: "x"}}}
				always := []machine.Condition{{Setting: "x", Is: "x"}}
				if c.split != nil {
					sheet.Rules = append(sheet.Rules, machine.Rule{When: always, Then: []machine.Effect{{Socket: "S", Split: c.split}}})
				}
				if c.left > 0 {
					sheet.Rules = append(sheet.Rules, machine.Rule{When: always, Then: []machine.Effect{{Socket: "S", MaxLanes: c.left}}})
				}
				placed := map[string]*part.Part{"S": carrier(n, chip)}
				for i := range n {
					placed[rig.On("S").Position(i+1).String()] = nvme()
				}
				r := one(sheet, placed)
				var seen []string
				for i := range n {
					if r.Socket(rig.On("S").Position(i+1)).State == fit.Live {
						seen = append(seen, fmt.Sprint(i+1))
					}
				}
				expected := want
				if chip {
					expected = "1 2 3 4"[:2*n-1]
				}
				if got := strings.Join(seen, " "); got != expected {
					t.Errorf("%d positions, switch chip %v, in x%d (x%d left) split %v: drives %s are seen, want %s", n, chip, c.wired, c.left, c.split, got, expected)
				}
			}
		}
	}
}

func keys(t *testing.T) {
	all := []link.Protocol{link.PCIe, link.SATA}
	goesIn := map[part.Key]string{part.KeyA: "A+E NVMe x1", part.KeyB: "B+M SATA, B+M NVMe x2", part.KeyE: "A+E NVMe x1", part.KeyM: "M-key NVMe x4, M-key SATA, B+M SATA, B+M NVMe x2"}
	for key, want := range goesIn {
		var in, pcie, sata []string
		for _, f := range say.Plain.Keys(key, all) {
			if f.State == fit.Live {
				in = append(in, f.Card.String())
			}
		}
		if strings.Join(in, ", ") != want {
			t.Errorf("into a socket keyed %s go %v, want %s", key, in, want)
		}
		// It works only where the socket carries its protocol.
		for _, f := range say.Plain.Keys(key, all[:1]) {
			if f.State == fit.Live {
				pcie = append(pcie, f.Card.String())
			}
		}
		for _, f := range say.Plain.Keys(key, all[1:]) {
			if f.State == fit.Live {
				sata = append(sata, f.Card.String())
			}
		}
		for _, c := range pcie {
			if !strings.Contains(c, "NVMe") {
				t.Errorf("%s works in a PCIe-only socket", c)
			}
		}
		for _, c := range sata {
			if !strings.Contains(c, "SATA") {
				t.Errorf("%s works in a SATA-only socket", c)
			}
		}
		if len(pcie)+len(sata) != len(in) {
			t.Errorf("keyed %s: %v over PCIe, %v over SATA, %v over both", key, pcie, sata, in)
		}
	}
	for key, lanes := range map[part.Key]quantity.Lanes{part.KeyA: 2, part.KeyB: 2, part.KeyE: 2, part.KeyM: 4} {
		if got := (&part.M2{Keys: []part.Key{key}}).MaxLanes(); got != lanes || key.MaxLanes() != lanes {
			t.Errorf("a notch at %s leaves %v, want %v", key, got, lanes)
		}
	}
	if got := (&part.M2{Keys: []part.Key{part.KeyB, part.KeyM}}).MaxLanes(); got != 2 {
		t.Errorf("B and M leave %v", got)
	}
}

func m2Sizes(t *testing.T) {
	for size, want := range map[string][2]quantity.Millimetres{"2230": {22, 30}, "2242": {22, 42}, "2260": {22, 60}, "2280": {22, 80}, "22110": {22, 110}, "25110": {25, 110}, "3042": {30, 42}, "3052": {30, 52}} {
		for code, h := range map[string][2]quantity.Millimetres{"S1": {1.2, 0}, "S2": {1.35, 0}, "S3": {1.5, 0}, "D1": {1.2, 1.35}, "D2": {1.35, 1.35}, "D3": {1.5, 1.35}, "D4": {1.5, 0.7}, "D5": {1.5, 1.5}} {
			text := size + "-" + code + "-M"
			got, err := shorthand.Read("nvme " + text)
			if err != nil {
				t.Fatal(err)
			}
			m := *got.Part.Drive.M2
			if m.WidthMM != want[0] || m.LengthMM != want[1] || m.TopMM != h[0] || m.BottomMM != h[1] || (m.TwoSided == quantity.Yes) != (h[1] > 0) {
				t.Errorf("%s is %+v", text, m)
			}
		}
	}
}

func bays(t *testing.T) {
	for gen, want := range map[quantity.Gen]float64{1: 150, 2: 300, 3: 600} {
		same(t, "SATA", link.SATARate(gen).MBps(), want, 0)
	}
	for form, want := range map[part.Form]part.Thread{part.Form2i5: "M3", part.FormU2: "M3", part.Form3i5: "6-32", part.FormM2: ""} {
		if form.Thread() != want {
			t.Errorf("%s has holes for %q, want %q", form, form.Thread(), want)
		}
	}
	bay := machine.Sheet{Sockets: []machine.Socket{{ID: "P", Kind: machine.SATA, Root: "cpu", SATAGen: 3, Protocols: []link.Protocol{link.SATA}, Mount: machine.Mount{Drives: []part.Form{part.Form2i5}, BayMM: 9.5, Holder: machine.HeldByCaddy}}},
		Chassis: machine.Chassis{Feeds3V3: quantity.Yes}}
	for height, want := range map[quantity.Millimetres]fit.Code{7: "bay-loose", 9.5: "", 12.5: "bay-height", 15: "bay-height"} {
		r := one(bay, map[string]*part.Part{"P": {Drive: &part.Drive{Form: part.Form2i5, Protocol: link.SATA, Gen: 3, HeightMM: height}}})
		for _, code := range []fit.Code{"bay-loose", "bay-height"} {
			if has(r, code) != (code == want) {
				t.Errorf("%v in a caddy for 9.5 mm: %v", height, r.Findings)
			}
		}
	}
	if r := one(bay, map[string]*part.Part{"P": {Drive: &part.Drive{Form: part.Form2i5, Protocol: link.SATA, Gen: 3, HeightMM: 9.5, PowerDisable: quantity.Yes}}}); !has(r, "power-disable") {
		t.Error("3.3 V does not hold a drive with the power-disable pin off")
	}
}

func usb(t *testing.T) {
	for m, want := range map[link.USBMode][4]float64{link.USB2: {0.48, 60, 30, 42}, link.USB5: {5, 500, 400, 460}, link.USB5x2: {10, 1000, 800, 900}, link.USB10: {10, 1212, 900, 1060},
		link.USB20: {20, 2424, 1800, 2050}, link.USB4By20: {20, 2424, 1600, 2000}, link.USB4By40: {40, 4848, 2700, 3200}, link.USB4By80: {80.46, 10057, 5500, 7000}} {
		low, high := m.Practice()
		same(t, m.String()+" line", m.LineGbps(), want[0], 2)
		same(t, m.String()+" coded", m.LineRate().MBps(), want[1], 0)
		same(t, m.String()+" low", low.MBps(), want[2], 0)
		same(t, m.String()+" high", high.MBps(), want[3], 0)
	}
	if got := link.USB20.Train(link.USB4By40); got != link.USB10 {
		t.Errorf("a 2x2 box on a USB4 port runs as %s, want 10 Gb/s", got)
	}
}

func names(t *testing.T) {
	for _, row := range strings.Split(`DDR2 400 400 PC2-3200 3200|DDR2 533 533.333 PC2-4200 4266.7 4266 4300|DDR2 667 666.667 PC2-5300 5333.3 5333 5400|DDR2 800 800 PC2-6400 6400|DDR2 1066 1066.667 PC2-8500 8533.3 8533 8600|
DDR3 800 800 PC3-6400 6400|DDR3 1066 1066.667 PC3-8500 8533.3 8533 8600|DDR3 1333 1333.333 PC3-10600 10666.7 10666 10667 10700|DDR3 1600 1600 PC3-12800 12800|DDR3 1866 1866.667 PC3-14900 14933.3 14933 15000|DDR3 2133 2133.333 PC3-17000 17066.7 17066 17067|
DDR4 1600 1600 PC4-12800 12800|DDR4 1866 1866.667 PC4-14900 14933.3 14933|DDR4 2133 2133.333 PC4-17000 17066.7 17066 17067|DDR4 2400 2400 PC4-19200 19200|DDR4 2666 2666.667 PC4-21300 21333.3 21333|DDR4 2933 2933.333 PC4-23400 23466.7 23466 23467 23500|DDR4 3200 3200 PC4-25600 25600|
DDR5 3200 3200 PC5-25600 25600|DDR5 3600 3600 PC5-28800 28800|DDR5 4000 4000 PC5-32000 32000|DDR5 4400 4400 PC5-35200 35200|DDR5 4800 4800 PC5-38400 38400|DDR5 5200 5200 PC5-41600 41600|DDR5 5600 5600 PC5-44800 44800|DDR5 6000 6000 PC5-48000 48000|DDR5 6400 6400 PC5-51200 51200|DDR5 6800 6800 PC5-54400 54400|DDR5 7200 7200 PC5-57600 57600|DDR5 7600 7600 PC5-60800 60800|DDR5 8000 8000 PC5-64000 64000|DDR5 8400 8400 PC5-67200 67200|DDR5 8800 8800 PC5-70400 70400`, "|") {
		var family, module string
		var label quantity.MTps
		var exact, peak float64
		if _, err := fmt.Sscan(row, &family, &label, &exact, &module, &peak); err != nil {
			t.Fatalf("%q: %v", row, err)
		}
		same(t, row, memory.Exact(label), exact, 3)
		same(t, row, memory.Peak(label).MBps(), peak, 1)
		for _, spelling := range append([]string{module, family + "-" + fmt.Sprint(int(label))}, strings.Fields(row)[5:]...) {
			if !strings.Contains(spelling, "-") {
				spelling = module[:4] + spelling
			}
			got, err := memory.Code(spelling)
			if err != nil || len(got) != 1 || got[0].Label != label || got[0].ModuleName() != module || string(got[0].Generation) != strings.ToLower(family) {
				t.Errorf("%s is %v (%v), want %s %d", spelling, got, err, family, label)
			}
		}
	}
	for _, c := range []struct {
		channels int
		label    quantity.MTps
		want     float64
	}{{2, 3200, 51.2}, {2, 5600, 89.6}, {4, 3200, 102.4}} {
		same(t, "system peak", float64(c.channels)*memory.Peak(c.label).MBps()/1000, c.want, 1)
	}
	for _, c := range []struct {
		cl    int
		label quantity.MTps
		want  float64
	}{{22, 3200, 13.75}, {40, 4800, 16.67}, {46, 5600, 16.43}} {
		same(t, "latency", memory.Latency(c.cl, c.label), c.want, 2)
	}
}

func labels(t *testing.T) {
	for text, want := range map[string]string{
		"16GB 2Rx8 PC3L-12800S-11-11-F3":  "16GB DDR3-1600 SODIMM CL11 2R non-ECC unbuffered 1.35V 1.5V",
		"1Rx8 PC4-2666V-SA2-11":           "DDR4-2666 SODIMM CL19 1R non-ECC unbuffered 1.2V",
		"16GB 1Rx8 PC5-4800B-SA0-1010-XT": "16GB DDR5-4800 SODIMM CL40 1R non-ECC unbuffered 1.1V",
	} {
		got, err := shorthand.Read(text)
		if err != nil || shorthand.Write(&got.Part) != want {
			t.Errorf("%s: %s (%v), want %s", text, shorthand.Write(&got.Part), err, want)
		}
	}
	for letters, cl := range map[string]int{"J": 10, "K": 11, "L": 12, "M": 13, "N": 14, "P": 15, "R": 16, "T": 17, "U": 18, "V": 19, "W": 20, "Y": 21, "AA": 22, "AC": 24} {
		if l, err := memory.ReadCode("PC4-3200" + letters + "-UA1-11"); err != nil || l.CL != cl {
			t.Errorf("bin %s is CL%d (%v), want %d", letters, l.CL, err, cl)
		}
	}
	for rate, cl := range map[int][3]int{4400: {32, 36, 40}, 4800: {34, 40, 42}, 5200: {38, 42, 46}, 5600: {40, 46, 50}, 6000: {42, 48, 54}, 6400: {46, 52, 56}} {
		for i, bin := range []string{"A", "B", "C"} {
			if l, err := memory.ReadCode(fmt.Sprintf("PC5-%d%s-UA0-1010", rate, bin)); err != nil || l.CL != cl[i] {
				t.Errorf("DDR5-%d%s is CL%d (%v), want %d", rate, bin, l.CL, err, cl[i])
			}
		}
	}
	for m, want := range map[string]string{"U": "DIMM no no", "E": "DIMM yes no", "S": "SO-DIMM no no", "T": "SO-DIMM yes no", "R": "DIMM unknown yes", "L": "DIMM unknown yes"} {
		l, err := memory.ReadCode("PC4-2666V-" + m + "A2-11")
		if got := fmt.Sprint(l.Form, " ", l.ECC, " ", l.Registered); err != nil || got != want {
			t.Errorf("letter %s: %s (%v), want %s", m, got, err, want)
		}
	}
}

func moduleSizes(t *testing.T) {
	for die, want := range map[int][5]float64{1: {0.5, 1, 2, 2, 4}, 2: {1, 2, 4, 4, 8}, 4: {2, 4, 8, 8, 16}, 8: {4, 8, 16, 16, 32}, 16: {8, 16, 32, 32, 64}, 24: {12, 24, 48, 48, 96}, 32: {16, 32, 64, 64, 128}} {
		for i, o := range [][2]int{{1, 16}, {1, 8}, {2, 8}, {1, 4}, {2, 4}} {
			same(t, fmt.Sprintf("%dRx%d of %d Gbit", o[0], o[1], die), float64(memory.Organised(o[0], o[1], die))/float64(quantity.GiB), want[i], 1)
		}
	}
}

// four is a board of two channels and two slots each, in the order of the sheet.
func four(modules ...quantity.Bytes) fit.Answer {
	sheet := machine.Sheet{Memory: machine.Memory{Generation: memory.DDR4, Speeds: []machine.Speed{{PerChannel: 1, MTps: 3200}, {PerChannel: 2, MTps: 3200}}}}
	placed := map[string]*part.Part{}
	for i, id := range []machine.SocketID{"A1", "A2", "B1", "B2"} {
		sheet.Sockets = append(sheet.Sockets, machine.Socket{ID: id, Kind: machine.DIMM, Root: "cpu", Channel: machine.ChannelID(id[:1])})
		if i < len(modules) && modules[i] > 0 {
			placed[string(id)] = &part.Part{Module: &part.Module{Generation: memory.DDR4, Form: memory.DIMM, SizeBytes: modules[i] * quantity.GiB, RateMTps: 3200}}
		}
	}
	return one(sheet, placed)
}

func channels(t *testing.T) {
	for _, c := range []struct {
		modules []quantity.Bytes
		want    string
	}{
		{[]quantity.Bytes{0, 16, 0, 8}, "16 GiB dual, 8 GiB single channel, 38.40 GB/s"},
		{[]quantity.Bytes{8, 8, 0, 16}, "dual channel, 51.20 GB/s"},
		{[]quantity.Bytes{8, 8}, "single channel, 25.60 GB/s"},
		{[]quantity.Bytes{0, 8, 0, 8}, "dual channel, 51.20 GB/s"},
	} {
		r := four(c.modules...)
		m := say.English(&rig.Rig{Sheet: &machine.Sheet{}}).Memory(&r.Memory)
		if got := m.Spread.String() + ", " + m.Peak.String(); got != c.want {
			t.Errorf("%v: %s, want %s", c.modules, got, c.want)
		}
	}
}

// screens print one and the same thing in several ways.
func screens(t *testing.T) {
	sheet := machine.Sheet{Sockets: []machine.Socket{{ID: "P", Kind: machine.SATA, Root: "cpu", SATAGen: 3, Protocols: []link.Protocol{link.SATA}, Mount: machine.Mount{Drives: []part.Form{part.Form2i5}}}}}
	for gb, shown := range map[int64]string{500: "465 GB", 1000: "931 GB", 2000: "1.81 TB"} {
		b := rig.Rig{Sheet: &sheet, Pieces: []rig.Piece{{ID: "d", Part: &part.Part{Drive: &part.Drive{Form: part.Form2i5, Protocol: link.SATA, Gen: 3, CapacityBytes: quantity.DriveBytes(gb)}}}},
			Setup: rig.Setup{Placements: []rig.Placement{{Item: "d", Socket: rig.ParsePath("P")}}}}
		r := fit.Resolve(&b)
		if got := quantity.DriveBytes(gb).AsSystemPrints(); got != shown {
			t.Errorf("%d GB is printed %s, want %s", gb, got, shown)
		}
		reading, err := power.Read(power.ParseLineID("drive/P"), shown)
		if err != nil {
			t.Fatal(err)
		}
		for _, l := range power.Compare(&b, &r, power.Seen{Readings: []power.Reading{reading}}) {
			if l.ID == power.ParseLineID("drive/P") && l.Verdict != power.Agrees {
				t.Errorf("%d GB shown as %s: %s", gb, shown, l.Says)
			}
		}
	}
	// Old screens print the clock, half the rate; memory is counted in powers of two.
	r := four(0, 16, 0, 16)
	b := rig.Rig{Sheet: &machine.Sheet{}}
	for typed, want := range map[string]bool{"3200": true, "1600 MHz": true, "2400": false} {
		got, _ := power.Read(power.LineID{Kind: power.Rate}, typed)
		for _, l := range power.Compare(&b, &r, power.Seen{Readings: []power.Reading{got}}) {
			if l.ID.Kind == power.Rate && (l.Verdict == power.Agrees) != want {
				t.Errorf("3200 MT/s shown as %s: %s", typed, l.Verdict)
			}
		}
	}
	if got, _ := power.Read(power.LineID{Kind: power.Total}, "32,768 MB"); got.Bytes != 32*quantity.GiB {
		t.Errorf("32,768 MB is %v", got.Bytes)
	}
}

func capacities(t *testing.T) {
	for gb, bytes := range map[int64]int64{120: 120034123776, 240: 240057409536, 256: 256060514304, 480: 480103981056, 500: 500107862016, 512: 512110190592, 960: 960197124096,
		1000: 1000204886016, 1024: 1024209543168, 1920: 1920383410176, 2000: 2000398934016, 4000: 4000787030016, 8000: 8001563222016,
		10000: 10000831348736, 12000: 12000138625024, 14000: 14000519643136, 16000: 16000900661248, 18000: 18000207937536, 20000: 20000588955648} {
		if got := int64(quantity.DriveBytes(gb)); got != bytes {
			t.Errorf("%d GB is %d bytes, want %d", gb, got, bytes)
		}
	}
	for gb, want := range map[int64][3]string{120: {"111.79 GiB", "120.03 GB"}, 240: {"223.57 GiB", "240.06 GB"}, 256: {"238.47 GiB", "256.06 GB"}, 480: {"447.13 GiB", "480.10 GB"}, 500: {"465.76 GiB", "500.11 GB"}, 512: {"476.94 GiB", "512.11 GB"}, 960: {"894.25 GiB", "960.20 GB"}, 1000: {"931.51 GiB", "1.00 TB"}, 8000: {"7.28 TiB", "8.00 TB"}, 20000: {"18.19 TiB", "20.00 TB"}} {
		if b := quantity.DriveBytes(gb); b.Binary() != want[0] || b.Decimal() != want[1] {
			t.Errorf("%d GB is %s and %s, want %v", gb, b.Binary(), b.Decimal(), want)
		}
	}
	if b, _ := quantity.ParseBinary("16 GB"); b != 17179869184 {
		t.Errorf("16 GB of memory is %d bytes", b)
	}
}
