package main

// This file prints the list of rules as a document, each with cases in which all is well,
// in which it is not, and in which that cannot be told.

import (
	"bytes"
	"fmt"
	"reflect"
	"slices"
	"strings"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/known"
	"deepbay/internal/core/say"
	"deepbay/internal/coretest"
)

// rulesDoc prints docs/rules.md.
func rulesDoc() []byte {
	var b bytes.Buffer
	b.WriteString("# Rules of fit\n\nPrinted from the list in `internal/core/fit/rules.go` and the cases in `internal/coretest/cases.go` by `make generate`; do not edit.\n\n" +
		"**stops**: the plan cannot be carried out, or something is not seen. **warns**: it works, with a loss somebody should agree to. **notes**: worth knowing.\n\n" +
		"| code | grade | watches for | when, with an example |\n|---|---|---|---|\n")
	for _, c := range fit.Rules {
		fmt.Fprintf(&b, "| `%s` | %s | %s | %s |\n", c.Code, c.Severity, say.Rules[c.Code].Title, say.Rules[c.Code].Doc)
	}
	b.WriteString("\n## A case for each answer\n\nOn the board of the tests (`internal/coretest/board.go`). `nvme:U` is a part in a socket, `+` came to be fitted, `@` was found there, `!` was shown there by a screen, " +
		"`U?key=B` was looked up, `split=8+8` is a setting.\n\n| rule | answer | with | it says |\n|---|---|---|---|\n")
	for _, c := range fit.Rules {
		for _, row := range cases(c.Code) {
			fmt.Fprintf(&b, "| `%s` | %s | %s | %s |\n", c.Code, row.answer, row.with, row.says)
		}
	}
	return b.Bytes()
}

type row struct{ answer, with, says string }

// cases is one in which the rule finds all well, one in which it does not, and one in
// which a fact is missing that would tell, where there is any.
func cases(code fit.Code) []row {
	var yes, no, unknown *row
	asks := fit.Rules[fit.RuleOf(code)].Asks()
	for i := range coretest.Cases {
		c := &coretest.Cases[i]
		r := c.Rig(nil)
		a := fit.Resolve(r)
		v := say.English(r)
		with := "`" + strings.TrimSpace(c.Lay) + "`"
		if w := c.Wish; w.Text != "" {
			with += ", " + w.Text
		}
		said := slices.IndexFunc(a.Findings, func(f fit.Finding) bool { return f.Code == code })
		switch {
		case said >= 0 && asks && unknown == nil:
			unknown = &row{"unknown", with, v.Finding(&a.Findings[said]).Says.String()}
		case said >= 0 && no == nil && !asks:
			no = &row{"no", with, v.Finding(&a.Findings[said]).Says.String()}
		case said < 0 && yes == nil && c.Rule == string(code) && !slices.Contains(fit.Truths(r, code), known.No):
			yes = &row{"yes", with, "nothing"}
		}
		if !asks && (unknown == nil || strings.HasPrefix(unknown.says, "nothing")) && (c.Rule == string(code) || strings.Contains(c.Want, " "+string(code))) {
			if m := missing(c, code, with); m != nil && (unknown == nil || !strings.HasPrefix(m.says, "nothing")) {
				unknown = m
			}
		}
	}
	var out []row
	for _, r := range []*row{yes, no, unknown} {
		if r != nil {
			out = append(out, *r)
		}
	}
	if unknown == nil {
		out = append(out, row{"unknown", "whatever is left out", "nothing: what is not stated is asked for by the rules above, or is usual"})
	}
	return out
}

// missing leaves facts out of a case, one at a time, until the rule cannot tell.
func missing(c *coretest.Case, code fit.Code, with string) *row {
	less := coretest.Copy(c.Rig(nil))
	before := fit.Truths(less, code)
	var quiet *row // the rule cannot tell, and nothing is said of it
	all := coretest.Removable(less)
	var kept reflect.Value // what was taken away last
	for i := -1; i < len(all); i++ {
		about := ""
		if i >= 0 {
			taken := all[i]
			was := reflect.ValueOf(taken.Value.Interface())
			taken.Value.SetZero()
			about = ", without " + taken.Field + " of " + taken.About
			if i > 0 {
				all[i-1].Value.Set(kept)
			}
			kept = was
		}
		now := fit.Truths(less, code)
		if !slices.Contains(now, known.Unknown) || i >= 0 && slices.Contains(before, known.Unknown) {
			continue
		}
		a := fit.Resolve(less)
		says := ""
		for n := range a.Findings {
			if f := &a.Findings[n]; (f.Code == "fit-unknown" || f.Code == code) && len(f.Missing) > 0 {
				v := say.English(less)
				says = v.Finding(f).Says.String() + "; not known: " + v.Missing(f.Missing[0]).Says.String()
			}
		}
		if says != "" {
			return &row{"unknown", with + about, says}
		}
		if quiet == nil {
			quiet = &row{"unknown", with + about, "nothing: a loss that may be is told once what it hangs on is known"}
			if fit.Rules[fit.RuleOf(code)].Severity == fit.Stops {
				quiet.says = "nothing: another rule stops the part all the same"
			}
		}
	}
	return quiet
}
