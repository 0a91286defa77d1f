package say

// This file is a job and the planner's answers as documents: what the API and the files
// for programs carry, worded.

import (
	"fmt"
	"strconv"
	"strings"
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/measure"
	"deepbay/internal/core/part"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shelf"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
)

// Caution is what can hurt somebody or lose data at a step.
type Caution struct {
	Topic Text `json:"topic"`
	Says  Text `json:"says"`
}

// Step is one thing to do and tick off.
type Step struct {
	ID       StepID          `json:"id"`
	Phase    workorder.Phase `json:"phase"`
	Do       Text            `json:"do"`
	How      []Text          `json:"how"`
	Cautions []Caution       `json:"cautions"`
	Item     rig.ItemID      `json:"item,omitempty"`
	Socket   rig.Path        `json:"socket,omitzero"`
	Test     rig.Test        `json:"test,omitempty"`  // how it ended is told, not ticked
	Danger   Text            `json:"danger,omitzero"` // what can come of it if it is left out
	Layer    layer.ID        `json:"layer,omitempty"` // that it takes off or puts back, or whose lead it is
	Lead     int             `json:"lead,omitempty"`  // of that layer, from 1 on
	Shuts    bool            `json:"shuts,omitempty"` // it belongs to the way back
	Inside   bool            `json:"inside,omitempty"`
	Tools    []Text          `json:"tools"`
	See      Text            `json:"see,omitzero"`    // what must be seen before it counts as done
	Photo    bool            `json:"photo,omitempty"` // and is worth a photograph
	Minutes  layer.Minutes   `json:"minutes"`
	Guess    bool            `json:"guess,omitempty"`   // nobody measured that
	Confirm  int             `json:"confirm,omitempty"` // so many serial numbers are read off drives and their ends typed before it is done: it erases
	Runs     layer.Minutes   `json:"runs,omitzero"`     // its test runs so long by itself, roughly
	Asks     []Text          `json:"asks,omitempty"`    // how each drive that it erases is told from all others, as is typed before it is done
	Held     Text            `json:"held,omitzero"`     // why it must not be done as things are
	Look     []rig.ItemID    `json:"look,omitempty"`    // it is held until somebody says what these drives hold
}

// Cell is a place in the tray, with fasteners of one kind.
type Cell struct {
	N        int            `json:"n"`
	Of       Text           `json:"of"`   // what they came out of
	Says     Text           `json:"says"` // "4 screws M3 x 6 mm, cross-head 1"
	Layer    layer.ID       `json:"layer"`
	Fastener layer.Fastener `json:"fastener"`
	Out      StepID         `json:"out"`
	Back     StepID         `json:"back,omitempty"` // absent: they are kept with what stays off
	Laid     bool           `json:"laid"`           // they lie there now
}

// Off is what is off now: a layer, or a lead.
type Off struct {
	Layer layer.ID `json:"layer"`
	Lead  int      `json:"lead,omitempty"`
	Says  Text     `json:"says"`
	Back  StepID   `json:"back"` // with which it goes back
}

// PickLine is one thing to lay out before the machine is opened.
type PickLine struct {
	Sort  workorder.Sort `json:"sort"`
	Says  Text           `json:"says"`
	Count int            `json:"count"`
	Have  int            `json:"have"` // of these, with the job or in the machine
	Item  rig.ItemID     `json:"item,omitempty"`
	Shelf int            `json:"shelf"`             // how many more lie on the shelf
	Short bool           `json:"short,omitempty"`   // it is not there, as far as the shop's stock tells
	Part  bool           `json:"stocked,omitempty"` // it is a part that the shelf could hold
}

// Mishap is what happened to a fastener.
type Mishap struct {
	ID    int              `json:"id"`
	Kind  job.IncidentKind `json:"kind"`
	Says  Text             `json:"says"`
	Text  Name             `json:"text,omitempty"`
	By    Name             `json:"by,omitempty"`
	Ended job.Ended        `json:"ended,omitempty"`
	Holds bool             `json:"holds,omitempty"` // no power until it is found
}

