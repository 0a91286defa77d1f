package job

// This file is the hand-over page: what was fitted where, set, seen, left open.

import (
	"time"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// Report is what the owner takes along and the shop keeps.
type Report struct {
	Fitted  []Fitted     `json:"fitted"`  // new in the machine, or moved
	Removed []Fitted     `json:"removed"` // found in it and not in the plan
	Stayed  []Fitted     `json:"stayed"`
	Set     []Set        `json:"set"`
	Seen    []power.Line `json:"seen"`
	Open    []string     `json:"open"`   // what somebody still has to see to
	Agreed  []string     `json:"agreed"` // losses the plan accepts
	Hands   []string     `json:"hands"`
	From    time.Time    `json:"from,omitzero"` // first tick
	To      time.Time    `json:"to,omitzero"`   // last tick, reading or the closing
}

// Fitted is one piece and its place.
type Fitted struct {
	Item   rig.ItemID `json:"item"`
	Name   string     `json:"name"`
	What   string     `json:"what"`
	Serial string     `json:"serial,omitempty"`
	Number string     `json:"number,omitempty"`
	Socket string     `json:"socket,omitempty"`
	From   string     `json:"from,omitempty"` // moved from here
	Runs   string     `json:"runs,omitempty"` // what it does there
}

// Set is one setting that was changed.
type Set struct {
	Name string `json:"name"`
	From string `json:"from"`
	To   string `json:"to"`
}

func report(v *View) Report {
	j := &v.Job
	r := Report{Fitted: []Fitted{}, Removed: []Fitted{}, Stayed: []Fitted{}, Set: []Set{}, Seen: []power.Line{},
		Open: []string{}, Agreed: []string{}, Hands: []string{}}
	for _, it := range j.Items {
		p := j.Part(it.Part)
		from, to := j.Found.Where(it.ID).String(), j.Planned.Where(it.ID).String()
		f := Fitted{Item: it.ID, Name: p.Name, What: p.Describe(), Serial: it.Serial, Number: p.Number, Socket: to}
		for i := range v.Planned.Sockets {
			if s := &v.Planned.Sockets[i]; s.Item == it.ID {
				f.Runs = s.Says
			}
		}
		switch {
		case to == "" && from != "":
			f.From = from
			r.Removed = append(r.Removed, f)
		case to != "" && from == to:
			r.Stayed = append(r.Stayed, f)
		case to != "":
			f.From = from
			r.Fitted = append(r.Fitted, f)
		}
	}
	found, planned := j.FoundRig(), j.PlannedRig()
	for i := range j.Sheet.Settings {
		st := &j.Sheet.Settings[i]
		if a, b := found.Choice(st), planned.Choice(st); a != b {
			r.Set = append(r.Set, Set{st.Name, st.OptionName(a), st.OptionName(b)})
		}
	}
	done := j.ticked()
	for _, s := range v.Order {
		if !done[s.ID] {
			r.Open = append(r.Open, "not done: "+s.Do)
		}
	}
	for _, l := range v.Lines {
		if l.Verdict != power.NotLooked {
			r.Seen = append(r.Seen, l)
		}
		switch l.Verdict {
		case power.NotLooked:
			r.Open = append(r.Open, "not looked at: "+l.About)
		case power.Differs:
			r.Open = append(r.Open, l.About+" "+l.Says)
		}
	}
	for _, f := range v.Planned.Findings {
		switch f.Severity {
		case fit.Stops:
			r.Open = append(r.Open, f.Says)
		case fit.Warns:
			r.Agreed = append(r.Agreed, f.Says)
		}
	}
	r.when(j)
	return r
}

func (r *Report) when(j *Job) {
	seen := map[string]bool{}
	note := func(by string, at time.Time) {
		if by != "" && !seen[by] {
			seen[by] = true
			r.Hands = append(r.Hands, by)
		}
		if at.IsZero() {
			return
		}
		if r.From.IsZero() || at.Before(r.From) {
			r.From = at
		}
		if at.After(r.To) {
			r.To = at
		}
	}
	for _, t := range j.Done {
		note(t.By, t.At)
	}
	for _, s := range j.Seen {
		note(s.By, s.At)
	}
	if j.Closed != nil {
		note(j.Closed.By, j.Closed.At)
	}
}
