package job

// This file makes the next job from a change.

import (
	"errors"
	"slices"
	"strconv"
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fault"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/measure"
	"deepbay/internal/core/part"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/power"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
)

// Do is what a change does.
type Do string

// The changes.
const (
	DoPlace      Do = "place"     // item into socket, in found or planned; what was there changes places or goes to the mat
	DoTakeOut    Do = "take out"  // item out of its socket
	DoMoves      Do = "moves"     // several placements and settings at once, as a cure asks
	DoAside      Do = "aside"     // item out of its socket until a later stage; text and value name that and this one where there is none yet
	DoBay        Do = "bay"       // a drive lies in the bay named by value; in which one it fits best where none is named
	DoSet        Do = "set"       // setting to value
	DoAdd        Do = "add"       // pieces of a part, or of lines of what is printed on them, each with the places where they were found
	DoCorrect    Do = "correct"   // a piece is other than was written: serial, new and holds as given, and part where one is given
	DoRemove     Do = "remove"    // a piece leaves the job
	DoRole       Do = "role"      // what a piece is for afterwards: value
	DoArray      Do = "array"     // drives work together: array
	DoNoArray    Do = "no array"  // they do not: value names it
	DoSheet      Do = "sheet"     // another version of the sheet is taken: sheet
	DoSchedule   Do = "schedule"  // where the machine stands is value, and when it is due is text
	DoFresh      Do = "fresh"     // a new machine with nothing in it: value is yes or no
	DoProcessor  Do = "processor" // value names the one that is fitted
	DoWish       Do = "wish"      // what was asked for
	DoTick       Do = "tick"      // a step is done, or several
	DoUntick     Do = "untick"    // it is not
	DoLeaveOut   Do = "leave out" // a step is not done, for a reason: text; sure where that is dangerous
	DoTest       Do = "test"      // how far the test is that a step asks for: result
	DoConfirm    Do = "confirm"   // a line shows what was expected, or several do
	DoRead       Do = "read"      // a line shows something: text is what was typed
	DoForget     Do = "forget"    // a reading is taken back
	DoExplain    Do = "explain"   // why a line that differs is right: text
	DoAccept     Do = "accept"    // a warning of the plan is accepted, all of them where none is named
	DoUnaccept   Do = "unaccept"  // it is not
	DoAddStage   Do = "add stage" // one more stage after the others: text; value names the one at work where it has no name
	DoNameStage  Do = "name stage"
	DoDropStage  Do = "drop stage"  // value is its number
	DoNextStage  Do = "next stage"  // the one at work is finished
	DoLook       Do = "look"        // fact was looked up: value is what it is
	DoUnlook     Do = "unlook"      // that is taken back
	DoIncident   Do = "incident"    // something happened to a fastener: incident
	DoSettle     Do = "settle"      // value names an incident, and incident says how it ended; sure and text where a dropped one stays in the machine
	DoDiffers    Do = "differs"     // the machine is other than its sheet: differs
	DoToSheet    Do = "to sheet"    // what value names is written into the job's sheet
	DoStuck      Do = "stuck"       // a layer or a piece does not go: stuck
	DoUnstuck    Do = "unstuck"     // value names what does after all
	DoPractice   Do = "practice"    // what the shop does where practitioners differ: practice
	DoObserve    Do = "observe"     // what a machine told about itself: observation
	DoCheck      Do = "check"       // what a check showed while a fault is looked for: check
	DoUncheck    Do = "uncheck"     // value names a check: that is taken back
	DoCure       Do = "cure"        // value names a fault: its cure joins the order
	DoUncure     Do = "uncure"      // value is the number of a cure that nobody began
	DoMeasure    Do = "measure"     // series were measured: measured
	DoUnmeasure  Do = "unmeasure"   // value is the number of a series that is none
	DoLayout     Do = "layout"      // a blank drive gets volumes: layout
	DoNoLayout   Do = "no layout"   // value names a drive, or an array as array:name, that gets none
	DoWipe       Do = "wipe"        // a drive that was taken out is wiped: value is how thoroughly, text the end of its serial number, sure that it was read back
	DoUnwipe     Do = "unwipe"      // it is not
	DoTransfer   Do = "transfer"    // data comes from an old drive onto a new one: transfer
	DoNoTransfer Do = "no transfer" // value is the number of one that does not
	DoProve      Do = "prove"       // value is the number of one that did: proof

	DoLetters  Do = "letters"  // under which letters, or where, the volumes of item are seen: text
	DoPapers   Do = "papers"   // warranty of item ends on value, and it can be returned until text
	DoFate     Do = "fate"     // what became of item, which is out: value
	DoAgree    Do = "agree"    // the owner agreed to what was done: text is who
	DoDisagree Do = "disagree" // that is taken back

	DoClose  Do = "close"  // the job ends; sure where nothing was fitted
	DoReopen Do = "reopen" // it does not
)

