// Package format reads and writes Deep Bay's open files: sheets, parts, jobs
// and observations as JSON.
//
// A file is checked in three steps, and the first that fails reports everything
// it found with JSON pointers (RFC 6901): it is JSON, it keeps to the published
// schema (an unknown field or version is refused), and it does not contradict itself.
package format

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"sync"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/santhosh-tekuri/jsonschema/v6/kind"
	"golang.org/x/text/language"
	"golang.org/x/text/message"

	"deepbay/docs/schema"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/problem"
)

// Sheet reads a deepbay/sheet file.
func Sheet(b []byte) (machine.Sheet, error) {
	return read[machine.Sheet]("sheet", machine.Version, b, (*machine.Sheet).Validate)
}

// Part reads a deepbay/part file.
func Part(b []byte) (part.Part, error) {
	return read[part.Part]("part", part.Version, b, (*part.Part).Validate)
}

// Job reads a deepbay/job file.
func Job(b []byte) (job.Job, error) {
	return read[job.Job]("job", job.Version, b, (*job.Job).Validate)
}

// Observation reads a deepbay/observation file.
func Observation(b []byte) (power.Observation, error) {
	return read[power.Observation]("observation", power.Version, b, func(*power.Observation) problem.List { return nil })
}

// Value reads a body that is not a file of its own, such as a Change, against
// its definition in the api schema.
func Value[T any](definition string, b []byte) (T, error) {
	return read[T]("api#/$defs/"+definition, 0, b, func(*T) problem.List { return nil })
}

// Write prints a document as it is kept in files: indented, with a last newline.
func Write(v any) ([]byte, error) {
	b, err := json.MarshalIndent(v, "", "  ")
	if err != nil {
		return nil, err
	}
	return append(b, '\n'), nil
}

// read takes a document through the three steps. version 0 means that the
// document has none.
func read[T any](name string, version int, b []byte, validate func(*T) problem.List) (T, error) {
	var out T
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(b))
	if err != nil {
		return out, problem.List{syntax(b, err)}
	}
	if l := doubled(b); len(l) > 0 {
		return out, l
	}
	if version != 0 {
		if l := head(doc, name, version); len(l) > 0 {
			return out, l
		}
	}
	s, err := compiled(name)
	if err != nil {
		return out, err
	}
	if err := s.Validate(doc); err != nil {
		var v *jsonschema.ValidationError
		if !errors.As(err, &v) {
			return out, err
		}
		return out, fromSchema(v)
	}
	if err := json.Unmarshal(b, &out); err != nil {
		return out, problem.List{{Pointer: "", Says: err.Error(), Cure: "write the number as the schema asks"}}
	}
	return out, validate(&out).Err()
}

// doubled finds members that an object has twice: which of them counts is nowhere said.
func doubled(b []byte) problem.List {
	var l problem.List
	d := json.NewDecoder(bytes.NewReader(b))
	d.UseNumber()
	var walk func(at string)
	walk = func(at string) {
		t, err := d.Token()
		if err != nil {
			return // said by who read it before
		}
		switch t {
		case json.Delim('{'):
			seen := map[string]bool{}
			for d.More() {
				name, err := d.Token()
				if err != nil {
					return
				}
				here := at + pointer([]string{name.(string)})
				if seen[name.(string)] {
					l.Say(here, "this field is there twice", "leave one of them")
				}
				seen[name.(string)] = true
				walk(here)
			}
			_, _ = d.Token() // its end
		case json.Delim('['):
			for n := 0; d.More(); n++ {
				walk(at + "/" + strconv.Itoa(n))
			}
			_, _ = d.Token()
		}
	}
	walk("")
	return l
}

