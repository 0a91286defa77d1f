package fit

import (
	"encoding/json"
	"flag"
	"fmt"
	"math/rand"
	"reflect"
	"strings"
	"testing"

	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest"
)

// exempt is optional facts whose absence says something: what is not stated there is
// taken as usual, or as not there at all (closed lists).
var exempt = map[string]string{
	"Sheet.Firmware.StartsPCIe": "silent firmware is taken to start from PCIe, as usual",
	"Under":                     "a socket of which nothing is said lies under no card, as usual",
	"Openings":                  "a card covers one opening where nothing else is said, as usual",
	"Heatsink":                  "a card of which no heatsink is told is bare, as usual",
	"WidthMM":                   "22 mm, as usual", "TopMM": "bare cards clear open sockets, as usual", "BottomMM": "as usual", "UnderMM": "as usual", "TwoSided": "as usual",
	"HeightMM": "as usual", "BayMM": "as usual", "Registered": "unbuffered, as usual", "Millivolts": "the generation's, as usual", "LowSlots": "full slots, as usual",
	"LengthMM": "half length or shorter, as usual", "CardMM": "as usual", "Connector": "as long as it is wired, as usual", "PowerDisable": "a label without the pin says nothing of it",
	"Watts": "typical for its generation, as usual", "Reserved": "what graphics keeps", "ReadMBps": "as fast as its link, as usual", "Channel": "no sheet is without", "Class": "what is usual hangs on it",
}

// removable lists the optional facts that are stated: how to name each and take it away.
func removable(r *rig.Rig) []removal {
	var out []removal
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
			out = append(out, removal{about, f.Name, v.Field(i)})
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
		out = append(out, removal{"job", "Processor", reflect.ValueOf(&r.Processor).Elem()})
	}
	return out
}

type removal struct {
	about, field string
	v            reflect.Value
}

// copied is a rig that shares nothing with another.
func copied(r *rig.Rig) *rig.Rig {
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

// narrowed is how many machines facts are taken from; make soak asks for more.
var narrowed = flag.Int("narrowed", 300, "random machines in TestMoreKnowledgeNarrows")

// TestMoreKnowledgeNarrows takes optional facts away, one at a time, from random
// machines: no rule gets surer or turns from yes to no or back, and every range then
// contains the old one. All rules are run, and compared on their truths.
func TestMoreKnowledgeNarrows(t *testing.T) {
	tried := 0
	faults := map[string]int{}
	example := map[string]string{}
	for seed := range int64(*narrowed) {
		rng := rand.New(rand.NewSource(seed))
		b := coretest.Machine(rng)
		full := copied(&b)
		before := settle(full, allRules)
		all := removable(full)
		for range 12 {
			if len(all) == 0 {
				break
			}
			n := rng.Intn(len(all))
			if exempt[all[n].field] != "" {
				continue
			}
			less := copied(full)
			taken := removable(less)[n]
			taken.v.SetZero()
			tried++
			if says := widened(before, settle(less, allRules)); says != "" {
				faults[taken.field+": "+strings.Fields(says)[0]]++
				example[taken.field+": "+strings.Fields(says)[0]] = fmt.Sprintf("seed %d without %s of %s: %s", seed, taken.field, taken.about, says)
			}
		}
	}
	for k, n := range faults {
		t.Errorf("%s: %d times, such as %s", k, n, example[k])
	}
	t.Logf("%d facts taken away", tried)
	if tried < 5**narrowed {
		t.Errorf("only %d facts were taken away", tried)
	}
}

// widened says what got surer with less known, "" for nothing.
func widened(full, less *resolver) string {
	truths := func(r *resolver) map[string]known.Truth {
		out := map[string]known.Truth{}
		for i := range r.sockets {
			s := &r.sockets[i]
			if s.piece == nil {
				continue
			}
			l := look{resolver: r, s: s}
			for n := range Rules {
				if Rules[n].holds != nil && Rules[n].of&s.kind != 0 && Rules[n].Code != "link-unknown" {
					out[string(Rules[n].Code)+" at "+s.path.String()] = Rules[n].holds(&l)
				}
			}
		}
		return out
	}
	a, b := truths(full), truths(less)
	for k, t := range b {
		if was, ok := a[k]; ok && t != known.Unknown && t != was {
			return fmt.Sprintf("%s: %v, was %v", k, t, was)
		}
	}
	for i := range less.sockets {
		s, was := &less.sockets[i], &full.sockets[i]
		if s.linked && was.linked && s.link.Protocol == was.link.Protocol && !(s.link.Rate.Low <= was.link.Rate.Low && was.link.Rate.High <= s.link.Rate.High) {
			return fmt.Sprintf("link at %s: %v, was %v", s.path, s.link, was.link)
		}
	}
	m, was := &less.memory, &full.memory
	if !m.Total.Holds(was.Total) || len(full.filled) > 0 && !m.MTps.Holds(was.MTps) || // where none works none has a speed
		!m.Peak.Holds(was.Peak) || !m.Usable.Holds(was.Usable) {
		return fmt.Sprintf("memory: %v %v %v, was %v %v %v", m.Total, m.MTps, m.Peak, was.Total, was.MTps, was.Peak)
	}
	flows := less.flows()
	for _, f := range full.flows() {
		for _, g := range flows {
			if g.Item == f.Item && (g.Alone.Low > f.Alone.Low*1.000001 || g.Alone.High < f.Alone.High*0.999999) {
				return fmt.Sprintf("flow of %s: %v, was %v", g.Socket, g.Alone, f.Alone)
			}
		}
	}
	return ""
}
