// Package job is one machine on the bench, from arrival to hand-over: its sheet,
// the pieces, where they were found and where they are planned to go, the wish,
// the ticks, what was seen, and how it ended.
//
// A Job is self-contained: a file of it can be resolved anywhere. Apply makes the
// next job from a change and leaves the old one as it was; who and when are
// handed in, for nothing here reads the clock.
package job

import (
	"slices"
	"strconv"
	"time"

	"deepbay/internal/core/data"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/measure"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shorthand"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
)

// Format and Version head every job file.
const (
	Format  = "deepbay/job"
	Version = 1
)

// ID names a job.
type ID string

// Job is one machine on the bench.
type Job struct {
	Format    string              `json:"format" jsonschema:"enum=deepbay/job"`
	Version   int                 `json:"version" jsonschema:"enum=1"`
	ID        ID                  `json:"id" jsonschema:"minLength=1,maxLength=60,pattern=^[a-z0-9][a-z0-9._-]*$"`
	Title     string              `json:"title" jsonschema:"minLength=1,maxLength=160"` // the machine as its owner calls it
	Tag       string              `json:"tag,omitempty" jsonschema:"maxLength=60"`      // the shop's tag or the machine's serial number
	Owner     string              `json:"owner,omitempty" jsonschema:"maxLength=120"`
	Arrived   time.Time           `json:"arrived,omitzero"`
	Stands    string              `json:"stands,omitempty" jsonschema:"maxLength=60"` // where the machine is: "bench 2", "rack, lower shelf"
	Due       Date                `json:"due,omitempty" jsonschema:"maxLength=10"`    // when it is to be ready
	Wish      rig.Wish            `json:"wish,omitzero"`
	Processor machine.ProcessorID `json:"processor,omitempty" jsonschema:"maxLength=40"` // which is fitted, where the sheet lists several
	Sheet     machine.Sheet       `json:"sheet"`
	Parts     []part.Part         `json:"parts" jsonschema:"maxItems=200"`
	Items     []Item              `json:"items" jsonschema:"maxItems=200"`
	Fresh     bool                `json:"fresh,omitempty"`                             // a new machine with nothing in it, which never ran
	Practice  practice.Practice   `json:"practice,omitempty" jsonschema:"maxItems=64"` // the shop's, where practitioners differ, as it was taken into the job
	Arrays    []rig.DriveArray    `json:"arrays,omitempty" jsonschema:"maxItems=16"`
	Found     rig.Setup           `json:"found"`
	Planned   rig.Setup           `json:"planned"`
	Looked    []Looked            `json:"looked,omitempty" jsonschema:"maxItems=1000"` // what was looked up at the bench

	Done      []Tick            `json:"done" jsonschema:"maxItems=1000"`
	Tests     []TestRun         `json:"tests,omitempty" jsonschema:"maxItems=1000"`
	Before    []power.Reading   `json:"before,omitempty" jsonschema:"maxItems=2000"` // what its screens showed as it came
	Seen      []power.Reading   `json:"seen" jsonschema:"maxItems=2000"`
	Explained []Explanation     `json:"explained" jsonschema:"maxItems=2000"`
	StageName string            `json:"stage,omitempty" jsonschema:"maxLength=120"` // what the stage at work is for; empty where there is but one
	Past      []PastStage       `json:"past,omitempty" jsonschema:"maxItems=40"`    // stages that are finished, oldest first
	Later     []LaterStage      `json:"later,omitempty" jsonschema:"maxItems=8"`    // stages that are to come
	Accepted  []Acceptance      `json:"accepted,omitempty" jsonschema:"maxItems=1000"`
	Incidents []Incident        `json:"incidents,omitempty" jsonschema:"maxItems=200"` // what happened to fasteners
	Differs   []Difference      `json:"differs,omitempty" jsonschema:"maxItems=200"`   // in what the machine is not as its sheet says
	Stuck     []Stuck           `json:"stuck,omitempty" jsonschema:"maxItems=200"`     // what was tried and does not go
	Strange   []power.Strange   `json:"strange,omitempty" jsonschema:"maxItems=500"`   // that the machine told of last and nobody expected
	Checked   []Checked         `json:"checked,omitempty" jsonschema:"maxItems=200"`   // while a fault is looked for
	Cures     []Mending         `json:"cures,omitempty" jsonschema:"maxItems=50"`      // that followed the first start
	Measured  []measure.Series  `json:"measured,omitempty" jsonschema:"maxItems=500"`  // before the work and after it
	Layouts   []volume.Layout   `json:"layouts,omitempty" jsonschema:"maxItems=64"`    // volumes that blank drives get
	Transfers []volume.Transfer `json:"transfers,omitempty" jsonschema:"maxItems=32"`  // data that comes from old drives onto new ones
	Wiped     []Wiped           `json:"wiped,omitempty" jsonschema:"maxItems=500"`     // drives that were taken out and wiped
	Hands     data.Record       `json:"hands,omitempty" jsonschema:"maxItems=5000"`    // what hands did and what was said of drives, over all stages, oldest first
	Agreed    *Agreement        `json:"agreed,omitempty"`                              // the owner, to what was done
	Closed    *Closing          `json:"closed,omitempty"`
}

