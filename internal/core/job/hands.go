package job

// This file is what hands did: steps done or left out, tests and how they ended, and what
// must be done anew when the machine is opened again.

import (
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/workorder"
)

// Tick is a step that was done, or left out for a reason.
type Tick struct {
	Step   string `json:"step" jsonschema:"minLength=1,maxLength=200"`
	Reason string `json:"reason,omitempty" jsonschema:"maxLength=500"` // it was left out, and why
	workorder.Deed
	Seconds int       `json:"seconds,omitempty" jsonschema:"minimum=1,maximum=86400"` // how long hands were at it, where somebody took the time
	Over    bool      `json:"over,omitempty"`                                         // work inside began again afterwards: it counts no more
	By      string    `json:"by,omitempty" jsonschema:"maxLength=80"`
	At      time.Time `json:"at,omitzero"`
}

// TestState is how far a test has come; one that nobody began has none.
type TestState string

// The states of a test.
const (
	TestRuns   TestState = "running"
	TestPassed TestState = "passed"
	TestErrors TestState = "errors"
)

// Values lists the states for the formats.
func (TestState) Values() []string {
	return []string{string(TestRuns), string(TestPassed), string(TestErrors)}
}

// TestRun is a test that was begun, by the step that asks for it.
type TestRun struct {
	Step   string    `json:"step" jsonschema:"minLength=1,maxLength=200"`
	State  TestState `json:"state"`
	Passes int       `json:"passes,omitempty" jsonschema:"minimum=1,maximum=100000"` // how many it came through without an error
	Text   string    `json:"text,omitempty" jsonschema:"maxLength=500"`              // what its errors were, or how long it ran
	Over   bool      `json:"over,omitempty"`                                         // what it tested was changed afterwards: it counts no more
	Begun  time.Time `json:"begun,omitzero"`
	By     string    `json:"by,omitempty" jsonschema:"maxLength=80"`
	At     time.Time `json:"at,omitzero"`
}

// tickOf is what was last done about a step, nil for nothing.
func (j *Job) tickOf(step string) *Tick {
	for i := range j.Done {
		if t := &j.Done[i]; t.Step == step && !t.Over {
			return t
		}
	}
	return nil
}

// testOf is how the test of a step stands, nil where nobody began it.
func (j *Job) testOf(step string) *TestRun {
	for i := range j.Tests {
		if t := &j.Tests[i]; t.Step == step && !t.Over {
			return t
		}
	}
	return nil
}

// answered reports that somebody did a step, left it out, or began its test.
func (j *Job) answered(s *workorder.Step) bool { return j.tickOf(s.ID) != nil || j.testOf(s.ID) != nil }

// steps finds the steps that a change names in the order, with their pointers.
func (a *applier) steps() ([]*workorder.Step, []string) {
	c := &a.change
	ids, at := c.Steps, func(i int) string { return "/steps/" + strconv.Itoa(i) }
	if len(ids) == 0 {
		ids, at = []string{c.Step}, func(int) string { return "/step" }
	}
	order := a.job.Order()
	var steps []*workorder.Step
	var pointers []string
	for i, id := range ids {
		n := slices.IndexFunc(order, func(s workorder.Step) bool { return s.ID == id })
		if n < 0 {
			a.refuse(at(i), fact.Of(NoSuchStep, id))
			return nil, nil
		}
		steps, pointers = append(steps, &order[n]), append(pointers, at(i))
	}
	return steps, pointers
}

// lost is what the work order does not reach, which only a sheet with layers tells.
func (j *Job) lost() []workorder.Lost {
	if len(j.Sheet.Layers) == 0 {
		return nil
	}
	return j.Work().Lost
}

// mayBegin refuses work on a plan that is stopped.
func (a *applier) mayBegin(pointer string) bool {
	b := a.job.PlannedRig()
	r := fit.Resolve(&b)
	if r.Stops() {
		a.refuse(pointer, fact.Of(PlanStopped, r.FirstStop().Says))
	} else if b := a.job.blocks(&r, a.job.lost()); len(b) > 0 {
		a.refuse(pointer, fact.Of(PlanStopped, b[0].Says))
	}
	return len(a.list) == 0
}