// Observed is in what the machine is not as its sheet says, or what was tried and does not go.
type Observed struct {
	ID    int      `json:"id"`
	Says  Text     `json:"says"`
	Text  Name     `json:"text,omitempty"`
	By    Name     `json:"by,omitempty"`
	Taken bool     `json:"taken,omitempty"`
	Can   bool     `json:"can,omitempty"` // it can be written into the sheet
	Layer layer.ID `json:"layer,omitempty"`
}

// StepID names a step.
type StepID string

// Name is what people call a thing: typed or printed, not ours.
type Name string

// Show is how one kind of screen prints a value.
type Show struct {
	Where Text `json:"where"`
	Text  Text `json:"text"`
}

// Line is one line to compare: what should be shown, in the words and numbers of
// the screens, and what is.
type Line struct {
	ID       power.LineID   `json:"id"`
	Screen   power.Screen   `json:"screen"`
	Extra    bool           `json:"extra,omitempty"` // nobody need read it where all is as it should be
	About    Text           `json:"about"`           // "Memory total"
	Item     rig.ItemID     `json:"item,omitempty"`
	Serial   Name           `json:"serial,omitempty"` // of the piece it is about
	Touched  bool           `json:"touched"`          // this job can have changed what it shows
	Expected Text           `json:"expected"`
	Exact    bool           `json:"exact"` // and can be confirmed as it is
	Shows    []Show         `json:"shows"`
	Normal   Text           `json:"normal,omitzero"` // what looks wrong and is not
	Verdict  power.Verdict  `json:"verdict"`
	Seen     Text           `json:"seen,omitzero"`
	Was      Text           `json:"was,omitzero"`    // what was read of it before that was changed
	Proves   Text           `json:"proves,omitzero"` // what a message proves, and what it does not
	Says     Text           `json:"says,omitzero"`   // what the difference is
	Reading  *power.Reading `json:"reading,omitempty"`
	Reason   Name           `json:"reason,omitempty"` // why an explained difference is right
}

// Judgement is a verdict in a few words, and its reason where there is one.
type Judgement struct {
	Grade job.Standing `json:"grade"`
	Says  Text         `json:"says"`
	Why   Text         `json:"why,omitzero"`
}

// Changed is one thing that a change made different.
type Changed struct {
	In     job.State `json:"in"`              // which setup
	Socket rig.Path  `json:"socket,omitzero"` // absent: memory
	Turn   fit.Turn  `json:"turn"`
	Now    Text      `json:"now"`            // "Ternlight 1000, Gen 3 x4, 3.94 GB/s"
	Was    Text      `json:"was"`            // "free, Gen 4 x4"
	Left   Name      `json:"left,omitempty"` // what lay there and lies there no more
}

// Status is where a job stands.
type Status struct {
	Stage   job.Stage `json:"stage"`
	Verdict Judgement `json:"verdict"` // of the plan, then of the work
	Waits   Text      `json:"waits"`   // what it waits for
	Next    Text      `json:"next"`    // the one next action, as a button says it
	Go      job.Stage `json:"go"`      // the screen on which it is done
	Stops   bool      `json:"stops"`   // the plan is stopped
	Done    int       `json:"done"`    // steps done
	Steps   int       `json:"steps"`
	Name    Name      `json:"name,omitempty"` // of the stage at work, where there are several
	At      int       `json:"at,omitempty"`   // which that is
	Of      int       `json:"of,omitempty"`   // of how many
}

// View is a job with everything the core says about it.
type View struct {
	Job       job.Job       `json:"job"`
	Status    Status        `json:"status"`
	Found     Resolved      `json:"found"`
	Planned   Resolved      `json:"planned"`
	Order     []Step        `json:"order"`
	Layers    []layer.Layer `json:"layers"` // of the machine as it stands, fitted parts among them
	Tray      []Cell        `json:"tray"`
	Off       []Off         `json:"off"` // what is off now, in the order in which it came off
	Pick      []PickLine    `json:"pick"`
	Stands    []Text        `json:"stands"` // where the work stands, for somebody who goes on with it
	Incidents []Mishap      `json:"incidents"`
	Differs   []Observed    `json:"differs"`
	Stuck     []Observed    `json:"stuck"`
	Lines     []Line        `json:"lines"`
	Read      Text          `json:"read"`   // how many lines are to read, agree, differ and are explained
	Before    []Line        `json:"before"` // what the screens showed as the machine came
	Variants  []Variant     `json:"variants"`
	Report    Report        `json:"report"`
	Looked    []LookedUp    `json:"looked"` // what was looked up at the bench
	Blocks    []Block       `json:"blocks"` // what holds the work back besides the rules of fit
	Starts    Text          `json:"starts,omitzero"`
	Stages    []StageOf     `json:"stages"` // none where there is but one
	At        int           `json:"at"`     // the stage that is looked at
	Usual     []Missing     `json:"usual"`  // what is not known of what is fitted anew, and was taken as it nearly always is
}

