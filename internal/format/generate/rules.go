package main

// This file prints the list of checks as a document.

import (
	"bytes"
	"fmt"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/say"
)

// rulesDoc prints docs/rules.md.
func rulesDoc() []byte {
	var b bytes.Buffer
	b.WriteString("# Rules of fit\n\nPrinted from the list in `internal/core/fit/rules.go` by `make generate`; do not edit.\n\n" +
		"**stops**: the plan cannot be carried out, or something is not seen. **warns**: it works, with a loss somebody should agree to. **notes**: worth knowing.\n\n" +
		"| code | grade | watches for | when, with an example |\n|---|---|---|---|\n")
	for _, c := range fit.Rules {
		fmt.Fprintf(&b, "| `%s` | %s | %s | %s |\n", c.Code, c.Severity, say.Rules[c.Code].Title, say.Rules[c.Code].Doc)
	}
	return b.Bytes()
}
