package job

// This file is what is wrong with a machine after its first start: the checks that were made, what
// is left of the catalogue, and the cures, whose steps join the order.

import (
	"cmp"
	"slices"
	"strconv"
	"time"

	"deepbay/internal/core/access"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fault"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/workorder"
)

// Checked is a check that was made while looking for a fault.
type Checked struct {
	fault.Answered
	By string    `json:"by,omitempty" jsonschema:"maxLength=80"`
	At time.Time `json:"at,omitzero"`
}

// Mending is something that is put right after the machine was started.
type Mending struct {
	ID     int         `json:"id" jsonschema:"minimum=1,maximum=100000"`
	Fault  fault.Fault `json:"fault" jsonschema:"minLength=1,maxLength=200"`
	Item   rig.ItemID  `json:"item,omitempty" jsonschema:"maxLength=60"` // that lay there then
	Closed bool        `json:"closed,omitempty"`                         // the machine was closed again when it was begun
	By     string      `json:"by,omitempty" jsonschema:"maxLength=80"`
	At     time.Time   `json:"at,omitzero"`
	Ended  time.Time   `json:"ended,omitzero"` // all its steps are done
}

// mostCures and mostChecked are how many cures and checks a job keeps.
const (
	mostCures   = 50
	mostChecked = 200
)

// aroundWork is what it takes to shut a machine down, drain it and start it again, in minutes.
const aroundWork layer.Minutes = 4

// Case is the machine as planned, to look for faults in.
func (j *Job) Case() *fault.Case {
	planned := j.PlannedRig()
	return fault.Of(&planned, j.FaultWork())
}

// FaultWork is what the work has to do with faults.
func (j *Job) FaultWork() fault.Work {
	planned, found := j.PlannedRig(), j.FoundRig()
	var stack layer.Stack
	var lies rig.Setup
	if len(j.Sheet.Layers) > 0 {
		lies.Bays = fit.Bays(&planned)
		stack = access.Of(&planned, lies.Bays, j.barred())
	}
	minutes := map[rig.Path]layer.Minutes{}
	return fault.Work{
		Touched: func(id rig.ItemID) bool { return planned.Where(id) != found.Where(id) },
		Set: func(id machine.SettingID) bool {
			st := planned.Sheet.Setting(id)
			return st != nil && planned.Choice(st) != found.Choice(st)
		},
		Was: func(id machine.SettingID) string {
			if st := planned.Sheet.Setting(id); st != nil {
				return found.Choice(st)
			}
			return ""
		},
		Open: func(at rig.Path) layer.Minutes {
			m, known := minutes[at]
			if known {
				return m
			}
			m = aroundWork + 2 // a cover and the way back
			if len(stack.Layers) > 0 && !at.IsZero() {
				where := cmp.Or(layer.Named(lies.Told(planned.In(at))), layer.Named(at.Top()))
				if reach, ok := access.Minutes(&stack, []layer.Named{where}); ok {
					m = aroundWork + reach
				}
			}
			minutes[at] = m
			return m
		},
	}
}

// Signs is how the machine showed itself so far. What was explained is right, and no sign
// of anything.
func (j *Job) Signs() fault.Evidence {
	var e fault.Evidence
	for _, r := range j.Seen {
		if !r.Lapsed && !slices.ContainsFunc(j.Explained, func(x Explanation) bool { return x.Line == r.Line }) {
			e.Readings = append(e.Readings, r)
		}
	}
	for _, a := range j.Checked {
		e.Answers = append(e.Answers, a.Answered)
	}
	if n := len(j.Checked); n > 0 && j.Checked[n-1].Check.Look.LeavesOpen() && !slices.ContainsFunc(j.Seen, func(r power.Reading) bool { return r.At.After(j.Checked[n-1].At) }) {
		e.Open = true // and nobody started it since
	}
	return e
}

// Diagnosis is what is wrong with the machine, as far as what was seen tells.
func (j *Job) Diagnosis() fault.Diagnosis { return j.Case().Diagnose(j.Signs()) }

// check keeps what a check showed, or forgets it.
func (a *applier) check() fact.Fact {
	c := &a.change
	if c.Do == DoUncheck {
		k := fault.ParseCheck(c.Value)
		i := slices.IndexFunc(a.job.Checked, func(x Checked) bool { return x.Check == k })
		if i < 0 {
			return a.refuse("/value", fact.Of(NotChecked, fact.Typed(c.Value)))
		}
		a.job.Checked = slices.Delete(a.job.Checked, i, i+1)
		return fact.Of(ForgotCheck, k)
	}
	switch {
	case c.Check == nil:
		return a.refuse("/check", fact.Of(WhichCheck))
	case len(c.Check.Check.Look.Outcomes()) == 0:
		return a.refuse("/check/check", fact.Of(NoSuchCheck, fact.Typed(c.Check.Check.String())))
	case c.Check.Is != fault.Unclear && !slices.Contains(c.Check.Check.Look.Outcomes(), c.Check.Is):
		return a.refuse("/check/is", fact.Of(NoSuchOutcome, fact.Typed(c.Check.Is), c.Check.Check))
	case len(a.job.Checked) >= mostChecked:
		return a.refuse("/check", fact.Of(TooMany, mostChecked))
	}
	for _, at := range []rig.Path{c.Check.Check.At, c.Check.Check.With} {
		r := a.job.PlannedRig()
		if !at.IsZero() && r.Socket(at) == nil {
			return a.refuse("/check/check", fact.Of(NoSocketIsNamed, at, a.job.Sheet.SocketIDs()))
		}
	}
	a.job.Checked = slices.DeleteFunc(a.job.Checked, func(x Checked) bool { return x.Check == c.Check.Check })
	a.job.Checked = append(a.job.Checked, Checked{*c.Check, a.by.By, a.by.At})
	return fact.Of(MadeCheck, c.Check.Check, *c.Check)
}

