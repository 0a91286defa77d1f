package job

// This file keeps the record of what hands did and what was said, and asks the law of data. The law
// itself is in the room data: nothing here decides how many copies an act needs.

import (
	"slices"
	"strings"

	"deepbay/internal/core/data"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
)

// mostEvents is how many events a record keeps before it lets go of those without an effect.
const mostEvents = 4000

// begin is the state of the owner's data before anybody laid hands on the machine.
func (j *Job) begin(record data.Record) *data.State {
	first := j.first()
	drives := j.drives()
	list, others := make([]data.Drive, len(drives)), map[rig.ItemID]rig.Path{}
	for i, it := range drives {
		list[i] = data.Drive{ID: it.ID, Holds: it.Holds, At: first.Where(it.ID)}
	}
	for _, p := range first.Placements {
		if !slices.ContainsFunc(drives, func(it *Item) bool { return it.ID == p.Item }) {
			others[p.Item] = p.Socket
		}
	}
	var groups []data.Group
	for i := range j.Arrays {
		if j.Arrays[i].Came {
			groups = append(groups, j.Arrays[i].Members)
		}
	}
	var pairs []data.Pair
	for i := range j.Transfers {
		if t := &j.Transfers[i]; t.Proof == nil {
			pairs = append(pairs, data.Pair{N: t.ID, From: t.From, To: t.To})
		}
	}
	return data.Begin(list, others, groups, pairs, j.Wish.BackedUp != "", record)
}

// State is where every drive is and what lies on it by what hands did, not by what is planned.
func (j *Job) State() *data.State {
	record := j.record()
	s := j.begin(record)
	s.Fold(record)
	return s
}

// record is what hands did. A job of before there were records has it in its ticks.
func (j *Job) record() data.Record {
	if len(j.Hands) > 0 {
		return j.Hands
	}
	var out data.Record
	add := func(t *Tick, effects []data.Act) {
		out = append(out, data.Event{N: out.Next(), Step: t.Step, Effects: effects, By: t.By, At: t.At})
	}
	for _, s := range j.Stages() {
		if len(s.Done) == 0 {
			continue
		}
		order := s.raw().Steps
		for i := range s.Done {
			t := &s.Done[i]
			if t.Reason != "" {
				continue
			}
			effects := placed(t)
			if n := slices.IndexFunc(order, func(x workorder.Step) bool { return x.ID == t.Step }); n >= 0 {
				effects = order[n].Effects
			}
			add(t, effects)
		}
	}
	for i := range j.Transfers {
		if t := &j.Transfers[i]; t.Proof != nil {
			out = append(out, data.Event{N: out.Next(), Step: string(DoProve), Effects: []data.Act{{What: data.Proves, Item: t.To, From: t.From, Pair: t.ID}}, By: t.Proof.By, At: t.Proof.At})
		}
	}
	for i := range j.Wiped {
		w := &j.Wiped[i]
		out = append(out, data.Event{N: out.Next(), Step: wipeEvent(w.Item), Effects: []data.Act{
			{What: data.Says, Item: w.Item, Was: w.Held, Now: w.Held}, {What: data.Leaves, Item: w.Item}}, By: w.By, At: w.At})
	}
	return out
}

// placed is where a tick put a part, or that it took it out, of a step that is in no order any more.
func placed(t *Tick) []data.Act {
	switch {
	case t.Item == "":
	case t.Phase == workorder.Fit:
		return []data.Act{{What: data.Puts, Item: t.Item, At: t.Socket}}
	case t.Phase == workorder.TakeOut:
		return []data.Act{{What: data.Takes, Item: t.Item}}
	}
	return nil
}

// note adds an event to the record.
func (j *Job) note(e data.Event, by Stamp) {
	e.N, e.By, e.At = j.Hands.Next(), by.By, by.At
	if len(j.Hands) >= mostEvents {
		j.Hands = slices.DeleteFunc(slices.Clone(j.Hands), func(x data.Event) bool { return len(x.Effects) == 0 && x.Voids == 0 })
	}
	j.Hands = append(slices.Clip(j.Hands), e)
}

// void says that the newest event of a step did not happen.
func (j *Job) void(step string, by Stamp) {
	if last := j.Hands.Last(step); last != nil {
		j.note(data.Event{Step: step, Voids: last.N}, by)
	}
}