// syntax places a JSON error by line and column, for there is no pointer yet.
func syntax(b []byte, err error) problem.Problem {
	cure := "write one JSON document"
	var s *json.SyntaxError
	if errors.As(err, &s) {
		before := b[:min(int(s.Offset), len(b))]
		line := bytes.Count(before, []byte("\n")) + 1
		column := len(before) - bytes.LastIndexByte(before, '\n') - 1
		return problem.Problem{Says: fmt.Sprintf("not JSON: %v at line %d, column %d", err, line, max(1, column)), Cure: cure}
	}
	if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		return problem.Problem{Says: "not JSON: it ends too early", Cure: cure}
	}
	return problem.Problem{Says: "not JSON: " + err.Error(), Cure: cure}
}

// head looks at format and version first: with those wrong, all else is noise.
func head(doc any, name string, version int) problem.List {
	var l problem.List
	m, ok := doc.(map[string]any)
	if !ok {
		l.Say("", "not an object", "a deepbay/"+name+" file is one JSON object")
		return l
	}
	if m["format"] != "deepbay/"+name {
		l.Say("/format", fmt.Sprintf("%v is not the format expected here", show(m["format"])), fmt.Sprintf("expected %q", "deepbay/"+name))
		return l
	}
	if v, ok := m["version"].(json.Number); !ok || v.String() != fmt.Sprint(version) {
		l.Say("/version", fmt.Sprintf("version %v is not known", show(m["version"])), fmt.Sprintf("this program reads version %d", version))
	}
	return l
}

func show(v any) string {
	if v == nil {
		return "nothing"
	}
	b, err := json.Marshal(v)
	if err != nil || len(b) > 60 {
		return "this value"
	}
	return string(b)
}

var (
	schemas   = map[string]*jsonschema.Schema{}
	schemasMu sync.Mutex
)

// compiled keeps each schema once it has been asked for.
func compiled(name string) (*jsonschema.Schema, error) {
	schemasMu.Lock()
	defer schemasMu.Unlock()
	if s := schemas[name]; s != nil {
		return s, nil
	}
	file, fragment, _ := strings.Cut(name, "#")
	b, err := schema.Files.ReadFile(file + ".schema.json")
	if err != nil {
		return nil, fmt.Errorf("schema %s: %w", name, err)
	}
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(b))
	if err != nil {
		return nil, fmt.Errorf("schema %s: %w", name, err)
	}
	c := jsonschema.NewCompiler()
	c.AssertFormat()
	url := "urn:deepbay:schema:" + file + ":1"
	if err := c.AddResource(url, doc); err != nil {
		return nil, fmt.Errorf("schema %s: %w", name, err)
	}
	s, err := c.Compile(url + "#" + fragment)
	if err != nil {
		return nil, fmt.Errorf("schema %s: %w", name, err)
	}
	schemas[name] = s
	return s, nil
}

var english = message.NewPrinter(language.English)

// fromSchema flattens a validation error into its leaves, in the trade's words.
func fromSchema(v *jsonschema.ValidationError) problem.List {
	var l problem.List
	var walk func(*jsonschema.ValidationError)
	walk = func(v *jsonschema.ValidationError) {
		for _, c := range v.Causes {
			walk(c)
		}
		if len(v.Causes) > 0 {
			return
		}
		at := pointer(v.InstanceLocation)
		switch k := v.ErrorKind.(type) {
		case *kind.AdditionalProperties:
			for _, p := range k.Properties {
				l.Say(at+pointer([]string{p}), "this field is not known", "check its spelling against the schema, or remove it")
			}
		case *kind.Required:
			l.Say(at, "missing: "+strings.Join(k.Missing, ", "), "add it")
		default:
			l.Say(at, v.ErrorKind.LocalizedString(english), "")
		}
	}
	walk(v)
	slices.SortFunc(l, func(a, b problem.Problem) int { // the validator reads members in any order
		return cmp.Or(strings.Compare(a.Pointer, b.Pointer), strings.Compare(a.Says, b.Says))
	})
	return l
}

func pointer(path []string) string {
	var b strings.Builder
	for _, p := range path {
		b.WriteString("/" + strings.ReplaceAll(strings.ReplaceAll(p, "~", "~0"), "/", "~1"))
	}
	return b.String()
}
