package coretest

import (
	"encoding/json"
	"reflect"
	"strings"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
)

// Removable lists the optional facts that are stated: how to name each and take it away.
func Removable(r *rig.Rig) []Removal {
	var out []Removal
	walk := func(about string, v reflect.Value) {
		t := v.Type()
		for i := range t.NumField() {
			f := t.Field(i)
			tag, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			optional := strings.Contains(f.Tag.Get("json"), "omitzero") || strings.Contains(f.Tag.Get("json"), "omitempty")
			if !optional || v.Field(i).IsZero() || f.Type.Kind() == reflect.Struct || f.Type.Kind() == reflect.Pointer || tag == "where" || tag == "number" {
				continue
			}
			if f.Type.Kind() == reflect.Slice && f.Name != "Protocols" && f.Name != "Keys" && f.Name != "LengthsMM" && f.Name != "Drives" {
				continue // closed lists are taken as complete
			}
			out = append(out, Removal{about, f.Name, v.Field(i)})
		}
	}
	for i := range r.Sheet.Sockets {
		walk("socket "+string(r.Sheet.Sockets[i].ID), reflect.ValueOf(&r.Sheet.Sockets[i]).Elem())
	}
	for i := range r.Sheet.Roots {
		if u := r.Sheet.Roots[i].Uplink; u != nil {
			walk("uplink of "+string(r.Sheet.Roots[i].ID), reflect.ValueOf(u).Elem())
		}
	}
	walk("the case", reflect.ValueOf(&r.Sheet.Chassis).Elem())
	for i := range r.Sheet.Processors {
		walk("processor "+string(r.Sheet.Processors[i].ID), reflect.ValueOf(&r.Sheet.Processors[i]).Elem())
	}
	walk("memory", reflect.ValueOf(&r.Sheet.Memory).Elem())
	for _, p := range r.Pieces {
		about := "part " + string(p.ID)
		for _, x := range []any{p.Part.Drive, p.Part.Card, p.Part.Module, p.Part.Enclosure, p.Part.M2()} {
			if v := reflect.ValueOf(x); !v.IsNil() {
				walk(about, v.Elem())
			}
		}
	}
	if r.Processor != "" {
		out = append(out, Removal{"job", "Processor", reflect.ValueOf(&r.Processor).Elem()})
	}
	return out
}

// Removal is an optional fact that is stated.
type Removal struct {
	About, Field string
	Value        reflect.Value
}

// Copy is a rig that shares nothing with another.
func Copy(r *rig.Rig) *rig.Rig {
	out := *r
	out.Sheet = new(machine.Sheet)
	deep(r.Sheet, out.Sheet)
	out.Pieces = make([]rig.Piece, len(r.Pieces))
	for i, p := range r.Pieces {
		out.Pieces[i] = p
		out.Pieces[i].Part = new(part.Part)
		deep(p.Part, out.Pieces[i].Part)
	}
	return &out
}

func deep(from, to any) {
	b, err := json.Marshal(from)
	if err != nil {
		panic(err)
	}
	if err := json.Unmarshal(b, to); err != nil {
		panic(err)
	}
}