// deed does what a change says that hands did, unless the law stands against it.
func (a *applier) deed(pointer, name string, effects ...data.Act) bool {
	s := a.job.State()
	if b := s.Do(effects); len(b) > 0 {
		a.refuse(pointer, a.job.Says(b[0]))
		return false
	}
	a.job.note(data.Event{Step: name, Effects: effects}, a.by)
	return true
}

// said notes what a change says of drives that were there before it: their cards, and that they are
// no part of the job any more.
func said(old, now *Job, by Stamp) {
	var effects []data.Act
	for _, it := range old.drives() {
		next := now.Item(it.ID)
		switch {
		case next == nil:
			effects = append(effects, data.Act{What: data.Says, Item: it.ID, Was: it.Holds, Now: it.Holds}, data.Act{What: data.Removed, Item: it.ID})
		case next.Holds != it.Holds:
			effects = append(effects, data.Act{What: data.Says, Item: it.ID, Was: it.Holds, Now: next.Holds, Pair: old.leaving(it.ID)})
		}
	}
	if len(effects) > 0 {
		now.note(data.Event{Step: "said", Effects: effects}, by)
	}
}

// leaving is the number of a transfer from a drive that is not proved, 0 for none.
func (j *Job) leaving(id rig.ItemID) int {
	for i := range j.Transfers {
		if t := &j.Transfers[i]; t.From == id && t.Proof == nil {
			return t.ID
		}
	}
	return 0
}

// Says is a breach of the law as a fact, with what to do about it.
func (j *Job) Says(b data.Breach) fact.Fact {
	switch b.Why {
	case data.NotHere:
		return fact.Of(LawNotHere, b.Item)
	case data.IsInside:
		return fact.Of(LawIsInside, b.Item)
	case data.Waits:
		return fact.Of(LawWaits, b.Of, b.To)
	case data.OneCopy:
		return fact.Of(LawOneCopy, b.Of)
	}
	if it := j.Item(b.Of); b.Of == b.Item && it != nil && it.Holds == "" {
		return fact.Of(LawUnlooked, b.Item)
	}
	return fact.Of(LawNoCopy, b.Item, b.Of)
}

// hold goes through the steps that remain as hands would, asks for what tells each target from the
// others that run by then, and holds back what the law stands against: never what would cure it.
func (j *Job) hold(steps []workorder.Step) {
	if !slices.ContainsFunc(steps, func(s workorder.Step) bool { return s.Erases() }) {
		return
	}
	j.rest(j.State(), steps)
}

// breach is an act of an order that the law stands against.
type breach struct {
	step string
	data.Breach
}

// rest is hold from a state on, and what it held back.
func (j *Job) rest(s *data.State, steps []workorder.Step) []breach {
	var out []breach
	for i := range steps {
		x := &steps[i]
		if x.Erases() {
			x.Asks = j.asks(s, x)
			x.Confirm = nil
			for _, a := range x.Asks {
				if !slices.Contains(x.Confirm, a.Word) {
					x.Confirm = append(x.Confirm, a.Word)
				}
			}
		}
		if j.answered(x) || len(x.Effects) == 0 {
			continue
		}
		if b := s.Do(x.Effects); len(b) > 0 && x.Erases() {
			x.Held = j.Says(b[0])
			for _, one := range b {
				if it := j.Item(one.Of); one.Why == data.NoCopy && it != nil && it.Holds == "" && !slices.Contains(x.Look, one.Of) {
					x.Look = append(x.Look, one.Of)
				}
				out = append(out, breach{x.ID, one})
			}
		}
	}
	return out
}

// breaches is what the law stands against in all that is planned, this stage and those to come.
func (j *Job) breaches() []breach {
	s := j.State()
	out := j.rest(s, j.raw().Steps)
	for n := range j.Later {
		ahead, _ := j.Ahead(n + 1)
		out = append(out, ahead.rest(s, ahead.raw().Steps)...)
	}
	return out
}

// intends refuses a change of what is planned after which something would be erased that has no copy,
// where that was not so before it.
func (a *applier) intends(old *Job) {
	j, was := &a.job, old.breaches()
	for _, b := range a.job.breaches() {
		if it := j.Item(b.Of); b.Why == data.NotHere || b.Why == data.NoCopy && (it == nil || it.Holds == "") {
			continue // the order waits until it is fitted, or until somebody looked
		}
		if !slices.ContainsFunc(was, func(o breach) bool { return o.step == b.step && o.Why == b.Why && o.Of == b.Of }) {
			a.refuse("/do", a.job.Says(b.Breach))
			return
		}
	}
}

