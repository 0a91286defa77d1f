// Package fault says what is wrong with a machine that shows something else than was foretold.
//
// Its catalogue holds what goes wrong at a bench. Each entry is a transformation of the facts
// of a machine: the rig as the machine finds it, and what its screens show instead. So a
// machine with faults is foretold by the same rules as one without, diagnosis is that forecast
// read backwards, and the simulated bench is that forecast read forwards.
//
//	c := fault.Of(&planned, fault.Work{})
//	d := c.Diagnose(fault.Evidence{Readings: seen})
//	d.Leaders[0].Faults // the likeliest explanation
//	d.Next              // the check that tells the leaders apart for the least work
package fault

import (
	"slices"
	"strings"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// Kind names an entry of the catalogue.
type Kind string

// Fault is something that may be wrong, and where.
type Fault struct {
	Kind    Kind
	At      rig.Path          // the place it is about
	To      rig.Path          // where the piece really lies, of one that lies elsewhere
	Setting machine.SettingID // the setting it is about,
	Value   string            // and at what that stands
}

// String names a fault as files do: "half-seated@A2", "lies-elsewhere@M2_1>M2_2",
// "split-not-set:slot1-layout=16", "supply-off".
func (f Fault) String() string {
	s := string(f.Kind)
	if !f.At.IsZero() {
		s += "@" + f.At.String()
	}
	if !f.To.IsZero() {
		s += ">" + f.To.String()
	}
	if f.Setting != "" {
		s += ":" + string(f.Setting) + "=" + f.Value
	}
	return s
}

// Parse reads a fault's name. One that is none has a kind that the catalogue does not hold.
func Parse(s string) Fault {
	var f Fault
	rest, set, has := strings.Cut(s, ":")
	if has {
		id, value, _ := strings.Cut(set, "=")
		f.Setting, f.Value = machine.SettingID(id), value
	}
	rest, to, has := strings.Cut(rest, ">")
	if has {
		f.To = rig.ParsePath(to)
	}
	kind, at, has := strings.Cut(rest, "@")
	if f.Kind = Kind(kind); has {
		f.At = rig.ParsePath(at)
	}
	return f
}

// MarshalText writes the name as files do.
func (f Fault) MarshalText() ([]byte, error) { return []byte(f.String()), nil }

// UnmarshalText reads any name; see Parse.
func (f *Fault) UnmarshalText(b []byte) error { *f = Parse(string(b)); return nil }

// Work is what is known of the work that was done on a machine.
type Work struct {
	Touched func(rig.ItemID) bool          // pieces that were moved; nil is that nothing is known
	Set     func(machine.SettingID) bool   // settings that were to be changed
	Open    func(rig.Path) layer.Minutes   // how long it takes to open the machine down to a place and close it again; nil is as usual
	Was     func(machine.SettingID) string // what a setting was before; nil is its default
}

// usualOpen is how long it takes to open a machine and close it where nobody said: shut down,
// mains off, a cover and the way back (job sheet: five to ten minutes).
const usualOpen layer.Minutes = 6

// Case is a machine to look for faults in: as it should be, and what may be wrong with it.
type Case struct {
	rig       *rig.Rig
	work      Work
	answer    fit.Answer
	base      *shown
	lines     []power.LineID // that it should show
	places    []rig.Place
	sockets   map[rig.Path]*machine.Socket
	oneModule bool
	seats     []seat
	kinds     map[Kind]*kind
	all       []suspect         // every fault that can occur in it
	worlds    map[string]*shown // what was foretold, by what was changed
}

// suspect is a fault that can occur, with its share before anything was seen.
type suspect struct {
	Fault
	kind     *kind
	prior    float64
	variants []variant
}

// Of looks at a machine as it should be. The rig is not changed.
func Of(r *rig.Rig, w Work) *Case {
	c := &Case{rig: r, work: w, worlds: map[string]*shown{}, kinds: map[Kind]*kind{}, sockets: map[rig.Path]*machine.Socket{}}
	c.answer = fit.Resolve(r)
	c.base = c.show(nil)
	c.lines = c.base.foretold.Lines()
	c.look()
	for i := range catalogue {
		k := &catalogue[i]
		c.kinds[k.name] = k
		for _, f := range k.where(c) {
			f.Kind = k.name
			if v := k.effects(c, f); len(v) > 0 {
				c.all = append(c.all, suspect{f, k, k.prior * c.context(f), v})
			}
		}
	}
	return c
}

// context weighs a fault by the work that was done: what was just touched is three times as
// likely (fact sheet, section 10), a setting that was to be changed likewise.
func (c *Case) context(f Fault) float64 {
	switch {
	case f.Setting != "" && c.work.Set != nil && c.work.Set(f.Setting):
		return 3
	case f.At.IsZero() || c.work.Touched == nil:
		return 1
	case c.work.Touched(c.rig.In(f.At)):
		return 3
	}
	return 1
}

// open is how long it takes to open the machine down to a place and close it again.
func (c *Case) open(at rig.Path) layer.Minutes {
	if c.work.Open == nil {
		return usualOpen
	}
	return c.work.Open(at)
}

// Faults is all that can be wrong with the machine, in the catalogue's order.
func (c *Case) Faults() []Fault {
	out := make([]Fault, len(c.all))
	for i := range c.all {
		out[i] = c.all[i].Fault
	}
	return out
}

// socket finds a place, nil for none.
func (c *Case) socket(at rig.Path) *machine.Socket { return c.sockets[at] }

// suspectOf finds a fault among those that can occur, nil for none.
func (c *Case) suspectOf(f Fault) *suspect {
	i := slices.IndexFunc(c.all, func(s suspect) bool { return s.Fault == f })
	if i < 0 {
		return nil
	}
	return &c.all[i]
}

// Normal reports a kind that only looks like a fault.
func (k Kind) Normal() bool { e := entry(k); return e != nil && e.normal }

// Danger reports a kind with which work stops, and data comes first.
func (k Kind) Danger() bool { e := entry(k); return e != nil && e.danger }

// Inside reports a kind whose cure needs the machine opened.
func (k Kind) Inside() bool { e := entry(k); return e != nil && e.inside }

// Cautioned reports a kind whose cure has a caution of its own.
func (k Kind) Cautioned() bool { e := entry(k); return e != nil && e.caution }

// Spoilt reports a kind in which the piece itself has failed.
func (k Kind) Spoilt() bool { e := entry(k); return e != nil && e.spoilt }

// Minutes is how long the cure takes, without opening the machine.
func (k Kind) Minutes() layer.Minutes {
	if e := entry(k); e != nil {
		return e.minutes
	}
	return 0
}

// Kinds lists the catalogue.
func Kinds() []Kind {
	out := make([]Kind, len(catalogue))
	for i := range catalogue {
		out[i] = catalogue[i].name
	}
	return out
}

func entry(k Kind) *kind {
	for i := range catalogue {
		if catalogue[i].name == k {
			return &catalogue[i]
		}
	}
	return nil
}

// readings indexes readings by their lines.
func readings(list []power.Reading) map[power.LineID]power.Reading {
	out := make(map[power.LineID]power.Reading, len(list))
	for _, r := range list {
		out[r.Line] = r
	}
	return out
}