// Item is one physical piece.
type Item struct {
	ID     rig.ItemID  `json:"id" jsonschema:"minLength=1,maxLength=60,pattern=^[a-z0-9][a-z0-9._-]*$"`
	Part   part.ID     `json:"part"`
	Serial string      `json:"serial,omitempty" jsonschema:"maxLength=80"`
	New    bool        `json:"new,omitempty"`   // came to be fitted
	Role   Role        `json:"role,omitempty"`  // what it is for once the job is done
	Holds  rig.Content `json:"holds,omitempty"` // what a drive holds; absent is not known

	At       []string `json:"at,omitempty" jsonschema:"maxItems=26"`        // letters or mount points of the volumes on a drive, as far as somebody said
	Warranty Date     `json:"warranty,omitempty" jsonschema:"maxLength=10"` // until when
	Returns  Date     `json:"returns,omitempty" jsonschema:"maxLength=10"`  // until when it can go back to where it was bought
	Fate     Fate     `json:"fate,omitempty"`                               // where it went, once it was out
}

// Explanation says why a line that differs is right all the same.
type Explanation struct {
	Line power.LineID `json:"line" jsonschema:"minLength=1,maxLength=80"`
	Text string       `json:"text" jsonschema:"minLength=1,maxLength=500"`
	By   string       `json:"by,omitempty" jsonschema:"maxLength=80"`
	At   time.Time    `json:"at,omitzero"`
}

// Closing is the end of a job.
type Closing struct {
	By   string    `json:"by" jsonschema:"maxLength=80"`
	At   time.Time `json:"at"`
	Note string    `json:"note,omitempty" jsonschema:"maxLength=1000"`
}

// New starts a job from a sheet and a wish.
func New(id ID, title string, sheet machine.Sheet, wish rig.Wish, arrived time.Time) Job {
	return Job{
		Format: Format, Version: Version, ID: id, Title: title, Sheet: sheet, Wish: wish, Arrived: arrived,
		Parts: []part.Part{}, Items: []Item{}, Done: []Tick{}, Seen: []power.Reading{}, Explained: []Explanation{},
		Found:   rig.Setup{Placements: []rig.Placement{}, Settings: []rig.Choice{}},
		Planned: rig.Setup{Placements: []rig.Placement{}, Settings: []rig.Choice{}},
	}
}

// Part finds a part by name, nil if the job has none.
func (j *Job) Part(id part.ID) *part.Part {
	for i := range j.Parts {
		if j.Parts[i].ID == id {
			return &j.Parts[i]
		}
	}
	return nil
}

// Item finds an item by name, nil if the job has none.
func (j *Job) Item(id rig.ItemID) *Item {
	for i := range j.Items {
		if j.Items[i].ID == id {
			return &j.Items[i]
		}
	}
	return nil
}

