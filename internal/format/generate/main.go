// Command generate writes docs/schema/*.schema.json and docs/rules.md. Run it from
// the folder of go.mod: make generate.
package main

import (
	"fmt"
	"os"
	"path/filepath"
)

func main() {
	if err := run(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run() error {
	files, err := schemas(".")
	if err != nil {
		return err
	}
	for name, b := range files {
		if err := os.WriteFile(filepath.Join("docs", "schema", name), b, 0o644); err != nil {
			return err
		}
	}
	return os.WriteFile(filepath.Join("docs", "rules.md"), rulesDoc(), 0o644)
}