// Block holds the work back besides the rules of fit.
type Block struct {
	Says  Text       `json:"says"`
	Moves []rig.Move `json:"moves,omitempty"`
	Start bool       `json:"start,omitempty"` // it is answered by saying what starts the machine
}

// StageOf is one stage of a job: 0 is at work, 1 and more are to come, below 0 finished.
type StageOf struct {
	Name Name `json:"name"`
	At   int  `json:"at"`
}

// Variant is one way to arrange the memory, with what it comes to and the moves
// that lead there from the plan as it is.
type Variant struct {
	Name    Text            `json:"name"`
	Memory  MemoryAnswer    `json:"memory"`
	Slots   []rig.Placement `json:"slots"`
	Moves   []rig.Move      `json:"moves"`
	Current bool            `json:"current"`
}

// Report is what the owner takes along and the shop keeps.
type Report struct {
	Fitted   []Fitted       `json:"fitted"`  // new in the machine, or moved
	Removed  []Fitted       `json:"removed"` // found in it and not in the plan
	Stayed   []Fitted       `json:"stayed"`
	Set      []Set          `json:"set"`
	Seen     []Line         `json:"seen"`
	Tests    []TestStand    `json:"tests"`
	LeftOut  []LeftOut      `json:"leftOut"`
	Open     []Text         `json:"open"`     // what somebody still has to see to
	Unsaid   []Text         `json:"unsaid"`   // steps of which nothing is said
	Warnings int            `json:"warnings"` // of the plan, that could be accepted and are not
	Cautions []Text         `json:"cautions"` // what can lose data or hurt somebody later
	Accepted []AcceptedLoss `json:"accepted"`
	Notes    []Text         `json:"notes"`  // what the owner should know
	Gained   []GainLine     `json:"gained"` // measured before and after
	Room     []Text         `json:"room"`   // where a further drive, or more memory, would go
	Proven   []Proven       `json:"proven"` // seen beyond what the sheet says
	Plain    []Text         `json:"plain"`  // what was done, for the owner
	Stages   []StageReport  `json:"stages"` // finished before
	Hands    []Name         `json:"hands"`
	From     time.Time      `json:"from,omitzero"` // first tick
	To       time.Time      `json:"to,omitzero"`   // last tick, reading or the closing
}

// GainLine is something that was measured, in a line.
type GainLine struct {
	What    Text            `json:"what"`
	Says    Text            `json:"says"`
	Verdict measure.Verdict `json:"verdict"`
}

// StageReport is a finished stage on the page.
type StageReport struct {
	Name   Name      `json:"name"`
	By     Name      `json:"by"`
	At     time.Time `json:"at"`
	Report Report    `json:"report"`
}

// TestStand is how a test stands.
type TestStand struct {
	Says  Text      `json:"says"`
	Since time.Time `json:"since,omitzero"` // while it runs
}

// LeftOut is a step that was left out.
type LeftOut struct {
	Do     Text `json:"do"`
	Reason Name `json:"reason"`
	By     Name `json:"by"`
}

// AcceptedLoss is a warning of the plan that somebody accepted.
type AcceptedLoss struct {
	Says Text      `json:"says"`
	By   Name      `json:"by"`
	At   time.Time `json:"at"`
}

// Proven is a figure beyond the sheet's that the job shows.
type Proven struct {
	Of     job.ProvenOf     `json:"of"`
	Socket machine.SocketID `json:"socket,omitempty"`
	Says   Text             `json:"says"`
}