// mustKnow adds a problem where an item is none of the job's.
func (j *Job) mustKnow(l *problem.List, at string, id rig.ItemID) {
	if j.Item(id) == nil {
		l.Add(at, fact.Of(NoItemIsNamed, id))
	}
}

// CheckPractice reports the first choice of a practice that is none, under /practice.
func CheckPractice(p practice.Practice) problem.List {
	var l problem.List
	if i := p.Fault(); i >= 0 {
		l.Add("/practice/"+strconv.Itoa(i), fact.Of(NoSuchSchool, fact.Typed(p[i].School), fact.Typed(p[i].Matter)))
	}
	return l
}

// Name is what an item is called.
func (j *Job) Name(id rig.ItemID) string {
	if it := j.Item(id); it != nil {
		if p := j.Part(it.Part); p != nil {
			return p.Name
		}
	}
	return string(id)
}

func (j *Job) pieces() []rig.Piece {
	out := make([]rig.Piece, len(j.Items))
	for i, it := range j.Items {
		out[i] = rig.Piece{ID: it.ID, Part: j.Part(it.Part), Serial: it.Serial, New: it.New && j.Found.Where(it.ID).IsZero(), Holds: it.Holds}
	}
	return out
}

// unread is a rig without what screens showed of it.
func (j *Job) unread(s *rig.Setup) rig.Rig {
	r := j.bare(*s)
	if len(j.Looked) > 0 {
		r = r.Learn(j.learned())
	}
	return r
}

func (j *Job) rig(s rig.Setup) rig.Rig {
	r := j.unread(&s)
	if lines := j.shown(); len(lines) > 0 {
		r = r.Seen(lines)
	}
	return r
}

// bare is a rig by sheet and labels alone, without what was looked up.
func (j *Job) bare(s rig.Setup) rig.Rig {
	return rig.Rig{Sheet: &j.Sheet, Pieces: j.pieces(), Setup: s, Arrays: j.Arrays, Processor: j.Processor, Wish: j.wish(), Found: &j.Found, Unlooked: j.unlooked()}
}

// unlooked is the sockets of which nobody knows what they hold: the memory slots of a
// machine of which no module was told. It came with some, or it would not be here; a
// job that does not touch memory need not know which.
func (j *Job) unlooked() []machine.SocketID {
	var out []machine.SocketID
	if j.Fresh {
		return nil
	}
	for _, k := range j.Sheet.Sockets {
		if k.Kind.Memory() {
			if j.Found.In(rig.On(k.ID)) != "" {
				return nil
			}
			out = append(out, k.ID)
		}
	}
	return out
}

// PlannedRig is the machine as planned.
func (j *Job) PlannedRig() rig.Rig { return j.rig(j.Planned) }

// FoundRig is the machine as it arrived, which no wish is measured against
// and to which no new part belongs.
func (j *Job) FoundRig() rig.Rig {
	b := j.rig(j.Found)
	b.Wish = rig.Wish{}
	b.Found = nil
	b.Pieces = slices.Clone(b.Pieces)
	for i := range b.Pieces {
		b.Pieces[i].New = false
	}
	return b
}

// Order is the steps of the work order from found to planned.
func (j *Job) Order() []workorder.Step { return j.Work().Steps }

// Work is the work order from found to planned, with what goes with it, and with what the law of data
// holds back.
func (j *Job) Work() workorder.Order {
	o := j.raw()
	j.hold(o.Steps)
	return o
}

// raw is the work order before anything is held back.
func (j *Job) raw() workorder.Order {
	w := workorder.Job{Sheet: &j.Sheet, Found: j.FoundRig(), Planned: j.PlannedRig(), Done: j.deeds(), Back: j.back(), Fresh: j.Fresh && len(j.Past) == 0, Last: len(j.Later) == 0, System: j.systemNow(), Again: j.openedAgain(), Barred: j.barred(), Practice: j.Practice, Agreed: j.agreed(), Layouts: j.layoutsNow(), Transfers: j.transfersNow()}
	o := workorder.Make(w)
	j.mend(&o, w)
	return o
}

