package machine

// This file tells what changed from one sheet to another, for its history.

import (
	"encoding/json"
	"slices"
	"strings"

	"deepbay/internal/core/fact"
)

// What happened to a sheet, and what changed in it, by name.
const (
	Made             fact.Code = "machine/made"
	BroughtBack      fact.Code = "machine/brought-back" // a revision
	Changed          fact.Code = "machine/changed"      // a list of what did
	EntriesAdded     fact.Code = "machine/entries-added"
	EntriesRemoved   fact.Code = "machine/entries-removed"
	EntriesReordered fact.Code = "machine/entries-reordered"
	EntryChanged     fact.Code = "machine/entry-changed" // and what of it
	PartChanged      fact.Code = "machine/part-changed"  // a field that has fields, and which of them
	FieldSet         fact.Code = "machine/field-set"
	FieldRemoved     fact.Code = "machine/field-removed"
	FieldFromTo      fact.Code = "machine/field-from-to"
	FieldChanged     fact.Code = "machine/field-changed" // in what is too long to say
)

// Field is the name of a field in a file.
type Field string

// Diff is what differs from a to b: what came, what went, and which facts of what
// stayed. It is empty when nothing does.
func Diff(a, b *Sheet) []fact.Fact { return differs(fields(a), fields(b), lists) }

// Differs is what differs between two documents of another kind, field by field.
func Differs(a, b any) []fact.Fact { return differs(fields(a), fields(b), nil) }

func differs(before, after map[string]json.RawMessage, lists map[string]fact.Noun) []fact.Fact {
	var out []fact.Fact
	for _, name := range names(before, after) {
		was, is := before[name], after[name]
		switch {
		case string(was) == string(is):
		case lists[name] != "":
			out = append(out, diffList(lists[name], was, is)...)
		default:
			if inside := diffFields(was, is); len(inside) > 0 {
				out = append(out, fact.Of(PartChanged, Field(name), inside))
			} else {
				out = append(out, diffField(name, was, is))
			}
		}
	}
	return out
}

// lists are the fields that hold named entries, with the word for one.
var lists = map[string]fact.Noun{"processors": "processor", "roots": "root", "groups": "group", "sockets": "socket", "bays": "bay", "layers": "layer", "settings": "setting", "rules": "rule"}

// fields takes a value apart by its JSON names.
func fields(v any) map[string]json.RawMessage {
	var out map[string]json.RawMessage
	if b, err := json.Marshal(v); err == nil {
		_ = json.Unmarshal(b, &out) // what is no object has no fields
	}
	return out
}

func names(a, b map[string]json.RawMessage) []string {
	var out []string
	for _, m := range []map[string]json.RawMessage{a, b} {
		for n := range m {
			if !slices.Contains(out, n) {
				out = append(out, n)
			}
		}
	}
	slices.Sort(out)
	return out
}

func entries(list json.RawMessage) (ids []string, byID map[string]json.RawMessage) {
	var all []json.RawMessage
	_ = json.Unmarshal(list, &all) // an absent list has no entries
	byID = map[string]json.RawMessage{}
	for _, e := range all {
		var head struct {
			ID string `json:"id"`
		}
		if json.Unmarshal(e, &head) == nil {
			ids = append(ids, head.ID)
			byID[head.ID] = e
		}
	}
	return ids, byID
}

func diffList(what fact.Noun, was, is json.RawMessage) []fact.Fact {
	oldIDs, before := entries(was)
	newIDs, after := entries(is)
	var out []fact.Fact
	var came, went []fact.Typed
	for _, id := range newIDs {
		if before[id] == nil {
			came = append(came, fact.Typed(id))
		} else if string(before[id]) != string(after[id]) {
			out = append(out, fact.Of(EntryChanged, what, fact.Typed(id), diffFields(before[id], after[id])))
		}
	}
	for _, id := range oldIDs {
		if after[id] == nil {
			went = append(went, fact.Typed(id))
		}
	}
	if len(came) > 0 {
		out = append(out, fact.Of(EntriesAdded, what, came))
	}
	if len(went) > 0 {
		out = append(out, fact.Of(EntriesRemoved, what, went))
	}
	if out == nil {
		out = append(out, fact.Of(EntriesReordered, what))
	}
	return out
}

// diffFields is what differs inside one thing.
func diffFields(was, is json.RawMessage) []fact.Fact {
	before, after := fields(was), fields(is)
	var out []fact.Fact
	for _, n := range names(before, after) {
		if string(before[n]) != string(after[n]) {
			out = append(out, diffField(n, before[n], after[n]))
		}
	}
	return out
}

// diffField is how one field differs: from and to where both are short.
func diffField(name string, was, is json.RawMessage) fact.Fact {
	a, b := short(was), short(is)
	switch {
	case is == nil:
		return fact.Of(FieldRemoved, Field(name))
	case was == nil && b != "":
		return fact.Of(FieldSet, Field(name), b)
	case a == "" || b == "":
		return fact.Of(FieldChanged, Field(name))
	}
	return fact.Of(FieldFromTo, Field(name), a, b)
}

// short is a plain value, "" for what is itself made of parts or long.
func short(v json.RawMessage) fact.Typed {
	s := strings.Trim(string(v), `"`)
	if len(v) == 0 || v[0] == '{' || v[0] == '[' || len(s) > 40 {
		return ""
	}
	return fact.Typed(s)
}