// Fitted is one piece and its place.
type Fitted struct {
	Item   rig.ItemID `json:"item"`
	Name   Name       `json:"name"`
	What   Text       `json:"what"`
	Serial Name       `json:"serial,omitempty"`
	Number Name       `json:"number,omitempty"`
	Socket rig.Path   `json:"socket,omitzero"`
	From   rig.Path   `json:"from,omitzero"` // moved from here
	Runs   Text       `json:"runs,omitzero"` // what it does there
	Wiped  Text       `json:"wiped,omitzero"`
	Asks   Text       `json:"asks,omitzero"`   // what is typed of it before it counts as wiped
	Papers Text       `json:"papers,omitzero"` // warranty and returns

	Warranty job.Date  `json:"warranty,omitempty"`
	Returns  job.Date  `json:"returns,omitempty"`
	Fate     job.Fate  `json:"fate,omitempty"` // of what was taken out
	Went     Text      `json:"went,omitzero"`  // the same in words
	Ways     []WipeWay `json:"ways,omitempty"` // of a drive that was taken out: how it can be wiped
}

// WipeWay is a level of wiping, and what it takes for a drive.
type WipeWay struct {
	Level volume.Wipe `json:"level"`
	Says  Text        `json:"says"`
	Takes []Text      `json:"takes"`
}

// wipeWords is what a level stands against.
var wipeWords = map[volume.Wipe]string{volume.Clear: "clear: against what a system can read", volume.Purge: "purge: against a laboratory", volume.Destroy: "destroy: for good, and the drive with it"}

// Set is one setting that was changed.
type Set struct {
	Name Name `json:"name"`
	From Name `json:"from"`
	To   Name `json:"to"`
}

// CheckFormat and CheckVersion head the answer of `deepbay check --json`.
const (
	CheckFormat  = "deepbay/check"
	CheckVersion = 1
)

// Check is the judgement of a job's plan, for programs.
type Check struct {
	Format  string   `json:"format" jsonschema:"enum=deepbay/check"`
	Version int      `json:"version" jsonschema:"enum=1"`
	Job     job.ID   `json:"job"`
	Title   Name     `json:"title"`
	Stops   bool     `json:"stops"`           // by a rule of fit, or by what is to be answered first
	Blocks  []Text   `json:"blocks"`          // what is to be answered first
	Starts  Text     `json:"starts,omitzero"` // what starts the machine afterwards
	Answer  Resolved `json:"answer"`
}

// CheckOf judges a job's plan.
func CheckOf(l Language, j *job.Job) Check {
	r := j.PlannedRig()
	a := j.Check()
	v := voice(l, j)
	starts, blocks := j.Afterwards()
	out := Check{Format: CheckFormat, Version: CheckVersion, Job: j.ID, Title: Name(j.Title), Stops: a.Stops() || len(blocks) > 0, Blocks: make([]Text, len(blocks)), Starts: v.Fact(starts), Answer: In(l, &r).Answer(&a)}
	for i := range blocks {
		out.Blocks[i] = v.Fact(blocks[i].Says)
	}
	return out
}

// Advice is the planner's whole answer.
type Advice struct {
	End          plan.End  `json:"end"`
	Proof        Text      `json:"proof"` // why the best is the best, or why there is none
	Best         *Way      `json:"best,omitempty"`
	Provided     *Provided `json:"provided,omitempty"` // better, or the only plan, if what is not known turns out well
	Alternatives []Way     `json:"alternatives"`
	Clash        []Text    `json:"clash"` // wishes of which one must give way
	Cures        []Text    `json:"cures"`
	Help         []Help    `json:"help"` // the same, with how they are carried out
	Judged       int       `json:"judged"`
}

// Help is one way out of a clash.
type Help struct {
	Says   Text          `json:"says"`
	Do     plan.HelpKind `json:"do,omitempty"` // absent where nobody here can carry it out
	Item   rig.ItemID    `json:"item,omitempty"`
	Also   []rig.ItemID  `json:"also,omitempty"` // others like it, likewise
	Socket rig.Path      `json:"socket,omitzero"`
	Part   part.ID       `json:"part,omitempty"`
}