// systemNow reports that the system comes onto its drive in the stage at work: all that it goes onto is
// planned to be in the machine, and no stage before this one brought it.
func (j *Job) systemNow() bool {
	st := j.Wish.Starts
	onto := []rig.ItemID{st.Item}
	if a := j.array(st.Array); st.Array != "" && a != nil {
		onto = a.Members
	}
	if st.How == "" || st.How == rig.FromDisk || st.How == rig.StartNothing || len(onto) == 0 {
		return len(j.Later) == 0
	}
	in := func(s *rig.Setup) bool {
		return !slices.ContainsFunc(onto, func(id rig.ItemID) bool { return s.Where(id).IsZero() })
	}
	step := "system/" + string(st.How)
	return in(&j.Planned) && !slices.ContainsFunc(j.Past, func(p PastStage) bool {
		return p.At.IsZero() && in(&p.Planned) || slices.ContainsFunc(p.Done, func(t Tick) bool { return t.Step == step && t.Reason == "" })
	})
}

// back is the pieces that a later stage has in the machine: what is taken out meanwhile comes
// back.
func (j *Job) back() []rig.ItemID {
	var out []rig.ItemID
	for i := range j.Later {
		for _, p := range j.Later[i].Planned.Placements {
			out = append(out, p.Item)
		}
	}
	return out
}

// Lines compares what was seen with what a resolved plan should show. Where the answer of
// the machine as found is given, what the job cannot have changed is told from the rest.
func (j *Job) Lines(planned, found *fit.Answer) []power.Line {
	b := j.PlannedRig()
	seen := power.Seen{Readings: j.Seen, Reasons: map[power.LineID]string{}, Load: j.loaded()}
	for _, e := range j.Explained {
		seen.Reasons[e.Line] = e.Text
	}
	switch {
	case found == nil:
	case len(j.Seen)+len(j.Before) > 0: // what was read of one of them does not make them differ
		was, is := j.unread(&j.Found), j.unread(&j.Planned)
		a, b := fit.Resolve(&was), fit.Resolve(&is)
		seen.Untouched = power.Unchanged(&was, &a, &is, &b)
	default:
		f := j.FoundRig()
		seen.Untouched = power.Unchanged(&f, found, &b, planned)
	}
	return power.Compare(&b, planned, seen)
}

// Printed is everything printed on the machine and its parts.
func (j *Job) Printed() []string {
	out := []string{j.Title, j.Tag, j.Owner, j.Sheet.Name}
	for i := range j.Parts {
		out = append(out, j.Parts[i].Name, j.Parts[i].Number)
	}
	for i := range j.Items {
		out = append(out, j.Items[i].Serial)
	}
	return slices.DeleteFunc(out, func(s string) bool { return s == "" })
}

// Marks is all by which the job may be looked for: what is printed, and what its parts are
// in words, which differ from program to program.
func (j *Job) Marks() []string {
	out := j.Printed()
	for i := range j.Parts {
		if words := shorthand.Write(&j.Parts[i]); words != "" {
			out = append(out, words)
		}
	}
	return out
}

