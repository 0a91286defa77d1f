package intake_test

import (
	"fmt"
	"strings"
	"testing"

	"deepbay/internal/core/intake"
	"deepbay/internal/core/quantity"
)

var sheets = []intake.Sheet{{ID: "harrier-t4", Name: "Harrier T4 tower"}, {ID: "harrier-t4-b", Name: "Harrier T4-B tower"}, {ID: "plover-m2", Name: "Plover M2 mini PC"}}

var seen = []intake.Seen{
	{Job: "echo", Tag: "HS-0417", Title: "Echo-sounding tower", Owner: "Echo-sounding desk", Sheet: "harrier-t4", Open: true},
	{Job: "gauge", Tag: "HS-041", Title: "Tide gauge", Sheet: "plover-m2"},
}

// brief is what a line came to, in a line of its own.
func brief(in *intake.Intake) string {
	var out []string
	add := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	w := &in.Wish
	if in.Sheet != "" {
		add("%s", in.Sheet)
	}
	if in.Title != "" {
		add("%q", in.Title)
	}
	if in.Tag != "" {
		add("#%s", in.Tag)
	}
	if w.MemoryBytes > 0 {
		add("memory %s", w.MemoryBytes.Binary())
	}
	if w.SystemBytes > 0 {
		add("system %s", w.SystemBytes.Label())
	}
	if w.SystemFast {
		add("fast")
	}
	if in.Fresh {
		add("fresh")
	}
	if w.Encrypted != quantity.Unknown {
		add("encrypted %s", w.Encrypted)
	}
	if w.BackedUp != "" {
		add("backup %q", w.BackedUp)
	}
	if w.Untouched != "" {
		add("untouched %q", w.Untouched)
	}
	for _, t := range w.Tests {
		add("test %s", t)
	}
	for _, o := range in.Open {
		_, code, _ := strings.Cut(string(o.Code), "/")
		add("?%s", code)
	}
	return strings.Join(out, " ")
}

func TestRead(t *testing.T) {
	for line, want := range map[string]string{
		"32 GB and a fast 1 TB for HS-0417":                   `harrier-t4 "Echo-sounding tower" #HS-0417 memory 32 GiB system 1 TB fast`,
		"for hs-0417: 1 TB sata ssd, 32GB":                    `harrier-t4 "Echo-sounding tower" #HS-0417 memory 32 GiB system 1 TB`,
		"16 GB for HS-041":                                    `plover-m2 "Tide gauge" #HS-041 memory 16 GiB`,
		"16 GB for HS-04":                                     `"HS-04" #HS-04 memory 16 GiB ?no-machine`,
		"2x16GB for the Harrier T4 of the chart room":         `harrier-t4 "Chart room" memory 32 GiB`,
		"2 x 8 GB for harrier-t4-b":                           `harrier-t4-b "Harrier T4-B tower" memory 16 GiB`,
		"64 GB RAM for the quay camera, plover m2":            `plover-m2 "Quay camera" memory 64 GiB`,
		"256 GB for HS-0417":                                  `harrier-t4 "Echo-sounding tower" #HS-0417 ?which-size`,
		"256 GB memory for HS-0417":                           `harrier-t4 "Echo-sounding tower" #HS-0417 memory 256 GiB`,
		"256 GB nvme for HS-0417":                             `harrier-t4 "Echo-sounding tower" #HS-0417 system 256 GB fast`,
		"32 GB of fast memory for HS-0417":                    `harrier-t4 "Echo-sounding tower" #HS-0417 memory 32 GiB`,
		"8 GB more memory for HS-0417":                        `harrier-t4 "Echo-sounding tower" #HS-0417 ?more-or-all`,
		"32 GB or more for HS-0417":                           `harrier-t4 "Echo-sounding tower" #HS-0417 memory 32 GiB`,
		"16 GB, 32 GB for HS-0417":                            `harrier-t4 "Echo-sounding tower" #HS-0417 memory 16 GiB ?said-twice`,
		"1 TB and 2 TB for HS-0417":                           `harrier-t4 "Echo-sounding tower" #HS-0417 system 1 TB ?said-twice`,
		"1 TB and 4 TB for data for HS-0417":                  `harrier-t4 "Echo-sounding tower" #HS-0417 system 1 TB`,
		"500 GB for system for PLV-7712, Plover M2 mini PC":   `plover-m2 "Plover M2 mini PC" #PLV-7712 system 500 GB`,
		"500 GB ssd for PLV-7712, Plover M2 mini PC":          `plover-m2 "Plover M2 mini PC" #PLV-7712 system 500 GB`,
		"1.5 TB nvme for HS-0417":                             `harrier-t4 "Echo-sounding tower" #HS-0417 system 1500 GB fast`,
		"a new machine, harrier t4, 16 GB":                    `harrier-t4 "Harrier T4 tower" memory 16 GiB fresh`,
		"HS-0417, encrypted, memory test":                     `harrier-t4 "Echo-sounding tower" #HS-0417 encrypted yes test memory`,
		"HS-0417, not encrypted, backed up on the shelf disk": `harrier-t4 "Echo-sounding tower" #HS-0417 encrypted no backup "the shelf disk"`,
		"HS-0417 32 GB, do not touch the 2 TB disk":           `harrier-t4 "Echo-sounding tower" #HS-0417 memory 32 GiB untouched "the 2 TB disk"`,
		"":                                 `?no-machine`,
		"twice the memory for the weather": `"Weather" ?no-machine`,
		"99999999999 GB for HS-0417":       `harrier-t4 "Echo-sounding tower" #HS-0417`,
		"0 GB for HS-0417":                 `harrier-t4 "Echo-sounding tower" #HS-0417`,
		"Kälte-PC für 32 GB, harrier-t4":   `harrier-t4 "Harrier T4 tower" memory 32 GiB`,
	} {
		in, err := intake.Read(line, sheets, seen)
		if got := brief(&in); err != nil || got != want {
			t.Errorf("%q:\n%s\nwant\n%s (%v)", line, got, want, err)
		}
		if in.Wish.Text != strings.Join(strings.Fields(line), " ") {
			t.Errorf("%q: the wish is %q", line, in.Wish.Text)
		}
	}
	if _, err := intake.Read(strings.Repeat("x", intake.Most+1), sheets, seen); err == nil {
		t.Error("a line that is too long was read")
	}
}

// FuzzRead holds that no line breaks the reader, and that no word means two things.
func FuzzRead(f *testing.F) {
	f.Add("32 GB and a fast 1 TB for HS-0417, backed up on X, 4 TB for data")
	f.Add("é for İ for 2x2x2tb ,;+ and and")
	f.Fuzz(func(t *testing.T, line string) {
		in, err := intake.Read(line, sheets, seen)
		if err != nil {
			return
		}
		letters := 0
		for _, m := range in.Means {
			letters += len(m.Words)
		}
		if letters > len(in.Wish.Text) {
			t.Errorf("%q: what was read is longer than the line: %v", line, in.Means)
		}
	})
}