// Provided is a plan that hangs on what is not known.
type Provided struct {
	Way  Way       `json:"way"`
	Look []Missing `json:"look"` // what to look at, the cheapest first
}

// Way is one plan in words and numbers.
type Way struct {
	Placements []rig.Placement `json:"placements"`
	Choices    []rig.Choice    `json:"choices"`
	Says       []Text          `json:"says"`    // the best: what it comes to; an alternative: only what differs
	Differs    []Text          `json:"differs"` // an alternative: which pieces lie elsewhere, which settings are others
	Moves      []rig.Move      `json:"moves"`   // that make it out of any other plan
	Takes      []part.ID       `json:"takes"`   // from the shelf: pieces named OnShelf before they are in the job
}

// PlanFormat and PlanVersion head the answer of `deepbay plan --json`.
const (
	PlanFormat  = "deepbay/plan"
	PlanVersion = 1
)

// Planned is the planner's answer about a job, for programs.
type Planned struct {
	Format  string `json:"format" jsonschema:"enum=deepbay/plan"`
	Version int    `json:"version" jsonschema:"enum=1"`
	Job     job.ID `json:"job"`
	Title   Name   `json:"title"`
	Advice  Advice `json:"advice"`
}

// Basket is parts that meet a need and the plan they make.
type Basket struct {
	Picks []plan.Pick `json:"picks"`
	What  Text        `json:"what"` // "2 of Sallow 16 GB, Ternlight 500", "" for nothing
	Cents shelf.Cents `json:"cents"`
	Price Name        `json:"price"`
	Says  []Text      `json:"says"` // the first: what it comes to; those after: what the money more buys
}

// Shopping is the baskets worth their money, the cheapest first: each is better by
// the criteria than all that cost less.
type Shopping struct {
	Baskets []Basket `json:"baskets"`
	Says    Text     `json:"says"` // how many were looked at, or why there is none
}

// Offer is what would come of putting one item into one socket.
type Offer struct {
	Socket rig.Path  `json:"socket"`
	State  fit.State `json:"state"`        // of the socket, with the item in it
	Says   Text      `json:"says"`         // short: the link, what stops it, or what it costs
	Costs  []Text    `json:"costs"`        // what the change stops, here or elsewhere, in full
	Out    Text      `json:"out,omitzero"` // what lies there now and comes out
}

// voice speaks about a job's plan.
func voice(l Language, j *job.Job) *Voice {
	r := j.PlannedRig()
	v := In(l, &r)
	v.job = j
	return v
}

// About speaks about a job.
func About(l Language, j *job.Job) *Voice { return voice(l, j) }

// Look words the view of a job.
func Look(l Language, w *job.View) View {
	j := &w.Job
	v := voice(l, j)
	out := View{Job: *j, Status: v.Status(&w.Status), Found: v.Answer(&w.Found), Planned: v.Answer(&w.Planned), Order: v.Steps(w.Order),
		Lines: v.Lines(w.Lines), Before: v.Lines(w.Before), Variants: make([]Variant, len(w.Variants)), Report: v.report(w), Looked: v.Looked(j), Usual: v.missed(w.Usual), Stages: make([]StageOf, len(w.Stages)), At: w.At, Blocks: make([]Block, len(w.Blocks)), Starts: v.Fact(w.Starts)}
	v.bench(w, &out)
	out.Read = v.text(readTally(w.Lines))
	for i := range w.Blocks {
		out.Blocks[i] = Block{v.Fact(w.Blocks[i].Says), w.Blocks[i].Moves, w.Blocks[i].Start}
	}
	for i := range w.Planned.Findings {
		if a := j.AcceptedAs(&w.Planned.Findings[i]); a != nil {
			out.Planned.Findings[i].Accepted = Name(a.By)
		}
	}
	for i, s := range w.Stages {
		out.Stages[i] = StageOf{Name(s.Name), s.At}
	}
	for i := range w.Variants {
		a := &w.Variants[i]
		out.Variants[i] = Variant{v.Fact(a.Name), v.Memory(&a.Memory), a.Slots, a.Moves, a.Current}
	}
	return out
}

