package logbook

// This file is what a finished job adds to the figures of the shop.

import (
	"cmp"
	"slices"
	"time"

	"deepbay/internal/core/job"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/shorthand"
	"deepbay/internal/core/workorder"
)

// Of is what a figure is of.
type Of string

// The figures.
const (
	Jobs     Of = "jobs"     // by class of machine; took is how long it was in the shop
	Phase    Of = "phase"    // steps that somebody timed, by phase of the work; took and expected of just these
	FaultMet Of = "fault"    // that was mended after the first start, by entry of the catalogue
	Failed   Of = "failed"   // parts that had failed, by name
	Incident Of = "incident" // screws that were missing, dropped or stripped
	Differed Of = "differed" // in how many jobs the machine was not as its sheet says, by model
	Put      Of = "put"      // parts that were fitted, by kind
)

// Values lists what figures are of for the formats.
func (Of) Values() []string {
	return []string{string(Jobs), string(Phase), string(FaultMet), string(Failed), string(Incident), string(Differed), string(Put)}
}

// Figure is a number that a finished job adds.
type Figure struct {
	Of       Of
	Name     string
	N        int
	Took     time.Duration
	Expected time.Duration // what the sheet, or the usual, says of the same steps
}

// Month is a month of the calendar, as 2026-03.
type Month string

// MonthOf is the month of a moment.
func MonthOf(t time.Time) Month { return Month(t.UTC().Format("2006-01")) }

// Months lists the months up to one, that included, the oldest first.
func Months(last time.Time, n int) []Month {
	out := make([]Month, n)
	first := time.Date(last.UTC().Year(), last.UTC().Month(), 1, 0, 0, 0, 0, time.UTC)
	for i := range out {
		out[i] = MonthOf(first.AddDate(0, i-n+1, 0))
	}
	return out
}

// Monthly is a figure of all jobs that were finished in a month.
type Monthly struct {
	Month Month
	Figure
}

// Row is one figure over months: the sum of what was counted, the mean of what was timed.
type Row struct {
	Figure
	Months []Figure // one for each month
}

// Table is all figures of a kind.
type Table struct {
	Of   Of
	Rows []Row
}

// Over lays figures out over months: what was most often first, phases in the order of the work. A
// kind of which there is nothing has no table.
func Over(months []Month, list []Monthly) []Table {
	rows := map[Of][]Row{}
	for i := range list {
		f := &list[i]
		at := slices.Index(months, f.Month)
		if at < 0 {
			continue
		}
		own := rows[f.Of]
		n := slices.IndexFunc(own, func(r Row) bool { return r.Name == f.Name })
		if n < 0 {
			n = len(own)
			own = append(own, Row{Figure{Of: f.Of, Name: f.Name}, make([]Figure, len(months))})
			rows[f.Of] = own
		}
		own[n].plus(&f.Figure)
		own[n].Months[at].plus(&f.Figure)
	}
	var out []Table
	for _, of := range []Of{Jobs, Phase, FaultMet, Failed, Incident, Differed, Put} {
		own := rows[of]
		if len(own) == 0 {
			continue
		}
		order := workorder.Phase("").Values()
		slices.SortStableFunc(own, func(a, b Row) int {
			if of == Phase {
				return slices.Index(order, a.Name) - slices.Index(order, b.Name)
			}
			return cmp.Or(b.N-a.N, cmp.Compare(a.Name, b.Name))
		})
		for i := range own {
			own[i].mean()
			for m := range own[i].Months {
				own[i].Months[m].mean()
			}
		}
		out = append(out, Table{of, own})
	}
	return out
}

func (f *Figure) plus(g *Figure) {
	f.N, f.Took, f.Expected = f.N+g.N, f.Took+g.Took, f.Expected+g.Expected
}

func (f *Figure) mean() {
	if f.N > 0 {
		f.Took, f.Expected = f.Took/time.Duration(f.N), f.Expected/time.Duration(f.N)
	}
}

// Figures is what a job adds, by name; one that is open adds nothing.
func Figures(j *job.Job) []Figure {
	if j.Closed == nil {
		return nil
	}
	t := tally{}
	t.add(Jobs, string(j.Sheet.Class), 1, max(0, j.Closed.At.Sub(j.Arrived)), 0)
	first := &j.Stages()[0].Found
	for i := range j.Items {
		it := &j.Items[i]
		if first.Where(it.ID).IsZero() && !j.Planned.Where(it.ID).IsZero() {
			t.add(Put, string(shorthand.KindOf(j.Part(it.Part))), 1, 0, 0)
		}
	}
	for _, stage := range j.Stages() {
		t.steps(&stage)
		for _, m := range stage.Cures {
			if m.Ended.IsZero() {
				continue
			}
			t.add(FaultMet, string(m.Fault.Kind), 1, 0, 0)
			if m.Fault.Kind.Spoilt() && m.Item != "" {
				t.add(Failed, j.Part(j.Item(m.Item).Part).Name, 1, 0, 0)
			}
		}
	}
	for _, n := range j.Incidents {
		t.add(Incident, string(n.Kind), 1, 0, 0)
	}
	if len(j.Differs) > 0 {
		t.add(Differed, j.Sheet.Name, 1, 0, 0)
	}
	out := make([]Figure, 0, len(t))
	for _, f := range t {
		out = append(out, *f)
	}
	slices.SortFunc(out, func(a, b Figure) int { return cmp.Or(cmp.Compare(a.Of, b.Of), cmp.Compare(a.Name, b.Name)) })
	return out
}

type tally map[[2]string]*Figure

func (t tally) add(of Of, name string, n int, took, expected time.Duration) {
	k := [2]string{string(of), name}
	if t[k] == nil {
		t[k] = &Figure{Of: of, Name: name}
	}
	t[k].N += n
	t[k].Took += took
	t[k].Expected += expected
}

// steps adds the steps of a stage that somebody timed.
func (t tally) steps(stage *job.Job) {
	took := map[string]int{}
	for _, d := range stage.Done {
		if d.Seconds > 0 && d.Reason == "" {
			took[d.Step] += d.Seconds
		}
	}
	if len(took) == 0 {
		return
	}
	order := stage.Order()
	for i := range order {
		if s := took[order[i].ID]; s > 0 {
			t.add(Phase, string(order[i].Phase), 1, time.Duration(s)*time.Second, minutes(order[i].Takes))
		}
	}
}

func minutes(m layer.Minutes) time.Duration { return time.Duration(float64(m) * float64(time.Minute)) }
