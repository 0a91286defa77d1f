package job

// This file is the hand-over page: what was fitted where, set, seen, left out, accepted, and
// what is still open. What it calls accepted, somebody accepted.

import (
	"cmp"
	"encoding/json"
	"hash/fnv"
	"slices"
	"strconv"
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/workorder"
)

// Report is what the owner takes along and the shop keeps.
type Report struct {
	Fitted   []Fitted // new in the machine, or moved
	Removed  []Fitted // found in it and not in the plan
	Stayed   []Fitted
	Set      []Set
	Seen     []power.Line
	Tests    []TestStand // those that nobody began included
	LeftOut  []LeftOutStep
	Open     []fact.Fact // what somebody still has to see to
	Unsaid   []fact.Fact // steps of which nothing is said: neither done, nor left out, nor begun
	Warnings int         // of the plan, that nobody has accepted yet and that could be
	Cautions []fact.Fact // what can lose data or hurt somebody once the machine has left
	Accepted []AcceptedLoss
	Notes    []fact.Fact // what the owner should know: ports that are off, slots that stay dead, screws that are missing
	Gained   []Gain      // what was measured before the work and after it
	Room     []fact.Fact // where a further drive, or more memory, would go
	Proven   []Proven    // what the machine was seen to do beyond what its sheet says
	Plain    []fact.Fact // what was done, for the owner
	Stages   []StageReport
	Hands    []string
	From     time.Time // first tick
	To       time.Time // last tick, reading or the closing
}

