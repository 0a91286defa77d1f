package part

import (
	"reflect"
	"strings"
	"testing"

	"deepbay/internal/core/memory"
)

// What people type and what labels print, what it comes to, what it leaves
// unsaid, and what it asks.
func TestParseShorthand(t *testing.T) {
	for _, c := range []struct {
		text, part     string
		count          int
		unknown, asked string
	}{
		{"2x16 DDR5-5600 SODIMM", "16GB DDR5-5600 SODIMM", 2, "ranks, ecc, register", ""},
		{"1TB nvme 2280 gen4 x4 1s", "1TB nvme M.2 2280 gen4 x4 1s", 1, "notch", ""},
		{"2x480 GB ssd 2.5 sata gen3", "480GB sata 2.5 gen3 ssd", 2, "", ""},
		{"PC4-21300", "DDR4-2666", 1, "size, ranks, ecc, register", "which-form: DIMM or SODIMM"},
		{"8TB 3.5 sata 7200", "8TB sata 3.5 hdd", 1, "generation", ""},
		{"16GB 2Rx8 PC3L-12800S-11-11-F3", "16GB DDR3-1600 SODIMM 2R non-ECC unbuffered 1.35V 1.5V", 1, "", ""},
		{"1Rx8 PC4-2666V-SA2-11", "DDR4-2666 SODIMM 1R non-ECC unbuffered 1.2V", 1, "size", ""},
		{"16 GB ddr4-3200 UDIMM ecc", "16GB DDR4-3200 DIMM ECC unbuffered", 1, "ranks", ""},
		{"500 GB ssd 2.5\" sata gen3", "500GB sata 2.5 gen3 ssd", 1, "", ""},
		{"1.92TB u.2 nvme gen4 x4", "1920GB nvme U.2 gen4 x4", 1, "", ""},
		{"240GB sata m.2 2280 b+m", "240GB sata M.2 2280 B+M", 1, "generation, sides", ""},
		{"1TB nvme 2280-D2-M gen4 x4", "1TB nvme M.2 2280-D2-M gen4 x4", 1, "", ""},
		{"sata 2280-s3-m-b", "sata M.2 2280-S3-B-M", 1, "capacity, generation", ""},
		{"2280-D3 1s nvme m-key", "nvme M.2 2280-S3-M", 1, "capacity, generation, lanes", ""},
		{"25110 nvme x4 gen5 4TB", "4TB nvme M.2 25110 gen5 x4", 1, "notch, sides", ""},
		{"256GB nvme 2230 a+e x1", "256GB nvme M.2 2230 x1 A+E", 1, "generation, sides", ""},
		{"2280 500GB", "500GB M.2 2280", 1, "protocol, generation, notch, sides", ""},
		{"8 12800", "8GB", 1, "family, speed, ranks, ecc, register", "which-speed: DDR3-1600 or DDR4-1600; which-form: DIMM or SODIMM"},
		{"8 DDR3 12800", "8GB DDR3-1600", 1, "ranks, ecc, register", "which-form: DIMM or SODIMM"},
		{"512GB", "512GB", 1, "family, speed, ranks, ecc, register", "memory-or-drive: DDR4 or DDR5 or nvme or sata; which-form: DIMM or SODIMM"},
		{"4TB 7200", "4TB sata hdd", 1, "generation", "which-form: M.2 or 2.5 or 3.5"},
	} {
		got, err := ParseShorthand(c.text)
		if err != nil {
			t.Errorf("%s: %v", c.text, err)
			continue
		}
		var asked []string
		for _, a := range got.Asks {
			asked = append(asked, strings.TrimPrefix(string(a.About), "part/")+": "+strings.Join(a.Choices, " or "))
		}
		var lacks []string
		for _, f := range got.Unknown {
			lacks = append(lacks, strings.TrimPrefix(f.String(), "part/lacks-"))
		}
		unknown := strings.Join(lacks, ", ")
		if got.Part.Shorthand() != c.part || got.Count != c.count || unknown != c.unknown || strings.Join(asked, "; ") != c.asked {
			t.Errorf("%s is %d of %q, unknown %q, asked %q\nwant  %d of %q, unknown %q, asked %q", c.text, got.Count, got.Part.Shorthand(), unknown, strings.Join(asked, "; "),
				c.count, c.part, c.unknown, c.asked)
		}
		if len(got.Means) == 0 && len(got.Asks) == 0 {
			t.Errorf("%s: nothing is said of what was understood", c.text)
		}
	}
	for text, want := range map[string]string{
		"":                  "part/nothing-typed",
		"16GB banana":       "part/means-nothing banana",
		"16GB 32GB ddr4":    "part/second-size 32GB 16GB",
		"nvme ddr4":         "part/words-of-two-kinds",
		"2.5 2280":          "part/words-of-two-forms 2.5-inch",
		"DDR4-99":           "memory/has-no-speed-near DDR4-99 DDR4 99",
		"nvme b+m x4":       "part/notch-against-width B and M x2",
		"2280-D9-M":         "part/means-nothing 2280-D9-M",
		"2280-S1-M-M":       "part/means-nothing 2280-S1-M-M",
		"a+a nvme":          "part/means-nothing a+a",
		"gen9 nvme":         "part/means-nothing gen9",
		"0x16 ddr4":         "part/means-nothing 0x16",
		"99999999999TB hdd": "quantity/more-than-any-drive 99999999999TB",
	} {
		if got, err := ParseShorthand(text); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%q: %+v, %v; want %q", text, got, err, want)
		}
	}
}