// Values lists the changes for the formats.
func (Do) Values() []string {
	return []string{string(DoPlace), string(DoTakeOut), string(DoAside), string(DoMoves), string(DoBay), string(DoSet), string(DoAdd), string(DoCorrect), string(DoRemove), string(DoRole), string(DoArray), string(DoNoArray), string(DoSheet), string(DoSchedule), string(DoFresh), string(DoProcessor), string(DoWish),
		string(DoTick), string(DoUntick), string(DoLeaveOut), string(DoTest), string(DoConfirm), string(DoRead), string(DoForget), string(DoExplain), string(DoAccept), string(DoUnaccept), string(DoAddStage), string(DoNameStage), string(DoDropStage), string(DoNextStage), string(DoLook), string(DoUnlook), string(DoIncident), string(DoSettle), string(DoDiffers), string(DoToSheet), string(DoStuck), string(DoUnstuck), string(DoPractice), string(DoObserve), string(DoCheck), string(DoUncheck), string(DoCure), string(DoUncure), string(DoMeasure), string(DoUnmeasure), string(DoLayout), string(DoNoLayout), string(DoWipe), string(DoUnwipe), string(DoTransfer), string(DoNoTransfer), string(DoProve), string(DoLetters), string(DoPapers), string(DoFate), string(DoAgree), string(DoDisagree), string(DoClose), string(DoReopen)}
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
	Do          Do                 `json:"do"`
	In          State              `json:"in,omitempty"`
	Stage       int                `json:"stage,omitempty" jsonschema:"minimum=1,maximum=8"` // in the plan of a stage that is to come, the first of them 1
	Item        rig.ItemID         `json:"item,omitempty"`
	Socket      rig.Path           `json:"socket,omitzero"`
	Setting     machine.SettingID  `json:"setting,omitempty"`
	Value       string             `json:"value,omitempty"`
	Moves       []rig.Move         `json:"moves,omitempty" jsonschema:"maxItems=200"`
	Part        *part.Part         `json:"part,omitempty"`
	Parts       []part.Part        `json:"parts,omitempty" jsonschema:"maxItems=64"` // several, a piece of each; moves name them as plan.OnShelf does
	Items       []rig.ItemID       `json:"items,omitempty" jsonschema:"maxItems=64"` // several at once
	Serial      string             `json:"serial,omitempty" jsonschema:"maxLength=80"`
	New         bool               `json:"new,omitempty"`
	Holds       rig.Content        `json:"holds,omitempty"`
	Alone       bool               `json:"alone,omitempty"` // a correction is of this piece, and of no other of its kind
	Wish        *rig.Wish          `json:"wish,omitempty"`
	Step        string             `json:"step,omitempty" jsonschema:"maxLength=200"`
	Steps       []string           `json:"steps,omitempty" jsonschema:"maxItems=500"` // several at once
	Result      *TestRun           `json:"result,omitempty"`
	Line        power.LineID       `json:"line,omitzero" jsonschema:"maxLength=80"`
	Lines       []power.LineID     `json:"lines,omitempty" jsonschema:"maxItems=2000"` // several at once
	Sure        bool               `json:"sure,omitempty"`                             // the danger was named and seen
	Text        string             `json:"text,omitempty" jsonschema:"maxLength=4000"`
	Fact        *rig.Fact          `json:"fact,omitempty"`
	Finding     *Acceptance        `json:"finding,omitempty"`
	Incident    *Incident          `json:"incident,omitempty"`
	Differs     *Difference        `json:"differs,omitempty"`
	Stuck       *Stuck             `json:"stuck,omitempty"`
	Practice    practice.Practice  `json:"practice,omitempty" jsonschema:"maxItems=64"`
	Check       *fault.Answered    `json:"check,omitempty"`
	Observation *power.Observation `json:"observation,omitempty"`
	Seconds     int                `json:"seconds,omitempty" jsonschema:"minimum=1,maximum=86400"` // how long hands were at the step
	Measured    []measure.Series   `json:"measured,omitempty" jsonschema:"maxItems=100"`
	Layout      *volume.Layout     `json:"layout,omitempty"`
	Transfer    *volume.Transfer   `json:"transfer,omitempty"`
	Proof       *volume.Proof      `json:"proof,omitempty"`
	Array       *rig.DriveArray    `json:"array,omitempty"`
	Sheet       *machine.Sheet     `json:"sheet,omitempty"`
}

