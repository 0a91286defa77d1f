package machine

// This file says what changed from one sheet to another, for its history.

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
)

// Diff says in short sentences what differs from a to b: what came, what went,
// and which facts of what stayed. It is empty when nothing does.
func Diff(a, b *Sheet) []string {
	before, after := fields(a), fields(b)
	var out []string
	for _, name := range names(before, after) {
		was, is := before[name], after[name]
		if string(was) == string(is) {
			continue
		}
		if lists[name] != "" {
			out = append(out, diffList(lists[name], was, is)...)
			continue
		}
		out = append(out, facts(words(name), was, is))
	}
	return out
}

// lists are the fields that hold named entries, with the word for one.
var lists = map[string]string{"processors": "processor", "roots": "root", "groups": "group", "sockets": "socket", "settings": "setting", "rules": "rule"}

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

func diffList(what string, was, is json.RawMessage) []string {
	oldIDs, before := entries(was)
	newIDs, after := entries(is)
	var out []string
	var came, went []string
	for _, id := range newIDs {
		if before[id] == nil {
			came = append(came, id)
		} else if string(before[id]) != string(after[id]) {
			out = append(out, facts(what+" "+id, before[id], after[id]))
		}
	}
	for _, id := range oldIDs {
		if after[id] == nil {
			went = append(went, id)
		}
	}
	if len(came) > 0 {
		out = append(out, what+" "+strings.Join(came, ", ")+" added")
	}
	if len(went) > 0 {
		out = append(out, what+" "+strings.Join(went, ", ")+" removed")
	}
	if out == nil {
		out = append(out, what+"s in another order")
	}
	return out
}

// facts names what differs inside one thing: "socket M2_1: gen 3 to 4, key added".
func facts(what string, was, is json.RawMessage) string {
	before, after := fields(was), fields(is)
	var parts []string
	for _, n := range names(before, after) {
		a, b := short(before[n]), short(after[n])
		switch {
		case string(before[n]) == string(after[n]):
		case before[n] == nil:
			parts = append(parts, strings.TrimSpace(words(n)+" "+b))
		case after[n] == nil:
			parts = append(parts, words(n)+" removed")
		case a == "" || b == "":
			parts = append(parts, words(n))
		default:
			parts = append(parts, fmt.Sprintf("%s %s to %s", words(n), a, b))
		}
	}
	if a, b := short(was), short(is); len(parts) == 0 && a != "" && b != "" {
		return what + " " + a + " to " + b
	} else if len(parts) == 0 {
		return strings.TrimSpace(what + " " + b)
	}
	return what + ": " + strings.Join(parts, ", ")
}

// short prints a plain value, "" for what is itself made of parts or long.
func short(v json.RawMessage) string {
	s := strings.Trim(string(v), `"`)
	if len(v) == 0 || v[0] == '{' || v[0] == '[' || len(s) > 40 {
		return ""
	}
	return s
}

// words writes a field's name with blanks: "readMBps" stays the unit it is.
func words(name string) string {
	var b strings.Builder
	for i, r := range name {
		if i > 0 && r >= 'A' && r <= 'Z' && name[i-1] >= 'a' && name[i-1] <= 'z' {
			b.WriteByte(' ')
		}
		b.WriteRune(r)
	}
	return b.String()
}
