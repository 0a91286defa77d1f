package say_test

import (
	"fmt"
	"io/fs"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/say"
	"deepbay/internal/format"
)

// TestSayable writes every rule that can be said about the sheets of the demo shop: each makes
// a sheet without a fault, reads back as the words it was chosen by, and no two are alike.
func TestSayable(t *testing.T) {
	names, err := fs.Glob(demo.Files, "sheets/*.json")
	if err != nil {
		t.Fatal(err)
	}
	for _, name := range names {
		b, err := demo.Files.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		sheet, err := format.Sheet(b)
		if err != nil {
			t.Fatal(err)
		}
		can := say.SayableOf(say.Plain, &sheet)
		var when []machine.Condition
		var words []string
		for _, a := range can.When {
			for _, c := range a.Can {
				when = append(when, c.When)
				words = append(words, "when "+a.About.String()+" "+c.Says.String())
			}
		}
		seen, own := map[string]bool{}, len(sheet.Rules)
		n := 0
		for _, d := range can.Then {
			for _, e := range d.Can {
				i := n % len(when)
				n++
				sheet.Rules = append(sheet.Rules[:own:own], machine.Rule{ID: "said", When: when[i : i+1], Then: []machine.Effect{e.Then}})
				if err := sheet.Validate().Err(); err != nil {
					t.Errorf("%s: %s %s: %v", name, d.On, e.Says, err)
				}
				want := fmt.Sprintf("%s, %s %s", words[i], d.On, e.Says)
				if _, rules := say.SheetAnswer(say.Plain, &sheet); rules[own].String() != want || seen[d.On.String()+e.Says.String()] {
					t.Errorf("%s: says %q, want %q, once", name, rules[own], want)
				}
				seen[d.On.String()+e.Says.String()] = true
			}
		}
		if n < 5 || len(when) < 6 {
			t.Errorf("%s: %d effects and %d conditions can be said", name, n, len(when))
		}
	}
}
