package job

// This file is the stages of a job: a drive in a box outside first and inside after the copy,
// a disk that is unplugged until the system is installed. Each stage has its own plan, order
// and readings. The fields of Job are those of the stage that is at work; what is finished
// lies in Past, what is to come in Later, which knows no more than its plan.

import (
	"slices"
	"strconv"
	"strings"
	"time"

	"deepbay/internal/core/data"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/workorder"
)

// PastStage is a stage that is finished.
type PastStage struct {
	Name      string          `json:"name" jsonschema:"maxLength=120"`
	Found     rig.Setup       `json:"found"`
	Planned   rig.Setup       `json:"planned"`
	Done      []Tick          `json:"done" jsonschema:"maxItems=1000"`
	Tests     []TestRun       `json:"tests,omitempty" jsonschema:"maxItems=1000"`
	Before    []power.Reading `json:"before,omitempty" jsonschema:"maxItems=2000"`
	Seen      []power.Reading `json:"seen" jsonschema:"maxItems=2000"`
	Explained []Explanation   `json:"explained" jsonschema:"maxItems=2000"`
	Accepted  []Acceptance    `json:"accepted,omitempty" jsonschema:"maxItems=1000"`
	Cures     []Mending       `json:"cures,omitempty" jsonschema:"maxItems=50"`
	By        string          `json:"by,omitempty" jsonschema:"maxLength=80"`
	At        time.Time       `json:"at,omitzero"`
}

// LaterStage is a stage that is still to come.
type LaterStage struct {
	Name    string    `json:"name" jsonschema:"minLength=1,maxLength=120"`
	Planned rig.Setup `json:"planned"`
}

// StageOf is one stage by its name.
type StageOf struct {
	Name string
	At   int // 0 is at work, 1 and more are to come, below 0 finished
}

// stages lists all stages, oldest first; none where the job has but one.
func (j *Job) stages() []StageOf {
	if len(j.Past)+len(j.Later) == 0 {
		return nil
	}
	var out []StageOf
	for i := range j.Past {
		out = append(out, StageOf{j.Past[i].Name, i - len(j.Past)})
	}
	out = append(out, StageOf{j.StageName, 0})
	for i := range j.Later {
		out = append(out, StageOf{j.Later[i].Name, i + 1})
	}
	return out
}

// Ahead is the job as it stands when a stage that is to come begins, the first of them 1;
// 0 is the job as it is. False is a stage that there is not.
func (j *Job) Ahead(n int) (Job, bool) {
	if n < 0 || n > len(j.Later) {
		return *j, false
	}
	out := clone(*j)
	for i := range j.Later[:n] {
		out.step(&j.Later[i], Stamp{})
	}
	return out, true
}

// step ends the stage at work and begins the next, with its plan. What was read last is what
// the screens showed of the machine as the next stage finds it.
func (j *Job) step(next *LaterStage, by Stamp) {
	j.Past = append(slices.Clone(j.Past), PastStage{j.StageName, j.Found, j.Planned, j.Done, j.Tests, j.Before, j.Seen, j.Explained, j.Accepted, j.Cures, by.By, by.At})
	j.Before = slices.DeleteFunc(slices.Clone(j.Seen), func(x power.Reading) bool { return x.Lapsed })
	left := j.left()
	if !by.At.IsZero() { // not only looked ahead to
		left = j.Left()
	}
	j.StageName, j.Found, j.Planned = next.Name, left, next.Planned.Clone()
	j.Done, j.Tests, j.Seen, j.Explained, j.Accepted = []Tick{}, nil, []power.Reading{}, []Explanation{}, nil
	j.Checked, j.Cures, j.Strange = nil, nil, nil
	j.Later = slices.Clone(j.Later[1:])
	j.dropAnswered()
}

