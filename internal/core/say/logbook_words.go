package say

import (
	"math"
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fault"
	"deepbay/internal/core/job"
	"deepbay/internal/core/logbook"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
)

// logbookWords is what lives of machines and parts say.
var logbookWords = map[fact.Code]string{
	logbook.Came:     "came to the shop",
	logbook.CameFor:  "came to the shop: {0}",
	logbook.WasIn:    "{0:serial} was in {1}",
	logbook.Fitted:   "{0:serial} went into {1}",
	logbook.Moved:    "{0:serial} went from {1} to {2}",
	logbook.TakenUp:  "{0:serial} came out of {1}",
	logbook.Mended:   "mended: {0}",
	logbook.Closed:   "went back to its owner{0:by}",
	logbook.ClosedSo: "went back to its owner{0:by}: {1}",
}

// LifeEvent is one line of a life.
type LifeEvent struct {
	At    time.Time `json:"at"`
	Job   job.ID    `json:"job"`
	Title string    `json:"title"`
	Says  Text      `json:"says"`
}

// LifeStay is a piece in a machine, from when to when.
type LifeStay struct {
	Name   string     `json:"name"`
	What   Text       `json:"what"`
	Serial string     `json:"serial,omitempty"`
	Place  string     `json:"place"`
	Title  string     `json:"title"` // of the machine
	Tag    string     `json:"tag,omitempty"`
	Job    job.ID     `json:"job"` // the last that tells of it
	From   time.Time  `json:"from"`
	To     *time.Time `json:"to,omitempty"` // absent: it is there as far as anybody knows
	Fitted bool       `json:"fitted,omitempty"`
	Lost   bool       `json:"lost,omitempty"`
	Says   Text       `json:"says"`
}

// LifeWords is a life in words.
type LifeWords struct {
	Events []LifeEvent `json:"events"`
	Stays  []LifeStay  `json:"stays"`
}

// Lived is a life in words.
func Lived(in Language, l *logbook.Life) LifeWords {
	out := LifeWords{Events: []LifeEvent{}, Stays: []LifeStay{}}
	for _, e := range l.Events {
		out.Events = append(out.Events, LifeEvent{e.At, e.Job.ID, e.Job.Title, About(in, e.Job).Fact(e.Says)})
	}
	for i := range l.Stays {
		s := &l.Stays[i]
		k := LifeStay{Name: s.Part.Name, Serial: s.Serial, Title: s.Last.Title, Tag: s.Last.Tag, Job: s.Last.ID, From: s.From, Fitted: s.Fitted, Lost: s.Lost}
		v := About(in, s.Last)
		k.What, k.Place = v.Part(s.Part), s.Place.String()
		says := "found there, and there still"
		switch {
		case s.Lost && s.Fitted:
			says = "fitted, and no longer there at the next job"
		case s.Lost:
			says = "found there, and no longer there at the next job"
		case s.Fitted && !s.To.IsZero():
			says = "fitted, and taken out"
		case !s.To.IsZero():
			says = "found there, and taken out"
		case s.Fitted:
			says = "fitted, and there still"
		}
		k.Says = v.text(says)
		if !s.To.IsZero() {
			k.To = &s.To
		}
		out.Stays = append(out.Stays, k)
	}
	return out
}

// figureHeads says what figures are of.
var figureHeads = map[logbook.Of]string{
	logbook.Jobs: "Jobs finished", logbook.Phase: "Minutes by step", logbook.FaultMet: "Faults met", logbook.Failed: "Parts that failed",
	logbook.Incident: "Screws", logbook.Differed: "Machines other than their sheet", logbook.Put: "Parts fitted",
}

var incidentWords = map[job.IncidentKind]string{job.Missing: "missing when it came", job.Dropped: "dropped into the machine", job.Stripped: "stripped"}

// figureName is what one row of figures is called.
func figureName(of logbook.Of, name string) string {
	switch of {
	case logbook.FaultMet:
		english := English(&rig.Rig{Sheet: &machine.Sheet{}})
		return english.fill(faultSays[fault.Kind(name)][0], []any{fact.Typed("a piece"), fact.Typed("its place"), fact.Typed("another place"), fact.Typed("a setting"), fact.Typed("as it should be"), fact.Typed("another slot")})
	case logbook.Incident:
		return incidentWords[job.IncidentKind(name)]
	}
	return name
}

// FigureRow is one figure over time.
type FigureRow struct {
	Name     Text      `json:"name"`
	N        int       `json:"n"`
	Took     float64   `json:"took,omitempty"`     // the mean, in the unit of its table
	Expected float64   `json:"expected,omitempty"` // likewise
	Months   []float64 `json:"months"`             // the mean of each month where there is a unit, otherwise how many
}

// FigureTable is all figures of one kind.
type FigureTable struct {
	Of   logbook.Of  `json:"of"`
	Head Text        `json:"head"`
	Unit Text        `json:"unit,omitzero"` // of what is not counted
	Rows []FigureRow `json:"rows"`
}

// Figures is what the work of a shop came to, month by month.
type Figures struct {
	Months []logbook.Month `json:"months"` // the oldest first, none left out
	Tables []FigureTable   `json:"tables"`
}

// FiguresOf words figures.
func FiguresOf(in Language, months []logbook.Month, list []logbook.Monthly) Figures {
	out := Figures{Months: months, Tables: []FigureTable{}}
	v := In(in, &rig.Rig{Sheet: &machine.Sheet{}})
	for _, t := range logbook.Over(months, list) {
		unit, words := time.Minute, "minutes"
		if t.Of == logbook.Jobs {
			unit, words = 24*time.Hour, "days in the shop"
		}
		w := FigureTable{Of: t.Of, Head: v.text(figureHeads[t.Of]), Rows: []FigureRow{}}
		if t.Of == logbook.Phase || t.Of == logbook.Jobs {
			w.Unit = v.text(words)
		}
		in := func(d time.Duration) float64 { return math.Round(float64(d)/float64(unit)*10) / 10 }
		for _, r := range t.Rows {
			row := FigureRow{Name: v.text(figureName(t.Of, r.Name)), N: r.N, Took: in(r.Took), Expected: in(r.Expected), Months: []float64{}}
			for _, m := range r.Months {
				if t.Of == logbook.Phase {
					row.Months = append(row.Months, in(m.Took))
				} else {
					row.Months = append(row.Months, float64(m.N))
				}
			}
			w.Rows = append(w.Rows, row)
		}
		out.Tables = append(out.Tables, w)
	}
	return out
}
