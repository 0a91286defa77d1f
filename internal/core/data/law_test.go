package data_test

import (
	"fmt"
	"strings"
	"testing"

	"deepbay/internal/core/data"
	"deepbay/internal/core/rig"
)

// act reads "erase a", "copy a b", "clone a b", "prove a b", "back up a", "leave a", "put a", "take a",
// "off a", "on a", "remove a", "say a blank" and "not N", which voids an event.
func act(t *testing.T, n int, text string) data.Event {
	t.Helper()
	e := data.Event{N: n, Step: text}
	w := strings.Fields(text)
	last := rig.ItemID(w[len(w)-1])
	one := func(what data.What) { e.Effects = []data.Act{{What: what, Item: last}} }
	switch w[0] {
	case "erase":
		one(data.Erases)
	case "back":
		one(data.BacksUp)
	case "leave":
		one(data.Leaves)
	case "take":
		one(data.Takes)
	case "off":
		one(data.Disconnects)
	case "on":
		one(data.Connects)
	case "remove":
		one(data.Removed)
	case "put":
		e.Effects = []data.Act{{What: data.Puts, Item: last, At: rig.On("S9")}}
	case "copy", "clone", "prove":
		what := map[string]data.What{"copy": data.Copies, "clone": data.Clones, "prove": data.Proves}[w[0]]
		e.Effects = []data.Act{{What: what, Item: last, From: rig.ItemID(w[1]), Pair: 1}}
	case "say":
		e.Effects = []data.Act{{What: data.Says, Item: rig.ItemID(w[1]), Was: rig.Data, Now: rig.Content(w[2])}}
	case "not":
		fmt.Sscan(w[1], &e.Voids)
	default:
		t.Fatalf("%q is no act", text)
	}
	return e
}

// TestLaw is the table of docs/model.md, row by row: a and b hold data and are in the machine, n is
// blank and in it, u is unlooked, x lies on the bench with data.
func TestLaw(t *testing.T) {
	for _, c := range []struct {
		record string // done before, in order
		then   string
		want   string // why not; "" is that nothing stands against it
		word   bool
		pairs  string // from>to, meant and not proved
	}{
		{"", "erase a", "no copy", false, ""},
		{"", "erase a", "no copy", true, ""},
		{"back up a", "erase a", "", false, ""},
		{"back up b", "erase a", "no copy", false, ""},
		{"back up a; not 1", "erase a", "no copy", false, ""},
		{"", "erase n", "", false, ""},
		{"", "erase u", "no copy", false, ""},
		{"", "erase x", "not here", false, ""},
		{"off a; back up a", "erase a", "not here", false, ""},
		{"off a; back up a; on a", "erase a", "", false, ""},
		{"take a; back up a", "erase a", "not here", false, ""},
		{"back up a", "erase a", "waits", false, "a>n"},
		{"back up a; copy a n", "erase a", "waits", true, "a>n"},
		{"copy a n; prove a n", "erase a", "", false, ""},
		{"copy a n; prove a n; erase n", "erase a", "no copy", false, ""},
		{"copy a n; prove a n; not 1", "erase a", "no copy", false, ""},
		{"copy a n; prove a n; not 2", "erase a", "no copy", false, ""},
		{"copy a n; erase n", "prove a n", "not here", false, "a>n"},
		{"", "prove a n", "not here", false, "a>n"},
		{"copy a n; prove a n", "erase n", "", false, ""}, // the source is untouched
		{"copy a n; prove a n; erase a", "erase n", "no copy", false, ""},
		{"copy a n; prove a n; remove a", "erase n", "no copy", false, ""}, // a datum outlives its drive
		{"take a; remove n", "leave a", "no copy", true, "a>n"},
		{"take a; back up a", "leave a", "one copy", false, ""},
		{"take a; back up a", "leave a", "", true, ""},
		{"take a", "leave a", "no copy", true, ""},
		{"copy a n; prove a n; back up a; take a", "leave a", "", false, ""},
		{"back up a", "leave a", "is inside", true, ""},
		{"say a blank", "erase a", "", false, ""},
		{"back up a; say a blank; say a data", "erase a", "no copy", false, ""}, // not what was backed up
		{"back up a; erase a; not 2", "erase a", "", false, ""},
		{"back up a; erase a; not 2; not 1", "erase a", "no copy", false, ""},
		{"back up a; not 1; not 2", "erase a", "", false, ""},
		{"copy a n", "clone b n", "", false, ""}, // both sources are untouched
		{"copy a n; prove a n; back up a; erase a", "copy b n", "", false, ""},
		{"copy a n; prove a n; back up a; erase a; not 3", "clone b n", "no copy", false, ""},
	} {
		t.Run(c.record+" then "+c.then, func(t *testing.T) {
			var record data.Record
			for i, text := range strings.FieldsFunc(c.record, func(r rune) bool { return r == ';' }) {
				record = append(record, act(t, i+1, strings.TrimSpace(text)))
			}
			drives := []data.Drive{{ID: "a", Holds: rig.Data, At: rig.On("S1")}, {ID: "b", Holds: rig.System, At: rig.On("S2")}, {ID: "n", Holds: rig.Blank, At: rig.On("S3")}, {ID: "u", At: rig.On("S4")}, {ID: "x", Holds: rig.Data}}
			var pairs []data.Pair
			if from, to, is := strings.Cut(c.pairs, ">"); is {
				pairs = append(pairs, data.Pair{N: 1, From: rig.ItemID(from), To: rig.ItemID(to)})
			}
			s := data.Begin(drives, map[rig.ItemID]rig.Path{}, nil, pairs, c.word, record)
			s.Fold(record)
			got := ""
			if b := s.Do(act(t, 99, c.then).Effects); len(b) > 0 {
				got = string(b[0].Why)
			}
			if got != c.want {
				t.Errorf("%q, want %q", got, c.want)
			}
		})
	}
}

// TestGroup: what drives hold together is gone with one of them, and none is a copy of another.
func TestGroup(t *testing.T) {
	drives := []data.Drive{{ID: "a", Holds: rig.Data, At: rig.On("S1")}, {ID: "b", Holds: rig.Data, At: rig.On("S2")}}
	for record, want := range map[string]int{"": 2, "back up a": 1, "back up a; back up b": 0} {
		var events data.Record
		for i, text := range strings.FieldsFunc(record, func(r rune) bool { return r == ';' }) {
			events = append(events, act(t, i+1, strings.TrimSpace(text)))
		}
		s := data.Begin(drives, map[rig.ItemID]rig.Path{}, []data.Group{{"a", "b"}}, nil, false, events)
		s.Fold(events)
		if b := s.Do([]data.Act{{What: data.Erases, Item: "a"}}); len(b) != want {
			t.Errorf("%q: %v", record, b)
		}
	}
}
