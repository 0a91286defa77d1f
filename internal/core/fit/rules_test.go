package fit_test

import (
	"fmt"
	"strings"
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest"
)

func TestChecks(t *testing.T) {
	speaks, silent := map[fit.Code]int{}, map[fit.Code]int{}
	for _, c := range coretest.Cases {
		b := c.Rig(t)
		r := fit.Resolve(b)
		if got := brief(&r); got != c.Want {
			t.Errorf("%s with %q:\n%s\nwant:\n%s", c.Rule, c.Lay, got, c.Want)
		}
		if strings.Contains(c.Want, " "+c.Rule) {
			speaks[fit.Code(c.Rule)]++
		} else {
			silent[fit.Code(c.Rule)]++
		}
		for _, f := range r.Findings {
			if !f.Says.Is() || len(f.Because)+len(f.Missing) == 0 {
				t.Errorf("%s says %q because of %d reasons: a finding has both", f.Code, f.Says.Code, len(f.Because))
			}
		}
	}
	for _, c := range fit.Rules {
		if speaks[c.Code] == 0 || silent[c.Code] == 0 {
			t.Errorf("%s: %d cases in which it speaks, %d in which it does not; each rule has both", c.Code, speaks[c.Code], silent[c.Code])
		}
	}
}

// brief is the findings, one a line: grade, code, socket, item.
func brief(r *fit.Answer) string {
	var lines []string
	for _, f := range r.Findings {
		for _, p := range append([]rig.Placement{{Item: f.Item, Socket: f.Socket}}, f.Also...) {
			lines = append(lines, strings.Join(strings.Fields(fmt.Sprintf("%s %s %s %s", f.Severity, f.Code, p.Socket, p.Item)), " "))
		}
	}
	return strings.Join(lines, "\n")
}

func ExampleResolve() {
	r := fit.Resolve(coretest.Lay(nil, coretest.Board(), "nvme:U m16:A2 m16':B2"))
	fmt.Println(r.Socket(rig.On("U")).Link.Rate.Low)
	fmt.Println(r.Memory.Total.Low.Binary(), "at", r.Memory.MTps.Low)
	// Output:
	// 7.88 GB/s
	// 32 GiB at 3200 MT/s
}
