package memory

import (
	"strings"
	"testing"

	"deepbay/internal/core/quantity"
)

// Every row of the table of names, and the other spellings that are met.
func TestNamesOfSpeeds(t *testing.T) {
	for _, c := range []struct{ module, name, others string }{
		{"PC2-3200", "DDR2-400", ""}, {"PC2-4200", "DDR2-533", "4266 4300"}, {"PC2-5300", "DDR2-667", "5333 5400"}, {"PC2-6400", "DDR2-800", ""}, {"PC2-8500", "DDR2-1066", "8533 8600"},
		{"PC3-6400", "DDR3-800", ""}, {"PC3-8500", "DDR3-1066", "8533 8600"}, {"PC3-10600", "DDR3-1333", "10666 10667 10700"}, {"PC3-12800", "DDR3-1600", ""}, {"PC3-14900", "DDR3-1866", "14933 15000"}, {"PC3-17000", "DDR3-2133", "17066 17067"},
		{"PC4-12800", "DDR4-1600", ""}, {"PC4-14900", "DDR4-1866", "14933"}, {"PC4-17000", "DDR4-2133", "17066 17067"}, {"PC4-19200", "DDR4-2400", ""}, {"PC4-21300", "DDR4-2666", "21333"}, {"PC4-23400", "DDR4-2933", "23466 23467 23500"}, {"PC4-25600", "DDR4-3200", ""},
		{"PC5-25600", "DDR5-3200", ""}, {"PC5-38400", "DDR5-4800", ""}, {"PC5-44800", "DDR5-5600", ""}, {"PC5-48000", "DDR5-6000", ""}, {"PC5-70400", "DDR5-8800", ""},
	} {
		spellings := []string{c.module, c.name, strings.ToLower(c.module), strings.Replace(c.name, "-", " ", 1)}
		for _, o := range strings.Fields(c.others) {
			spellings = append(spellings, c.module[:4]+o)
		}
		for _, s := range spellings {
			got, err := Code(s)
			if err != nil || len(got) != 1 || got[0].Name() != c.name || got[0].ModuleName() != c.module {
				t.Errorf("%s is %v (%v), want %s, %s", s, got, err, c.name, c.module)
			}
		}
	}
	for s, want := range map[string]string{
		"12800": "DDR3-1600 DDR4-1600", "25600": "DDR4-3200 DDR5-3200", "2666": "DDR4-2666", "PC4-2666V": "DDR4-2666", "PC3L-12800S": "DDR3-1600", "3200": "DDR2-400 DDR4-3200 DDR5-3200",
	} {
		var names []string
		got, err := Code(s)
		for _, r := range got {
			names = append(names, r.Name())
		}
		if strings.Join(names, " ") != want {
			t.Errorf("%s could be %v (%v), want %s", s, names, err, want)
		}
	}
	for _, s := range []string{"", "PC4", "DDR4-99", "PC9-1000", "fast", "7"} {
		if got, err := Code(s); err == nil {
			t.Errorf("%q was taken for %v", s, got)
		}
	}
}

func TestParseLabel(t *testing.T) {
	for _, c := range []struct {
		text string
		want Label
	}{
		{"16GB 2Rx8 PC3L-12800S-11-11-F3", Label{SizeBytes: 16 * gib, Generation: DDR3, Ranks: 2, Width: 8, Millivolts: 1350, MTps: 1600, CL: 11, Form: SODIMM, ECC: quantity.No, Registered: quantity.No, RawCard: "F3", SPD: "11", module: "S"}},
		{"1Rx8 PC4-2666V-SA2-11", Label{Generation: DDR4, Ranks: 1, Width: 8, Millivolts: 1200, MTps: 2666, CL: 19, Form: SODIMM, ECC: quantity.No, Registered: quantity.No, Bin: "V", RawCard: "A2", SPD: "11", module: "S"}},
		{"16GB 1Rx8 PC5-4800B-SA0-1010-XT", Label{SizeBytes: 16 * gib, Generation: DDR5, Ranks: 1, Width: 8, Millivolts: 1100, MTps: 4800, CL: 40, Form: SODIMM, ECC: quantity.No, Registered: quantity.No, Bin: "B", RawCard: "A0", SPD: "1010", Grade: "XT", module: "S"}},
		{"512MB 1Rx16 PC3-8500U-7-10-A1", Label{SizeBytes: 512 * quantity.MiB, Generation: DDR3, Ranks: 1, Width: 16, Millivolts: 1500, MTps: 1066, CL: 7, Form: DIMM, ECC: quantity.No, Registered: quantity.No, RawCard: "A1", SPD: "10", module: "U"}},
		{"64GB 2S2Rx4 PC4-3200AA-RB1-12", Label{SizeBytes: 64 * gib, Generation: DDR4, Ranks: 4, Width: 4, Millivolts: 1200, MTps: 3200, CL: 22, Form: DIMM, Registered: quantity.Yes, Bin: "AA", RawCard: "B1", SPD: "12", stack: "S2", module: "R"}},
	} {
		got, err := ParseLabel(c.text)
		if err != nil || got != c.want {
			t.Errorf("%s:\n%+v, %v\nwant\n%+v", c.text, got, err, c.want)
		}
		if got.String() != c.text {
			t.Errorf("%s is printed %s", c.text, got)
		}
	}
	for _, s := range []string{"", "16GB", "2Rx8 PC4-2666V", "0Rx8 PC4-2666V-SA2-11", "1Rx8 PC4-9999V-SA2-11", "1Rx8 PC6-2666V-SA2-11"} {
		if l, err := ParseLabel(s); err == nil {
			t.Errorf("%q was taken for %v", s, l)
		}
	}
}

// What was read is printed so that it is read the same again.
func FuzzParseLabel(f *testing.F) {
	for _, s := range []string{"16GB 2Rx8 PC3L-12800S-11-11-F3", "1Rx8 PC4-2666V-SA2-11", "16GB 1Rx8 PC5-4800B-SA0-1010-XT", "8gb 2rx8  pc4-3200aa-ub1-11", "512MB 1Rx16 PC3-8500U-7-10-A1", "64GB 2S2Rx4 PC4-3200AA-RB1-12", "x"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		l, err := ParseLabel(s)
		if err != nil {
			return
		}
		again, err := ParseLabel(l.String())
		if err != nil || again != l {
			t.Fatalf("%q is %+v, printed %q, read again %+v, %v", s, l, l, again, err)
		}
	})
}

func FuzzCode(f *testing.F) {
	for _, s := range []string{"PC4-21300", "DDR5-5600", "12800", "pc3l-12800s", "PC4-", "-1"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		got, err := Code(s)
		if (err == nil) != (len(got) > 0) {
			t.Fatalf("%q: %v, %v", s, got, err)
		}
		for _, r := range got {
			for _, name := range []string{r.Name(), r.ModuleName()} {
				if again, err := Code(name); err != nil || len(again) != 1 || again[0] != r {
					t.Fatalf("%q is %v, and %q is %v, %v", s, r, name, again, err)
				}
			}
		}
	})
}
