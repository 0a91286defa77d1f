package job

// This file makes the next job from a change.

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"deepbay/internal/core/build"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/workorder"
)

// Do is what a change does.
type Do string

// The changes.
const (
	DoPlace     Do = "place"     // item into socket, in found or planned; what was there changes places or goes to the mat
	DoTakeOut   Do = "take out"  // item out of its socket
	DoMoves     Do = "moves"     // several placements and settings at once, as a cure asks
	DoSet       Do = "set"       // setting to value
	DoAdd       Do = "add"       // a part, given whole or as the words printed on it, becomes one or more pieces of the job
	DoRemove    Do = "remove"    // a piece leaves the job
	DoProcessor Do = "processor" // value names the one that is fitted
	DoWish      Do = "wish"      // what was asked for
	DoTick      Do = "tick"      // a step is done
	DoUntick    Do = "untick"    // it is not
	DoConfirm   Do = "confirm"   // a line shows what was expected
	DoRead      Do = "read"      // a line shows something: text is what was typed
	DoForget    Do = "forget"    // a reading is taken back
	DoExplain   Do = "explain"   // why a line that differs is right: text
	DoClose     Do = "close"     // the job ends
	DoReopen    Do = "reopen"    // it does not
)

// Values lists the changes for the formats.
func (Do) Values() []string {
	return []string{string(DoPlace), string(DoTakeOut), string(DoMoves), string(DoSet), string(DoAdd), string(DoRemove), string(DoProcessor), string(DoWish),
		string(DoTick), string(DoUntick), string(DoConfirm), string(DoRead), string(DoForget), string(DoExplain), string(DoClose), string(DoReopen)}
}

// State tells which of a job's two setups a change is about.
type State string

// As found, or as planned, which is meant when none is named.
const (
	InFound   State = "found"
	InPlanned State = "planned"
)

// Values lists the states for the formats.
func (State) Values() []string { return []string{string(InFound), string(InPlanned)} }

// Change is one thing done to a job. Which fields it needs follows from Do.
type Change struct {
	Do      Do                `json:"do"`
	In      State             `json:"in,omitempty"`
	Item    build.ItemID      `json:"item,omitempty"`
	Socket  machine.SocketID  `json:"socket,omitempty"`
	Setting machine.SettingID `json:"setting,omitempty"`
	Value   string            `json:"value,omitempty"`
	Moves   []build.Move      `json:"moves,omitempty" jsonschema:"maxItems=200"`
	Part    *part.Part        `json:"part,omitempty"`
	Serial  string            `json:"serial,omitempty" jsonschema:"maxLength=80"`
	New     bool              `json:"new,omitempty"`
	Wish    *build.Wish       `json:"wish,omitempty"`
	Step    string            `json:"step,omitempty" jsonschema:"maxLength=200"`
	Line    power.LineID      `json:"line,omitempty" jsonschema:"maxLength=80"`
	Text    string            `json:"text,omitempty" jsonschema:"maxLength=1000"`
}

// Stamp says who did something and when.
type Stamp struct {
	By string
	At time.Time
}

// Apply makes the job that follows from a change and a sentence for the journal.
// j is not touched. An error is a problem.List whose pointers are into the change.
func Apply(j Job, c Change, by Stamp) (Job, string, error) {
	a := applier{job: clone(j), change: c, by: by}
	says := a.apply()
	travel(&j.Found, &a.job.Found, c.Moves)
	travel(&j.Planned, &a.job.Planned, c.Moves)
	if err := a.list.Err(); err != nil {
		return j, "", err
	}
	if err := a.job.Validate().Err(); err != nil {
		return j, "", err
	}
	return a.job, says, nil
}

