package simbench

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"

	"deepbay/internal/core/fault"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// Bench is a simulated machine on the bench.
type Bench struct {
	rig     rig.Rig // as its parts lie, and as it is set
	planned *rig.Rig
	work    fault.Work
	hidden  []fault.Fault
	ways    []int
	on      bool
	open    bool
	minutes layer.Minutes
	c       *fault.Case // of the machine as it is set now
	plan    *fault.Case // of the machine as it should be set
}

// Of makes the machine of a job: parts lie as planned, and settings are as they were found, for
// making them is part of the work.
func Of(planned, found *rig.Rig, w fault.Work) *Bench {
	b := &Bench{rig: *planned, planned: planned, work: w}
	b.rig.Setup = planned.Clone()
	b.rig.Settings = slices.Clone(found.Settings)
	b.plan = fault.Of(planned, w)
	b.again()
	return b
}

func (b *Bench) again() {
	r := b.rig
	b.c = fault.Of(&r, b.work)
}

// What can go wrong with what is asked of a bench.
var (
	ErrOff       = errors.New("the machine is off")
	ErrNoFault   = errors.New("that cannot be wrong with this machine")
	ErrNoSetting = errors.New("the machine has no such setting, or no such value of it")
	ErrBlind     = errors.New("nothing is to be seen on the screen")
	ErrNoCheck   = errors.New("there is no such check")
)

// Hide puts a fault into the machine, in one of the ways in which it shows.
func (b *Bench) Hide(f fault.Fault, way int) error {
	if b.plan.Ways(f) == 0 {
		return ErrNoFault
	}
	if f.Setting != "" {
		return ErrNoFault // what is set is seen in set-up, and set there
	}
	b.hidden, b.ways = append(b.hidden, f), append(b.ways, way)
	return nil
}

// Surprise hides some faults by chance, each of another piece where there are enough: none that is a
// setting, none that only looks like a fault.
func (b *Bench) Surprise(rng *rand.Rand, n int) {
	all := slices.DeleteFunc(b.plan.Faults(), func(f fault.Fault) bool { return f.Setting != "" || f.Kind.Normal() || b.Invisible(f) })
	for range n {
		if len(all) == 0 {
			return
		}
		i := rng.IntN(len(all))
		f := all[i]
		b.hidden, b.ways = append(b.hidden, f), append(b.ways, rng.IntN(b.plan.Ways(f)))
		all = slices.DeleteFunc(all, func(o fault.Fault) bool { return o.At == f.At })
	}
}

// Invisible reports a fault that shows in nothing that this machine shows.
func (b *Bench) Invisible(f fault.Fault) bool {
	for way := range b.plan.Ways(f) {
		w := b.plan.World([]fault.Fault{f}, []int{way})
		if !slices.ContainsFunc(w.Lines(), w.Differs) {
			return true
		}
	}
	return false
}

// Hidden is what is wrong with the machine still: for whoever set it up, not for who looks.
func (b *Bench) Hidden() []fault.Fault { return slices.Clone(b.hidden) }

// On, Open and Minutes are how the machine stands, and how long hands were at it.
func (b *Bench) On() bool               { return b.on }
func (b *Bench) Open() bool             { return b.open }
func (b *Bench) Minutes() layer.Minutes { return b.minutes }

// startTakes and stopTakes are how long a start and a shut-down take, in minutes.
const (
	startTakes layer.Minutes = 1
	stopTakes  layer.Minutes = 1
)

// Start gives the machine power. It is closed before.
func (b *Bench) Start() {
	b.open, b.on = false, true
	b.minutes += startTakes
}

// Stop shuts it down.
func (b *Bench) Stop() {
	b.on = false
	b.minutes += stopTakes
}

// World is what the machine shows now.
func (b *Bench) World() *fault.World {
	var hidden []fault.Fault
	var ways []int
	for i, f := range b.hidden {
		if b.c.Ways(f) > 0 { // of a machine that is set otherwise it may show in nothing
			hidden, ways = append(hidden, f), append(ways, b.ways[i])
		}
	}
	return b.c.World(hidden, ways)
}

// Set changes a setting in set-up, and saves: what can be seen must come so far.
func (b *Bench) Set(id machine.SettingID, value string) error {
	st := b.rig.Sheet.Setting(id)
	switch {
	case !b.on:
		return ErrOff
	case b.World().Blind():
		return ErrBlind
	case st == nil || !st.Offers(value):
		return ErrNoSetting
	}
	b.minutes += 2
	b.Hands(rig.Choice{Setting: id, Value: value})
	return nil
}

// Hands makes a setting as a step of the work order asks for it: set-up can be reached in
// the meantime, or the step would not be done.
func (b *Bench) Hands(c rig.Choice) {
	if st := b.rig.Sheet.Setting(c.Setting); st == nil || !st.Offers(c.Value) {
		return
	}
	b.rig.Settings = slices.DeleteFunc(slices.Clone(b.rig.Settings), func(x rig.Choice) bool { return x.Setting == c.Setting })
	b.rig.Settings = append(b.rig.Settings, c)
	b.again()
}

// Value is what a setting is at.
func (b *Bench) Value(st *machine.Setting) string { return rig.Value(st, b.rig.Settings) }

