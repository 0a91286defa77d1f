package job

// This file is what happens at the open machine besides what was planned: a screw that drops
// or strips, a layer that is other than the sheet says, a piece that does not go in.

import (
	"slices"
	"strconv"
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/workorder"
)

// IncidentKind is what happened to a fastener.
type IncidentKind string

// The incidents. One that was dropped may lie on the board: it holds the power until it is found.
const (
	Missing  IncidentKind = "missing"  // it was not there
	Dropped  IncidentKind = "dropped"  // into the machine
	Stripped IncidentKind = "stripped" // its head or thread is gone
)

// Values lists the incidents for the formats.
func (IncidentKind) Values() []string {
	return []string{string(Missing), string(Dropped), string(Stripped)}
}

// Ended is how an incident ended.
type Ended string

// Found again, replaced by another, or left so by agreement.
const (
	FoundAgain Ended = "found"
	Replaced   Ended = "replaced"
	Agreed     Ended = "agreed"
)

// Values lists the ends for the formats.
func (Ended) Values() []string { return []string{string(FoundAgain), string(Replaced), string(Agreed)} }

// Incident is a fastener that went wrong.
type Incident struct {
	ID      int             `json:"id" jsonschema:"minimum=1,maximum=100000"`
	Kind    IncidentKind    `json:"kind"`
	Step    string          `json:"step,omitempty" jsonschema:"maxLength=200"` // at which it happened
	Layer   layer.ID        `json:"layer,omitempty" jsonschema:"maxLength=60"`
	Screw   *layer.Fastener `json:"screw,omitempty"` // of which kind; absent where nobody said
	Count   int             `json:"count,omitempty" jsonschema:"minimum=1,maximum=64"`
	Text    string          `json:"text,omitempty" jsonschema:"maxLength=500"`
	By      string          `json:"by,omitempty" jsonschema:"maxLength=80"`
	At      time.Time       `json:"at,omitzero"`
	Ended   Ended           `json:"ended,omitempty"`
	Reason  string          `json:"reason,omitempty" jsonschema:"maxLength=500"` // who agreed to what
	EndedBy string          `json:"endedBy,omitempty" jsonschema:"maxLength=80"`
	EndedAt time.Time       `json:"endedAt,omitzero"`
}

// Difference is something in which the machine is not as its sheet says.
type Difference struct {
	ID    int          `json:"id" jsonschema:"minimum=1,maximum=100000"`
	Step  string       `json:"step,omitempty" jsonschema:"maxLength=200"`
	Layer layer.ID     `json:"layer,omitempty" jsonschema:"maxLength=60"` // which it is about
	Text  string       `json:"text,omitempty" jsonschema:"maxLength=500"`
	Is    *layer.Layer `json:"is,omitempty"`   // as it really is; absent: there is no such layer, where gone says so
	Gone  bool         `json:"gone,omitempty"` // there is no such layer
	Taken bool         `json:"taken,omitempty"`
	By    string       `json:"by,omitempty" jsonschema:"maxLength=80"`
	At    time.Time    `json:"at,omitzero"`
}

// Stuck is something that does not go as the order wants: a layer that does not come off, a
// piece that does not go in.
type Stuck struct {
	ID     int        `json:"id" jsonschema:"minimum=1,maximum=100000"`
	Step   string     `json:"step,omitempty" jsonschema:"maxLength=200"`
	Layer  layer.ID   `json:"layer,omitempty" jsonschema:"maxLength=60"`
	Item   rig.ItemID `json:"item,omitempty" jsonschema:"maxLength=60"`
	Socket rig.Path   `json:"socket,omitzero" jsonschema:"maxLength=200"`
	Text   string     `json:"text,omitempty" jsonschema:"maxLength=500"`
	By     string     `json:"by,omitempty" jsonschema:"maxLength=80"`
	At     time.Time  `json:"at,omitzero"`
}

// Dropped is the first screw that lies in the machine as far as anybody knows, none where none
// does.
func (j *Job) Dropped() *Incident {
	for i := range j.Incidents {
		if n := &j.Incidents[i]; n.Kind == Dropped && n.Ended == "" {
			return n
		}
	}
	return nil
}

// Says is an incident as a fact.
func (n *Incident) Says() fact.Fact {
	code := map[IncidentKind]fact.Code{Missing: ScrewMissing, Dropped: ScrewDropped, Stripped: ScrewStripped}[n.Kind]
	screw := layer.Fastener{Count: max(1, n.Count)}
	if n.Screw != nil {
		screw = *n.Screw
		screw.Count, screw.Where, screw.At = max(1, n.Count), "", nil
	}
	return fact.Of(code, screw)
}