// travel keeps pieces on their carrier: where a slot's card has moved, what sits in
// its positions moves along, and to the mat where the card does. A piece that was
// told where to go stays there.
func travel(before, after *Setup, told []build.Move) {
	rides := func(p *build.Placement) bool {
		return build.Holder(p.Socket) != "" && !slices.ContainsFunc(told, func(m build.Move) bool { return m.Item == p.Item })
	}
	after.Placements = slices.DeleteFunc(after.Placements, func(p build.Placement) bool {
		i := before.holder(build.Holder(p.Socket))
		return rides(&p) && i >= 0 && after.where(before.Placements[i].Item) < 0
	})
	for n := range after.Placements {
		p := &after.Placements[n]
		slot := build.Holder(p.Socket)
		if i := before.holder(slot); rides(p) && i >= 0 {
			now := after.Placements[after.where(before.Placements[i].Item)].Socket
			p.Socket = now + p.Socket[len(slot):]
		}
	}
}

// clone copies what Apply may change; sheet and parts are only ever replaced whole.
func clone(j Job) Job {
	j.Parts, j.Items = slices.Clone(j.Parts), slices.Clone(j.Items)
	j.Found.Placements, j.Found.Settings = slices.Clone(j.Found.Placements), slices.Clone(j.Found.Settings)
	j.Planned.Placements, j.Planned.Settings = slices.Clone(j.Planned.Placements), slices.Clone(j.Planned.Settings)
	j.Done, j.Seen, j.Explained = slices.Clone(j.Done), slices.Clone(j.Seen), slices.Clone(j.Explained)
	j.Wish.Keep = slices.Clone(j.Wish.Keep)
	return j
}

type applier struct {
	job    Job
	change Change
	by     Stamp
	list   problem.List
}

func (a *applier) refuse(pointer, says, cure string) string {
	a.list.Add(pointer, says, cure)
	return ""
}

func (a *applier) apply() string {
	c := &a.change
	if a.job.Closed != nil && c.Do != DoReopen {
		return a.refuse("/do", "the job is closed", "reopen it first")
	}
	switch c.Do {
	case DoPlace:
		return a.place()
	case DoTakeOut:
		return a.takeOut()
	case DoMoves:
		return a.moves()
	case DoSet:
		return a.set(a.setup(), c.Setting, c.Value)
	case DoAdd:
		return a.add()
	case DoRemove:
		return a.remove()
	case DoProcessor:
		a.job.Processor = machine.ProcessorID(c.Value)
		if p := a.job.Sheet.Processor(a.job.Processor); p != nil {
			return "the processor is " + p.Name
		}
		return "the processor is not known"
	case DoWish:
		if c.Wish == nil {
			return a.refuse("/wish", "no wish was given", "say what was asked for")
		}
		a.job.Wish = *c.Wish
		return "changed the wish"
	case DoTick, DoUntick:
		return a.tick()
	case DoConfirm, DoRead, DoForget:
		return a.read()
	case DoExplain:
		return a.explain()
	case DoClose:
		return a.close()
	case DoReopen:
		if a.job.Closed == nil {
			return a.refuse("/do", "the job is open", "")
		}
		a.job.Closed = nil
		return "reopened the job"
	}
	return a.refuse("/do", fmt.Sprintf("%q is not a change", c.Do), "")
}

func (a *applier) setup() *Setup {
	if a.change.In == InFound {
		return &a.job.Found
	}
	return &a.job.Planned
}

// where is the index of an item's placement, -1 if it is on the mat.
func (s *Setup) where(id build.ItemID) int {
	return slices.IndexFunc(s.Placements, func(p build.Placement) bool { return p.Item == id })
}

func (s *Setup) holder(id machine.SocketID) int {
	return slices.IndexFunc(s.Placements, func(p build.Placement) bool { return p.Socket == id })
}

func (a *applier) known(item build.ItemID, socket machine.SocketID) bool {
	a.job.mustKnow(&a.list, "/item", item)
	if b := a.job.build(*a.setup()); socket != "" && b.Socket(socket) == nil {
		a.refuse("/socket", fmt.Sprintf("no socket is named %q", socket), "the sheet has "+socketNames(&a.job.Sheet))
	}
	return len(a.list) == 0
}

