package main

// This file makes the JSON Schemas of the open formats from the Go types.

import (
	"encoding/json"
	"fmt"
	"path/filepath"
	"reflect"
	"strings"

	"github.com/invopop/jsonschema"

	"deepbay/internal/core/fault"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/server"
)

// roots is every published schema by file name.
var roots = map[string]any{
	"sheet":       &machine.Sheet{},
	"part":        &part.Part{},
	"job":         &job.Job{},
	"observation": &power.Observation{},
	"check":       &say.Check{},
	"plan":        &say.Planned{},
	"api":         &server.API{},
}

// values is implemented by the string types with a fixed list of values.
type values interface{ Values() []string }

var answer = reflect.TypeFor[quantity.Answer]()

var (
	path  = reflect.TypeFor[rig.Path]()
	text  = reflect.TypeFor[say.Text]()
	line  = reflect.TypeFor[power.LineID]()
	wrong = reflect.TypeFor[fault.Fault]()
	check = reflect.TypeFor[fault.Inspection]()
)

// schemas generates every schema by file name. module is the folder of go.mod, for the
// comments that become descriptions.
func schemas(module string) (map[string][]byte, error) {
	named := map[string]reflect.Type{}
	var clash error
	r := jsonschema.Reflector{Mapper: mapper, Namer: func(t reflect.Type) string {
		// The library looks types up by name alone, so a struct must share its name
		// with nothing, not even with a string.
		if other := named[t.Name()]; t.Name() != "" && other != nil && other != t && clash == nil &&
			(t.Kind() == reflect.Struct || other.Kind() == reflect.Struct) {
			clash = fmt.Errorf("%v and %v would share the name %s in the schemas: rename one", other, t, t.Name())
		}
		if named[t.Name()] == nil || t.Kind() == reflect.Struct {
			named[t.Name()] = t
		}
		return t.Name()
	}}
	if err := r.AddGoComments("deepbay", filepath.Join(module, "internal"), jsonschema.WithFullComment()); err != nil {
		return nil, fmt.Errorf("read comments: %w", err)
	}
	// Comments are found by path; the paths must not depend on where the module lies.
	for k, v := range r.CommentMap {
		if i := strings.Index(k, "internal/"); i > 0 {
			r.CommentMap["deepbay/"+k[i:]] = strings.TrimSpace(strings.ReplaceAll(v, "\n", " "))
		}
	}
	out := map[string][]byte{}
	for name, root := range roots {
		s := r.Reflect(root)
		s.ID = jsonschema.ID("urn:deepbay:schema:" + name + ":1")
		b, err := json.MarshalIndent(s, "", "  ")
		if err != nil {
			return nil, fmt.Errorf("schema %s: %w", name, err)
		}
		out[name+".schema.json"] = append(b, '\n')
	}
	return out, clash
}

// mapper writes what the tags cannot: the enumerations and the three-valued answer.
func mapper(t reflect.Type) *jsonschema.Schema {
	if t == answer {
		return &jsonschema.Schema{Type: "boolean", Description: "Left out where it is not known."}
	}
	if t == text {
		return &jsonschema.Schema{Type: "string"}
	}
	if t == line {
		return &jsonschema.Schema{Type: "string", Description: "A line of a screen: total, slot/A2, link/PCIE1/2, setting/profile."}
	}
	if t == wrong {
		return &jsonschema.Schema{Type: "string", Description: "A fault and where it is: half-seated@A2, split-not-set:slot1-layout=16, supply-off."}
	}
	if t == check {
		return &jsonschema.Schema{Type: "string", Description: "A check and where it is made: seat@A2, swap@A2,B2, read:slot/A2, restart."}
	}
	if t == path {
		return &jsonschema.Schema{Type: "string", Description: "A socket of the board, or a position of what lies in another place: PCIE1/2."}
	}
	if t.Kind() != reflect.String {
		return nil
	}
	if v, ok := reflect.Zero(t).Interface().(values); ok {
		s := &jsonschema.Schema{Type: "string"}
		for _, x := range v.Values() {
			s.Enum = append(s.Enum, x)
		}
		return s
	}
	return nil
}