// left is the machine as planned, with every drive said to lie in the bay where it lies, for
// whoever finds it so does not know where it lay before.
func (j *Job) left() rig.Setup {
	out, r := j.Planned.Clone(), j.PlannedRig()
	out.Bays = nil
	for _, l := range fit.Bays(&r) {
		if out.Where(l.Item) != rig.On(machine.SocketID(l.Bay)) {
			out.Bays = append(out.Bays, l)
		}
	}
	return out
}

// Left is the machine as hands left it: what was left out, or nobody did, is as it was found.
func (j *Job) Left() rig.Setup {
	out := j.left()
	var moves []rig.Move
	seen := map[rig.ItemID]bool{}
	order := j.raw().Steps
	for i := range order {
		s := &order[i]
		if s.Choice.Setting != "" && !mends(s.ID) && !j.Did(s.ID) {
			if st := j.Sheet.Setting(s.Choice.Setting); st != nil {
				moves = append(moves, rig.Move{Setting: st.ID, Value: rig.Value(st, j.Found.Settings)})
			}
		}
		if s.Item == "" || s.Layer != "" || mends(s.ID) || s.Phase != workorder.Fit && s.Phase != workorder.TakeOut || seen[s.Item] {
			continue
		}
		seen[s.Item] = true
		if at := j.handed(order, s.Item); at != out.Where(s.Item) {
			moves = append(moves, rig.Move{Item: s.Item, Socket: at, Bay: j.Found.Told(s.Item)})
		}
	}
	r := j.PlannedRig()
	r.Setup = out
	if after, _, err := r.Moved(moves); err == nil {
		return after
	}
	return out
}

// handed is where hands have put a part that the order moves.
func (j *Job) handed(order []workorder.Step, id rig.ItemID) rig.Path {
	at := j.Found.Where(id)
	for i := range order {
		s := &order[i]
		if s.Item != id || s.Layer != "" || mends(s.ID) || !j.Did(s.ID) {
			continue
		}
		switch s.Phase {
		case workorder.TakeOut:
			if !workorder.MovesLead(s.ID) {
				at = rig.Path{}
			}
		case workorder.Fit:
			at = s.Socket
			if p := j.Planned.Where(id); workorder.MovesLead(s.ID) && !p.IsZero() {
				at = p
			}
		}
	}
	return at
}

// Undone is a job as it was before its last change, with the record going on: bytes do not come back
// by a word, so what hands had done meanwhile is said not to have happened.
func Undone(now, before Job, by Stamp) Job {
	known := map[int]bool{}
	for i := range before.Hands {
		known[before.Hands[i].N] = true
	}
	meant, out := before.Hands.Voided(), before
	out.Hands = slices.Clone(now.Hands)
	for i := len(now.Hands) - 1; i >= 0; i-- {
		e := &now.Hands[i]
		void := out.Hands.Voided()
		switch {
		case e.Voids > 0 && !known[e.N] && !void[e.N] && known[e.Voids] && !meant[e.Voids]:
			out.note(data.Event{Step: e.Step, Voids: e.N}, by) // that happened after all
		case e.Voids == 0 && !known[e.N] && !void[e.N] && len(e.Effects) > 0:
			out.note(data.Event{Step: e.Step, Voids: e.N}, by)
		}
	}
	return out
}

// was is the job as a finished stage left it.
func (j *Job) was(i int) Job {
	p := &j.Past[i]
	out := *j
	out.StageName, out.Found, out.Planned, out.Done, out.Tests, out.Before, out.Seen, out.Explained, out.Accepted, out.Cures = p.Name, p.Found, p.Planned, p.Done, p.Tests, p.Before, p.Seen, p.Explained, p.Accepted, p.Cures
	out.Checked, out.Strange = nil, nil
	out.Past, out.Later, out.Closed = nil, []LaterStage{{}}, nil // it was not the last
	return out
}

// Stages is each finished stage as a job of its own, and the one at work.
func (j *Job) Stages() []Job {
	out := make([]Job, 0, len(j.Past)+1)
	for i := range j.Past {
		out = append(out, j.was(i))
	}
	return append(out, *j)
}

