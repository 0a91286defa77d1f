package format

// This file keeps facts as documents: a journal holds what was done, not how it was
// worded, and is worded when it is read.

import (
	"encoding/json"
	"fmt"
	"reflect"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fault"
	"deepbay/internal/core/job"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shelf"
	"deepbay/internal/core/workorder"
)

// Deed is something done: the fact, and what the pieces in it were called then.
type Deed struct {
	Fact  fact.Fact
	Names map[rig.ItemID]string
}

// kinds is the types of values of facts by the names that files carry.
var kinds = map[string]reflect.Type{
	"item": reflect.TypeFor[rig.ItemID](), "items": reflect.TypeFor[[]rig.ItemID](), "path": reflect.TypeFor[rig.Path](), "paths": reflect.TypeFor[[]rig.Path](),
	"about": reflect.TypeFor[rig.Fact](), "learned": reflect.TypeFor[rig.Learned](),
	"layer": reflect.TypeFor[layer.ID](), "fastener": reflect.TypeFor[layer.Fastener](),
	"typed": reflect.TypeFor[fact.Typed](), "names": reflect.TypeFor[[]fact.Typed](), "field": reflect.TypeFor[machine.Field](), "count": reflect.TypeFor[fact.Count](), "noun": reflect.TypeFor[fact.Noun](),
	"number": reflect.TypeFor[int](), "set": reflect.TypeFor[job.Setting](), "step-set": reflect.TypeFor[workorder.Setting](), "choice": reflect.TypeFor[power.Choice](),
	"socket": reflect.TypeFor[machine.SocketID](), "sockets": reflect.TypeFor[[]machine.SocketID](), "holder": reflect.TypeFor[machine.Holder](), "bay": reflect.TypeFor[machine.BayID](), "bays": reflect.TypeFor[[]machine.BayID](),
	"form": reflect.TypeFor[part.Form](), "plug": reflect.TypeFor[part.Plug](), "thread": reflect.TypeFor[part.Thread](), "end": reflect.TypeFor[part.LeadEnd](), "fitting": reflect.TypeFor[part.FittingKind](),
	"bytes": reflect.TypeFor[quantity.Bytes](), "rate": reflect.TypeFor[quantity.MTps](), "fault": reflect.TypeFor[fault.Fault](), "check": reflect.TypeFor[fault.Inspection](), "answered": reflect.TypeFor[fault.Answered](), "celsius": reflect.TypeFor[quantity.Celsius](), "gen": reflect.TypeFor[quantity.Gen](), "mm": reflect.TypeFor[quantity.Millimetres](), "generation": reflect.TypeFor[memory.Generation](), "grade": reflect.TypeFor[shelf.Grade](),
}

var names = func() map[reflect.Type]string {
	out := make(map[reflect.Type]string, len(kinds))
	for name, t := range kinds {
		out[t] = name
	}
	return out
}()

type deed struct {
	Code  fact.Code             `json:"code"`
	Args  []arg                 `json:"args,omitempty"`
	Names map[rig.ItemID]string `json:"names,omitempty"`
}

type arg struct {
	Kind  string          `json:"kind"`
	Value json.RawMessage `json:"value"`
}

// WriteDeed makes the document of something done; called says what a piece is called.
// The error names a value of a type that is not kept, which only a programmer can bring in.
func WriteDeed(f fact.Fact, called func(rig.ItemID) string) ([]byte, error) {
	pieces := map[rig.ItemID]string{}
	d, err := written(f, func(id rig.ItemID) { pieces[id] = called(id) })
	if err != nil {
		return nil, err
	}
	d.Names = pieces
	return json.Marshal(d)
}

func written(f fact.Fact, see func(rig.ItemID)) (deed, error) {
	d := deed{Code: f.Code}
	for _, x := range f.Args {
		a, err := value(x, see)
		if err != nil {
			return d, fmt.Errorf("%s: %w", f.Code, err)
		}
		d.Args = append(d.Args, a)
	}
	return d, nil
}

func value(x any, see func(rig.ItemID)) (arg, error) {
	var v any = x
	out := arg{Kind: names[reflect.TypeOf(x)]}
	switch x := x.(type) {
	case rig.ItemID:
		see(x)
	case []rig.ItemID:
		for _, id := range x {
			see(id)
		}
	case rig.Fact:
		if x.Item != "" {
			see(x.Item)
		}
	case rig.Learned:
		if x.Item != "" {
			see(x.Item)
		}
	case fact.Fact:
		d, err := written(x, see)
		if err != nil {
			return out, err
		}
		out.Kind, v = "fact", d
	case []fact.Fact:
		list := make([]deed, len(x))
		for i, f := range x {
			var err error
			if list[i], err = written(f, see); err != nil {
				return out, err
			}
		}
		out.Kind, v = "facts", list
	}
	if out.Kind == "" {
		return out, fmt.Errorf("values of type %T are not kept", x)
	}
	var err error
	out.Value, err = json.Marshal(v)
	return out, err
}

// KeptDeed is a deed as it will be read when it was kept.
func KeptDeed(f fact.Fact, called func(rig.ItemID) string) (Deed, error) {
	b, err := WriteDeed(f, called)
	if err != nil {
		return Deed{}, err
	}
	return ReadDeed(b)
}

// ReadDeed reads something done.
func ReadDeed(b []byte) (Deed, error) {
	var d deed
	if err := json.Unmarshal(b, &d); err != nil {
		return Deed{}, err
	}
	f, err := readFact(d)
	return Deed{f, d.Names}, err
}

func readFact(d deed) (fact.Fact, error) {
	f := fact.Fact{Code: d.Code}
	for _, a := range d.Args {
		switch a.Kind {
		case "fact":
			var inner deed
			if err := json.Unmarshal(a.Value, &inner); err != nil {
				return f, err
			}
			x, err := readFact(inner)
			if err != nil {
				return f, err
			}
			f.Args = append(f.Args, x)
		case "facts":
			var list []deed
			if err := json.Unmarshal(a.Value, &list); err != nil {
				return f, err
			}
			out := make([]fact.Fact, len(list))
			for i := range list {
				var err error
				if out[i], err = readFact(list[i]); err != nil {
					return f, err
				}
			}
			f.Args = append(f.Args, out)
		default:
			t := kinds[a.Kind]
			if t == nil {
				return f, fmt.Errorf("%s: no value is of the kind %q", d.Code, a.Kind)
			}
			x := reflect.New(t)
			if err := json.Unmarshal(a.Value, x.Interface()); err != nil {
				return f, fmt.Errorf("%s: %w", d.Code, err)
			}
			f.Args = append(f.Args, x.Elem().Interface())
		}
	}
	return f, nil
}