// cure begins a cure, whose steps join the order, or drops one that nobody began.
func (a *applier) cure() fact.Fact {
	c := &a.change
	if c.Do == DoUncure {
		i := slices.IndexFunc(a.job.Cures, func(x Mending) bool { return strconv.Itoa(x.ID) == c.Value })
		if i < 0 {
			return a.refuse("/value", fact.Of(NoSuchNumber, fact.Typed(c.Value)))
		}
		if slices.ContainsFunc(a.job.Done, func(t Tick) bool { n, _ := workorder.Mends(t.Step); return n == a.job.Cures[i].ID }) {
			return a.refuse("/value", fact.Of(CureStarted))
		}
		says := fact.Of(DroppedCure, a.job.Cures[i].Fault)
		a.job.Cures = slices.Delete(a.job.Cures, i, i+1)
		return says
	}
	f := fault.Parse(c.Value)
	switch {
	case a.job.Case().Ways(f) == 0:
		return a.refuse("/value", fact.Of(NoSuchFault, fact.Typed(c.Value)))
	case len(a.job.Cures) >= mostCures:
		return a.refuse("/value", fact.Of(TooMany, mostCures))
	case !a.mayBegin("/do"):
		return fact.Fact{}
	}
	order := a.job.Order()
	closed := !slices.ContainsFunc(order, func(s workorder.Step) bool { return s.Phase == workorder.Close && !a.job.answered(&s) })
	a.job.Cures = append(a.job.Cures, Mending{ID: nextID(a.job.Cures, func(x *Mending) int { return x.ID }), Fault: f, Item: a.job.Planned.In(f.At), Closed: closed, By: a.by.By, At: a.by.At})
	return fact.Of(BeganCure, f)
}

// mend adds the steps of the cures to an order.
func (j *Job) mend(o *workorder.Order, w workorder.Job) {
	if len(j.Cures) == 0 {
		return
	}
	r := j.PlannedRig()
	for _, c := range j.Cures {
		do := workorder.Step{Do: fact.Of(CureIt, c.Fault), How: []fact.Fact{fact.Of(CureHow, c.Fault)}, Inside: c.Fault.Kind.Inside(), Takes: c.Fault.Kind.Minutes(), Guess: true}
		if st := j.Sheet.Setting(c.Fault.Setting); st != nil {
			do.Choice = rig.Choice{Setting: st.ID, Value: r.Choice(st)}
		}
		if !c.Fault.At.IsZero() {
			do.Item, do.Socket = j.Planned.In(c.Fault.At), c.Fault.At
			lies := rig.Setup{Bays: fit.Bays(&r)}
			do.Bay = lies.Told(do.Item)
		}
		if c.Fault.Kind.Cautioned() {
			do.Cautions = []workorder.Caution{{Topic: fact.Of(workorder.TopicBefore), Says: fact.Of(CureCaution, c.Fault)}}
		}
		var off []layer.ID
		for _, s := range j.off(o.Steps) {
			off = append(off, s.Layer)
		}
		o.Mend(w, c.ID, do, off, c.Closed)
	}
}

// endCures ends the cures whose steps are all done: what was read of lines that differed, and
// what checks showed, is of the machine before.
func (a *applier) endCures() {
	if !slices.ContainsFunc(a.job.Cures, func(c Mending) bool { return c.Ended.IsZero() }) {
		return
	}
	ended := false
	for i, p := range a.job.CureProgress() {
		if c := &a.job.Cures[i]; c.Ended.IsZero() && p.Done == p.Steps {
			c.Ended, ended = a.by.At, true
		}
	}
	if !ended {
		return
	}
	a.job.Checked = nil
	b := a.job.PlannedRig()
	r := fit.Resolve(&b)
	for _, l := range a.job.Lines(&r, nil) {
		if l.Verdict == power.Differs && l.Reading != nil {
			for i := range a.job.Seen {
				if x := &a.job.Seen[i]; x.Line == l.ID {
					x.Lapse()
				}
			}
		}
	}
}

// Progress is how far a cure has come.
type Progress struct {
	Done, Steps int
	Next        string // its first step that is not done
}

// CureProgress is how far each cure has come.
func (j *Job) CureProgress() []Progress {
	out := make([]Progress, len(j.Cures))
	if len(j.Cures) == 0 {
		return out
	}
	for _, s := range j.Order() {
		n, _ := workorder.Mends(s.ID)
		i := slices.IndexFunc(j.Cures, func(c Mending) bool { return c.ID == n })
		if i < 0 {
			continue
		}
		if out[i].Steps++; j.answered(&s) {
			out[i].Done++
		} else if out[i].Next == "" {
			out[i].Next = s.ID
		}
	}
	return out
}

// validateCures reports cures of faults that the catalogue does not hold, and checks that there
// are not.
func (j *Job) validateCures(l *problem.List) {
	for i := range j.Cures {
		if k := j.Cures[i].Fault.Kind; !slices.Contains(fault.Kinds(), k) {
			l.Add("/cures/"+strconv.Itoa(i)+"/fault", fact.Of(NoSuchFault, fact.Typed(j.Cures[i].Fault.String())))
		}
		if id := j.Cures[i].Item; id != "" {
			j.mustKnow(l, "/cures/"+strconv.Itoa(i)+"/item", id)
		}
	}
	for i := range j.Checked {
		if k := &j.Checked[i].Check; len(k.Look.Outcomes()) == 0 {
			l.Add("/checked/"+strconv.Itoa(i)+"/check", fact.Of(NoSuchCheck, fact.Typed(k.String())))
		}
	}
}