// Check makes a check. One inside opens the machine, which is shut down for it; others close it
// and start it.
func (b *Bench) Check(k fault.Inspection) (fault.Outcome, error) {
	if len(k.Look.Outcomes()) == 0 {
		return "", ErrNoCheck
	}
	b.minutes += b.plan.Cost(k, b.open)
	b.open = k.Look.LeavesOpen()
	b.on = !b.open
	return b.plan.World(b.hidden, b.ways).Check(k), nil
}

// Mend carries out the cure of a fault; false is that the machine did not have it.
func (b *Bench) Mend(f fault.Fault) bool {
	b.minutes += f.Kind.Minutes()
	if f.Kind.Inside() {
		if !b.open {
			b.minutes += b.plan.Cost(fault.Inspection{Look: fault.Seat, At: f.At}, false)
		}
		b.on, b.open = false, true
	}
	i := slices.Index(b.hidden, f)
	if i < 0 {
		return false
	}
	b.hidden, b.ways = slices.Delete(b.hidden, i, i+1), slices.Delete(b.ways, i, i+1)
	return true
}

// Hands is what hands can do at a place of an open machine without knowing what is wrong.
type Hands string

// The ways of hands.
const (
	Reseat  Hands = "reseat"  // out and in again
	Clean   Hands = "clean"   // its contacts
	NewLead Hands = "lead"    // another data lead, pressed home at both ends
	Press   Hands = "plug"    // its power plug, home
	Replace Hands = "replace" // the piece by another of its kind
	Move    Hands = "move"    // back to the place where it belongs
)

// cures is the kinds of fault that each ends.
var cures = map[Hands][]fault.Kind{
	Reseat:  {fault.HalfSeated, fault.M2NotSeated, fault.CardNotSeated},
	Clean:   {fault.ModuleDirty, fault.M2Dirty, fault.CardDirty, fault.HalfSeated, fault.M2NotSeated, fault.CardNotSeated},
	NewLead: {fault.LeadOff, fault.LeadBad, fault.LeadDead},
	Press:   {fault.PlugOff, fault.CardPlugOff, fault.BoxOff},
	Replace: {fault.ModuleDead, fault.ModuleMislabel, fault.ModuleDense, fault.MemoryErrors, fault.DriveDead, fault.DriveMislabel, fault.DriveFailing, fault.SATACard, fault.CardDead, fault.HalfSeated, fault.M2NotSeated, fault.CardNotSeated},
	Move:    {fault.LiesElsewhere, fault.Swapped},
}

// Values lists the ways of hands.
func (Hands) Values() []string {
	return []string{string(Reseat), string(Clean), string(NewLead), string(Press), string(Replace), string(Move)}
}

// Do does something at a place: the machine is shut down and opened for it. What was wrong there
// and ends by it is gone.
func (b *Bench) Do(h Hands, at rig.Path) error {
	if cures[h] == nil {
		return fmt.Errorf("hands cannot %q", h)
	}
	if b.rig.In(at) == "" {
		return fmt.Errorf("nothing lies in %s", at)
	}
	b.minutes += b.plan.Cost(fault.Inspection{Look: fault.Seat, At: at}, b.open) + 2
	b.on, b.open = false, true
	for i := len(b.hidden) - 1; i >= 0; i-- {
		if b.hidden[i].At == at && slices.Contains(cures[h], b.hidden[i].Kind) {
			b.hidden, b.ways = slices.Delete(b.hidden, i, i+1), slices.Delete(b.ways, i, i+1)
		}
	}
	return nil
}

// Shown is what one line of a screen shows now.
type Shown struct {
	Line   power.LineID
	Screen power.Screen
	Is     power.Reading
}

// Screens is what can be read off the machine now, in the order in which it is come upon; nothing of
// one that is off.
func (b *Bench) Screens() []Shown {
	if !b.on {
		return nil
	}
	w := b.World()
	var out []Shown
	for _, l := range power.Compare(w.Rig(), w.Answer(), power.Seen{}) {
		if r, ok := w.Read(l.ID); ok {
			out = append(out, Shown{l.ID, l.Screen, r})
		}
	}
	for _, id := range w.Lines() { // what should be shown and is not
		r, ok := w.Read(id)
		if ok && r.Absent && !slices.ContainsFunc(out, func(s Shown) bool { return s.Line == id }) {
			out = append(out, Shown{id, power.ScreenOf(b.planned, id), r})
		}
	}
	slices.SortStableFunc(out, func(a, b Shown) int { return power.CompareScreens(a.Screen, b.Screen) })
	return out
}

// Observation is what a probe sent by the machine would tell, with what hands confirmed of its
// screens left out: that is typed. Of a machine whose system does not run there is none.
func (b *Bench) Observation() (power.Observation, error) {
	if !b.on {
		return power.Observation{}, ErrOff
	}
	m, ok := Inventory(b.World())
	if !ok {
		return power.Observation{}, ErrBlind
	}
	return power.Observation{Format: power.Format, Version: power.Version, Readings: []power.Reading{}, Machine: &m}, nil
}

// HandsAt is what hands can do at a place with a piece in it.
func HandsAt(k *rig.Place, p *rig.Piece) []Hands {
	switch {
	case k.Kind == machine.SATA:
		return []Hands{NewLead, Press, Replace, Move}
	case k.Kind == machine.USB:
		return []Hands{Press}
	case p.Part.Card != nil && len(p.Part.Card.Plugs) > 0:
		return []Hands{Reseat, Clean, Press, Replace, Move}
	}
	return []Hands{Reseat, Clean, Replace, Move}
}
