package main

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"testing"
)

const module = "../../.."

// TestStale fails when a generated file is not what the Go types make of it.
func TestStale(t *testing.T) {
	t.Chdir(module) // comments are found by path from the module
	want, err := schemas(".")
	if err != nil {
		t.Fatal(err)
	}
	files := map[string][]byte{filepath.Join("docs", "rules.md"): rulesDoc()}
	for name, b := range want {
		files[filepath.Join("docs", "schema", name)] = b
	}
	for name, b := range files {
		got, err := os.ReadFile(name)
		if err != nil {
			t.Error(err)
		} else if !bytes.Equal(got, b) {
			t.Errorf("%s is stale: run make generate", name)
		}
	}
	published, err := filepath.Glob("docs/schema/*.schema.json")
	if err != nil || len(published) != len(want) {
		t.Errorf("%d schemas are published, %d are made (%v)", len(published), len(want), err)
	}
}

// TestTypes does the same for the TypeScript types made from the schemas.
func TestTypes(t *testing.T) {
	c := exec.Command("node", "scripts/types.mjs", "--check")
	c.Dir = filepath.Join(module, "web")
	if out, err := c.CombinedOutput(); err != nil {
		t.Errorf("%v: %s(run make test, which installs what this needs)", err, out)
	}
}
