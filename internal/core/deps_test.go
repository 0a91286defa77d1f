// Package core holds no code; its test keeps the law that the core knows nobody.
package core

import (
	"go/ast"
	"go/build"
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
)

// standard is the packages of the standard library that the core may use: none that
// reads a file, the network, the clock or chance. (time is for its types: see wall.)
var standard = strings.Fields("bytes cmp context encoding/csv encoding/json errors fmt hash/fnv io maps math math/bits reflect regexp slices strconv strings time unicode")

// wall is what of package time reads the clock or waits for it.
var wall = strings.Fields("Now Since Until After AfterFunc Sleep Tick NewTicker NewTimer")

// edges is the statement of policy: each room of the core, from the ground up, and
// the rooms it uses. A room uses none below it in the list.
var edges = []struct{ room, uses string }{
	{"fact", ""},
	{"problem", "fact"},
	{"quantity", "fact"},
	{"known", "quantity"},
	{"link", "quantity"},
	{"memory", "fact quantity"},
	{"flow", "quantity"},
	{"part", "fact link memory problem quantity"},
	{"shorthand", "fact link memory part problem quantity"},
	{"layer", "fact problem quantity"},
	{"practice", ""},
	{"machine", "fact layer link memory part problem quantity"},
	{"shelf", "fact machine part shorthand"},
	{"rig", "known link machine memory part quantity"},
	{"fit", "fact flow known link machine memory part quantity rig"},
	{"volume", "fact fit known link part problem quantity rig"},
	{"data", "rig"},
	{"measure", "fact known problem quantity rig"},
	{"intake", "fact machine quantity rig"},
	{"cure", "fact fit machine quantity rig"},
	{"ask", "fact fit flow link machine measure memory part quantity rig shorthand volume"},
	{"access", "layer machine part quantity rig"},
	{"plan", "access fact fit known layer machine memory part quantity rig shelf"},
	{"workorder", "access data fact fit known layer machine memory part practice quantity rig volume"},
	{"power", "fact fit known link machine memory part quantity rig"},
	{"draft", "fact link machine memory part power quantity shorthand"},
	{"fault", "fit layer link machine part power quantity rig"},
	{"job", "access cure data fact fault fit known layer link machine measure part plan power practice problem quantity rig shelf shorthand volume workorder"},
	{"logbook", "fact job layer machine part rig shorthand workorder"},
	{"say", "access ask cure draft fact fault fit intake job known layer link logbook machine measure memory part plan power practice problem quantity rig shelf shorthand volume workorder"},
}

// TestImports fails when the core imports anything but what is listed, and when a
// list names what is not imported.
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
		at := slices.IndexFunc(edges, func(e struct{ room, uses string }) bool { return e.room == path })
		if at < 0 {
			t.Errorf("%s is in no list of edges: add it", path)
			return nil
		}
		var own []string
		for _, i := range p.Imports {
			if name, inCore := strings.CutPrefix(i, "deepbay/internal/core/"); inCore {
				own = append(own, name)
				if slices.IndexFunc(edges, func(e struct{ room, uses string }) bool { return e.room == name }) >= at {
					t.Errorf("%s imports %s, which lies above it", path, name)
				}
			} else if !slices.Contains(standard, i) {
				t.Errorf("%s imports %s, which is not on the list of what the core may use", path, i)
			}
		}
		slices.Sort(own)
		if got := strings.Join(own, " "); got != edges[at].uses {
			t.Errorf("%s uses %q, its list says %q", path, got, edges[at].uses)
		}
		for _, name := range p.GoFiles {
			clock(t, filepath.Join(path, name))
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if seen != len(edges) {
		t.Errorf("%d rooms, want %d", seen, len(edges))
	}
}

// notations is how values are printed that are not known, words that people type and
// requests carry, and what only programmers read.
var notations = []string{"unknown protocol", "unknown generation", "unknown form", "slim optical", "unknown voltage", "unknown length", "USB, mode",
	"not there", "in use", "no rule", "move %d", "line %d"}

// prose is two words of a sentence, with what stands between them.
var prose = regexp.MustCompile(`[A-Za-z]{2,}[,:;]? (%d|[a-z]{2,})`)

// Only say holds sentences: a string of another room is a code, a name of a format, or
// how a value is printed. (What shorthand holds, and power of messages, is the words that people type.)
func TestSentences(t *testing.T) {
	paths, err := filepath.Glob("*/*.go")
	if err != nil || len(paths) < 100 {
		t.Fatal(len(paths), err)
	}
	for _, path := range paths {
		if strings.HasPrefix(path, "say/") || strings.HasPrefix(path, "shorthand/") || path == "power/message.go" || strings.HasSuffix(path, "_test.go") {
			continue
		}
		files := token.NewFileSet()
		f, err := parser.ParseFile(files, path, nil, 0)
		if err != nil {
			t.Fatal(err)
		}
		ast.Inspect(f, func(n ast.Node) bool {
			switch n := n.(type) {
			case *ast.ValueSpec: // the codes of a type, as files carry them
				id, named := n.Type.(*ast.Ident)
				return !named || id.Name == "string"
			case *ast.Field: // its tag
				return n.Tag == nil
			case *ast.BasicLit:
				text, _ := strconv.Unquote(n.Value)
				if found := prose.FindString(text); n.Kind == token.STRING && found != "" && !slices.Contains(notations, found) {
					t.Errorf("%s: %s is a sentence: say it in room say", files.Position(n.Pos()), n.Value)
				}
			}
			return true
		})
	}
}

// clock fails where a file reads the clock.
func clock(t *testing.T, path string) {
	f, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
	if err != nil {
		t.Fatal(err)
	}
	ast.Inspect(f, func(n ast.Node) bool {
		if s, ok := n.(*ast.SelectorExpr); ok {
			if x, ok := s.X.(*ast.Ident); ok && x.Name == "time" && slices.Contains(wall, s.Sel.Name) {
				t.Errorf("%s uses time.%s: the time is handed in", path, s.Sel.Name)
			}
		}
		return true
	})
}