// tick marks steps as done or not done, or leaves them out for a reason.
func (a *applier) tick() fact.Fact {
	c := &a.change
	steps, at := a.steps()
	if len(a.list) > 0 {
		return fact.Fact{}
	}
	if c.Do != DoUntick && !a.mayBegin(at[0]) {
		return fact.Fact{}
	}
	if c.Do == DoLeaveOut && c.Text == "" {
		return a.refuse("/text", fact.Of(NoReasonLeft))
	}
	var says []fact.Fact
	for i, s := range steps {
		first := a.job.needed(s)
		switch {
		case c.Do == DoTick && len(steps) > 1 && s.Erases():
			return a.refuse(at[i], fact.Of(ErasesAlone, s.Do))
		case c.Do == DoTick && s.Test != "":
			return a.refuse(at[i], fact.Of(SayHowItEnded, s.Do))
		case c.Do == DoTick && s.Powered() && a.job.Dropped() != nil:
			return a.refuse(at[i], fact.Of(PowerHeld, a.job.Dropped().Says()))
		case c.Do == DoTick && first.Is():
			return a.refuse(at[i], fact.Of(NeedsFirst, s.Do, first))
		case c.Do == DoTick && a.job.unproved(s) != nil:
			t := a.job.unproved(s)
			return a.refuse(at[i], fact.Of(ProofFirst, t.From, t.To))
		case c.Do == DoTick && s.Erases() && a.job.lacks(a.job.State(), s, c.Text) != "":
			return a.refuse("/text", a.job.tell(s))
		case c.Do == DoLeaveOut && s.Danger.Is() && !c.Sure:
			return a.refuse("/sure", fact.Of(Dangerous, s.Do, s.Danger))
		}
		if c.Do == DoTick && a.job.Did(s.ID) { // said twice: it happened once
			says = append(says, fact.Of(Done, s.Do))
			continue
		}
		if c.Do == DoTick && !a.deed(at[i], s.ID, s.Effects...) {
			return fact.Fact{}
		}
		a.job.Done = slices.DeleteFunc(a.job.Done, func(t Tick) bool { return t.Step == s.ID && !t.Over })
		if c.Do != DoTick {
			a.job.void(s.ID, a.by)
		}
		switch c.Do {
		case DoUntick:
			a.job.Tests = slices.DeleteFunc(a.job.Tests, func(t TestRun) bool { return t.Step == s.ID && !t.Over })
			a.counts(s)
			says = append(says, fact.Of(NotDoneAgain, s.Do))
		case DoLeaveOut:
			a.job.Done = append(a.job.Done, Tick{Step: s.ID, Reason: c.Text, By: a.by.By, At: a.by.At})
			says = append(says, fact.Of(LeftOut, s.Do, fact.Typed(c.Text)))
		default:
			a.do(s)
			says = append(says, fact.Of(Done, s.Do))
		}
	}
	if len(says) == 1 {
		return says[0]
	}
	return fact.Of(Together, says)
}

// counts makes a step count again that was ended by one that was not done after all.
func (a *applier) counts(s *workorder.Step) {
	for i := len(a.job.Done) - 1; i >= 0; i-- {
		if t := &a.job.Done[i]; t.Over && (t.Step == workorder.Undoes(s.ID) || workorder.Undoes(t.Step) == s.ID) {
			t.Over = a.job.tickOf(t.Step) != nil
			return
		}
	}
}

// tell is what must be typed before a step that erases counts as done.
func (j *Job) tell(s *workorder.Step) fact.Fact {
	id := j.lacks(j.State(), s, "")
	for _, ask := range j.asks(j.State(), s) {
		if ask.Item == id {
			return fact.Of(map[workorder.Mark]fact.Code{workorder.BySerial: ConfirmFirst, workorder.ByPlace: ConfirmPlace, workorder.ByTape: ConfirmTape}[ask.By], s.Do, ask.Item, fact.Typed(ask.Word))
		}
	}
	return fact.Of(ConfirmFirst, s.Do)
}