// Did reports that a step was done, and counts.
func (j *Job) Did(step string) bool {
	t := j.tickOf(step)
	return t != nil && t.Reason == ""
}

// off is what is off now, by the steps that put it back, in the order in which it came off.
func (j *Job) off(order []workorder.Step) []workorder.Step {
	var out []workorder.Step
	for i := range order {
		s := &order[i]
		if s.Layer == "" || s.Shuts || !j.Did(s.ID) {
			continue
		}
		for k := range order {
			if b := &order[k]; workorder.Opened(b.ID) == s.ID && !j.Did(b.ID) {
				out = append(out, *b)
			}
		}
	}
	return out
}

// barred is the layers that were tried and do not come off.
func (j *Job) barred() []layer.ID {
	var out []layer.ID
	for i := range j.Stuck {
		if l := j.Stuck[i].Layer; l != "" {
			out = append(out, l)
		}
	}
	return out
}

// tried is the pieces that do not go into a place, or not come out of it.
func (j *Job) tried() []rig.Placement {
	var out []rig.Placement
	for i := range j.Stuck {
		if s := &j.Stuck[i]; s.Item != "" {
			out = append(out, rig.Placement{Item: s.Item, Socket: s.Socket})
		}
	}
	return out
}

// nextID is a number that none of a list has.
func nextID[T any](list []T, id func(*T) int) int {
	most := 0
	for i := range list {
		most = max(most, id(&list[i]))
	}
	return most + 1
}

// mostHappened is how many incidents, differences and things that are stuck a job keeps of each.
const mostHappened = 200

// happened keeps what happened at the open machine, or ends it.
func (a *applier) happened() fact.Fact {
	switch c := &a.change; c.Do {
	case DoIncident:
		return a.incident()
	case DoSettle:
		return a.settle()
	case DoDiffers:
		return a.differs()
	case DoToSheet:
		return a.toSheet()
	case DoStuck:
		return a.stuck()
	default:
		i := slices.IndexFunc(a.job.Stuck, func(s Stuck) bool { return strconv.Itoa(s.ID) == c.Value })
		if i < 0 {
			return a.refuse("/value", fact.Of(NoSuchNumber, fact.Typed(c.Value)))
		}
		says := a.job.Stuck[i].Says(&a.job)
		a.job.Stuck = slices.Delete(a.job.Stuck, i, i+1)
		return fact.Of(GoesAfterAll, says)
	}
}

func (a *applier) incident() fact.Fact {
	in := a.change.Incident
	switch {
	case in == nil || !slices.Contains(IncidentKind("").Values(), string(in.Kind)):
		return a.refuse("/incident", fact.Of(WhatHappened))
	case len(a.job.Incidents) >= mostHappened:
		return a.refuse("/incident", fact.Of(TooMany, mostHappened))
	case in.Screw != nil && in.Count > in.Screw.Count:
		return a.refuse("/incident/count", fact.Of(MoreThanThere, in.Count, in.Screw.Count))
	}
	n := Incident{ID: nextID(a.job.Incidents, func(n *Incident) int { return n.ID }), Kind: in.Kind, Step: in.Step, Layer: in.Layer, Screw: in.Screw, Count: in.Count, Text: in.Text, By: a.by.By, At: a.by.At}
	a.job.Incidents = append(a.job.Incidents, n)
	return n.Says()
}

// settle ends an incident. That a dropped one stays in the machine is dangerous, and must be
// said with open eyes and a reason.
func (a *applier) settle() fact.Fact {
	c := &a.change
	i := slices.IndexFunc(a.job.Incidents, func(n Incident) bool { return strconv.Itoa(n.ID) == c.Value && n.Ended == "" })
	switch {
	case i < 0:
		return a.refuse("/value", fact.Of(NoSuchNumber, fact.Typed(c.Value)))
	case c.Incident == nil || !slices.Contains(Ended("").Values(), string(c.Incident.Ended)):
		return a.refuse("/incident/ended", fact.Of(HowItEnded))
	}
	n, how := &a.job.Incidents[i], c.Incident.Ended
	if n.Kind == Dropped && how != FoundAgain {
		switch {
		case c.Text == "":
			return a.refuse("/text", fact.Of(NoReasonLeft))
		case !c.Sure:
			return a.refuse("/sure", fact.Of(Dangerous, n.Says(), fact.Of(workorder.DangerLoose)))
		}
	}
	n.Ended, n.Reason, n.EndedBy, n.EndedAt = how, c.Text, a.by.By, a.by.At
	return fact.Of(map[Ended]fact.Code{FoundAgain: ScrewFound, Replaced: ScrewReplaced, Agreed: ScrewAgreed}[how], n.Says())
}