// Validate reports everything that makes the job contradict itself, each with
// its place in the file. It covers the sheet and the parts inside.
func (j *Job) Validate() problem.List {
	l := j.Sheet.Validate().Under("/sheet")
	seenPart := map[part.ID]bool{}
	for i := range j.Parts {
		p := &j.Parts[i]
		at := "/parts/" + strconv.Itoa(i)
		if seenPart[p.ID] {
			l.Add(at+"/id", fact.Of(PartNamedTwice, p.ID))
		}
		seenPart[p.ID] = true
		l = append(l, p.Validate().Under(at)...)
	}
	seenItem := map[rig.ItemID]bool{}
	for i, it := range j.Items {
		at := "/items/" + strconv.Itoa(i)
		if seenItem[it.ID] {
			l.Add(at+"/id", fact.Of(ItemNamedTwice, it.ID))
		}
		seenItem[it.ID] = true
		if !seenPart[it.Part] {
			l.Add(at+"/part", fact.Of(NoPartIsNamed, it.Part))
		}
	}
	j.validateArrays(&l)
	j.validateCures(&l)
	j.validateMeasured(&l)
	j.validateLayouts(&l)
	j.validateTransfers(&l)
	for i := range j.Items {
		for name, d := range map[string]Date{"/warranty": j.Items[i].Warranty, "/returns": j.Items[i].Returns} {
			if !d.Valid() {
				l.Add("/items/"+strconv.Itoa(i)+name, fact.Of(NoSuchDay, string(d)))
			}
		}
	}
	for i, w := range j.Wiped {
		if !seenItem[w.Item] {
			l.Add("/wiped/"+strconv.Itoa(i)+"/item", fact.Of(NoItemIsNamed, w.Item))
		}
	}
	l = append(l, CheckPractice(j.Practice)...)
	if !j.Due.Valid() {
		l.Add("/due", fact.Of(NoSuchDay, string(j.Due)))
	}
	for i, id := range j.Wish.Keep {
		if !seenItem[id] {
			l.Add("/wish/keep/"+strconv.Itoa(i), fact.Of(NoItemIsNamed, id))
		}
	}
	if j.Processor != "" && j.Sheet.Processor(j.Processor) == nil {
		l.Add("/processor", fact.Of(NoProcessorIsNamed, j.Processor))
	}
	if len(l) > 0 {
		return l // placements are judged against parts and sheet, which must be right first
	}
	j.validateSetup(&l, "/found", j.Found)
	j.validateSetup(&l, "/planned", j.Planned)
	for i := range j.Past {
		j.validateSetup(&l, "/past/"+strconv.Itoa(i)+"/found", j.Past[i].Found)
		j.validateSetup(&l, "/past/"+strconv.Itoa(i)+"/planned", j.Past[i].Planned)
	}
	for i := range j.Later {
		j.validateSetup(&l, "/later/"+strconv.Itoa(i)+"/planned", j.Later[i].Planned)
	}
	if len(l) == 0 {
		j.validateLooked(&l)
	}
	return l
}

func (j *Job) validateSetup(l *problem.List, at string, s rig.Setup) {
	b := j.rig(s)
	inSocket, where := map[rig.Path]bool{}, map[rig.ItemID]bool{}
	for i, p := range s.Placements {
		here := at + "/placements/" + strconv.Itoa(i)
		switch {
		case j.Item(p.Item) == nil:
			l.Add(here+"/item", fact.Of(NoItemIsNamed, p.Item))
		case where[p.Item]:
			l.Add(here+"/item", fact.Of(InTwoPlaces, p.Item))
		}
		switch {
		case b.Socket(p.Socket) == nil:
			l.Add(here+"/socket", fact.Of(NoSocketIsNamed, p.Socket, j.Sheet.SocketIDs()))
		case inSocket[p.Socket]:
			l.Add(here+"/socket", fact.Of(HoldsAnother, p.Socket))
		}
		where[p.Item], inSocket[p.Socket] = true, true
	}
	told := map[rig.ItemID]bool{}
	holds := map[machine.BayID]bool{}
	for i, b := range s.Bays {
		here := at + "/bays/" + strconv.Itoa(i)
		_, there := j.Sheet.Bay(b.Bay)
		switch {
		case j.Item(b.Item) == nil:
			l.Add(here+"/item", fact.Of(NoItemIsNamed, b.Item))
		case told[b.Item]:
			l.Add(here+"/item", fact.Of(InTwoPlaces, b.Item))
		case !there:
			l.Add(here+"/bay", fact.Of(NoBayIsNamed, b.Bay, j.bayNames()))
		case holds[b.Bay]:
			l.Add(here+"/bay", fact.Of(BayHoldsAnother, b.Bay))
		}
		told[b.Item], holds[b.Bay] = true, true
	}
	for i, c := range s.Settings {
		here := at + "/settings/" + strconv.Itoa(i)
		st := j.Sheet.Setting(c.Setting)
		if st == nil {
			l.Add(here+"/setting", fact.Of(NoSettingIsNamed, c.Setting))
		} else if !st.Offers(c.Value) {
			l.Add(here+"/value", fact.Of(NoOption, c.Value, st.ID))
		}
	}
}