// typedWords is what was typed, word by word, as it is compared.
func typedWords(text string) []string {
	words := strings.FieldsFunc(text, func(r rune) bool { return unicode.IsSpace(r) || r == ',' || r == ';' })
	for i, w := range words {
		words[i] = fact.Fold(w)
	}
	return words
}

// do keeps that a step was done. What takes another step back ends that one, and is ended
// when it is done again.
func (a *applier) do(s *workorder.Step) {
	for i := range a.job.Done {
		if t := &a.job.Done[i]; t.Step == workorder.Undoes(s.ID) || workorder.Undoes(t.Step) == s.ID {
			t.Over = true
		}
	}
	if len(a.job.Done) >= mostTicks { // the journal has them
		a.job.Done = slices.DeleteFunc(a.job.Done, func(t Tick) bool { return t.Over })
	}
	a.job.Done = append(a.job.Done, Tick{Step: s.ID, Deed: workorder.DeedOf(s), Seconds: a.took(), By: a.by.By, At: a.by.At})
	if !mends(s.ID) && s.Phase == workorder.Fit && s.Bay != "" && (rig.On(machine.SocketID(s.Bay)) != s.Socket || !a.job.Found.Where(s.Item).IsZero()) { // it lies there now, whatever else comes
		a.move(&a.job.Planned, []rig.Move{{Item: s.Item, Socket: s.Socket, Bay: s.Bay}}, itself)
	}
}

// took is how long hands were at the step, where they did one.
func (a *applier) took() int {
	if len(a.change.Steps) > 1 {
		return 0
	}
	return a.change.Seconds
}

// mostTicks is how many ticks a job keeps before it lets go of those that count no more.
const mostTicks = 800

// deeds is what hands did and was not taken back.
func (j *Job) deeds() []workorder.Deed {
	var out []workorder.Deed
	for _, t := range j.Done {
		if n, _ := workorder.Mends(t.Step); n > 0 || t.Over || t.Reason != "" {
			continue // a cure leaves every piece where it is planned
		}
		d := t.Deed
		d.Step = t.Step
		out = append(out, d)
	}
	return out
}

// test keeps how far a test has come.
func (a *applier) test() fact.Fact {
	c := &a.change
	steps, at := a.steps()
	switch {
	case len(a.list) > 0:
		return fact.Fact{}
	case len(steps) != 1 || steps[0].Test == "":
		return a.refuse(at[0], fact.Of(NoTest))
	case c.Result == nil:
		return a.refuse("/result", fact.Of(NoResult))
	case c.Result.State == TestPassed && steps[0].Test == rig.MemoryTest && c.Result.Passes < 1:
		return a.refuse("/result/passes", fact.Of(NoPasses))
	case c.Result.State == TestErrors && c.Result.Text == "":
		return a.refuse("/result/text", fact.Of(WhichErrors))
	case a.job.Dropped() != nil:
		return a.refuse(at[0], fact.Of(PowerHeld, a.job.Dropped().Says()))
	case !a.mayBegin(at[0]):
		return fact.Fact{}
	}
	s := steps[0]
	t := *c.Result
	t.Step, t.Over, t.By, t.At, t.Begun = s.ID, false, a.by.By, a.by.At, a.by.At
	if old := a.job.testOf(s.ID); old != nil && t.State != TestRuns {
		t.Begun = old.Begun
	}
	a.job.Tests = append(slices.DeleteFunc(a.job.Tests, func(x TestRun) bool { return x.Step == s.ID && !x.Over }), t)
	a.job.Done = slices.DeleteFunc(a.job.Done, func(x Tick) bool { return x.Step == s.ID && !x.Over })
	if t.State == TestPassed && s.Test == rig.LoadTest { // links are read at work, and temperatures hot
		for i := range a.job.Seen {
			if x := &a.job.Seen[i]; x.Line.Kind == power.LinkOf || x.Line.Kind == power.Heat || x.Line.Kind == power.Counts {
				x.Lapse()
			}
		}
	}
	if t.State == TestPassed {
		a.job.Done = append(a.job.Done, Tick{Step: s.ID, By: a.by.By, At: a.by.At})
	}
	return t.says(s)
}