// readTally counts lines by how they were read.
func readTally(lines []power.Line) string {
	count := map[power.Verdict]int{}
	for i := range lines {
		count[lines[i].Verdict]++
	}
	return fmt.Sprintf("%d to read, %d agree, %d differ, %d explained", count[power.NotLooked], count[power.Agrees], count[power.Differs], count[power.Explained])
}

// Ill is said of a job that cannot be read or judged.
func Ill(l Language) Text {
	return In(l, &nobody).text("this job cannot be read or judged: the server's log says why; its earlier revisions are kept")
}

// Status words where a job stands.
func (v *Voice) Status(s *job.Status) Status {
	return Status{s.Stage, Judgement{s.Verdict.Grade, v.Fact(s.Verdict.Says), v.Fact(s.Verdict.Why)}, v.Fact(s.Waits), v.Fact(s.Next), s.Go, s.Stops, s.Done, s.Steps, Name(s.Name), s.Of[0], s.Of[1]}
}

// Steps words a work order.
func (v *Voice) Steps(steps []workorder.Step) []Step {
	out := make([]Step, len(steps))
	for i := range steps {
		s := &steps[i]
		out[i] = Step{StepID(s.ID), s.Phase, v.Fact(s.Do), v.facts(s.How), make([]Caution, len(s.Cautions)), s.Item, s.Socket, s.Test, v.Fact(s.Danger), s.Layer, s.Lead, s.Shuts, s.Inside, v.facts(s.Tools), v.Fact(s.See), s.Photo, s.Takes, s.Guess, len(s.Confirm), s.Runs, nil, v.Fact(s.Held), s.Look}
		for k := range s.Asks {
			out[i].Asks = append(out[i].Asks, v.Fact(s.Asks[k].Says()))
		}
		for n, c := range s.Cautions {
			out[i].Cautions[n] = Caution{v.Fact(c.Topic), v.Fact(c.Says)}
		}
	}
	return out
}

// Lines words lines.
func (v *Voice) Lines(lines []power.Line) []Line {
	out := make([]Line, len(lines))
	for i := range lines {
		l := &lines[i]
		out[i] = Line{l.ID, l.Screen, l.Extra, v.Fact(l.About), l.Item, Name(l.Serial), l.Touched, v.Fact(l.Expected), l.Exact, make([]Show, len(l.Shows)), v.Fact(l.Normal), l.Verdict,
			v.Fact(l.Seen), v.Fact(l.Was), v.Fact(l.Proves), v.Fact(l.Says), l.Reading, Name(l.Reason)}
		for n, s := range l.Shows {
			out[i].Shows[n] = Show{v.Fact(s.Where), v.Fact(s.Text)}
		}
	}
	return out
}

func (v *Voice) report(w *job.View) Report {
	r := &w.Report
	out := Report{Stages: make([]StageReport, len(r.Stages)), Fitted: v.fitted(w, r.Fitted), Removed: v.fitted(w, r.Removed), Stayed: v.fitted(w, r.Stayed), Set: make([]Set, len(r.Set)),
		Seen: v.Lines(r.Seen), Tests: make([]TestStand, len(r.Tests)), LeftOut: make([]LeftOut, len(r.LeftOut)), Open: v.facts(r.Open), Unsaid: v.facts(r.Unsaid), Warnings: r.Warnings, Cautions: v.facts(r.Cautions), Accepted: make([]AcceptedLoss, len(r.Accepted)), Notes: v.facts(r.Notes), Proven: make([]Proven, len(r.Proven)), Hands: make([]Name, len(r.Hands)), From: r.From, To: r.To}
	for i, s := range r.Set {
		name, from := settingName(&w.Job.Sheet, s.Setting, s.From)
		_, to := settingName(&w.Job.Sheet, s.Setting, s.To)
		out.Set[i] = Set{Name(name), Name(from), Name(to)}
	}
	for i, h := range r.Hands {
		out.Hands[i] = Name(h)
	}
	for i := range r.Stages {
		s := &r.Stages[i]
		out.Stages[i] = StageReport{Name(s.Name), Name(s.By), s.At, v.report(&s.View)}
	}
	for i, s := range r.Tests {
		out.Tests[i] = TestStand{v.Fact(s.Says), s.Since}
	}
	for i, s := range r.LeftOut {
		out.LeftOut[i] = LeftOut{v.Fact(s.Do), Name(s.Reason), Name(s.By)}
	}
	for i := range r.Accepted {
		a := &r.Accepted[i]
		out.Accepted[i] = AcceptedLoss{v.Fact(a.Says), Name(a.By), a.At}
	}
	out.Plain = v.facts(r.Plain)
	out.Room, out.Gained = v.facts(r.Room), make([]GainLine, len(r.Gained))
	for i := range r.Gained {
		g := v.gained(&r.Gained[i])
		out.Gained[i] = GainLine{g.What, g.Says, g.Verdict}
	}
	for i := range r.Proven {
		p := &r.Proven[i]
		out.Proven[i] = Proven{p.Of, p.Socket, v.Fact(p.Says)}
	}
	return out
}