// StageReport is a finished stage on the page.
type StageReport struct {
	Name string
	By   string
	At   time.Time
	View View
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

// TestStand is how a test stands.
type TestStand struct {
	Says  fact.Fact
	Since time.Time // when it was begun, while it runs
}

// LeftOutStep is a step that was left out, why and by whom.
type LeftOutStep struct {
	Do     fact.Fact
	Reason string
	By     string
}

// AcceptedLoss is a warning of the plan that somebody accepted.
type AcceptedLoss struct {
	Says fact.Fact
	Acceptance
}

// Acceptance is that somebody accepted a warning of the plan, knowing what it says. It holds
// while the plan has that finding.
type Acceptance struct {
	Code   fit.Code   `json:"code" jsonschema:"minLength=1,maxLength=60"`
	Socket rig.Path   `json:"socket,omitzero" jsonschema:"maxLength=200"`
	Item   rig.ItemID `json:"item,omitempty" jsonschema:"maxLength=60"`
	Loss   string     `json:"loss,omitempty" jsonschema:"maxLength=16"` // which loss, so that another one under the same code is not accepted with it
	By     string     `json:"by,omitempty" jsonschema:"maxLength=80"`
	At     time.Time  `json:"at,omitzero"`
}

// of reports that an acceptance is of a finding as it is now.
func (c *Acceptance) of(f *fit.Finding) bool { return c.names(f) && c.Loss == loss(f) }

// names reports that it is about the same thing, be the loss larger by now.
func (c *Acceptance) names(f *fit.Finding) bool {
	return c.Code == f.Code && c.Socket == f.Socket && c.Item == f.Item
}

// loss tells what a finding says from what it would say with other numbers.
func loss(f *fit.Finding) string {
	h := fnv.New32a()
	if err := json.NewEncoder(h).Encode(f.Says); err != nil {
		return "" // values that no document holds tell nothing apart
	}
	return strconv.FormatUint(uint64(h.Sum32()), 16)
}

// AcceptedAs is by whom a finding of the plan was accepted, nil where nobody did.
func (j *Job) AcceptedAs(f *fit.Finding) *Acceptance {
	for i := range j.Accepted {
		if j.Accepted[i].of(f) {
			return &j.Accepted[i]
		}
	}
	return nil
}

// accept keeps that a warning is accepted, or all there are, or takes it back.
func (a *applier) accept() fact.Fact {
	r := a.job.PlannedRig()
	v := View{Job: a.job, Planned: fit.Resolve(&r)}
	f := a.job.FoundRig()
	v.Found = fit.Resolve(&f)
	quiet(&v.Job, &v.Found, &v.Planned)
	n := 0
	for i := range v.Planned.Findings {
		x := &v.Planned.Findings[i]
		if x.Severity != fit.Warns || x.Quiet || a.change.Finding == nil && len(x.Missing) > 0 || a.change.Finding != nil && !a.change.Finding.names(x) {
			continue
		}
		was := a.job.AcceptedAs(x) != nil
		a.job.Accepted = slices.DeleteFunc(a.job.Accepted, func(c Acceptance) bool { return c.names(x) })
		if a.change.Do == DoAccept {
			a.job.Accepted = append(a.job.Accepted, Acceptance{x.Code, x.Socket, x.Item, loss(x), a.by.By, a.by.At})
		}
		if was != (a.change.Do == DoAccept) {
			n++
		}
	}
	switch {
	case n == 0:
		return a.refuse("/finding", fact.Of(NoSuchFinding))
	case a.change.Do == DoUnaccept:
		return fact.Of(NotAccepted, fact.Count{N: n, Of: Warnings})
	}
	return fact.Of(Accepted, fact.Count{N: n, Of: Warnings})
}

func report(v *View) Report {
	j := &v.Job
	var r Report
	for _, it := range j.Items {
		p := j.Part(it.Part)
		from, to := j.first().Where(it.ID), j.Planned.Where(it.ID)
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
	for i := range j.Sheet.Settings {
		st := &j.Sheet.Settings[i]
		if a, b := rig.Value(st, j.first().Settings), rig.Value(st, j.Planned.Settings); a != b {
			r.Set = append(r.Set, Set{st.ID, a, b})
		}
	}
	for i := range v.Order {
		r.step(j, &v.Order[i])
	}
	for _, l := range v.Lines {
		if l.Reading != nil && !l.Reading.Lapsed {
			r.Seen = append(r.Seen, l)
		}
		switch l.Verdict {
		case power.NotLooked:
			r.Open = append(r.Open, fact.Of(NotLookedAt, l.About))
		case power.Differs:
			r.Open = append(r.Open, fact.Of(LineDiffers, l.About, l.Says))
		}
	}
	for _, it := range j.Items {
		at := j.Planned.Where(it.ID)
		switch {
		case at.IsZero() || len(j.Later) > 0:
		case it.Role == RoleTool:
			r.Open = append(r.Open, fact.Of(ToolStays, it.ID, at))
		case it.Role == RoleLeaves:
			r.Open = append(r.Open, fact.Of(LeaverStays, it.ID, at))
		}
	}
	if slices.ContainsFunc(r.Removed, func(f Fitted) bool { return f.Part.Drive != nil && j.Item(f.Item).Holds != rig.Blank }) {
		r.Cautions = append(r.Cautions, fact.Of(StillHolds))
	}
	r.findings(v)
	r.notes(v)
	r.Gained = j.gains(&v.Found, &v.Planned)
	r.room(v)
	r.Proven = proven(v)
	v.Report.Fitted, v.Report.Removed = r.Fitted, r.Removed
	r.Plain = plainly(v)
	r.when(j)
	for i := range j.Past {
		r.Stages = append(r.Stages, StageReport{j.Past[i].Name, j.Past[i].By, j.Past[i].At, Look(j.was(i))})
	}
	return r
}

// step says how a step of the order came out.
func (r *Report) step(j *Job, s *workorder.Step) {
	tick, test := j.tickOf(s.ID), j.testOf(s.ID)
	if tick == nil && test == nil {
		r.Unsaid = append(r.Unsaid, s.Do)
	}
	if tick != nil && tick.Reason != "" {
		r.LeftOut = append(r.LeftOut, LeftOutStep{s.Do, tick.Reason, tick.By})
	}
	switch {
	case test != nil:
		stand := TestStand{Says: test.says(s)}
		if test.State == TestRuns {
			stand.Since = test.Begun
		}
		r.Tests = append(r.Tests, stand)
		if test.State != TestPassed && tick == nil {
			r.Open = append(r.Open, test.says(s))
		}
	case tick == nil && s.Test != "":
		r.Tests = append(r.Tests, TestStand{Says: fact.Of(TestOpen, s.Do)})
		r.Open = append(r.Open, fact.Of(TestOpen, s.Do))
	case tick == nil:
		r.Open = append(r.Open, fact.Of(NotDone, s.Do))
	}
}

// findings says what of the plan is open, and what was accepted.
func (r *Report) findings(v *View) {
	for i := range v.Planned.Findings {
		f := &v.Planned.Findings[i]
		accepted := v.Job.AcceptedAs(f)
		switch {
		case f.Quiet:
		case f.Severity == fit.Warns && accepted != nil:
			r.Accepted = append(r.Accepted, AcceptedLoss{f.Says, *accepted})
		case f.Severity == fit.Warns && len(f.Missing) > 0: // a gap of the sheet or a label, no loss
			r.Notes = append(r.Notes, f.Says)
		case f.Severity == fit.Warns:
			r.Warnings++
			r.Open = append(r.Open, f.Says)
		case f.Severity == fit.Stops:
			r.Open = append(r.Open, f.Says)
		}
	}
}

// notes says what the owner will come upon some day: places of the machine that are dead
// as it is now, and why, and parts that came and were not fitted.
func (r *Report) notes(v *View) {
	if v.Starts.Is() {
		r.Notes = append(r.Notes, fact.Of(StartsFrom, v.Starts))
	}
	for i := range v.Planned.Sockets {
		s := &v.Planned.Sockets[i]
		if s.State != fit.Off || s.Item != "" {
			continue
		}
		for _, why := range s.Because() {
			r.Notes = append(r.Notes, fact.Of(StaysOff, s.Socket, why.Fact))
			break
		}
	}
	for i := range v.Job.Incidents {
		switch n := &v.Job.Incidents[i]; n.Ended {
		case "":
			r.Open = append(r.Open, n.Says())
		case Agreed:
			r.Notes = append(r.Notes, fact.Of(ScrewAgreed, n.Says()))
		}
	}
	for _, it := range v.Job.Items {
		if p := v.Job.Part(it.Part); it.New && !v.Job.everFitted(it.ID) && p.Fitting == nil {
			r.Notes = append(r.Notes, fact.Of(NotFitted, it.ID))
		}
	}
}

// mostRooms is how many places for a further drive are named.
const mostRooms = 3

// room says where a further drive would go, the fastest places first, and which memory slots are
// free.
func (r *Report) room(v *View) {
	var free []*fit.SocketState
	var slots []machine.SocketID
	for i := range v.Planned.Sockets {
		s := &v.Planned.Sockets[i]
		if s.Item != "" || s.State == fit.Off || s.State == fit.Stopped || s.Dead || s.Socket.Nested() {
			continue
		}
		switch k := v.Job.Sheet.Socket(s.Socket.Top()); {
		case k == nil:
		case k.Kind.Memory():
			slots = append(slots, k.ID)
		case s.Link != nil && (k.Kind == machine.M2 || k.Kind == machine.U2 || k.Kind == machine.SATA):
			free = append(free, s)
		}
	}
	slices.SortStableFunc(free, func(a, b *fit.SocketState) int { return cmp.Compare(b.Link.Planning().Low, a.Link.Planning().Low) })
	for _, s := range free[:min(len(free), mostRooms)] {
		r.Room = append(r.Room, fact.Of(RoomForDrive, s.Socket, *s.Link))
	}
	if len(free) == 0 {
		r.Room = append(r.Room, fact.Of(NoRoomForDrive))
	}
	if len(slots) > 0 {
		r.Room = append(r.Room, fact.Of(RoomForMemory, slots))
	}
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
	for _, t := range j.Tests {
		note(t.By, t.At)
	}
	for _, s := range j.Seen {
		note(s.By, s.At)
	}
	if j.Closed != nil {
		note(j.Closed.By, j.Closed.At)
	}
}