// differs notes that the machine is other than its sheet.
func (a *applier) differs() fact.Fact {
	in := a.change.Differs
	switch {
	case in == nil || in.Text == "" && in.Is == nil && !in.Gone:
		return a.refuse("/differs", fact.Of(WhatDiffers))
	case len(a.job.Differs) >= mostHappened:
		return a.refuse("/differs", fact.Of(TooMany, mostHappened))
	case in.Gone && a.job.Sheet.Layer(in.Layer) == nil:
		return a.refuse("/differs/layer", fact.Of(NoSuchLayer, fact.Typed(in.Layer)))
	case in.Is != nil && in.Layer != "" && in.Is.ID != in.Layer:
		return a.refuse("/differs/is/id", fact.Of(OtherLayer, fact.Typed(in.Layer)))
	}
	d := *in
	d.ID, d.Taken, d.By, d.At = nextID(a.job.Differs, func(d *Difference) int { return d.ID }), false, a.by.By, a.by.At
	if next := a.job.Sheet; d.Is != nil || d.Gone { // it must make a sheet
		d.Teach(&next)
		if l := next.Validate(); len(l) > 0 {
			return a.refuse("/differs", fact.Of(NoSheetSo, l[0].Fact))
		}
	}
	a.job.Differs = append(a.job.Differs, d)
	return d.Says(&a.job)
}

// Says is a difference as a fact.
func (d *Difference) Says(j *Job) fact.Fact {
	name := fact.Typed(d.Layer)
	if l := j.Sheet.Layer(d.Layer); l != nil {
		name = fact.Typed(l.Name)
	} else if d.Is != nil {
		name = fact.Typed(d.Is.Name)
	}
	switch {
	case d.Gone:
		return fact.Of(LayerGone, name)
	case d.Is != nil && j.Sheet.Layer(d.Is.ID) == nil:
		return fact.Of(LayerMore, name)
	case d.Is != nil:
		return fact.Of(LayerOther, name)
	}
	return fact.Of(DiffersSo, fact.Typed(d.Text))
}

// unwritten is the cover of a sheet that says of no layer.
const unwritten layer.ID = "cover"

// Teach writes a difference into a sheet; false where that has no such layer, or the
// difference is a note in words.
func (d *Difference) Teach(sheet *machine.Sheet) bool {
	layers := slices.Clone(sheet.Layers)
	id := d.Layer
	if d.Is != nil {
		id = d.Is.ID
	}
	i := slices.IndexFunc(layers, func(l layer.Layer) bool { return l.ID == id })
	switch {
	case d.Gone && i < 0, d.Is == nil && !d.Gone:
		return false
	case d.Gone: // and nothing waits for it any more
		layers = slices.Delete(layers, i, i+1)
		for k := range layers {
			l := layers[k].Clone()
			is := func(x layer.ID) bool { return x == id }
			l.After = slices.DeleteFunc(l.After, is)
			for n := range l.Leads {
				l.Leads[n].Under = slices.DeleteFunc(slices.Clone(l.Leads[n].Under), is)
			}
			layers[k] = l
		}
	case i < 0:
		is := d.Is.Clone()
		if len(layers) == 0 && is.Kind != layer.Cover { // what nobody wrote down is there all the same
			layers = append(layers, layer.Layer{ID: unwritten, Name: "cover", Kind: layer.Cover, All: true, Typical: true})
			is.After = append(is.After, unwritten)
		}
		layers = append(layers, is)
	default:
		layers[i] = d.Is.Clone()
	}
	sheet.Layers = layers
	return true
}

// toSheet writes a difference into the job's sheet, and with that into the rest of the order.
func (a *applier) toSheet() fact.Fact {
	i := slices.IndexFunc(a.job.Differs, func(d Difference) bool { return strconv.Itoa(d.ID) == a.change.Value && !d.Taken })
	if i < 0 {
		return a.refuse("/value", fact.Of(NoSuchNumber, fact.Typed(a.change.Value)))
	}
	d := &a.job.Differs[i]
	says := d.Says(&a.job)
	if !d.Teach(&a.job.Sheet) {
		return a.refuse("/value", fact.Of(OnlyWords))
	}
	d.Taken = true
	return fact.Of(TakenIntoSheet, says)
}