func (a *applier) place() string {
	c, s := &a.change, a.setup()
	if c.Socket == "" {
		return a.refuse("/socket", "no socket was named", "say where it goes")
	}
	if !a.known(c.Item, c.Socket) {
		return ""
	}
	follow := c.In == InFound && a.agree(c.Item, c.Socket)
	says := a.put(s)
	if follow {
		a.put(&a.job.Planned)
	}
	if c.In == InFound && says != "" {
		says = "as found: " + says
	}
	return says
}

// agree reports whether the plan still has item and socket as they were found;
// then a correction of what was found goes into the plan as well.
func (a *applier) agree(item build.ItemID, socket machine.SocketID) bool {
	place := func(s *Setup) (at machine.SocketID, holder build.ItemID) {
		if i := s.where(item); i >= 0 {
			at = s.Placements[i].Socket
		}
		if i := s.holder(socket); i >= 0 {
			holder = s.Placements[i].Item
		}
		return at, holder
	}
	foundAt, foundHolder := place(&a.job.Found)
	plannedAt, plannedHolder := place(&a.job.Planned)
	return foundAt == plannedAt && foundHolder == plannedHolder
}

// put carries out a placement in one setup.
func (a *applier) put(s *Setup) string {
	c := &a.change
	says := "put " + a.job.Name(c.Item) + " into " + string(c.Socket)
	from, there := s.where(c.Item), s.holder(c.Socket)
	switch {
	case there >= 0 && there == from:
		return a.refuse("/socket", a.job.Name(c.Item)+" is in "+string(c.Socket)+" already", "")
	case there >= 0 && from >= 0: // the two change places
		says += " and " + a.job.Name(s.Placements[there].Item) + " into " + string(s.Placements[from].Socket)
		s.Placements[there].Socket = s.Placements[from].Socket
		s.Placements[from].Socket = c.Socket
	case there >= 0:
		says += ", " + a.job.Name(s.Placements[there].Item) + " goes to the mat"
		s.Placements[there].Item = c.Item
	case from >= 0:
		s.Placements[from].Socket = c.Socket
	default:
		s.Placements = append(s.Placements, build.Placement{Item: c.Item, Socket: c.Socket})
	}
	return says
}

func (a *applier) takeOut() string {
	c, s := &a.change, a.setup()
	if !a.known(c.Item, "") {
		return ""
	}
	i := s.where(c.Item)
	if i < 0 {
		return a.refuse("/item", a.job.Name(c.Item)+" is in no socket", "")
	}
	socket := s.Placements[i].Socket
	says := "took " + a.job.Name(c.Item) + " out of " + string(socket)
	if c.In == InFound {
		says = "as found: " + says
		if a.agree(c.Item, socket) {
			p := &a.job.Planned
			k := p.where(c.Item)
			p.Placements = slices.Delete(p.Placements, k, k+1)
		}
	}
	s.Placements = slices.Delete(s.Placements, i, i+1)
	return says
}

// moves lifts everything that moves and then sets it down, so that the order of
// the moves does not matter. A move to no socket takes the piece out.
func (a *applier) moves() string {
	if len(a.change.Moves) == 0 {
		return a.refuse("/moves", "no move was given", "")
	}
	s := a.setup()
	was := Setup{slices.Clone(s.Placements), slices.Clone(s.Settings)}
	for i, m := range a.change.Moves {
		at := "/moves/" + strconv.Itoa(i)
		switch {
		case m.Item == "" && m.Setting == "":
			a.refuse(at, "moves neither an item nor a setting", "name one of them")
		case m.Item != "":
			a.job.mustKnow(&a.list, at+"/item", m.Item)
			if w := s.where(m.Item); w >= 0 {
				s.Placements = slices.Delete(s.Placements, w, w+1)
			}
		}
	}
	var says []string // of what is other than before
	for _, m := range a.change.Moves {
		switch {
		case m.Setting != "":
			if set := a.set(s, m.Setting, m.Value); a.job.choice(was, m.Setting) != m.Value {
				says = append(says, set)
			}
		case m.Socket == "":
			if was.where(m.Item) >= 0 {
				says = append(says, "took "+a.job.Name(m.Item)+" out")
			}
		default:
			if h := s.holder(m.Socket); h >= 0 {
				s.Placements = slices.Delete(s.Placements, h, h+1)
			}
			s.Placements = append(s.Placements, build.Placement{Item: m.Item, Socket: m.Socket})
			if !slices.Contains(was.Placements, build.Placement{Item: m.Item, Socket: m.Socket}) {
				says = append(says, "put "+a.job.Name(m.Item)+" into "+string(m.Socket))
			}
		}
	}
	if len(says) == 0 {
		return "left everything where it is"
	}
	return strings.Join(says, "; ")
}

