package job

// This file is what the screens showed: readings, which belong to the pieces of which they
// were taken and lapse when what they prove is changed.

import (
	"errors"
	"slices"
	"strconv"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// screens is what a machine shows in one of a job's two states, and what was read of it.
type screens struct {
	rig      rig.Rig
	answer   fit.Answer
	readings *[]power.Reading
}

func (a *applier) screens() screens {
	s := screens{rig: a.job.PlannedRig(), readings: &a.job.Seen}
	if a.change.In == InFound {
		s.rig, s.readings = a.job.FoundRig(), &a.job.Before
	}
	s.answer = fit.Resolve(&s.rig)
	return s
}

// read keeps what lines show, of the machine as it came or of the plan carried out.
func (a *applier) read() fact.Fact {
	c := &a.change
	ids, at := c.Lines, func(i int) string { return "/lines/" + strconv.Itoa(i) }
	if len(ids) == 0 {
		ids, at = []power.LineID{c.Line}, func(int) string { return "/line" }
	}
	if c.Do == DoRead && len(ids) > 1 {
		return a.refuse("/lines", fact.Of(OneLine))
	}
	// What was read of a line before is no measure of what is read of it now.
	a.drop(ids)
	s := a.screens()
	lines := power.Compare(&s.rig, &s.answer, power.Seen{})
	var says []fact.Fact
	var readings []power.Reading
	for i, id := range ids {
		n := slices.IndexFunc(lines, func(l power.Line) bool { return l.ID == id })
		if n < 0 {
			return a.refuse(at(i), fact.Of(NoSuchLine, id))
		}
		if c.Do == DoForget {
			says = append(says, fact.Of(TakenBack, lines[n].About))
			continue
		}
		reading, refused := a.reading(&s, &lines[n], at(i))
		if refused {
			return fact.Fact{}
		}
		says = append(says, fact.Of(AsExpected, lines[n].About))
		if c.Do == DoRead {
			says[i] = fact.Of(Shows, lines[n].About, fact.Typed(reading.Raw))
		}
		readings = append(readings, reading)
	}
	for _, l := range power.Compare(&s.rig, &s.answer, power.Seen{Readings: readings}) {
		if l.Reading != nil { // what differs is not what is said to be there
			l.Reading.Proof = l.Verdict != power.Differs
		}
	}
	*s.readings = append(*s.readings, readings...)
	if len(says) == 1 {
		return a.asFound(says[0])
	}
	return a.asFound(fact.Of(Together, says))
}

// drop forgets what was read of lines.
func (a *applier) drop(ids []power.LineID) {
	gone := func(x power.Reading) bool { return slices.Contains(ids, x.Line) }
	if a.change.In == InFound {
		a.job.Before = slices.DeleteFunc(a.job.Before, gone)
		return
	}
	a.job.Seen = slices.DeleteFunc(a.job.Seen, gone)
	a.job.Explained = slices.DeleteFunc(a.job.Explained, func(e Explanation) bool { return slices.Contains(ids, e.Line) })
}

// reading is what a change says of a line: that it is as expected, or what was typed.
func (a *applier) reading(s *screens, l *power.Line, at string) (power.Reading, bool) {
	c := &a.change
	got := l.Want
	if c.Do == DoConfirm {
		if !l.Exact {
			a.refuse(at, fact.Of(CannotConfirm, l.About))
		}
		got.Origin = power.Confirmed
	} else if serial, ok := power.ReadSerial(&s.rig, l.ID, c.Text); ok {
		got = serial
	} else {
		var err error
		var u power.Unreadable
		if got, err = power.Read(l.ID, c.Text); errors.As(err, &u) {
			a.refuse("/text", u.Fact)
		} else if l.Want.Lanes.Known() && got.Gen.Known() && !got.Lanes.Known() {
			// A generation without a width would prove a link that may be half as wide.
			a.refuse("/text", fact.Of(power.NoWidth, fact.Typed(c.Text), l.Want.Lanes))
		}
	}
	got.By, got.At, got.Item = a.by.By, a.by.At, l.Item
	return got, len(a.list) > 0
}

func (a *applier) explain() fact.Fact {
	c := &a.change
	if c.Text == "" {
		return a.refuse("/text", fact.Of(NoReason))
	}
	b := a.job.PlannedRig()
	r := fit.Resolve(&b)
	for _, l := range a.job.Lines(&r, nil) {
		if l.ID == c.Line && (l.Verdict == power.Differs || l.Verdict == power.Explained) {
			a.job.Explained = slices.DeleteFunc(a.job.Explained, func(e Explanation) bool { return e.Line == c.Line })
			a.job.Explained = append(a.job.Explained, Explanation{Line: c.Line, Text: c.Text, By: a.by.By, At: a.by.At})
			return fact.Of(ExplainedAs, l.About, fact.Typed(c.Text))
		}
	}
	return a.refuse("/line", fact.Of(NoDifference, c.Line))
}

// lapse ends readings, tests and explanations of what was changed after them: the drive on a
// port is another one, the memory lies otherwise, a link was given more or less.
func lapse(old, now *Job) {
	seen := func(readings []power.Reading, before, after *rig.Setup) map[power.LineID]bool {
		was, is := old.unread(before), now.unread(after)
		a, b := fit.Resolve(&was), fit.Resolve(&is)
		same := power.Unchanged(&was, &a, &is, &b)
		gone := map[power.LineID]bool{}
		for i := range readings {
			if x := &readings[i]; !x.Lapsed && !same[x.Line] {
				x.Lapse()
				gone[x.Line] = true
			}
		}
		return gone
	}
	if !now.Planned.Equal(&old.Planned) || now.Processor != old.Processor {
		outdate(now.Seen)
		now.Checked = nil // of another machine
		if len(now.Seen) > 0 {
			gone := seen(now.Seen, &old.Planned, &now.Planned)
			now.Explained = slices.DeleteFunc(now.Explained, func(e Explanation) bool { return gone[e.Line] })
		}
		now.lapseTests(old)
	}
	if !now.Found.Equal(&old.Found) {
		outdate(now.Before)
		if len(now.Before) > 0 {
			seen(now.Before, &old.Found, &now.Found)
		}
	}
}

// lapseTests ends tests of memory that was changed, and of drives that are there no more.
func (j *Job) lapseTests(old *Job) {
	if len(j.Tests) == 0 {
		return
	}
	memory := func(s *rig.Setup) []rig.Placement {
		out := slices.DeleteFunc(slices.Clone(s.Placements), func(p rig.Placement) bool {
			k := j.Sheet.Socket(p.Socket.Top())
			return k == nil || !k.Kind.Memory()
		})
		slices.SortFunc(out, func(a, b rig.Placement) int { return a.Socket.Compare(b.Socket) })
		return out
	}
	settled := slices.Equal(memory(&old.Planned), memory(&j.Planned)) && slices.Equal(old.Planned.Settings, j.Planned.Settings)
	asked := map[string]rig.Test{}
	for _, s := range j.Order() {
		asked[s.ID] = s.Test
	}
	for i := range j.Tests {
		t := &j.Tests[i]
		if test := asked[t.Step]; test == "" || test != rig.SelfTest && !settled {
			t.Over = true
			if tick := j.tickOf(t.Step); tick != nil {
				tick.Over = true
			}
		}
	}
}

// mostStrange is how much that nobody expected a job keeps.
const mostStrange = 500

// observe keeps what a machine told about itself, and what else was read of its lines.
func (a *applier) observe() fact.Fact {
	c := &a.change
	if c.Observation == nil {
		return a.refuse("/observation", fact.Of(NoObservation))
	}
	s := a.screens()
	lines := power.Compare(&s.rig, &s.answer, power.Seen{})
	shown := func(id power.LineID) bool {
		return slices.ContainsFunc(lines, func(l power.Line) bool { return l.ID == id })
	}
	var readings []power.Reading
	for i, r := range c.Observation.Readings {
		if !shown(r.Line) {
			return a.refuse("/observation/readings/"+strconv.Itoa(i)+"/line", fact.Of(NoSuchLine, r.Line))
		}
		readings = append(readings, r)
	}
	var strange []power.Strange
	if m := c.Observation.Machine; m != nil {
		var seen []power.Reading
		seen, strange = power.Recognise(&s.rig, &s.answer, m)
		for _, r := range seen {
			if shown(r.Line) && !slices.ContainsFunc(readings, func(x power.Reading) bool { return x.Line == r.Line }) {
				readings = append(readings, r)
			}
		}
	}
	if len(readings) == 0 {
		return a.refuse("/observation", fact.Of(NothingRecognised))
	}
	var ids []power.LineID
	for i := range readings {
		r := &readings[i]
		if r.Origin == "" || r.Origin == power.Foretold {
			r.Origin = power.Typed
		}
		r.By, r.At, r.Lapsed, r.Proof = a.by.By, a.by.At, false, false
		ids = append(ids, r.Line)
	}
	a.drop(ids)
	s = a.screens()
	differ := 0
	for _, l := range power.Compare(&s.rig, &s.answer, power.Seen{Readings: readings}) {
		if l.Reading != nil {
			if l.Reading.Proof = l.Verdict != power.Differs; !l.Reading.Proof {
				differ++
			}
		}
	}
	if s.readings == &a.job.Seen {
		a.job.Strange = strange[:min(len(strange), mostStrange)]
	}
	*s.readings = append(*s.readings, readings...)
	return a.asFound(fact.Of(Observed, fact.Count{N: len(readings), Of: Lines}, fact.Count{N: differ, Of: Differences}, fact.Count{N: len(strange), Of: PiecesSeen}))
}
