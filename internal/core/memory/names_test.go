package memory

import (
	"reflect"
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

// A code is read whole as labels print it and short as shops do; a letter that is two things
// is in doubt, and one that is none refused.
func TestReadCode(t *testing.T) {
	low := []quantity.Millivolts{1350, 1500}
	of := func(g Generation, rate quantity.MTps, p Printed) Printed {
		p.Rated, _ = Speed(g, int(rate))
		return p
	}
	for text, want := range map[string]Printed{
		"PC3L-12800S-11-11-F3":  of(DDR3, 1600, Printed{Millivolts: low, CL: 11, Form: SODIMM, ECC: quantity.No, Registered: quantity.No}),
		"PC3L-12800S":           of(DDR3, 1600, Printed{Millivolts: low, Form: SODIMM, ECC: quantity.No, Registered: quantity.No}),
		"PC3-8500U-7-10-A1":     of(DDR3, 1066, Printed{Millivolts: []quantity.Millivolts{1500}, CL: 7, Form: DIMM, ECC: quantity.No, Registered: quantity.No}),
		"PC2-6400S-666-12-E0":   of(DDR2, 800, Printed{Millivolts: []quantity.Millivolts{1800}, CL: 6, Form: SODIMM, ECC: quantity.No, Registered: quantity.No}),
		"PC4-2666V-SA2-11":      of(DDR4, 2666, Printed{Millivolts: []quantity.Millivolts{1200}, CL: 19, Form: SODIMM, ECC: quantity.No, Registered: quantity.No}),
		"pc4-2400t-r":           of(DDR4, 2400, Printed{Millivolts: []quantity.Millivolts{1200}, CL: 17, Form: DIMM, Registered: quantity.Yes}),
		"PC4-2400T":             of(DDR4, 2400, Printed{CL: 17}),
		"PC4-2400R":             of(DDR4, 2400, Printed{Doubt: "R"}),
		"PC4-19200R":            of(DDR4, 2400, Printed{Form: DIMM, Registered: quantity.Yes}),
		"PC5-4800B-SA0-1010-XT": of(DDR5, 4800, Printed{Millivolts: []quantity.Millivolts{1100}, CL: 40, Form: SODIMM, ECC: quantity.No, Registered: quantity.No}),
		"PC5-5600":              of(DDR5, 5600, Printed{}),
	} {
		if got, err := ReadCode(text); err != nil || !reflect.DeepEqual(got, want) {
			t.Errorf("%s:\n%+v, %v\nwant\n%+v", text, got, err, want)
		}
	}
	for _, s := range []string{"", "16GB", "PC4", "PC4-9999V-SA2-11", "PC6-2666V-SA2-11", "PC4L-2400", "PC4-2400Q", "PC3-12800S-1", "PC4-2666V-XA2-11", "PC4-2666V-SA2-11-11"} {
		if p, err := ReadCode(s); err == nil {
			t.Errorf("%q was taken for %+v", s, p)
		}
	}
}

// What is read is a speed of its family, whose names mean the same; a letter in doubt means
// two things.
func FuzzReadCode(f *testing.F) {
	for _, s := range []string{"PC3L-12800S-11-11-F3", "PC4-2666V-SA2-11", "PC5-4800B-SA0-1010-XT", "pc4-3200aa-ub1-11", "PC2-6400S-666-12-E0", "PC4-2400R", "x"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		p, err := ReadCode(s)
		if err != nil {
			return
		}
		for _, name := range []string{p.Name(), p.ModuleName()} {
			if again, err := Code(name); err != nil || len(again) != 1 || again[0] != p.Rated {
				t.Fatalf("%q is %+v, and %q is %v, %v", s, p, name, again, err)
			}
		}
		if reg, cl := p.Doubted(); p.Doubt != "" && (reg == quantity.Unknown || cl == 0) {
			t.Fatalf("%q is in doubt about %q, which means %v and CL%d", s, p.Doubt, reg, cl)
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
