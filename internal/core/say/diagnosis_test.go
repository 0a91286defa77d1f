package say_test

import (
	"strings"
	"testing"

	"deepbay/internal/core/fault"
	"deepbay/internal/core/power"
	"deepbay/internal/core/say"
	"deepbay/internal/coretest/jobs"
)

// TestCatalogueWords says everything of every fault that the largest machine can have, and of
// every check: nothing is left blank, no place of a sentence is left unfilled, and no two faults
// at one place read alike.
func TestCatalogueWords(t *testing.T) {
	full := jobs.Full(t)
	v := say.English(&full)
	c := fault.Of(&full, fault.Work{})
	whole := func(what, s string) {
		t.Helper()
		if s == "" || strings.ContainsAny(s, "{}") || strings.Contains(s, "  ") || strings.Contains(s, " , ") || strings.HasSuffix(s, ": ") {
			t.Errorf("%s: %q", what, s)
		}
	}
	seen := map[string]fault.Fault{}
	for _, f := range c.Faults() {
		w := v.SuspectOf(f)
		whole(f.String(), w.Says.String())
		whole(f.String(), w.Cure.String())
		if o, ok := seen[w.Says.String()]; ok && f.Setting == "" {
			t.Errorf("%s and %s both read %q", o, f, w.Says)
		}
		seen[w.Says.String()] = f
		if got := fault.Parse(f.String()); got != f {
			t.Errorf("%q reads back as %v", f.String(), got)
		}
		d := c.Diagnose(fault.Evidence{Readings: readAll(c.World([]fault.Fault{f}, nil))})
		words := v.Trouble(&d)
		whole(f.String(), words.Says.String())
		for _, s := range words.Differs {
			whole(f.String(), s.String())
		}
		if words.Next != nil {
			whole(f.String(), words.Next.Does.String())
			for _, a := range words.Next.Answers {
				whole(f.String(), a.Says.String())
			}
			if got := fault.ParseCheck(words.Next.Check.String()); got != words.Next.Check {
				t.Errorf("%q reads back as %v", words.Next.Check.String(), got)
			}
		}
	}
	for _, k := range fault.Kinds() {
		if say.FaultSays(k) == "" {
			t.Errorf("%s is in the catalogue and not in words", k)
		}
	}
	for _, l := range fault.Looks() {
		if say.LookSays(l) == "" {
			t.Errorf("nothing says how %s is made", l)
		}
	}
}

func readAll(w *fault.World) []power.Reading {
	var out []power.Reading
	for _, id := range w.Lines() {
		if r, ok := w.Read(id); ok && (w.Differs(id) || id.Kind == power.Total) {
			out = append(out, r)
		}
	}
	return out
}