// first is the machine as it came.
func (j *Job) first() *rig.Setup {
	if len(j.Past) > 0 {
		return &j.Past[0].Found
	}
	return &j.Found
}

// everFitted reports a piece that some stage has in the machine.
func (j *Job) everFitted(id rig.ItemID) bool {
	has := func(s *rig.Setup) bool { return !s.Where(id).IsZero() }
	return has(&j.Planned) || has(&j.Found) ||
		slices.ContainsFunc(j.Past, func(p PastStage) bool { return has(&p.Planned) }) ||
		slices.ContainsFunc(j.Later, func(l LaterStage) bool { return has(&l.Planned) })
}

// wish is what a stage is measured against: all of it at the last, before that only what
// must be known of the machine whatever is in it.
func (j *Job) wish() rig.Wish {
	if len(j.Later) == 0 {
		return j.Wish
	}
	w := j.Wish
	w.MemoryBytes, w.SystemBytes, w.SystemFast, w.Keep, w.Tests = 0, 0, false, nil, nil
	return w
}

// applyAhead makes a change in a stage that is to come: only its plan can change.
func applyAhead(j Job, c Change, by Stamp) (Job, fact.Fact, error) {
	refuse := func(pointer string, why fact.Fact) (Job, fact.Fact, error) {
		return j, fact.Fact{}, problem.List{{Pointer: pointer, Fact: why}}
	}
	switch c.Do {
	case DoPlace, DoTakeOut, DoAside, DoMoves, DoBay, DoSet:
	default:
		return refuse("/do", fact.Of(OnlyPlanAhead))
	}
	ahead, ok := j.Ahead(c.Stage)
	if !ok || c.In == InFound {
		return refuse("/stage", fact.Of(NoSuchStage, c.Stage))
	}
	n := c.Stage
	c.Stage = 0
	after, says, err := Apply(ahead, c, by)
	if err != nil {
		return j, fact.Fact{}, err
	}
	out := clone(j)
	out.Later[n-1].Planned = after.Planned
	out.Later = append(out.Later[:n], after.Later...)
	return out, fact.Of(InStage, fact.Typed(after.StageName), says), nil
}

// follow makes in later stages what a change made in the plan before them, as far as they
// agreed with it: what goes in now is not taken out again by a plan that did not know of it.
func follow(old, now *Job) {
	if len(now.Later) == 0 || len(old.Later) != len(now.Later) || old.Planned.Equal(&now.Planned) {
		return
	}
	for i := range now.Later {
		now.Later[i].Planned = now.merged(&old.Planned, &now.Planned, now.Later[i].Planned)
	}
}

// merged is a plan with what differs between two others, where it is as the first has it.
func (j *Job) merged(from, to *rig.Setup, plan rig.Setup) rig.Setup {
	var moves []rig.Move
	for _, it := range j.Items {
		a, b := from.Where(it.ID), to.Where(it.ID)
		if bay := to.Told(it.ID); a == b && bay != "" && bay != from.Told(it.ID) && plan.Where(it.ID) == a && plan.Told(it.ID) == from.Told(it.ID) {
			moves = append(moves, rig.Move{Item: it.ID, Socket: a, Bay: bay})
		}
		if a == b || plan.Where(it.ID) != a {
			continue
		}
		if there := plan.In(b); !b.IsZero() && there != "" && to.Where(there) == plan.Where(there) {
			continue // something lies there that stays
		}
		moves = append(moves, rig.Move{Item: it.ID, Socket: b, Bay: to.Told(it.ID)})
	}
	for i := range j.Sheet.Settings {
		st := &j.Sheet.Settings[i]
		if a, b := rig.Value(st, from.Settings), rig.Value(st, to.Settings); a != b && rig.Value(st, plan.Settings) == a {
			moves = append(moves, rig.Move{Setting: st.ID, Value: b})
		}
	}
	r := j.rig(plan)
	if after, _, err := r.Moved(moves); err == nil {
		return after
	}
	return plan
}

