package job

// This file is what somebody at the bench looked up: kept with name and time, true in
// this job, and offered to the shop's sheet or part.

import (
	"slices"
	"strconv"
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Looked is a fact that somebody looked up.
type Looked struct {
	rig.Learned
	By string    `json:"by,omitempty" jsonschema:"maxLength=80"`
	At time.Time `json:"at,omitzero"`
}

func (j *Job) learned() []rig.Learned {
	out := make([]rig.Learned, len(j.Looked))
	for i := range j.Looked {
		out[i] = j.Looked[i].Learned
	}
	return out
}

// look keeps what was looked up, or takes it back.
func (a *applier) look() fact.Fact {
	c := &a.change
	if c.Fact == nil {
		return a.refuse("/fact", fact.Of(WhichFact))
	}
	j := &a.job
	was := slices.IndexFunc(j.Looked, func(l Looked) bool { return l.Fact == *c.Fact })
	if c.Do == DoUnlook {
		if was < 0 {
			return a.refuse("/fact", fact.Of(NotLookedHere))
		}
		says := fact.Of(NotLooked, j.Looked[was].Fact)
		j.Looked = slices.Delete(j.Looked, was, was+1)
		return says
	}
	if was >= 0 {
		j.Looked = slices.Delete(j.Looked, was, was+1)
	}
	l := Looked{rig.Learned{Fact: *c.Fact, Is: c.Value}, a.by.By, a.by.At}
	if bare := j.bare(j.Found); !askable(&a.list, "/fact", "/value", &bare, l.Learned) {
		return fact.Fact{}
	}
	j.Looked = append(j.Looked, l)
	return fact.Of(LookedUp, l.Learned)
}

// askable checks one answer: it is about something here, and it is one that can be.
func askable(l *problem.List, at, value string, r *rig.Rig, a rig.Learned) bool {
	ask, ok := r.HowToAsk(a.Fact)
	switch {
	case !ok:
		l.Add(at, fact.Of(NoSuchFact, rig.Learned{Fact: a.Fact}))
	case !r.CanBe(a):
		l.Add(value, fact.Of(NoAnswer, fact.Typed(a.Is), a.Fact, ask))
	default:
		return true
	}
	return false
}

// dropAnswered drops what was looked up and has no place any more: the sheet says it by now, or
// something lies where nothing lay.
func (j *Job) dropAnswered() {
	if len(j.Looked) == 0 {
		return
	}
	bare := j.bare(j.Found)
	j.Looked = slices.DeleteFunc(slices.Clone(j.Looked), func(l Looked) bool {
		_, ok := bare.HowToAsk(l.Fact)
		return !ok
	})
}

// validateLooked checks what was looked up, and that sheet and parts hold together with it.
func (j *Job) validateLooked(l *problem.List) {
	if len(j.Looked) == 0 {
		return
	}
	bare := j.bare(j.Found)
	for i := range j.Looked {
		at := "/looked/" + strconv.Itoa(i)
		askable(l, at, at+"/is", &bare, j.Looked[i].Learned)
		if slices.ContainsFunc(j.Looked[:i], func(o Looked) bool { return o.Fact == j.Looked[i].Fact }) {
			l.Add(at, fact.Of(LookedTwice, j.Looked[i].Fact))
		}
	}
	if len(*l) > 0 {
		return
	}
	for i := range j.Looked {
		one := bare.Learn([]rig.Learned{j.Looked[i].Learned})
		at := "/looked/" + strconv.Itoa(i) + "/is"
		for _, p := range against(&one) {
			l.Add(at, p.Fact)
		}
	}
}

// against is what makes a sheet and parts contradict themselves.
func against(r *rig.Rig) problem.List {
	out := r.Sheet.Validate()
	for i := range r.Pieces {
		out = append(out, r.Pieces[i].Part.Validate()...)
	}
	return out
}

// forget drops what was looked up of a piece that leaves, or hands it to another of its
// kind, of which it is as true.
func (j *Job) forget(id rig.ItemID, of part.ID) {
	heir := slices.IndexFunc(j.Items, func(it Item) bool { return it.Part == of && it.ID != id })
	for i := range j.Looked {
		if l := &j.Looked[i]; l.Item == id && heir >= 0 {
			l.Item = j.Items[heir].ID
		}
	}
	j.Looked = slices.DeleteFunc(j.Looked, func(l Looked) bool { return l.Item == id })
}

// shown is what screens showed of the machine as found and as planned, as far as all
// still lies as it lay then.
func (j *Job) shown() []rig.Shown {
	var out []rig.Shown
	add := func(readings []power.Reading, under *rig.Setup) {
		for _, x := range readings {
			if !x.Proof || x.Absent {
				continue
			}
			line := rig.Shown{Socket: x.Line.Socket, Under: under}
			switch x.Line.Kind {
			case power.Total:
				line.Bytes = x.Bytes
				out = append(out, j.neededFor(x.Bytes, under)...)
			case power.Rate:
				line.MTps = x.MTps
			case power.Slot, power.Drive:
				line.Item, line.Bytes = under.In(x.Line.Socket), x.Bytes
			case power.LinkOf:
				line.Item, line.Gen, line.Lanes = under.In(x.Line.Socket), x.Gen, x.Lanes
			}
			if line.Item != "" || line.Socket.IsZero() && line.Bytes.Known() || line.MTps.Known() {
				out = append(out, line)
			}
		}
	}
	add(j.Before, &j.Found)
	add(j.Seen, &j.Planned)
	return out
}

// neededFor is the modules without any of which a total could not have been reached: all,
// where their sizes make it up.
func (j *Job) neededFor(total quantity.Bytes, under *rig.Setup) []rig.Shown {
	var out []rig.Shown
	sum := quantity.Bytes(0)
	for _, p := range under.Placements {
		k, it := j.Sheet.Socket(p.Socket.Top()), j.Item(p.Item)
		if it == nil || k == nil || !k.Kind.Memory() {
			continue
		}
		if m := j.Part(it.Part).Module; m != nil {
			sum += m.SizeBytes
			out = append(out, rig.Shown{Item: p.Item, Socket: p.Socket, Under: under})
		}
	}
	if sum != total {
		return nil
	}
	return out
}

// outdate ends what readings prove of a setup that changes.
func outdate(readings []power.Reading) {
	for i := range readings {
		readings[i].Proof = false
	}
}