func (v *Voice) fitted(w *job.View, list []job.Fitted) []Fitted {
	out := make([]Fitted, len(list))
	for i, f := range list {
		out[i] = Fitted{Item: f.Item, Name: Name(f.Part.Name), What: v.Part(f.Part), Serial: Name(f.Serial), Number: Name(f.Part.Number), Socket: f.Socket, From: f.From}
		if f.Runs != nil {
			out[i].Runs = v.socket(&w.Planned, f.Runs).Says
		}
		if it := w.Job.Item(f.Item); it != nil {
			out[i].Warranty, out[i].Returns, out[i].Fate, out[i].Papers = it.Warranty, it.Returns, it.Fate, v.text(papers(it))
			if it.Fate != "" {
				out[i].Went = v.text(fateWords[it.Fate])
			}
		}
		if was := w.Job.WipedAs(f.Item); was != nil {
			out[i].Wiped = v.Fact(fact.Of(job.WasWiped, fact.Typed(was.Level), fact.Typed(was.By)))
		}
		if d := f.Part.Drive; d != nil && f.Socket.IsZero() && !d.Form.Optical() {
			ask := w.Job.WipeAsk(f.Item)
			out[i].Asks = v.Fact(ask.Says())
			for _, level := range []volume.Wipe{volume.Clear, volume.Purge, volume.Destroy} {
				out[i].Ways = append(out[i].Ways, WipeWay{level, v.text(wipeWords[level]), v.facts(level.Takes(d))})
			}
		}
	}
	return out
}

// fateWords says where old parts went.
var fateWords = map[job.Fate]string{job.WithOwner: "with its owner", job.OnShelf: "on the shop's shelf", job.SentBack: "sent back", job.Recycled: "with a recycler"}

// papers says until when a part is under warranty, and can be returned.
func papers(it *job.Item) string {
	var out []string
	if it.Warranty != "" {
		out = append(out, "warranty until "+calendar(it.Warranty))
	}
	if it.Returns != "" {
		out = append(out, "can be returned until "+calendar(it.Returns))
	}
	return strings.Join(out, ", ")
}

// calendar prints a day as people read it; one that is not said is that.
func calendar(d job.Date) string {
	t, err := time.Parse(time.DateOnly, string(d))
	if err != nil {
		return "a day that nobody said"
	}
	return t.Format("2 Jan 2006")
}

// Part is a part in one line of the trade's shorthand.
func (v *Voice) Part(p *part.Part) Text { return v.text(describe(p)) }

// Advice words the planner's answer.
func (v *Voice) Advice(a *plan.Advice) Advice {
	out := Advice{End: a.End, Proof: v.Fact(a.Proof), Alternatives: make([]Way, len(a.Alternatives)), Clash: v.facts(a.Clash), Cures: make([]Text, len(a.Help)), Help: make([]Help, len(a.Help)), Judged: a.Judged}
	for i, h := range a.Help {
		out.Help[i] = Help{v.Fact(h.Says), h.Do, h.Item, h.Also, h.Socket, h.Part}
		out.Cures[i] = out.Help[i].Says
	}
	if a.Best != nil {
		best := v.way(a.Best)
		out.Best = &best
	}
	if p := a.Provided; p != nil {
		out.Provided = &Provided{v.way(&p.Way), v.provided(p.Look)}
	}
	for i := range a.Alternatives {
		out.Alternatives[i] = v.way(&a.Alternatives[i])
	}
	return out
}

