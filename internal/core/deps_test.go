// Package core holds no code; its test keeps the law that the core knows nobody.
package core

import (
	"go/build"
	"io/fs"
	"path/filepath"
	"slices"
	"strings"
	"testing"
)

// outside names standard packages that reach the world: the core does without them.
var outside = []string{"os", "net", "net/http", "database/sql", "log", "log/slog", "math/rand", "math/rand/v2", "crypto/rand", "io/fs", "embed"}

// The rooms of the core from the ground floor up. A room may use those before it.
var floors = []string{"problem", "quantity", "link", "memory", "flow", "part", "shelf", "machine", "rig", "fit", "ask", "plan", "workorder", "power", "job"}

// TestImports fails when the core imports anything but the standard library and
// itself, when it reaches the world, or when a room looks upwards.
func TestImports(t *testing.T) {
	seen := 0
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if d != nil && d.Name() == "testdata" {
			return filepath.SkipDir
		}
		if err != nil || !d.IsDir() || path == "." {
			return err
		}
		p, err := build.ImportDir(path, 0)
		if err != nil {
			return err
		}
		seen++
		floor := slices.Index(floors, path)
		if floor < 0 {
			t.Errorf("%s has no floor: add it to the list", path)
		}
		for _, i := range p.Imports {
			own, inCore := strings.CutPrefix(i, "deepbay/internal/core/")
			switch {
			case inCore && slices.Index(floors, own) >= floor:
				t.Errorf("%s imports %s, which lies above it", path, own)
			case !inCore && strings.Contains(strings.Split(i, "/")[0], ".") || strings.HasPrefix(i, "deepbay/") && !inCore:
				t.Errorf("%s imports %s: the core imports the standard library and itself only", path, i)
			case slices.Contains(outside, i):
				t.Errorf("%s imports %s: the core reads no file, network, clock or chance", path, i)
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if seen != len(floors) {
		t.Errorf("%d rooms, want %d", seen, len(floors))
	}
}