// statements are the changes that say what is so, or what was done. They are never refused for what
// follows from them: the order holds back what must not be done then.
var statements = []Do{DoCorrect, DoAdd, DoRemove, DoSheet, DoNextStage, DoObserve,
	DoLook, DoUnlook, DoRead, DoConfirm, DoForget,
	DoIncident, DoSettle, DoDiffers, DoToSheet, DoStuck, DoUnstuck, DoUntick, DoUnwipe, DoFresh, DoProcessor}

// deeds are what hands did: each is judged where it is made.
var deeds = []Do{DoTick, DoWipe, DoProve, DoFate, DoTest}

// writes reports that something of a job writes over drives.
func writes(j *Job) bool {
	w := &j.Wish
	return len(j.Layouts)+len(j.Transfers)+len(j.Arrays) > 0 ||
		w.Starts.How == rig.Install || w.Starts.How == rig.CopyOver || w.SystemBytes.Known()
}

// asks is what tells each drive that a step erases from all others that run at that moment.
func (j *Job) asks(s *data.State, step *workorder.Step) []workorder.Ask {
	var out []workorder.Ask
	var targets []rig.ItemID
	for _, e := range step.Effects {
		switch e.What {
		case data.Erases, data.Copies, data.Clones:
			targets = append(targets, e.Item)
		}
	}
	others := slices.DeleteFunc(s.Connected(), func(id rig.ItemID) bool { return slices.Contains(targets, id) || j.Item(id) == nil })
	for _, id := range targets {
		it := j.Item(id)
		if it == nil {
			continue
		}
		end, at := volume.Ending(it.Serial), s.Where(id)
		if at.IsZero() {
			at = j.Planned.Where(id)
		}
		switch {
		case end != "" && !slices.ContainsFunc(others, func(o rig.ItemID) bool { return strings.HasSuffix(fact.Fold(j.Item(o).Serial), end) }):
			out = append(out, workorder.Ask{Item: id, By: workorder.BySerial, Word: end})
		case !at.IsZero() && j.sizedApart(id, others):
			out = append(out, workorder.Ask{Item: id, By: workorder.ByPlace, Word: at.String()})
		default:
			out = append(out, workorder.Ask{Item: id, By: workorder.ByTape, Word: tapeOf(j, id)})
		}
	}
	return out
}

// tape is the letter on a piece of tape: A, B and so on, then AA.
func tape(n int) string {
	if n < 26 {
		return string(rune('A' + n))
	}
	return tape(n/26-1) + tape(n%26)
}

// sizedApart reports that a drive is the only one that runs, or the only one of its size.
func (j *Job) sizedApart(id rig.ItemID, others []rig.ItemID) bool {
	size := func(id rig.ItemID) quantity.Bytes {
		if d := j.Part(j.Item(id).Part).Drive; d != nil { // somebody may have corrected it into something else
			return d.CapacityBytes
		}
		return 0
	}
	if len(others) == 0 {
		return true
	}
	return size(id).Known() && !slices.ContainsFunc(others, func(o rig.ItemID) bool { return !size(o).Known() || size(o) == size(id) })
}

// lacks is the first drive that what was typed does not tell from others, "" where it tells them all:
// by the end of a serial number or more of it, the place or the tape that was asked for.
func (j *Job) lacks(s *data.State, step *workorder.Step, text string) rig.ItemID {
	asks := j.asks(s, step)
	others := s.Connected()
	words := typedWords(text)
	for _, ask := range asks {
		told := slices.ContainsFunc(words, func(w string) bool {
			if ask.By != workorder.BySerial {
				return w == fact.Fold(ask.Word)
			}
			serial := fact.Fold(j.Item(ask.Item).Serial)
			return len(w) >= len(ask.Word)-1 && strings.HasSuffix(serial, w) && !slices.ContainsFunc(others, func(o rig.ItemID) bool {
				return j.Item(o) != nil && !slices.ContainsFunc(asks, func(x workorder.Ask) bool { return x.Item == o }) && strings.HasSuffix(fact.Fold(j.Item(o).Serial), w)
			})
		})
		if !told {
			return ask.Item
		}
	}
	return ""
}
