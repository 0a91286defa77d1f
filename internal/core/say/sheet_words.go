package say

import (
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/machine"
)

// sheetWords is what happened to a sheet, for its history.
var sheetWords = map[fact.Code]string{
	machine.Made:             "made",
	machine.BroughtBack:      "brought back revision {0}",
	machine.Changed:          "{0:semicolons}",
	machine.EntriesAdded:     "{0} {1} added",
	machine.EntriesRemoved:   "{0} {1} removed",
	machine.EntriesReordered: "{0}s in another order",
	machine.EntryChanged:     "{0} {1}: {2}",
	machine.PartChanged:      "{0}: {1}",
	machine.FieldSet:         "{0} {1}",
	machine.FieldRemoved:     "{0} removed",
	machine.FieldFromTo:      "{0} {1} to {2}",
	machine.FieldChanged:     "{0}",
}

// fieldName writes a field's name with blanks: "readMBps" stays the unit it is.
func fieldName(name machine.Field) string {
	var b strings.Builder
	for i, r := range name {
		if i > 0 && r >= 'A' && r <= 'Z' && name[i-1] >= 'a' && name[i-1] <= 'z' {
			b.WriteByte(' ')
		}
		b.WriteRune(r)
	}
	return b.String()
}
