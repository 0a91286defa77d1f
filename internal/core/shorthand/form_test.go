package shorthand_test

import (
	"os"
	"reflect"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/part"
	"deepbay/internal/core/shorthand"
)

// values is what a form shows of a part.
func values(p *part.Part) map[string]string {
	out := map[string]string{}
	for _, f := range shorthand.Fields(shorthand.KindOf(p)) {
		out[f.Name] = f.Of(p)
	}
	return out
}

// A form that is opened and kept as it is changes nothing, whatever the part has that no
// word is for.
func TestFormKeepsAll(t *testing.T) {
	parts, err := demo.Parts()
	if err != nil {
		t.Fatal(err)
	}
	for _, name := range []string{"echo-sounding-tower", "dive-camera-ingest", "chart-table-workstation", "wave-model-desktop"} {
		j, err := demo.Job(name)
		if err != nil {
			t.Fatal(err)
		}
		parts = append(parts, j.Parts...)
	}
	kinds := map[shorthand.Kind]int{}
	for i := range parts {
		p := &parts[i]
		kinds[shorthand.KindOf(p)]++
		got := shorthand.Fill(shorthand.KindOf(p), values(p), p)
		if got.Fault.Is() || len(got.Wrong) > 0 || len(got.Asks) > 0 || !reflect.DeepEqual(got.Part, *p) {
			t.Errorf("%s, kept as %v, is\n%+v, %v %v %v\nand was\n%+v", p.Name, values(p), got.Part, got.Fault, got.Wrong, got.Asks, *p)
		}
	}
	for _, k := range []shorthand.Kind{shorthand.Drive, shorthand.Module, shorthand.Card, shorthand.Carrier, shorthand.Box, shorthand.Holder} {
		if kinds[k] == 0 {
			t.Errorf("no %s was tried", k)
		}
	}
}

// What a line says stands in the fields of its form, and the form says the same.
func TestFormIsTheLine(t *testing.T) {
	table, err := os.ReadFile("testdata/lines.txt")
	if err != nil {
		t.Fatal(err)
	}
	tried := map[shorthand.Kind]int{}
	for _, line := range strings.Split(string(table), "\n") {
		text, _, ok := strings.Cut(line, " => ")
		got, err := shorthand.Read(text)
		if !ok || err != nil || len(got.Asks) > 0 || got.Part.Validate().Err() != nil {
			continue
		}
		k := shorthand.KindOf(&got.Part)
		tried[k]++
		again := shorthand.Fill(k, values(&got.Part), nil)
		again.Part.Name, again.Part.ID, again.Part.Number = got.Part.Name, got.Part.ID, got.Part.Number
		if again.Fault.Is() || !reflect.DeepEqual(again.Part, got.Part) {
			t.Errorf("%q in the fields %v is %+v, %v, and was %+v", text, values(&got.Part), again.Part, again.Fault, got.Part)
		}
	}
	for _, k := range shorthand.Kinds() {
		if tried[k] == 0 {
			t.Errorf("no %s was tried", k)
		}
	}
}

// Each word that a field offers is one that a line of its kind may have.
func TestChoices(t *testing.T) {
	for _, k := range shorthand.Kinds() {
		for _, f := range shorthand.Fields(k) {
			words := []string{f.Example}
			for _, c := range f.Choices {
				words = append(words, c.Word)
			}
			for _, w := range words {
				in := map[string]string{f.Name: w}
				switch { // what is said of one kind of card alone
				case k == shorthand.Carrier && f.Name == "posts":
					in["places"], in["edge"] = "4x m.2", "x16"
				case (k == shorthand.Card || k == shorthand.Carrier) && f.Name == "sides":
					in["into"] = "M.2"
				}
				got := shorthand.Fill(k, in, nil)
				if w != "" && (len(got.Wrong) > 0 || got.Fault.Is() && got.Fault.Code != part.EdgeTooShort && got.Fault.Code != part.OneOfTheKinds) {
					t.Errorf("%s, %s: %q is not taken: %v %v", k, f.Name, w, got.Wrong, got.Fault)
				}
			}
		}
	}
}

// What is wrong with one field is said at it, and what is wrong with two together once.
func TestFill(t *testing.T) {
	for _, c := range []struct {
		kind   shorthand.Kind
		fields string // name=words, with semicolons between
		want   string // the part in words, or what is wrong
	}{
		{shorthand.Drive, "capacity=500; speaks=nvme; form=M.2; size=2280", "500GB nvme M.2 2280"},
		{shorthand.Module, "capacity=8;speed=DDR4-3200;form=DIMM;height=44", "8GB DDR4-3200 DIMM 44mm"},
		{shorthand.Card, "edge=x16;use=graphics;openings=3-slot;length=290;plugs=8-pin", "x16 card graphics 3-slot 290mm 8-pin"},
		{shorthand.Carrier, "edge=x16;places=4x m.2;posts=2280;chip=no-switch", "x16 carrier 4x m.2 2280 no-switch each-x4 lanes-0-4-8-12 wired-x16"},
		{shorthand.Drive, "capacity=much", "capacity: shorthand/means-nothing much shorthand/hint-loose"},
		{shorthand.Drive, "form=2.5;size=2280", "shorthand/words-of-two-forms 2.5-inch"},
		{shorthand.Drive, "", "shorthand/nothing-typed"},
		{shorthand.Carrier, "edge=x1;places=4x m.2;chip=no-switch", "shorthand/too-many-positions 4 x1 x1"},
		{shorthand.Holder, "holds=2.5 in slim;kind=caddy", "2.5 in slim caddy"},
	} {
		in := map[string]string{}
		for _, f := range strings.Split(c.fields, ";") {
			name, v, _ := strings.Cut(strings.TrimSpace(f), "=")
			in[name] = v
		}
		got := shorthand.Fill(c.kind, in, nil)
		says := shorthand.Write(&got.Part)
		for name, f := range got.Wrong {
			says = name + ": " + f.String()
		}
		if got.Fault.Is() && len(got.Wrong) == 0 {
			says = got.Fault.String()
		}
		if says != c.want {
			t.Errorf("%s %s is %s, want %s", c.kind, c.fields, says, c.want)
		}
	}
}