// choice is the value a setting has in a setup, chosen or by default.
func (j *Job) choice(s Setup, id machine.SettingID) string {
	if st := j.Sheet.Setting(id); st != nil {
		return build.Value(st, s.Settings)
	}
	return ""
}

func (a *applier) set(s *Setup, id machine.SettingID, value string) string {
	st := a.job.Sheet.Setting(id)
	if st == nil {
		return a.refuse("/setting", fmt.Sprintf("no setting is named %q", id), "name a setting of the sheet")
	}
	s.Settings = slices.DeleteFunc(s.Settings, func(c build.Choice) bool { return c.Setting == id })
	s.Settings = append(s.Settings, build.Choice{Setting: id, Value: value})
	return "set " + st.Name + " to " + st.OptionName(value)
}

func (a *applier) add() string {
	c := &a.change
	what, count, serials := c.Part, 1, []string{c.Serial}
	switch {
	case what == nil && c.Text == "":
		return a.refuse("/part", "no part was given", "choose one from the shelf, or type what is printed on it")
	case what == nil:
		read, problems := part.ReadWords(c.Text)
		if len(problems) > 0 {
			a.list = append(a.list, problems.Under("/text")...)
			return ""
		}
		what, count = &read.Part, read.Count
		if count > 1 {
			serials = strings.Fields(c.Serial)
		}
	}
	// The same part again is one entry; another under the same name is refused by Validate.
	if old := a.job.Part(what.ID); old == nil {
		a.job.Parts = append(a.job.Parts, *what)
	}
	n := len(a.job.Items) + 1
	id := func() build.ItemID { return build.ItemID("item-" + strconv.Itoa(n)) }
	for i := range count {
		for a.job.Item(id()) != nil {
			n++
		}
		piece := Item{ID: id(), Part: what.ID, New: c.New}
		if i < len(serials) {
			piece.Serial = serials[i]
		}
		a.job.Items = append(a.job.Items, piece)
	}
	kind := "found: "
	if c.New {
		kind = "to fit: "
	}
	if count > 1 {
		kind += strconv.Itoa(count) + " of "
	}
	return "added, " + kind + what.Name
}

func (a *applier) remove() string {
	c := &a.change
	if !a.known(c.Item, "") {
		return ""
	}
	says := "removed " + a.job.Name(c.Item) + " from the job"
	p := a.job.Item(c.Item).Part
	same := func(q build.Placement) bool { return q.Item == c.Item }
	a.job.Found.Placements = slices.DeleteFunc(a.job.Found.Placements, same)
	a.job.Planned.Placements = slices.DeleteFunc(a.job.Planned.Placements, same)
	a.job.Wish.Keep = slices.DeleteFunc(a.job.Wish.Keep, func(id build.ItemID) bool { return id == c.Item })
	a.job.Items = slices.DeleteFunc(a.job.Items, func(it Item) bool { return it.ID == c.Item })
	if !slices.ContainsFunc(a.job.Items, func(it Item) bool { return it.Part == p }) {
		a.job.Parts = slices.DeleteFunc(a.job.Parts, func(q part.Part) bool { return q.ID == p })
	}
	return says
}