// stage adds, names, drops and ends stages.
func (a *applier) stage() fact.Fact {
	c, j := &a.change, &a.job
	name := strings.TrimSpace(c.Text)
	switch c.Do {
	case DoAddStage:
		switch {
		case name == "":
			return a.refuse("/text", fact.Of(NoStageName))
		case len(j.Later) >= mostStages:
			return a.refuse("/do", fact.Of(TooManyStages, mostStages))
		}
		if j.StageName == "" {
			if j.StageName = strings.TrimSpace(c.Value); j.StageName == "" {
				return a.refuse("/value", fact.Of(NoStageName))
			}
		}
		last := j.Planned
		if n := len(j.Later); n > 0 {
			last = j.Later[n-1].Planned
		}
		j.Later = append(j.Later, LaterStage{name, last.Clone()})
		return fact.Of(AddedStage, fact.Typed(name))
	case DoNameStage:
		if name == "" {
			return a.refuse("/text", fact.Of(NoStageName))
		}
		switch {
		case c.Value == "" || c.Value == "0":
			j.StageName = name
		default:
			l, why := j.later(c.Value)
			if l == nil {
				return a.refuse("/value", why)
			}
			l.Name = name
		}
		return fact.Of(NamedStage, fact.Typed(name))
	case DoDropStage:
		l, why := j.later(c.Value)
		if l == nil {
			return a.refuse("/value", why)
		}
		says := fact.Of(DroppedStage, fact.Typed(l.Name))
		n, _ := strconv.Atoi(c.Value)
		j.Later = slices.Delete(j.Later, n-1, n)
		if len(j.Later)+len(j.Past) == 0 {
			j.StageName = ""
		}
		return says
	}
	if len(j.Later) == 0 {
		return a.refuse("/do", fact.Of(LastStage))
	}
	for _, s := range j.Order() {
		if !j.answered(&s) {
			return a.refuse("/do", fact.Of(StepNotDone, s.Do))
		}
	}
	if len(j.Past) >= mostPast {
		return a.refuse("/do", fact.Of(TooManyStages, mostPast))
	}
	says := fact.Of(NextStage, fact.Typed(j.StageName), fact.Typed(j.Later[0].Name))
	j.step(&j.Later[0], a.by)
	return says
}

// How many stages a job has at most: still to come, and finished.
const (
	mostStages = 8
	mostPast   = 40
)

// later is a stage that is to come, by its number.
func (j *Job) later(number string) (*LaterStage, fact.Fact) {
	n, err := strconv.Atoi(number)
	if err != nil || n < 1 || n > len(j.Later) {
		return nil, fact.Of(NoSuchStage, n)
	}
	return &j.Later[n-1], fact.Fact{}
}

// aside takes a piece out of this stage's plan, and leaves it where it was in those after
// it; where there is none, one is added in which everything is back.
func (a *applier) aside() fact.Fact {
	c, j := &a.change, &a.job
	if j.mustKnow(&a.list, "/item", c.Item); len(a.list) > 0 {
		return fact.Fact{}
	}
	at := j.Planned.Where(c.Item)
	if at.IsZero() {
		return a.refuse("/item", fact.Of(InNoSocket, j.Name(c.Item)))
	}
	if len(j.Later) == 0 {
		name := strings.TrimSpace(c.Text)
		if name == "" {
			return a.refuse("/text", fact.Of(NoStageName))
		}
		if j.StageName == "" {
			if j.StageName = strings.TrimSpace(c.Value); j.StageName == "" {
				return a.refuse("/value", fact.Of(NoStageName))
			}
		}
		j.Later = append(j.Later, LaterStage{name, j.Planned.Clone()})
	}
	a.move(&j.Planned, []rig.Move{{Item: c.Item}}, itself)
	return fact.Of(OutForNow, c.Item, at)
}
