// Package logbook reads finished and open jobs together: the life of a machine, the life of a part
// by its serial number, what a model showed again and again, and what the shop's work comes to.
//
//	l := logbook.OfMachine(jobs)        // all jobs on one machine
//	l.Stays[0].Part.Name                // what was in it, from when to when, and where
//	logbook.OfSerial("DB-1204-77", jobs).Events[0].Says
package logbook

import (
	"cmp"
	"slices"
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
)

// What lives say.
const (
	Came     fact.Code = "logbook/came"
	CameFor  fact.Code = "logbook/came-for"  // wish as typed
	WasIn    fact.Code = "logbook/was-in"    // piece, place
	Fitted   fact.Code = "logbook/fitted"    // piece, place
	Moved    fact.Code = "logbook/moved"     // piece, from, to
	TakenUp  fact.Code = "logbook/taken-up"  // piece, place it came out of
	Mended   fact.Code = "logbook/mended"    // fault
	Closed   fact.Code = "logbook/closed"    // by whom
	ClosedSo fact.Code = "logbook/closed-so" // by whom, note
)

// Machine names one machine over the years: by its tag, and where it has none, by what its owner
// calls it.
type Machine string

// MachineOf is the machine of a job.
func MachineOf(j *job.Job) Machine {
	if tag := fact.Fold(j.Tag); tag != "" {
		return Machine("tag " + tag)
	}
	return Machine("title " + fact.Fold(j.Title) + " of " + fact.Fold(j.Owner))
}

// Event is something that happened to a machine.
type Event struct {
	At   time.Time
	Job  *job.Job
	Item rig.ItemID // the piece that it happened to, if it was one
	Says fact.Fact
}

// Stay is a piece in a machine, as long as anybody knows that it was there.
type Stay struct {
	Part   *part.Part
	Serial string
	Item   rig.ItemID // in the last job
	Last   *job.Job   // that tells of it
	Place  rig.Path   // where it was last
	From   time.Time
	Fitted bool      // it was fitted then; otherwise it was found there
	To     time.Time // it came out, or was not found any more; none is that it is still there
	Lost   bool      // a later job did not find it, and no job tells that it came out
}

// Life is what happened, the oldest first, and what was in the machine, in the order in which it
// came.
type Life struct {
	Events []Event
	Stays  []Stay
}

// inOrder is jobs as they came.
func inOrder(jobs []job.Job) []*job.Job {
	out := make([]*job.Job, len(jobs))
	for i := range jobs {
		out[i] = &jobs[i]
	}
	slices.SortStableFunc(out, func(a, b *job.Job) int {
		return cmp.Or(a.Arrived.Compare(b.Arrived), cmp.Compare(a.ID, b.ID))
	})
	return out
}

// OfMachine is the life of the machine that jobs are about.
func OfMachine(jobs []job.Job) Life {
	var l Life
	for _, j := range inOrder(jobs) {
		came := fact.Of(Came)
		if j.Wish.Text != "" {
			came = fact.Of(CameFor, fact.Typed(j.Wish.Text))
		}
		l.add(Event{At: j.Arrived, Job: j, Says: came})
		l.found(j)
		l.happened(j)
		if j.Closed != nil {
			l.done(j)
			closed := fact.Of(Closed, fact.Typed(j.Closed.By))
			if j.Closed.Note != "" {
				closed = fact.Of(ClosedSo, fact.Typed(j.Closed.By), fact.Typed(j.Closed.Note))
			}
			l.add(Event{At: j.Closed.At, Job: j, Says: closed})
		}
	}
	slices.SortStableFunc(l.Events, func(a, b Event) int { return a.At.Compare(b.At) })
	return l
}

// OfSerial is the life of the part with a serial number, through all machines that it was in. Jobs
// that have no such part say nothing of it.
func OfSerial(serial string, jobs []job.Job) Life {
	var l Life
	want := fact.Fold(serial)
	has := func(j *job.Job, id rig.ItemID) bool {
		it := j.Item(id)
		return it != nil && want != "" && fact.Fold(it.Serial) == want
	}
	machines := map[Machine][]job.Job{}
	for i := range jobs {
		if j := &jobs[i]; slices.ContainsFunc(j.Items, func(it job.Item) bool { return has(j, it.ID) }) {
			machines[MachineOf(j)] = append(machines[MachineOf(j)], *j)
		}
	}
	for _, own := range machines {
		one := OfMachine(own)
		for _, s := range one.Stays {
			if has(s.Last, s.Item) {
				l.Stays = append(l.Stays, s)
			}
		}
		for _, e := range one.Events {
			if has(e.Job, e.Item) {
				l.add(e)
			}
		}
	}
	slices.SortStableFunc(l.Events, func(a, b Event) int { return cmp.Or(a.At.Compare(b.At), cmp.Compare(a.Job.ID, b.Job.ID)) })
	slices.SortStableFunc(l.Stays, func(a, b Stay) int { return cmp.Or(a.From.Compare(b.From), cmp.Compare(a.Last.ID, b.Last.ID)) })
	return l
}

