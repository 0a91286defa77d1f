// Package demo is the demo shop: the workshop of a harbour survey office, as
// open-format files. Everything in it is made up.
package demo

import (
	"embed"
	"fmt"
	"io/fs"

	"deepbay/internal/core/job"
	"deepbay/internal/core/part"
	"deepbay/internal/format"
)

// Files holds sheets/, parts/, jobs/, shelf.csv and, in a folder for each sheet, pictures/.
//
//go:embed sheets/*.json parts/*.json jobs/*.json shelf.csv pictures/*/*.jpg
var Files embed.FS

// Job reads one job of the demo shop by its name.
func Job(name string) (job.Job, error) {
	b, err := Files.ReadFile("jobs/" + name + ".job.json")
	if err != nil {
		return job.Job{}, err
	}
	return format.Job(b)
}

// Parts reads all parts of the demo shop.
func Parts() ([]part.Part, error) {
	names, err := fs.Glob(Files, "parts/*.json")
	if err != nil {
		return nil, err
	}
	out := make([]part.Part, len(names))
	for i, name := range names {
		b, err := Files.ReadFile(name)
		if err != nil {
			return nil, err
		}
		if out[i], err = format.Part(b); err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
	}
	return out, nil
}