// Stamp says who did something and when.
type Stamp struct {
	By string
	At time.Time
}

// Apply makes the job that follows from a change and a sentence for the journal.
// j is not touched. An error is a problem.List whose pointers are into the change.
func Apply(j Job, c Change, by Stamp) (Job, fact.Fact, error) {
	if c.Stage != 0 {
		return applyAhead(j, c, by)
	}
	a := applier{job: clone(j), change: c, by: by}
	a.job.Hands = j.record() // of a job of before there were records: from its ticks
	says := a.apply()
	if err := a.list.Err(); err != nil {
		return j, fact.Fact{}, err
	}
	if c.Do != DoAside && c.Do != DoNextStage {
		follow(&j, &a.job)
	}
	if err := a.job.Validate().Err(); err != nil {
		return j, fact.Fact{}, err
	}
	if c.Do != DoWipe && c.Do != DoUnwipe && c.Do != DoProve {
		said(&j, &a.job, by)
	}
	if !slices.Contains(statements, c.Do) && !slices.Contains(deeds, c.Do) && (writes(&j) || writes(&a.job)) {
		if a.intends(&j); len(a.list) > 0 {
			return j, fact.Fact{}, a.list
		}
	}
	if c.Do != DoNextStage {
		lapse(&j, &a.job)
		renew(&j, &a.job)
		a.endCures()
	}
	return a.job, says, nil
}

// clone copies what Apply may change; sheet and parts are only ever replaced whole.
func clone(j Job) Job {
	j.Parts, j.Items = slices.Clone(j.Parts), slices.Clone(j.Items)
	j.Found, j.Planned = j.Found.Clone(), j.Planned.Clone()
	j.Later, j.Arrays = slices.Clone(j.Later), slices.Clone(j.Arrays)
	j.Tests, j.Accepted = slices.Clone(j.Tests), slices.Clone(j.Accepted)
	j.Done, j.Before, j.Seen, j.Explained, j.Looked = slices.Clone(j.Done), slices.Clone(j.Before), slices.Clone(j.Seen), slices.Clone(j.Explained), slices.Clone(j.Looked)
	j.Wish.Keep = slices.Clone(j.Wish.Keep)
	j.Strange = slices.Clone(j.Strange)
	j.Checked, j.Cures, j.Measured = slices.Clone(j.Checked), slices.Clone(j.Cures), slices.Clone(j.Measured)
	j.Layouts, j.Wiped, j.Transfers = slices.Clone(j.Layouts), slices.Clone(j.Wiped), slices.Clone(j.Transfers)
	j.Incidents, j.Differs, j.Stuck = slices.Clone(j.Incidents), slices.Clone(j.Differs), slices.Clone(j.Stuck)
	return j
}

type applier struct {
	job    Job
	change Change
	by     Stamp
	list   problem.List
}

func (a *applier) refuse(pointer string, why fact.Fact) fact.Fact {
	a.list.Add(pointer, why)
	return fact.Fact{}
}