func (a *applier) tick() string {
	c := &a.change
	steps := a.job.Order()
	i := slices.IndexFunc(steps, func(s workorder.Step) bool { return s.ID == c.Step })
	if i < 0 {
		return a.refuse("/step", fmt.Sprintf("the order has no step %q now", c.Step), "the plan has changed: look at the order again")
	}
	a.job.Done = slices.DeleteFunc(a.job.Done, func(t Tick) bool { return t.Step == c.Step })
	if c.Do == DoUntick {
		return "not done: " + steps[i].Do
	}
	b := a.job.PlannedBuild()
	if r := build.Resolve(&b); r.Stops() {
		return a.refuse("/step", "the plan is stopped: "+firstStop(&r), "cure it before you work by it")
	}
	a.job.Done = append(a.job.Done, Tick{Step: c.Step, By: a.by.By, At: a.by.At})
	return "done: " + steps[i].Do
}

func firstStop(r *build.Resolved) string {
	for _, f := range r.Findings {
		if f.Severity == build.Stops {
			return f.Says
		}
	}
	return ""
}

func (a *applier) read() string {
	c := &a.change
	b := a.job.PlannedBuild()
	r := build.Resolve(&b)
	lines := power.Compare(&b, &r, nil, nil)
	i := slices.IndexFunc(lines, func(l power.Line) bool { return l.ID == c.Line })
	if i < 0 {
		return a.refuse("/line", fmt.Sprintf("no line %q is expected now", c.Line), "the plan has changed: look at the lines again")
	}
	about := lines[i].About
	var reading power.Reading
	switch c.Do {
	case DoConfirm:
		want := power.Expect(&b, &r)
		k := slices.IndexFunc(want.Readings, func(x power.Reading) bool { return x.Line == c.Line })
		if k < 0 {
			return a.refuse("/line", about+" cannot be told, so there is nothing to confirm", "type what is shown")
		}
		reading = want.Readings[k]
		reading.Origin = power.Confirmed
	case DoRead:
		var err error
		if reading, err = power.Read(c.Line, c.Text); err != nil {
			return a.refuse("/text", err.Error(), "")
		}
	}
	a.job.Seen = slices.DeleteFunc(a.job.Seen, func(x power.Reading) bool { return x.Line == c.Line })
	a.job.Explained = slices.DeleteFunc(a.job.Explained, func(e Explanation) bool { return e.Line == c.Line })
	if c.Do == DoForget {
		return about + ": reading taken back"
	}
	reading.By, reading.At = a.by.By, a.by.At
	a.job.Seen = append(a.job.Seen, reading)
	if c.Do == DoConfirm {
		return about + ": as expected"
	}
	return about + ": shows " + reading.Raw
}

func (a *applier) explain() string {
	c := &a.change
	if c.Text == "" {
		return a.refuse("/text", "no reason was given", "say why the difference is right")
	}
	b := a.job.PlannedBuild()
	r := build.Resolve(&b)
	for _, l := range a.job.Lines(&r) {
		if l.ID == c.Line && (l.Verdict == power.Differs || l.Verdict == power.Explained) {
			a.job.Explained = slices.DeleteFunc(a.job.Explained, func(e Explanation) bool { return e.Line == c.Line })
			a.job.Explained = append(a.job.Explained, Explanation{Line: c.Line, Text: c.Text, By: a.by.By, At: a.by.At})
			return l.About + ": explained, " + c.Text
		}
	}
	return a.refuse("/line", fmt.Sprintf("line %q does not differ", c.Line), "only a difference needs a reason")
}

func (a *applier) close() string {
	done := a.job.ticked()
	for _, s := range a.job.Order() {
		if !done[s.ID] {
			return a.refuse("/do", "a step is not done: "+s.Do, "finish the work order, or take the step out of the plan")
		}
	}
	a.job.Closed = &Closing{By: a.by.By, At: a.by.At, Note: a.change.Text}
	return "closed the job"
}

func (j *Job) ticked() map[string]bool {
	out := make(map[string]bool, len(j.Done))
	for _, t := range j.Done {
		out[t.Step] = true
	}
	return out
}
