// Package layouts holds the generic machines a new sheet starts from, one for
// each class that is met: what is usual there, to be corrected from the manual. A
// fact that differs from board to board is left out, so that it stays unknown.
package layouts

import (
	"embed"
	"fmt"
	"io/fs"
	"sync"

	"deepbay/internal/core/machine"
	"deepbay/internal/format"
)

//go:embed *.sheet.json
var files embed.FS

// All reads the layouts, in the order of their file names.
var All = sync.OnceValues(func() ([]machine.Sheet, error) {
	names, err := fs.Glob(files, "*.sheet.json")
	if err != nil {
		return nil, err
	}
	out := make([]machine.Sheet, len(names))
	for i, name := range names {
		b, err := files.ReadFile(name)
		if err != nil {
			return nil, err
		}
		if out[i], err = format.Sheet(b); err != nil {
			return nil, fmt.Errorf("layout %s: %w", name, err)
		}
	}
	return out, nil
})