// longest is how many letters a job keeps of what is typed in a change.
var longest = map[Do]int{DoExplain: 500, DoLeaveOut: 500, DoRead: 80, DoClose: 1000, DoAside: 120, DoAddStage: 120, DoNameStage: 120, DoSchedule: 60, DoSettle: 500}

func (a *applier) apply() fact.Fact {
	c := &a.change
	if most := longest[c.Do]; most > 0 && len([]rune(c.Text)) > most {
		return a.refuse("/text", fact.Of(TooLong, most))
	} else if most > 0 && len([]rune(c.Value)) > most {
		return a.refuse("/value", fact.Of(TooLong, most))
	}
	if a.job.Closed != nil && c.Do != DoReopen {
		return a.refuse("/do", fact.Of(JobIsClosed))
	}
	switch c.Do {
	case DoPlace:
		return a.place()
	case DoTakeOut:
		return a.takeOut()
	case DoAside:
		return a.aside()
	case DoAddStage, DoNameStage, DoDropStage, DoNextStage:
		return a.stage()
	case DoMoves:
		return a.moves()
	case DoBay:
		return a.bay()
	case DoSet:
		return a.set(a.setup(), c.Setting, c.Value)
	case DoAdd:
		return a.add()
	case DoCorrect:
		return a.correct()
	case DoRemove:
		return a.remove()
	case DoRole:
		return a.role()
	case DoArray, DoNoArray:
		return a.setArray()
	case DoSheet:
		return a.takeSheet()
	case DoSchedule:
		return a.schedule()
	case DoFresh:
		return a.fresh()
	case DoProcessor:
		a.job.Processor = machine.ProcessorID(c.Value)
		if p := a.job.Sheet.Processor(a.job.Processor); p != nil {
			return fact.Of(ProcessorIs, fact.Typed(p.Name))
		}
		return fact.Of(ProcessorUnknown)
	case DoWish:
		if c.Wish == nil {
			return a.refuse("/wish", fact.Of(NoWish))
		}
		a.job.Wish = *c.Wish
		return fact.Of(ChangedWish)
	case DoTick, DoUntick, DoLeaveOut:
		return a.tick()
	case DoTest:
		return a.test()
	case DoConfirm, DoRead, DoForget:
		return a.read()
	case DoExplain:
		return a.explain()
	case DoAccept, DoUnaccept:
		return a.accept()
	case DoLook, DoUnlook:
		return a.look()
	case DoPractice:
		if a.list = CheckPractice(c.Practice); len(a.list) > 0 {
			return fact.Fact{}
		}
		a.job.Practice = c.Practice
		return fact.Of(PracticeTaken)
	case DoIncident, DoSettle, DoDiffers, DoToSheet, DoStuck, DoUnstuck:
		return a.happened()
	case DoObserve:
		return a.observe()
	case DoCheck, DoUncheck:
		return a.check()
	case DoCure, DoUncure:
		return a.cure()
	case DoMeasure, DoUnmeasure:
		return a.measured()
	case DoLayout, DoNoLayout:
		return a.layout()
	case DoWipe, DoUnwipe:
		return a.wipe()
	case DoTransfer, DoNoTransfer, DoProve:
		return a.transfer()
	case DoLetters:
		return a.letters()
	case DoPapers:
		return a.papers()
	case DoFate:
		return a.fate()
	case DoAgree, DoDisagree:
		return a.agreed()
	case DoClose:
		return a.close()
	case DoReopen:
		if a.job.Closed == nil {
			return a.refuse("/do", fact.Of(JobIsOpen))
		}
		a.job.Closed = nil
		return fact.Of(Reopened)
	}
	return a.refuse("/do", fact.Of(NoSuchChange, c.Do))
}

func (a *applier) setup() *rig.Setup {
	if a.change.In == InFound {
		return &a.job.Found
	}
	return &a.job.Planned
}