// stuck keeps what does not go.
func (a *applier) stuck() fact.Fact {
	in := a.change.Stuck
	switch {
	case in == nil || in.Layer == "" && in.Item == "":
		return a.refuse("/stuck", fact.Of(WhatIsStuck))
	case len(a.job.Stuck) >= mostHappened:
		return a.refuse("/stuck", fact.Of(TooMany, mostHappened))
	case in.Layer == "" && a.job.Item(in.Item) == nil:
		return a.refuse("/stuck/item", fact.Of(NoItemIsNamed, in.Item))
	case in.Layer == "" && (in.Socket.IsZero() || a.job.Planned.Where(in.Item) != in.Socket && a.job.Found.Where(in.Item) != in.Socket):
		return a.refuse("/stuck/socket", fact.Of(NotPlannedThere, in.Item, in.Socket))
	case in.Layer != "" && !slices.ContainsFunc(a.job.Order(), func(s workorder.Step) bool { return s.Layer == in.Layer }):
		return a.refuse("/stuck/layer", fact.Of(NoSuchLayer, fact.Typed(in.Layer)))
	}
	s := *in
	if s.Layer != "" {
		s.Item, s.Socket = "", rig.Path{}
	}
	s.ID, s.By, s.At = nextID(a.job.Stuck, func(s *Stuck) int { return s.ID }), a.by.By, a.by.At
	a.job.Stuck = append(a.job.Stuck, s)
	return s.Says(&a.job)
}

// Says is what does not go as a fact.
func (s *Stuck) Says(j *Job) fact.Fact {
	switch {
	case s.Layer != "":
		return fact.Of(LayerStuck, s.Layer)
	case j.Found.Where(s.Item) == s.Socket:
		return fact.Of(PieceHeld, s.Item, s.Socket)
	}
	return fact.Of(PieceStuck, s.Item, s.Socket)
}

// stuckBlocks is what was tried and does not go, and is still planned so.
func (j *Job) stuckBlocks() []Block {
	var out []Block
	for i := range j.Stuck {
		if s := &j.Stuck[i]; s.Item != "" && (j.Planned.Where(s.Item) == s.Socket) != (j.Found.Where(s.Item) == s.Socket) {
			out = append(out, Block{Says: s.Says(j)})
		}
	}
	return out
}

// stands is where the work stands, for a colleague who goes on with it.
func stands(v *View) []fact.Fact {
	if len(v.Order) == 0 {
		return []fact.Fact{}
	}
	out := []fact.Fact{fact.Of(StepsAreDone, v.Status.Done, fact.Count{N: v.Status.Steps, Of: Steps})}
	if last := v.Job.lastTick(); last != nil {
		for i := range v.Order {
			if v.Order[i].ID == last.Step {
				out = append(out, fact.Of(LastDone, v.Order[i].Do, fact.Typed(last.By)))
			}
		}
	}
	for i := range v.Off {
		s := &v.Off[i]
		out = append(out, fact.Of(IsOff, s.Names))
	}
	for i := range v.Tray {
		if c := &v.Tray[i]; c.Laid(v.Job.Did) {
			out = append(out, fact.Of(InTray, c.N, c.Fastener, c.Of))
		}
	}
	for i := range v.Job.Incidents {
		if n := &v.Job.Incidents[i]; n.Ended == "" {
			out = append(out, n.Says())
		}
	}
	return append(out, fact.Of(NextIs, v.Status.Waits))
}

// lastTick is what was done last, nil for nothing.
func (j *Job) lastTick() *Tick {
	for i := len(j.Done) - 1; i >= 0; i-- {
		if !j.Done[i].Over {
			return &j.Done[i]
		}
	}
	return nil
}

// agreed is the losses that somebody accepted knowingly, each with who.
func (j *Job) agreed() []fact.Fact {
	if len(j.Accepted) == 0 {
		return nil
	}
	r := j.PlannedRig()
	a := fit.Resolve(&r)
	var out []fact.Fact
	for i := range a.Findings {
		if by := j.AcceptedAs(&a.Findings[i]); by != nil {
			out = append(out, fact.Of(workorder.AgreedBy, a.Findings[i].Says, fact.Typed(by.By)))
		}
	}
	return out
}