// What is printed is read as the same part.
func FuzzParseShorthand(f *testing.F) {
	for _, s := range []string{"2x16 DDR5-5600 SODIMM", "1TB nvme 2280 gen4 x4 1s", "PC4-21300", "8TB 3.5 sata 7200", "16GB 2Rx8 PC3L-12800S-11-11-F3", "1.92TB u.2", "8 12800", "1.35V 2R reg 512MB", "2280 bare heatsink b+m", "1 1 1", "2280-D2-B-M 2s nvme", "3042-S1 a-key", "25110 2s"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		got, err := ParseShorthand(s)
		if err != nil {
			return
		}
		printed := got.Part.Shorthand()
		if printed == "" {
			if got.Part.Module == nil || !reflect.DeepEqual(*got.Part.Module, Module{}) {
				t.Fatalf("%q is a part of which nothing can be printed: %+v", s, got.Part)
			}
			return
		}
		again, err := ParseShorthand(printed)
		if err != nil || !reflect.DeepEqual(again.Part, got.Part) {
			t.Fatalf("%q is %+v %+v, printed %q, read again %+v %+v, %v", s, got.Part.Drive, got.Part.Module, printed, again.Part.Drive, again.Part.Module, err)
		}
	})
}

// A speed beyond what modules commonly are of their own is a stored profile's, or may be:
// then it is asked.
func TestBaseOrProfile(t *testing.T) {
	for text, want := range map[string]Module{
		"16GB DDR4-3600 DIMM":              {Generation: memory.DDR4, ProfileMTps: 3600},
		"16GB DDR4-3200 DIMM":              {Generation: memory.DDR4, RateMTps: 3200},
		"2x16 DDR5-6000 DIMM base":         {Generation: memory.DDR5, RateMTps: 6000},
		"2x16 DDR5-6000 DIMM profile":      {Generation: memory.DDR5, ProfileMTps: 6000},
		"2x16 DDR5-4800 DIMM profile-6000": {Generation: memory.DDR5, RateMTps: 4800, ProfileMTps: 6000},
		"16GB 2Rx8 PC5-6400B-UA0-1010-XT":  {Generation: memory.DDR5, RateMTps: 6400},
	} {
		got, err := ParseShorthand(text)
		if err != nil {
			t.Errorf("%q: %v", text, err)
			continue
		}
		m := got.Part.Module
		if len(got.Asks) > 0 || m.Generation != want.Generation || m.RateMTps != want.RateMTps || m.ProfileMTps != want.ProfileMTps {
			t.Errorf("%q is %+v, asks %v", text, m, got.Asks)
		}
		if again, err := ParseShorthand(got.Part.Shorthand()); err != nil || again.Part.Module.ProfileMTps != m.ProfileMTps || again.Part.Module.RateMTps != m.RateMTps || len(again.Asks) > 0 {
			t.Errorf("%q is written %q, and read as %+v, %v", text, got.Part.Shorthand(), again.Part.Module, err)
		}
	}
	got, err := ParseShorthand("2x16 DDR5-6000 DIMM")
	if err != nil || len(got.Asks) != 1 || got.Asks[0].About != BaseOrProfile {
		t.Errorf("asks %v, %v", got.Asks, err)
	}
}