// move makes moves in one setup and tells which changed something; a fault is a
// problem at the pointer that the caller gives for its move.
func (a *applier) move(s *rig.Setup, moves []rig.Move, at func(*rig.Fault) string) []rig.Move {
	r := a.job.rig(*s)
	after, done, err := r.Moved(moves)
	var f *rig.Fault
	if errors.As(err, &f) {
		switch pointer := at(f); f.Kind {
		case rig.NoItem:
			a.job.mustKnow(&a.list, pointer+"/item", moves[f.Move].Item)
		case rig.OnItself:
			a.refuse(pointer+"/socket", fact.Of(OnItself, a.job.Name(moves[f.Move].Item)))
		case rig.NoBay:
			a.refuse(pointer+map[bool]string{true: "/value", false: "/bay"}[a.change.Do == DoBay], fact.Of(NoBayIsNamed, moves[f.Move].Bay, a.job.bayNames()))
		default:
			a.refuse(pointer+"/socket", fact.Of(NoSocketIsNamed, f.At, a.job.Sheet.SocketIDs()))
		}
		return nil
	}
	*s = after
	return done
}

// itself is the pointer of a change that makes one move.
func itself(*rig.Fault) string { return "" }

func (a *applier) place() fact.Fact {
	c, s := &a.change, a.setup()
	a.job.mustKnow(&a.list, "/item", c.Item)
	switch {
	case len(a.list) > 0:
		return fact.Fact{}
	case c.Socket.IsZero():
		return a.refuse("/socket", fact.Of(NoSocket))
	case s.In(c.Socket) == c.Item:
		return a.refuse("/socket", fact.Of(ThereAlready, a.job.Name(c.Item), c.Socket))
	}
	follow := c.In == InFound && a.agree(c.Item, c.Socket)
	if c.In == InFound { // somebody looked again: it is not empty
		a.job.Fresh = false
		a.job.Looked = slices.DeleteFunc(a.job.Looked, func(l Looked) bool { return l.Attr == rig.HoldsNow && l.Socket == c.Socket })
	}
	says := a.put(s)
	if follow {
		a.put(&a.job.Planned)
	}
	return a.asFound(says)
}

// agree reports whether the plan still has item and socket as they were found;
// then a correction of what was found goes into the plan as well.
func (a *applier) agree(item rig.ItemID, socket rig.Path) bool {
	found, planned := &a.job.Found, &a.job.Planned
	return found.Where(item) == planned.Where(item) && found.In(socket) == planned.In(socket)
}

// put carries out a placement in one setup.
func (a *applier) put(s *rig.Setup) fact.Fact {
	c := &a.change
	r := a.job.rig(*s)
	says := fact.Of(Put, c.Item, c.Socket)
	for _, m := range a.move(s, r.Put(c.Item, c.Socket), itself) {
		switch {
		case m.Item == c.Item:
		case m.Socket.IsZero():
			says = fact.Of(PutMat, c.Item, c.Socket, m.Item)
		default:
			says = fact.Of(PutAnd, c.Item, c.Socket, m.Item, m.Socket)
		}
	}
	return says
}

func (a *applier) takeOut() fact.Fact {
	c, s := &a.change, a.setup()
	if a.job.mustKnow(&a.list, "/item", c.Item); len(a.list) > 0 {
		return fact.Fact{}
	}
	socket := s.Where(c.Item)
	if socket.IsZero() {
		return a.refuse("/item", fact.Of(InNoSocket, a.job.Name(c.Item)))
	}
	says := fact.Of(TookOutOf, c.Item, socket)
	out := []rig.Move{{Item: c.Item}}
	if c.In == InFound {
		says = fact.Of(AsFound, says)
		if a.agree(c.Item, socket) {
			a.move(&a.job.Planned, out, itself)
		}
	}
	a.move(s, out, itself)
	return says
}