func (l *Life) add(e Event) { l.Events = append(l.Events, e) }

// key tells a piece from others over several jobs: by its serial number, and where nobody wrote
// one, by what it is and where it lies.
func key(j *job.Job, it *job.Item, at rig.Path) string {
	if s := fact.Fold(it.Serial); s != "" {
		return s
	}
	return string(it.Part) + "@" + at.String()
}

// there is the stay that is not over of a piece, nil for none.
func (l *Life) there(j *job.Job, it *job.Item, at rig.Path) *Stay {
	for i := range l.Stays {
		s := &l.Stays[i]
		if s.To.IsZero() && key(s.Last, s.Last.Item(s.Item), s.Place) == key(j, it, at) {
			return s
		}
	}
	return nil
}

// found takes in what was in the machine as it came: what is new there, and what is missing.
func (l *Life) found(j *job.Job) {
	first := &j.Stages()[0].Found
	seen := map[*Stay]bool{}
	var fresh []Stay
	for i := range j.Items {
		it := &j.Items[i]
		at := first.Where(it.ID)
		if at.IsZero() {
			continue
		}
		if s := l.there(j, it, at); s != nil && !seen[s] {
			seen[s] = true
			s.Last, s.Item, s.Place = j, it.ID, at
			continue
		}
		fresh = append(fresh, Stay{Part: j.Part(it.Part), Serial: it.Serial, Item: it.ID, Last: j, Place: at, From: j.Arrived})
		l.add(Event{At: j.Arrived, Job: j, Item: it.ID, Says: fact.Of(WasIn, it.ID, at)})
	}
	for i := range l.Stays {
		if s := &l.Stays[i]; s.To.IsZero() && !seen[s] {
			s.To, s.Lost = j.Arrived, true
		}
	}
	l.Stays = append(l.Stays, fresh...)
}

// done takes in what a finished job changed.
func (l *Life) done(j *job.Job) {
	first := &j.Stages()[0].Found
	for i := range j.Items {
		it := &j.Items[i]
		from, to := first.Where(it.ID), j.Planned.Where(it.ID)
		e := Event{At: j.Closed.At, Job: j, Item: it.ID}
		switch {
		case from == to:
			continue
		case from.IsZero():
			l.Stays = append(l.Stays, Stay{Part: j.Part(it.Part), Serial: it.Serial, Item: it.ID, Last: j, Place: to, From: j.Closed.At, Fitted: true})
			e.Says = fact.Of(Fitted, it.ID, to)
		case to.IsZero():
			e.Says = fact.Of(TakenUp, it.ID, from)
			if s := l.there(j, it, from); s != nil {
				s.To = j.Closed.At
			}
		default:
			e.Says = fact.Of(Moved, it.ID, from, to)
			if s := l.there(j, it, from); s != nil {
				s.Place = to
			}
		}
		l.add(e)
	}
}

// happened takes in what was seen, mended and left in a job.
func (l *Life) happened(j *job.Job) {
	for _, stage := range j.Stages() {
		for _, m := range stage.Cures {
			if !m.Ended.IsZero() {
				l.add(Event{At: m.Ended, Job: j, Item: m.Item, Says: fact.Of(Mended, m.Fault)})
			}
		}
	}
	for i := range j.Incidents {
		if n := &j.Incidents[i]; n.Ended != job.FoundAgain && n.Ended != job.Replaced {
			l.add(Event{At: n.At, Job: j, Says: n.Says()})
		}
	}
	for i := range j.Differs {
		l.add(Event{At: j.Differs[i].At, Job: j, Says: j.Differs[i].Says(j)})
	}
	for i := range j.Stuck {
		s := &j.Stuck[i]
		l.add(Event{At: s.At, Job: j, Item: s.Item, Says: s.Says(j)})
	}
	for _, w := range j.Wiped {
		l.add(Event{At: w.At, Job: j, Item: w.Item, Says: w.Says()})
	}
}
