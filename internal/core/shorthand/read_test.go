package shorthand

import (
	"bytes"
	"flag"
	"fmt"
	"os"
	"reflect"
	"strings"
	"testing"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
)

var update = flag.Bool("update", false, "write testdata/lines.txt anew, to be read through")

// came is what a line came to, in one line: the part as it is written, what the words leave
// unsaid after a bar, what they leave open after another; or what is wrong.
func came(text string) string {
	got, err := Read(text)
	if err != nil {
		return "! " + fact.From(err).String()
	}
	for _, p := range got.Part.Validate() {
		if len(got.Asks) == 0 {
			return "! " + p.Fact.String()
		}
	}
	out := written(&got.Part)
	if got.Count > 1 {
		out = fmt.Sprintf("%d of %s", got.Count, out)
	}
	if !strings.HasPrefix(got.Part.Name, written(&got.Part)) {
		out += fmt.Sprintf(" %q", got.Part.Name)
	}
	if got.Part.Number != "" {
		out += " no. " + got.Part.Number
	}
	if got.Serials != nil {
		out += " serials " + strings.Join(got.Serials, " ")
	}
	for i, f := range got.Unknown {
		out += map[bool]string{true: " | lacks ", false: ", "}[i == 0] + strings.TrimPrefix(f.String(), "shorthand/lacks-")
	}
	for _, a := range got.Asks {
		out += " | " + strings.TrimPrefix(string(a.About), "shorthand/") + "? " + strings.Join(a.Choices, ", ")
	}
	return out
}

// Lines of labels and words, right, wrong, ambiguous and half, are read as the table says.
func TestLines(t *testing.T) {
	const path = "testdata/lines.txt"
	table, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	var out bytes.Buffer
	tried := 0
	for _, line := range strings.Split(strings.TrimSuffix(string(table), "\n"), "\n") {
		text, want, ok := strings.Cut(line, " => ")
		if strings.HasPrefix(line, "#") || !ok && !*update {
			fmt.Fprintln(&out, line)
			continue
		}
		tried++
		got := came(text)
		fmt.Fprintf(&out, "%s => %s\n", text, got)
		if got != want && !*update {
			t.Errorf("%q\nis   %s\nwant %s", text, got, want)
		}
	}
	if tried < 400 {
		t.Errorf("%d lines were tried", tried)
	}
	if *update {
		if err := os.WriteFile(path, out.Bytes(), 0o600); err != nil {
			t.Fatal(err)
		}
	}
}

// Whatever is asked, each answer added to the line settles it, or leads to the next
// question.
func TestAnswersSettle(t *testing.T) {
	table, err := os.ReadFile("testdata/lines.txt")
	if err != nil {
		t.Fatal(err)
	}
	var settle func(text string, depth int)
	settle = func(text string, depth int) {
		got, err := Read(text)
		if err != nil {
			t.Errorf("%q: %v", text, err)
			return
		}
		if len(got.Asks) == 0 {
			return
		}
		if depth > 5 {
			t.Errorf("%q: still asks %v", text, got.Asks)
			return
		}
		for _, c := range got.Asks[0].Choices {
			then, err := Read(text + " " + c)
			if err != nil {
				t.Errorf("%q, answered with %q: %v", text, c, err)
				continue
			}
			for _, a := range then.Asks {
				if a.About == got.Asks[0].About {
					t.Errorf("%q, answered with %q, asks again: %v", text, c, a)
				}
			}
			settle(text+" "+c, depth+1)
		}
	}
	for _, line := range strings.Split(string(table), "\n") {
		if text, want, ok := strings.Cut(line, " => "); ok && !strings.HasPrefix(want, "!") {
			settle(text, 0)
		}
	}
}