// bay tells in which bay a drive lies. What was found there is planned there, too, where the
// plan agreed with it.
func (a *applier) bay() fact.Fact {
	c, s := &a.change, a.setup()
	if a.job.mustKnow(&a.list, "/item", c.Item); len(a.list) > 0 {
		return fact.Fact{}
	}
	at := s.Where(c.Item)
	if at.IsZero() {
		return a.refuse("/item", fact.Of(InNoSocket, a.job.Name(c.Item)))
	}
	if c.Value == "" {
		s.Bays = slices.DeleteFunc(s.Bays, func(l rig.Lying) bool { return l.Item == c.Item })
		return a.asFound(fact.Of(LaidAnywhere, c.Item))
	}
	move := []rig.Move{{Item: c.Item, Socket: at, Bay: machine.BayID(c.Value)}}
	agree := c.In == InFound && a.job.Planned.Where(c.Item) == at && a.job.Planned.Told(c.Item) == s.Told(c.Item)
	a.move(s, move, itself)
	if agree && len(a.list) == 0 {
		a.move(&a.job.Planned, move, itself)
	}
	return a.asFound(fact.Of(LaidIn, c.Item, machine.BayID(c.Value), at))
}

// bayNames is the names of all bays of the machine.
func (j *Job) bayNames() []machine.BayID {
	var out []machine.BayID
	for _, b := range j.Sheet.EveryBay() {
		out = append(out, b.ID)
	}
	return out
}

// moves makes several moves at once, whatever their order.
func (a *applier) moves() fact.Fact {
	c, s := &a.change, a.setup()
	if len(c.Moves) == 0 {
		return a.refuse("/moves", fact.Of(NoMove))
	}
	var says []fact.Fact // of what is other than before
	if len(c.Parts) > 0 {
		added, named := a.several(true)
		says = append(says, added)
		c.Moves = slices.Clone(c.Moves)
		for i := range c.Moves {
			if id, ok := named[c.Moves[i].Item]; ok {
				c.Moves[i].Item = id
			}
		}
	}
	at := func(i int) string { return "/moves/" + strconv.Itoa(i) }
	for i, m := range c.Moves {
		switch {
		case m.Item == "" && m.Setting == "":
			a.refuse(at(i), fact.Of(MovesNothing))
		case m.Setting != "" && a.job.Sheet.Setting(m.Setting) == nil:
			a.refuse(at(i)+"/setting", fact.Of(NoSettingIsNamed, m.Setting))
		}
	}
	if len(a.list) > 0 {
		return fact.Fact{}
	}
	for _, m := range a.move(s, c.Moves, func(f *rig.Fault) string { return at(f.Move) }) {
		switch {
		case m.Setting != "":
			says = append(says, fact.Of(SetTo, Setting{m.Setting, m.Value}))
		case m.Socket.IsZero():
			says = append(says, fact.Of(TookOut, m.Item))
		case m.Bay != "":
			says = append(says, fact.Of(LaidIn, m.Item, m.Bay, m.Socket))
		default:
			says = append(says, fact.Of(Put, m.Item, m.Socket))
		}
	}
	if len(says) == 0 {
		return fact.Of(LeftAll)
	}
	return fact.Of(Together, says)
}

// Setting is a setting at a value, as an argument of facts.
type Setting struct {
	Setting machine.SettingID
	Value   string
}

func (a *applier) set(s *rig.Setup, id machine.SettingID, value string) fact.Fact {
	st := a.job.Sheet.Setting(id)
	if st == nil {
		return a.refuse("/setting", fact.Of(NoSettingIsNamed, id))
	}
	a.move(s, []rig.Move{{Setting: id, Value: value}}, itself)
	return fact.Of(SetTo, Setting{id, value})
}

func (a *applier) add() fact.Fact {
	c := &a.change
	switch {
	case len(c.Parts) > 0:
		says, _ := a.several(c.New)
		return says
	case c.Part != nil && c.Serial != "":
		return a.pieces(c.Part, 1, []string{c.Serial}, c.New, nil, nil)
	case c.Part != nil:
		return a.pieces(c.Part, 1, nil, c.New, nil, nil)
	case c.Text == "":
		return a.refuse("/part", fact.Of(NoPart))
	}
	return a.write()
}

