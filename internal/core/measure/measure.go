// Package measure judges what was measured before the work and after it: how far the runs of a series
// lie apart, whether two series differ at all, what a sound is without the sound of the room, whether a
// rate is what its path carries, and how much of a load time was reading.
//
//	c := measure.Compare(&before, &after)
//	c.Verdict // better, worse, no change that shows, or too close to tell
//	c.Factor  // 5.2: the median after, in medians before
//
// Where a number comes from a rule of the trade and from no standard, its comment says so.
package measure

import (
	"math"
	"slices"
	"time"

	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// What is what a series measures. The unit of its runs follows from it.
type What string

// What is measured.
const (
	ReadsOn  What = "sequential-read"  // MB/s
	WritesOn What = "sequential-write" // MB/s
	Reads    What = "random-read"      // MB/s, in blocks of a size at a queue depth
	Writes   What = "random-write"     // MB/s
	Start    What = "start"            // seconds, from the button to a system that answers
	Load     What = "load"             // seconds, of the owner's own work
	Idle     What = "heat-idle"        // degrees Celsius
	Hot      What = "heat-at-work"     // degrees Celsius
	Quiet    What = "sound-idle"       // dB(A)
	Loud     What = "sound-at-work"    // dB(A)
)

// Values lists what is measured for the formats.
func (What) Values() []string {
	return []string{string(ReadsOn), string(WritesOn), string(Reads), string(Writes), string(Start), string(Load), string(Idle), string(Hot), string(Quiet), string(Loud)}
}

// Unit is a unit of runs.
type Unit string

// The units.
const (
	MBps     Unit = "MB/s"
	Seconds  Unit = "s"
	Celsius  Unit = "°C"
	Decibels Unit = "dB(A)"
)

// Unit is that of the runs.
func (w What) Unit() Unit {
	switch w {
	case Start, Load:
		return Seconds
	case Idle, Hot:
		return Celsius
	case Quiet, Loud:
		return Decibels
	}
	return MBps
}

// Rate reports a rate of a drive.
func (w What) Rate() bool { return w.Unit() == MBps }

// Random reports a rate that hangs on the size of blocks and on how many are asked for at once.
func (w What) Random() bool { return w == Reads || w == Writes }

// Sound reports a level of sound.
func (w What) Sound() bool { return w.Unit() == Decibels }

// When is whether a series was taken before the work or after it.
type When string

// Before the work, and after it.
const (
	Before When = "before"
	After  When = "after"
)

// Values lists them for the formats.
func (When) Values() []string { return []string{string(Before), string(After)} }

// Series is one thing measured several times.
type Series struct {
	ID         int            `json:"id" jsonschema:"minimum=1,maximum=100000"`
	What       What           `json:"what"`
	When       When           `json:"when"`
	Of         string         `json:"of,omitempty" jsonschema:"maxLength=120"`                         // what is started, loaded or heard, or which volume is read
	Item       rig.ItemID     `json:"item,omitempty" jsonschema:"maxLength=60"`                        // the drive, where one is meant
	Array      rig.ArrayID    `json:"array,omitempty" jsonschema:"maxLength=60"`                       // the array, where one is meant
	BlockBytes quantity.Bytes `json:"blockBytes,omitzero" jsonschema:"minimum=512,maximum=1073741824"` // of a rate
	Depth      int            `json:"depth,omitzero" jsonschema:"minimum=1,maximum=65536"`             // requests at once, of a rate
	Runs       []float64      `json:"runs" jsonschema:"minItems=1,maxItems=200"`                       // in the unit of what is measured
	Background []float64      `json:"background,omitempty" jsonschema:"maxItems=200"`                  // dB(A) at the same spot with the machine off
	With       string         `json:"with,omitempty" jsonschema:"maxLength=120"`                       // the tool, and how
	By         string         `json:"by,omitempty" jsonschema:"maxLength=80"`
	At         time.Time      `json:"at,omitzero"`
}

// Same reports that two series measured the same thing, before and after.
func (s *Series) Same(o *Series) bool {
	return s.What == o.What && s.Of == o.Of && s.BlockBytes == o.BlockBytes && s.Depth == o.Depth
}

// Bounds is the least and the most that a run can be in a unit: what lies outside is a slip of the pen.
func (u Unit) Bounds() (least, most float64) {
	switch u {
	case Seconds:
		return 0.001, 86400
	case Celsius:
		return 1, 150
	case Decibels:
		return 1, 140
	}
	return 0.001, 1e6
}

// Spread is a series in a few numbers.
type Spread struct {
	N                        int
	Least, Low, Mid, Up, Top float64 // smallest, lower quartile, median, upper quartile, greatest
}

// Width is how far the runs lie apart.
func (s Spread) Width() float64 { return s.Top - s.Least }

// SpreadOf sums up runs. Quartiles lie between the ordered runs by linear interpolation.
func SpreadOf(runs []float64) Spread {
	if len(runs) == 0 {
		return Spread{}
	}
	all := slices.Sorted(slices.Values(runs))
	at := func(q float64) float64 {
		x := q * float64(len(all)-1)
		i := int(x)
		if i+1 >= len(all) {
			return all[len(all)-1]
		}
		return all[i] + (all[i+1]-all[i])*(x-float64(i))
	}
	return Spread{len(all), all[0], at(0.25), at(0.5), at(0.75), all[len(all)-1]}
}

// FewRuns is how many runs a median should have at least: practice, not a standard.
const FewRuns = 5

// plain is the share by which medians must differ where single runs tell no spread.
const plain = 0.05

// Verdict is what two series say of the work.
type Verdict string

// The verdicts.
const (
	Better Verdict = "better"
	Worse  Verdict = "worse"
	Alike  Verdict = "alike" // no change beyond how far the runs lie apart
	Near   Verdict = "near"  // too close to the room to tell
	Lone   Verdict = "lone"  // measured on one side only
)

// Values lists the verdicts for the formats.
func (Verdict) Values() []string {
	return []string{string(Better), string(Worse), string(Alike), string(Near), string(Lone)}
}

// Change is one thing before and after.
type Change struct {
	Before, After *Series
	Was, Is       Spread // of the runs as they were read
	HeardBefore   Heard  // of a sound, without the room's
	HeardAfter    Heard
	Factor        float64 // the median after in medians before; 0 where a side is missing, and of sounds
	By            float64 // the median after less the one before
	Verdict       Verdict
}

// Compare says what two series of the same thing tell; one may be nil. A change is one that is
// larger than either series is wide, or than a twentieth where there are too few runs to be wide.
func Compare(before, after *Series) Change {
	c := Change{Before: before, After: after, Verdict: Lone}
	if before != nil {
		c.Was, c.HeardBefore = SpreadOf(before.Runs), heard(before)
	}
	if after != nil {
		c.Is, c.HeardAfter = SpreadOf(after.Runs), heard(after)
	}
	if before == nil || after == nil {
		return c
	}
	if before.What.Sound() {
		c.sound()
		return c
	}
	c.By = c.Is.Mid - c.Was.Mid
	if c.Was.Mid > 0 {
		c.Factor = c.Is.Mid / c.Was.Mid
	}
	beyond := max(c.Was.Width(), c.Is.Width())
	if c.Was.N < 2 || c.Is.N < 2 {
		beyond = max(beyond, plain*c.Was.Mid)
	}
	switch more := c.By > 0; {
	case math.Abs(c.By) <= beyond:
		c.Verdict = Alike
	case more == before.What.Rate():
		c.Verdict = Better
	default:
		c.Verdict = Worse
	}
	return c
}

// Changes pairs the series of a job, in the order in which they were taken: a later series of the same
// thing on the same side takes the place of an earlier one.
func Changes(all []Series) []Change {
	type pair struct{ before, after *Series }
	var pairs []pair
	for i := range all {
		s := &all[i]
		n := slices.IndexFunc(pairs, func(p pair) bool {
			return p.before != nil && p.before.Same(s) || p.after != nil && p.after.Same(s)
		})
		if n < 0 {
			n, pairs = len(pairs), append(pairs, pair{})
		}
		if s.When == Before {
			pairs[n].before = s
		} else {
			pairs[n].after = s
		}
	}
	out := make([]Change, len(pairs))
	for i, p := range pairs {
		out[i] = Compare(p.before, p.after)
	}
	return out
}
