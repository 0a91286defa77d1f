package job

// This file is the hand-over page: what was fitted where, set, seen, left open.

import (
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// Report is what the owner takes along and the shop keeps.
type Report struct {
	Fitted  []Fitted // new in the machine, or moved
	Removed []Fitted // found in it and not in the plan
	Stayed  []Fitted
	Set     []Set
	Seen    []power.Line
	Open    []fact.Fact // what somebody still has to see to
	Agreed  []fact.Fact // losses the plan accepts
	Hands   []string
	From    time.Time // first tick
	To      time.Time // last tick, reading or the closing
}

// Fitted is one piece and its place.
type Fitted struct {
	Item   rig.ItemID
	Part   *part.Part
	Serial string
	Socket rig.Path
	From   rig.Path         // moved from here
	Runs   *fit.SocketState // what it does there
}

// Set is one setting that was changed.
type Set struct {
	Setting  machine.SettingID
	From, To string
}

func report(v *View) Report {
	j := &v.Job
	var r Report
	for _, it := range j.Items {
		p := j.Part(it.Part)
		from, to := j.Found.Where(it.ID), j.Planned.Where(it.ID)
		f := Fitted{Item: it.ID, Part: p, Serial: it.Serial, Socket: to}
		for i := range v.Planned.Sockets {
			if s := &v.Planned.Sockets[i]; s.Item == it.ID {
				f.Runs = s
			}
		}
		switch {
		case to.IsZero() && !from.IsZero():
			f.From = from
			r.Removed = append(r.Removed, f)
		case !to.IsZero() && from == to:
			r.Stayed = append(r.Stayed, f)
		case !to.IsZero():
			f.From = from
			r.Fitted = append(r.Fitted, f)
		}
	}
	found, planned := j.FoundRig(), j.PlannedRig()
	for i := range j.Sheet.Settings {
		st := &j.Sheet.Settings[i]
		if a, b := found.Choice(st), planned.Choice(st); a != b {
			r.Set = append(r.Set, Set{st.ID, a, b})
		}
	}
	done := j.ticked()
	for _, s := range v.Order {
		if !done[s.ID] {
			r.Open = append(r.Open, fact.Of(NotDone, s.Do))
		}
	}
	for _, l := range v.Lines {
		if l.Verdict != power.NotLooked {
			r.Seen = append(r.Seen, l)
		}
		switch l.Verdict {
		case power.NotLooked:
			r.Open = append(r.Open, fact.Of(NotLookedAt, l.About))
		case power.Differs:
			r.Open = append(r.Open, fact.Of(LineDiffers, l.About, l.Says))
		}
	}
	for _, f := range v.Planned.Findings {
		switch {
		case f.Quiet:
		case f.Severity == fit.Stops:
			r.Open = append(r.Open, f.Says)
		case f.Severity == fit.Warns:
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