// several adds a piece of each part, and says which is which by the names that the planner
// gives to parts of the shelf.
func (a *applier) several(isNew bool) (fact.Fact, map[rig.ItemID]rig.ItemID) {
	says, named := make([]fact.Fact, 0, len(a.change.Parts)), map[rig.ItemID]rig.ItemID{}
	for i := range a.change.Parts {
		p := &a.change.Parts[i]
		says = append(says, a.pieces(p, 1, nil, isNew, nil, nil))
		named[plan.OnShelf(p.ID)] = a.job.Items[len(a.job.Items)-1].ID
	}
	return fact.Of(Together, says), named
}

func itemID(n int) rig.ItemID { return rig.ItemID("item-" + strconv.Itoa(n)) }

func (a *applier) remove() fact.Fact {
	items := a.change.Items
	if len(items) == 0 {
		return a.removeOne(a.change.Item)
	}
	says := make([]fact.Fact, 0, len(items))
	for _, id := range items {
		if says = append(says, a.removeOne(id)); len(a.list) > 0 {
			return fact.Fact{}
		}
	}
	return fact.Of(Together, says)
}

func (a *applier) removeOne(id rig.ItemID) fact.Fact {
	if a.job.mustKnow(&a.list, "/item", id); len(a.list) > 0 {
		return fact.Fact{}
	}
	if slices.ContainsFunc(a.job.Done, func(t Tick) bool { return t.Item == id && t.Phase == workorder.Fit && !t.Over }) {
		return a.refuse("/item", fact.Of(WasFitted, a.job.Name(id)))
	}
	if slices.ContainsFunc(a.job.Past, func(p PastStage) bool {
		return !p.Found.Where(id).IsZero() || !p.Planned.Where(id).IsZero()
	}) {
		return a.refuse("/item", fact.Of(InPastStage, a.job.Name(id)))
	}
	says := fact.Of(Removed, fact.Typed(a.job.Name(id)))
	p := a.job.Item(id).Part
	a.move(&a.job.Found, []rig.Move{{Item: id}}, itself) // with what it holds
	a.move(&a.job.Planned, []rig.Move{{Item: id}}, itself)
	for i := range a.job.Later {
		a.move(&a.job.Later[i].Planned, []rig.Move{{Item: id}}, itself)
	}
	a.job.forget(id, p)
	for i := range a.job.Arrays {
		a.job.Arrays[i].Members = slices.DeleteFunc(slices.Clone(a.job.Arrays[i].Members), func(x rig.ItemID) bool { return x == id })
	}
	a.job.Arrays = slices.DeleteFunc(a.job.Arrays, func(x rig.DriveArray) bool { return !x.Level.Takes(len(x.Members)) })
	a.job.Layouts = slices.DeleteFunc(a.job.Layouts, func(l volume.Layout) bool { return l.Array != "" && a.job.array(l.Array) == nil })
	if a.job.Wish.Starts.Item == id {
		a.job.Wish.Starts = rig.Start{}
	}
	a.job.Wish.Keep = slices.DeleteFunc(a.job.Wish.Keep, func(x rig.ItemID) bool { return x == id })
	a.job.Layouts = slices.DeleteFunc(a.job.Layouts, func(l volume.Layout) bool { return l.Item == id })
	a.job.Transfers = slices.DeleteFunc(a.job.Transfers, func(t volume.Transfer) bool { return t.From == id || t.To == id })
	a.job.Wiped = slices.DeleteFunc(a.job.Wiped, func(w Wiped) bool { return w.Item == id })
	for i := range a.job.Measured { // what was measured of it is true still
		if s := &a.job.Measured[i]; s.Item == id {
			s.Item = ""
		}
	}
	a.job.Items = slices.DeleteFunc(a.job.Items, func(it Item) bool { return it.ID == id })
	if !slices.ContainsFunc(a.job.Items, func(it Item) bool { return it.Part == p }) {
		a.job.Parts = slices.DeleteFunc(a.job.Parts, func(q part.Part) bool { return q.ID == p })
	}
	return says
}

// asFound says that something is about the machine as it came.
func (a *applier) asFound(says fact.Fact) fact.Fact {
	if a.change.In == InFound && says.Is() {
		return fact.Of(AsFound, says)
	}
	return says
}