// loaded reports that a load test ended well.
func (j *Job) loaded() bool {
	return slices.ContainsFunc(j.Tests, func(t TestRun) bool { return t.Step == workorder.LoadStep && t.State == TestPassed && !t.Over })
}

// says is how a test stands.
func (t *TestRun) says(s *workorder.Step) fact.Fact {
	switch {
	case t.State == TestErrors:
		return fact.Of(TestFailed, s.Do, fact.Typed(t.Text))
	case t.State == TestRuns:
		return fact.Of(TestIsRunning, s.Do)
	case t.Passes > 0:
		return fact.Of(TestCame, s.Do, fact.Count{N: t.Passes, Of: Passes})
	case t.Text != "":
		return fact.Of(TestRan, s.Do, fact.Typed(t.Text))
	}
	return fact.Of(TestWell, s.Do)
}

// renew makes new what must be done once more where work inside begins again: of a machine
// that had power since, the plug, the strap, the opening and the closing; of one that had not, the
// layers that are back already. They stand there unticked.
func renew(old, now *Job) {
	started := now.tickOf(workorder.StartStep)
	powered := started != nil && started.Reason == ""
	if !powered && !slices.ContainsFunc(now.Done, func(t Tick) bool { return !t.Over && workorder.Opened(t.Step) != "" }) {
		return
	}
	open := func(j *Job, order []workorder.Step) []string {
		var out []string
		for i := range order {
			if s := &order[i]; s.Inside && s.Layer == "" && j.tickOf(s.ID) == nil && !mends(s.ID) {
				out = append(out, s.ID)
			}
		}
		return out
	}
	before, after := old.Order(), now.Order()
	was := open(old, before)
	again := slices.DeleteFunc(open(now, after), func(id string) bool { return slices.Contains(was, id) })
	if len(again) == 0 {
		return
	}
	over := func(step string) {
		if t := now.tickOf(step); t != nil {
			t.Over = true
		}
	}
	for _, s := range slices.Concat(before, after) {
		if mends(s.ID) {
			continue
		}
		switch s.Phase {
		case workorder.PowerDown, workorder.Open, workorder.PowerOn, workorder.Close:
			if powered && s.Layer == "" { // a cover that lay loose is off still
				over(s.ID)
			}
		}
	}
	for i := range now.Done {
		if t := &now.Done[i]; !t.Over && workorder.Opened(t.Step) != "" && !mends(t.Step) {
			t.Over = true
			over(workorder.Opened(t.Step))
		}
	}
}

// mends reports a step of a cure, which opens and closes the machine by itself.
func mends(step string) bool {
	n, _ := workorder.Mends(step)
	return n > 0
}

// openedAgain reports that the machine was closed, as far as it was, and is opened once more.
func (j *Job) openedAgain() bool {
	return slices.ContainsFunc(j.Done, func(t Tick) bool { return t.Over && workorder.Opens(t.Step) && !mends(t.Step) })
}

// close ends the job. What is open stands on the page and does not hold it back; that
// nobody said anything of a step does, and so does a job in which nothing was fitted.
func (a *applier) close() fact.Fact {
	order := a.job.Order()
	if len(a.job.Later) > 0 {
		return a.refuse("/do", fact.Of(StagesToCome, fact.Typed(a.job.Later[0].Name)))
	}
	if len(order)+len(a.job.Past) == 0 && !a.change.Sure {
		return a.refuse("/sure", fact.Of(NothingFitted))
	}
	for i := range order {
		if s := &order[i]; !a.job.answered(s) {
			return a.refuse("/do", fact.Of(StepNotDone, s.Do))
		}
	}
	a.job.Closed = &Closing{By: a.by.By, At: a.by.At, Note: a.change.Text}
	return fact.Of(ClosedJob)
}