func (v *Voice) way(w *plan.Way) Way {
	return Way{filled(w.Placements), filled(w.Choices), v.facts(w.Says), v.facts(w.Differs), filled(w.Moves), filled(w.Takes)}
}

// filled is a list that is never null.
func filled[T any](list []T) []T {
	if list == nil {
		return []T{}
	}
	return list
}

// Planned is the planner's answer about a job.
func (v *Voice) Planned(j *job.Job, a *plan.Advice) Planned {
	return Planned{PlanFormat, PlanVersion, j.ID, Name(j.Title), v.Advice(a)}
}

// Shopping words baskets.
func (v *Voice) Shopping(s *plan.Shopping) Shopping {
	out := Shopping{Baskets: make([]Basket, len(s.Baskets)), Says: v.Fact(s.Says)}
	for i := range s.Baskets {
		b := &s.Baskets[i]
		what := list(b.Picks, func(p plan.Pick) string { return several(p.Count, p.Name) }, ", ", ", ")
		out.Baskets[i] = Basket{filled(b.Picks), v.text(what), b.Cents, Name(b.Cents.String()), v.facts(b.Says)}
	}
	return out
}

// Offers words offers.
func (v *Voice) Offers(offers []fit.Offer) []Offer {
	out := make([]Offer, len(offers))
	for i := range offers {
		o := &offers[i]
		out[i] = Offer{Socket: o.Socket, State: o.State(), Costs: []Text{}}
		says := v.socket(&o.After, o.After.Socket(o.Socket)).Says
		for n := range o.Costs {
			f := &o.Costs[n]
			if n == 0 {
				says = v.text(Rules[f.Code].Title)
				if f.Item != o.Item && f.Item != "" {
					verb := "stops "
					if f.Code == "socket-off" {
						verb = "turns off "
					}
					says = v.text(verb + v.name(f.Item))
				}
			}
			out[i].Costs = append(out[i].Costs, v.Finding(f).Says)
		}
		out[i].Says = says
		if o.Out != "" {
			out[i].Out = v.text(v.name(o.Out) + " comes out")
		}
	}
	return out
}

// Entry is one line of a journal.
type Entry struct {
	Revision int       `json:"revision"`
	At       time.Time `json:"at"`
	By       Name      `json:"by"`
	Says     Text      `json:"says"`
}

// Event words what was done to a job, for its journal. names are what pieces were called
// then, for those that have left since.
func (v *Voice) Event(f fact.Fact, names map[rig.ItemID]string) Text {
	then := *v
	then.names = names
	return then.Fact(f)
}

// SheetAnswer words an empty machine of a sheet, and its rules.
func SheetAnswer(l Language, s *machine.Sheet) (Resolved, []Text) {
	r := rig.Rig{Sheet: s}
	a := fit.Resolve(&r)
	v := In(l, &r)
	return v.Answer(&a), v.Rules()
}

// Groups words how many lanes of each group of a sheet are wired to sockets.
func Groups(l Language, s *machine.Sheet) []Text {
	v := In(l, &rig.Rig{Sheet: s})
	out := make([]Text, len(s.Groups))
	for i, g := range s.Groups {
		wired := 0
		for _, k := range s.Sockets {
			if k.Group == g.ID {
				wired += int(k.Lanes)
			}
		}
		says := string(g.ID) + ": " + strconv.Itoa(wired) + " of " + strconv.Itoa(int(g.Lanes)) + " lanes wired to sockets"
		if !g.Lanes.Known() {
			says = string(g.ID) + ": " + strconv.Itoa(wired) + " lanes wired to sockets, of how many is not said"
		} else if wired > int(g.Lanes) {
			says += ", so rules must share them"
		}
		out[i] = v.text(says)
	}
	return out
}