// What is written of a part is read as the same part, once nothing is left to ask.
func same(t *testing.T, text string) {
	t.Helper()
	got, err := Read(text)
	if err != nil || len(got.Asks) > 0 || got.Part.Validate().Err() != nil {
		return
	}
	got.Part.Name, got.Part.Number, got.Part.ID = "", "", ""
	w := Write(&got.Part)
	if w == "" {
		if p := got.Part; p.Module == nil || !reflect.DeepEqual(*p.Module, part.Module{}) {
			t.Errorf("%q is a part of which nothing can be written: %q of %+v", text, written(&p), p)
		}
		return
	}
	again, err := Read(w)
	again.Part.Name, again.Part.ID = "", ""
	if err != nil || !reflect.DeepEqual(again.Part, got.Part) {
		t.Errorf("%q is written %q, which is %+v, %v\nfirst %+v", text, w, again.Part, err, got.Part)
	}
}

func TestWrite(t *testing.T) {
	table, err := os.ReadFile("testdata/lines.txt")
	if err != nil {
		t.Fatal(err)
	}
	for _, line := range strings.Split(string(table), "\n") {
		if text, _, ok := strings.Cut(line, " => "); ok {
			same(t, text)
		}
	}
}

func FuzzRead(f *testing.F) {
	table, err := os.ReadFile("testdata/lines.txt")
	if err != nil {
		f.Fatal(err)
	}
	for i, line := range strings.Split(string(table), "\n") {
		if text, _, ok := strings.Cut(line, " => "); ok && i%3 == 0 {
			f.Add(text)
		}
	}
	f.Fuzz(same)
}

// Each word is said back: nothing that was read is left out of what it was taken for.
func TestSaidBack(t *testing.T) {
	for text, words := range map[string]string{
		"2Rx4 PC4-2400T-RE1-11 16GB":                "2Rx4; PC4-2400T-RE1-11; 16GB",
		"2TB NVMe PCIe 4.0 x4 M.2 2280 M key":       "NVMe; PCIe 4.0 x4; M.2; 2280; M key; 2TB",
		"DDR5-6000 CL30 2x16 DIMM profile 6000":     "DDR5-6000; CL30; 2x16; DIMM; profile 6000",
		"x16 card 2.5 slots 290mm 8-pin":            "x16 card; 2.5 slots; 290mm; 8-pin",
		"1TB nvme 2280 7 GB/s 8.5W":                 "nvme; 2280; 7 GB/s; 8.5W; 1TB",
		"32GB kit 2x16 DDR4-3200 SODIMM":            "kit; 2x16; DDR4-3200; SODIMM; 32GB",
		"usb 3.2 gen2 box m.2 nvme 2280 uas":        "usb 3.2 gen2; m.2; nvme; 2280; uas",
		"x16 carrier 2x m.2 2280 no switch gen4":    "x16 carrier; 2x m.2; 2280; no switch; gen4",
		"sata data lead straight to angled 50cm":    "straight to angled; 50cm",
		"8TB 3.5 sata 7200rpm PWDIS \"Deep store\"": "3.5; sata; 7200rpm; PWDIS; \"Deep store\"; 8TB",
	} {
		got, err := Read(text)
		if err != nil {
			t.Errorf("%q: %v", text, err)
			continue
		}
		said := map[string]bool{}
		for _, m := range got.Means {
			said[m.Word] = true
		}
		for _, w := range strings.Split(words, "; ") {
			if !said[w] {
				t.Errorf("%q: nothing is said of %q: %v", text, w, got.Means)
			}
		}
	}
}

// A label's latency is that of its speed bin, and said in nanoseconds.
func TestLatencySaid(t *testing.T) {
	got, err := Read("16GB 2Rx8 PC4-2400T-UA1-11")
	if err != nil || got.Part.Module.CL != 17 {
		t.Fatalf("%+v, %v", got.Part.Module, err)
	}
	last := got.Means[len(got.Means)-2].Says
	if last.Code != HasLatency || last.Args[0] != 17 || last.Args[1] != memory.Latency(17, 2400) {
		t.Errorf("%v", got.Means)
	}
}
